import type { Dot } from '../../core/analysis/extractTemplate';
import './pictures.css';
import { words } from '../words/strings';

const WIDTH = 320;
const HEIGHT = 120;

interface DotsProps {
  dots: Dot[];
  slots: number;
  dropped: ReadonlySet<number>;
  onDrop: (note: number) => void;
}

/** The notes that the slots come from; a press drops one, or takes it back. */
export const Dots = ({ dots, slots, dropped, onDrop }: DotsProps) => {
  const x = (dot: Dot) => ((dot.slot + 0.5) / slots) * WIDTH;
  const y = (dot: Dot) => HEIGHT / 2 + dot.offset * HEIGHT;
  return (
    <svg className="dots" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={words.theNotesBySlotLate}>
      <path className="string-line" d={`M0 ${HEIGHT / 2}H${WIDTH}`} />
      {dots.map((dot) => (
        <circle
          key={dot.note}
          className={dropped.has(dot.note) ? 'dropped' : ''}
          cx={x(dot)}
          cy={y(dot)}
          r={2.5 + dot.velocity * 3}
          onClick={() => onDrop(dot.note)}
        />
      ))}
    </svg>
  );
};
