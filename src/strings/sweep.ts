import { msToNextHeard, playedPattern, playedTick, takeHeard } from '../audio/player';
import { ticksPerMs, type Ticks } from '../../core/units';
import { INSET } from './geometry';
import type { Board } from './board';

/** How long the line moves before its place is taken from the sound again. */
const GLIDE_MS = 400;
/** How long a bead stays lit. */
const LIT_MS = 110;
/** How long it waits for the sound to begin, and for anything to happen at all. */
const SOON_MS = 16;
const IDLE_MS = 60;

interface SweepParts {
  /** The hairline. */
  line: HTMLElement;
  scroller: HTMLElement;
  board: Board;
  patternId: string;
  /** The pattern's length. */
  length: Ticks;
  /** How much a page shows. */
  page: Ticks;
  /** The tempo now, in BPM. */
  tempo: () => number;
  /** Where the lanes stand that keep a time of their own; null where there are none. */
  places: (tick: Ticks) => { lane: number; step: number }[] | null;
}

/** A step that is lit, and until when. */
interface Lit {
  lane: number;
  step: number;
  until: number;
}

/** Lights what has just been heard; put out again after a moment. */
const light = (board: Board, lit: Map<string, Lit>, now: number, shown: boolean): void => {
  const heard = takeHeard();
  for (const { lane, step } of shown ? heard : []) {
    lit.set(`${lane} ${step}`, { lane, step, until: now + LIT_MS });
    board.light(lane, step, true);
  }
  for (const [key, { lane, step, until }] of lit) {
    if (until > now) continue;
    board.light(lane, step, false);
    lit.delete(key);
  }
  board.paint();
};

interface Line {
  /** Puts the line where the sound is and lets it glide on from there. */
  put(tick: Ticks, ticksPerMs: number): void;
  stop(): void;
}

/** The browser moves the line by itself for a while: setting its place in every frame costs a third of the frame. */
const createLine = (line: HTMLElement, points: () => number, scrolled: () => number): Line => {
  let glide: Animation | null = null;
  return {
    put: (tick, ticksPerMs) => {
      const at = (where: Ticks) => `translateX(${(where + INSET) * points() - scrolled()}px)`;
      const before = glide;
      glide = line.animate([{ transform: at(tick) }, { transform: at(tick + 2 * GLIDE_MS * ticksPerMs) }], {
        duration: 2 * GLIDE_MS,
        fill: 'forwards',
      });
      before?.cancel();
      line.hidden = false;
    },
    stop: () => {
      glide?.cancel();
      line.hidden = true;
    },
  };
};

/**
 * Moves the hairline with the sound and lights what is heard, until it is told to stop. The page follows the position
 * until a hand scrolls it. It wakes for what is heard and not for every frame: a frame in which nothing is to be done
 * costs the page as much as one in which something is.
 *
 * @returns stops it
 */
export const startSweep = ({
  line,
  scroller,
  board,
  patternId,
  length,
  page,
  tempo,
  places,
}: SweepParts): (() => void) => {
  const lit = new Map<string, Lit>();
  const points = () => Number(line.dataset['points'] ?? 0);
  let left = scroller.scrollLeft;
  let shownPage = -1;
  let follow = true;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let glidesUntil = 0;
  let lastTick = -1;
  let stood: { lane: number }[] = [];
  const isHeard = () => playedPattern() === patternId;
  const hairline = createLine(line, points, () => left);

  const turn = (tick: Ticks) => {
    const now = Math.floor(tick / page);
    if (now === shownPage) return;
    shownPage = now;
    if (follow && length > page) scroller.scrollTo({ left: now * page * points() });
  };

  const msToEdge = (tick: Ticks) => (page - (tick % page)) / ticksPerMs(tempo());

  /** Shows where the sound is; returns after how many ms it must be looked at again. */
  const sweep = (now: number): number => {
    const played = playedTick();
    if (played === null || played < 0) return SOON_MS;
    if (!isHeard()) {
      // Another pattern is still heard; this one waits for its turn.
      hairline.stop();
      glidesUntil = 0;
      return SOON_MS;
    }
    const own = places(played);
    for (const { lane, step } of own ?? []) board.stand(lane, step);
    stood = own ?? stood;
    const tick = played % length;
    turn(tick);
    if (now >= glidesUntil || tick < lastTick) {
      hairline.put(tick, ticksPerMs(tempo()));
      glidesUntil = now + GLIDE_MS;
    }
    lastTick = tick;
    return Math.min(glidesUntil - now, msToEdge(tick) + 1, own ? IDLE_MS : Infinity);
  };

  const wake = () => {
    clearTimeout(timer);
    const now = performance.now();
    const again = sweep(now);
    light(board, lit, now, isHeard());
    const out = Math.min(...[...lit.values()].map(({ until }) => until - now));
    timer = setTimeout(wake, Math.max(1, Math.min(again, out, msToNextHeard() ?? IDLE_MS, IDLE_MS)));
  };
  const byHand = () => (follow = false);
  const scrolled = () => {
    left = scroller.scrollLeft;
    glidesUntil = 0;
    wake();
  };
  scroller.addEventListener('wheel', byHand, { passive: true });
  scroller.addEventListener('touchmove', byHand, { passive: true });
  scroller.addEventListener('scroll', scrolled, { passive: true });
  wake();

  return () => {
    clearTimeout(timer);
    scroller.removeEventListener('wheel', byHand);
    scroller.removeEventListener('touchmove', byHand);
    scroller.removeEventListener('scroll', scrolled);
    hairline.stop();
    for (const { lane } of stood) board.stand(lane, null);
    light(board, lit, Infinity, false);
  };
};
