import { SWING } from '../../core/document/choices';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Swing } from '../../core/document/feelSchema';
import { gridTicks } from '../../core/document/grid';
import { INSET } from './geometry';
import { figure } from '../ui/figures';
import './pictures.css';
import { words } from '../words/strings';

/** How much an arrow key turns, in percent points. */
const STEP = 0.5;

/** The swing to drag, on the strings themselves: it stands where the second of the first pair sounds. */
export const SwingHandle = ({
  swing,
  onSwing: set,
}: {
  swing: Swing;
  onSwing: (percent: number, gesture: string) => void;
}) => {
  const drag = useRef<{ x: number; percent: number; points: number; gesture: string } | null>(null);
  const pair = 2 * gridTicks(swing.grid);
  const at = INSET + (pair * swing.percent) / 100;

  const begin = (event: PointerEvent<HTMLElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const before = Number.parseFloat(getComputedStyle(event.currentTarget).left);
    const gesture = `hinge ${event.timeStamp}`;
    drag.current = { x: event.clientX, percent: swing.percent, points: before / at, gesture };
  };
  const move = (event: PointerEvent<HTMLElement>) => {
    const now = drag.current;
    if (!now || !now.points) return;
    const moved = ((event.clientX - now.x) / now.points / pair) * 100;
    set(Math.round((now.percent + moved) * 4) / 4, now.gesture);
  };
  const keys = (event: KeyboardEvent<HTMLElement>) => {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    set(swing.percent + way * STEP, `hinge ${event.key}`);
  };

  return (
    <span
      className="hinge"
      role="slider"
      tabIndex={0}
      aria-label={words.swingHinge}
      aria-valuemin={SWING.least}
      aria-valuemax={SWING.most}
      aria-valuenow={swing.percent}
      aria-valuetext={`${figure(swing.percent)} %`}
      style={{ left: `calc(var(--ppt) * ${at})` }}
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={() => (drag.current = null)}
      onPointerCancel={() => (drag.current = null)}
      onKeyDown={keys}
    >
      <i aria-hidden />
    </span>
  );
};
