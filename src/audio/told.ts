import type { ToWorker } from './messages';

/** What a worker that takes another one's place has to be told: what plays, what waits for its turn, and the click. */
export interface Told {
  beat: Extract<ToWorker, { type: 'beat' }> | null;
  next: Extract<ToWorker, { type: 'switch' }> | null;
  metronome: Extract<ToWorker, { type: 'metronome' }> | null;
}

export const NOTHING_TOLD: Told = { beat: null, next: null, metronome: null };

/** The pattern that waits plays: its turn has come, or play ended before it did. */
export const turned = (told: Told): Told => {
  const { next } = told;
  if (!next) return told;
  return { ...told, beat: { type: 'beat', beat: next.beat, patternId: next.patternId }, next: null };
};

/**
 * What has to be told after a word more.
 *
 * @param playing whether something plays: only then does a pattern wait for its turn
 * @param heard the pattern that is heard by now
 */
export const afterWord = (before: Told, word: ToWorker, playing: boolean, heard: string | null): Told => {
  if (word.type === 'metronome') return { ...before, metronome: word };
  if (word.type === 'stop') return turned(before);
  if (word.type !== 'beat' && word.type !== 'switch') return before;
  const told = before.next?.patternId === heard ? turned(before) : before;
  if (word.type === 'switch') return playing ? { ...told, next: word } : turned({ ...told, next: word });
  // What is handed over while another pattern waits for its turn is that other one.
  if (told.next?.patternId === word.patternId) return { ...told, next: { ...told.next, beat: word.beat } };
  return { ...told, beat: word, next: null };
};
