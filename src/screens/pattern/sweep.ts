import { playedTick, takeHeard } from '../../audio/player';
import { ticksPerMs, type Ticks } from '../../../core/units';

/** How long the line moves before its place is taken from the sound again. */
const GLIDE_MS = 400;
/** How long a bead stays lit. */
const LIT_MS = 110;

/** The first rule stands half a sixteenth from the strings' beginning. */
const INSET: Ticks = 120;

interface SweepParts {
  /** The hairline. */
  line: HTMLElement;
  scroller: HTMLElement;
  /** The pattern's length. */
  length: Ticks;
  /** How much a page shows. */
  page: Ticks;
  /** The tempo now, in BPM. */
  tempo: () => number;
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
export const startSweep = ({ line, scroller, length, page, tempo }: SweepParts): (() => void) => {
  const lit = new Map<Element, number>();
  let frame = 0;
  let shownPage = -1;
  let follow = true;
  const byHand = () => (follow = false);
  scroller.addEventListener('wheel', byHand, { passive: true });
  scroller.addEventListener('touchmove', byHand, { passive: true });

  let glide: Animation | null = null;
  let glidesUntil = 0;
  let last = { tick: 0, left: 0 };

  /** Lets the browser move the line by itself for a while: setting its place in every frame costs a third of the frame. */
  const sweepOn = (tick: Ticks, ticksPerMs: number, now: number) => {
    const left = scroller.scrollLeft;
    const onward = tick >= last.tick && left === last.left && now < glidesUntil;
    last = { tick, left };
    if (onward) return;
    const at = (where: Ticks) => `translateX(${(where + INSET) * points() - left}px)`;
    glide?.cancel();
    glide = line.animate([{ transform: at(tick) }, { transform: at(tick + 2 * GLIDE_MS * ticksPerMs) }], {
      duration: 2 * GLIDE_MS,
      fill: 'forwards',
    });
    glidesUntil = now + GLIDE_MS;
  };

  const points = () => Number(line.dataset['points'] ?? 0);

  const turn = (tick: Ticks) => {
    const now = Math.floor(tick / page);
    if (now === shownPage) return;
    shownPage = now;
    if (follow && length > page) scroller.scrollTo({ left: now * page * points() });
  };

  const show = (now: number) => {
    const played = playedTick();
    line.hidden = played === null;
    if (played !== null) {
      const tick = played % length;
      turn(tick);
      sweepOn(tick, ticksPerMs(tempo()), now);
    }
    light(lit, now);
    frame = requestAnimationFrame(show);
  };
  frame = requestAnimationFrame(show);

  return () => {
    cancelAnimationFrame(frame);
    glide?.cancel();
    scroller.removeEventListener('wheel', byHand);
    scroller.removeEventListener('touchmove', byHand);
    line.hidden = true;
    for (const cell of lit.keys()) cell.classList.remove('lit');
  };
};
