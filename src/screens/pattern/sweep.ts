import { playedTick, takeHeard } from '../../audio/player';
import type { Ticks } from '../../../core/units';

/** How long a bead stays lit. */
const LIT_MS = 110;

interface SweepParts {
  /** The hairline. */
  line: HTMLElement;
  scroller: HTMLElement;
  /** The pattern's length. */
  length: Ticks;
  /** How much a page shows. */
  page: Ticks;
}

/** Lights what has just been heard; put out again after a moment. */
const light = (lit: Map<Element, number>, now: number): void => {
  for (const note of takeHeard()) {
    const cell = document.getElementById(`step-${note.lane}-${note.step}`);
    if (!cell) continue;
    cell.classList.add('lit');
    lit.set(cell, now + LIT_MS);
  }
  for (const [cell, until] of lit) {
    if (until > now) continue;
    cell.classList.remove('lit');
    lit.delete(cell);
  }
};

/**
 * Moves the hairline with the sound until it is told to stop. The page follows the position until a hand scrolls it.
 *
 * @returns stops it
 */
export const startSweep = ({ line, scroller, length, page }: SweepParts): (() => void) => {
  const lit = new Map<Element, number>();
  let frame = 0;
  let shownPage = -1;
  let follow = true;
  const byHand = () => (follow = false);
  scroller.addEventListener('wheel', byHand, { passive: true });
  scroller.addEventListener('touchmove', byHand, { passive: true });

  const turn = (tick: Ticks) => {
    const now = Math.floor(tick / page);
    if (now === shownPage) return;
    shownPage = now;
    const pixels = Number(line.dataset['points'] ?? 0);
    if (follow && length > page) scroller.scrollTo({ left: now * page * pixels });
  };

  const show = (now: number) => {
    const played = playedTick();
    line.hidden = played === null;
    if (played !== null) {
      const tick = played % length;
      line.style.setProperty('--at', String(Math.round(tick * 10) / 10));
      turn(tick);
    }
    light(lit, now);
    frame = requestAnimationFrame(show);
  };
  frame = requestAnimationFrame(show);

  return () => {
    cancelAnimationFrame(frame);
    scroller.removeEventListener('wheel', byHand);
    scroller.removeEventListener('touchmove', byHand);
    line.hidden = true;
    for (const cell of lit.keys()) cell.classList.remove('lit');
  };
};
