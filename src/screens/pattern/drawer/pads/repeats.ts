import type { Ms, Semitones, Ticks, Velocity } from '../../../../../core/units';

/** What is held repeats on a grid, as hard as it is pressed by then. */

/** What a repeat needs of the page. */
interface RepeatParts {
  now: () => Ms;
  /** Where play stands at a time; null while nothing plays. */
  tickAt: (time: Ms) => Ticks | null;
  /** The distance from one to the next, in ticks, and in ms while nothing plays. */
  every: () => { ticks: Ticks; ms: Ms };
  /** How long before its place a repeat is given: what is taken down is then played by the pattern itself. */
  ahead: () => Ms;
  /** @param tick the place of the repeat; null while nothing plays */
  strike: (note: HeldNote, velocity: Velocity, tick: Ticks | null) => void;
}

/** What can be held: a lane, at a pitch of it. */
export interface HeldNote {
  laneId: string;
  /** In semitones against the lane's own note. */
  pitch: Semitones;
}

interface Held {
  note: HeldNote;
  velocity: Velocity;
  /** The place of the last one, on the grid where play stands on one. */
  last: { tick: Ticks } | { time: Ms };
}

/** A page that stalled does not make up for what it missed. */
const MOST_AT_ONCE = 2;
/** So near to the grid a stroke was meant for it, and the next one comes a whole step later. */
const NEAR = 0.5;

const keyOf = ({ laneId, pitch }: HeldNote): string => `${pitch} ${laneId}`;

/** Repeats what is held. To be looked at often. */
export const createRepeats = ({ now, tickAt, every, ahead, strike }: RepeatParts) => {
  const held = new Map<string, Held>();

  /** Where play stood at the look before. */
  let before: Ticks | null = null;

  const repeat = (one: Held, tick: Ticks | null): void => {
    const { ticks, ms } = every();
    for (let turn = 0; turn < MOST_AT_ONCE; turn++) {
      if (tick !== null) {
        // What was held before play began goes on with it.
        const last = 'tick' in one.last ? one.last.tick : Math.floor(tick / ticks) * ticks;
        // Play went back, or leapt ahead: from where it is now.
        const far = (before !== null && tick < before) || tick - last > MOST_AT_ONCE * ticks;
        one.last = { tick: far ? Math.floor(tick / ticks) * ticks : last };
        if (one.last.tick + ticks > tick) return;
        one.last = { tick: one.last.tick + ticks };
        strike(one.note, one.velocity, one.last.tick);
      } else {
        const last = 'time' in one.last ? one.last.time : now();
        one.last = { time: now() - last > MOST_AT_ONCE * ms ? now() - ms : last };
        if (one.last.time + ms > now()) return;
        one.last = { time: one.last.time + ms };
        strike(one.note, one.velocity, null);
      }
    }
  };

  return {
    /** It was struck, and is held from now on. */
    hold: (note: HeldNote, velocity: Velocity): void => {
      const { ticks } = every();
      const tick = tickAt(now());
      held.set(keyOf(note), {
        note,
        velocity,
        last: tick === null ? { time: now() } : { tick: Math.floor(tick / ticks + NEAR) * ticks },
      });
    },
    /** It is pressed harder or less, all that is held where none is named. */
    press: (note: HeldNote | null, velocity: Velocity): void => {
      for (const [key, one] of held)
        if (note === null || key === keyOf(note))
          one.velocity = Math.min(127, Math.max(1, Math.round(velocity)));
    },
    /** It is let go, or all is. */
    free: (note: HeldNote | null): void => void (note === null ? held.clear() : held.delete(keyOf(note))),
    look: (): void => {
      if (!held.size) return void (before = null);
      const tick = tickAt(now() + ahead());
      for (const one of held.values()) repeat(one, tick);
      before = tick;
    },
  };
};

export type Repeats = ReturnType<typeof createRepeats>;
