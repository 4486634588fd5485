import type { Ms, Seconds } from '../../core/units';

/** What is read of an audio context. */
export type ReadClock = Pick<AudioContext, 'currentTime' | 'outputLatency' | 'baseLatency'> & {
  getOutputTimestamp?: () => AudioTimestamp;
};

/** So many readings are set against each other: one alone scatters by the size of an audio buffer. */
const READINGS = 31;

/** A jump as large as this is no scatter: the sound was interrupted, and the clocks stand anew. */
const JUMP_MS = 60;

/** So many readings in a row that agree to a millisecond are no scatter either: a buffer was dropped. */
const AGREEING = 5;
const AGREE_MS = 1;

/** Whether the last readings agree with one another, and not with what was held so far. */
const standsAnew = (offsets: Ms[]): boolean => {
  const last = offsets.slice(-AGREEING);
  return (
    last.length === AGREEING &&
    Math.max(...last) - Math.min(...last) < AGREE_MS &&
    Math.abs(middle(last) - middle(offsets)) > AGREE_MS
  );
};

const middle = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

/** How far the page's clock stands ahead of what is heard of the audio clock, in ms, by one reading. */
const reading = (context: ReadClock, now: Ms): Ms => {
  const { contextTime, performanceTime } = context.getOutputTimestamp?.() ?? {};
  // Before the first buffer has sounded, both are 0.
  if (contextTime && performanceTime) return performanceTime - contextTime * 1000;
  return now - (context.currentTime - (context.outputLatency || context.baseLatency || 0)) * 1000;
};

/**
 * The audio clock as it is heard, against the page's clock: the median of its last readings.
 *
 * @example newClock().heardAt(context, event.timeStamp) // the second of the audio clock that was heard at an event
 */
export const newClock = () => {
  let offsets: Ms[] = [];
  /** Takes a reading; to be called now and then while it plays. */
  const read = (context: ReadClock, now: Ms = performance.now()): void => {
    const offset = reading(context, now);
    if (offsets.length && Math.abs(offset - middle(offsets)) > JUMP_MS) offsets = [];
    offsets = [...offsets.slice(1 - READINGS), offset];
    if (standsAnew(offsets)) offsets = offsets.slice(-AGREEING);
  };
  return {
    read,
    /** When a second of the audio clock is heard, in ms of the page's clock. */
    timeOf: (context: ReadClock, seconds: Seconds): Ms => {
      if (!offsets.length) read(context);
      return seconds * 1000 + middle(offsets);
    },
    /** @param time in ms of the page's clock */
    heardAt: (context: ReadClock, time: Ms): Seconds => {
      read(context);
      return (time - middle(offsets)) / 1000;
    },
  };
};
