import type { HandLetters } from '../../core/play/handLetters';
import type { Cell } from './drawing';
import { INSET } from './geometry';
import { words } from '../words/strings';

const ticks = (value: number): string => `calc(var(--ppt) * ${Math.round(value * 100) / 100})`;

/**
 * One step for the hand, the keys and the ear; its beads are painted under it. A function that gives an element and not
 * a component: there are hundreds of steps, and a component each costs more than the element.
 *
 * @param own what its ids begin with where several pages have strings
 * @param letters which hand plays each step, where that is shown
 */
export const stepCell = (
  cell: Cell,
  laneIndex: number,
  laneName: string,
  first: boolean,
  own = '',
  letters?: HandLetters,
) => {
  const on = cell.velocity > 0;
  const hand = on ? /[RL]/.exec(letters?.get(cell.step) ?? '')?.[0] : undefined;
  return (
    <span
      key={cell.step}
      role="checkbox"
      id={`${own}step-${laneIndex}-${cell.step}`}
      className="step"
      aria-checked={on}
      aria-label={words.laneNameStepStep(laneName, cell.step + 1)}
      aria-describedby={
        on ? `${own}velocity-${cell.velocity}${hand ? ` ${own}hand-${hand}` : ''}` : undefined
      }
      tabIndex={-1}
      data-step={cell.step}
      style={{
        width: ticks(cell.right - cell.left),
        marginLeft: first ? ticks(cell.left + INSET) : undefined,
      }}
    />
  );
};
