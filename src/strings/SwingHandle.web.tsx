import { SWING } from '../../core/document/choices';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Swing } from '../../core/document/feelSchema';
import { gridTicks } from '../../core/document/grid';
import { SWING_MARKS } from '../../core/feel/swing';
import { INSET } from './geometry';
import { figure } from '../ui/figures';
import './pictures.css';
import { words } from '../words/strings';

/** How much an arrow key turns, in percent points. */
const STEP = 0.5;

/** Under a finger the whole range takes at least so many points to drag: a bar on a phone leaves it some ten. */
const FINE_POINTS = 150;
/** So near a mark it stays on it, in percent points. */
const SNAP = 0.3;
const RANGE = SWING.most - SWING.least;

/**
 * Where a drag of so many points takes the swing.
 *
 * @param points how many the pair that is swung takes on the strings
 * @example draggedSwing(50, 30, 60) // 57.14
 */
export const draggedSwing = (percent: number, moved: number, points: number): number => {
  const whole = (points * RANGE) / 100;
  const gain = Math.min(1, whole / FINE_POINTS);
  const to = percent + (moved / points) * 100 * gain;
  const mark = SWING_MARKS.find((one) => Math.abs(one.percent - to) < SNAP);
  return mark ? mark.percent : Math.round(to * 4) / 4;
};

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
    set(draggedSwing(now.percent, event.clientX - now.x, now.points * pair), now.gesture);
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
