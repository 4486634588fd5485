import type { Beat } from '../../core/document/schema';
import { beatWith, type LogEntry } from './entry';

/** A beat after edits that were written behind its text, and those that cannot be done or leave nothing that can be read. */
export interface ReadBackSound<T> {
  beat: Beat;
  left: T[];
}

/** What an edit is called where it has to be named. @example nameOfEntry({ type: 'doc/tempoSet' }) // "tempo set" */
export const nameOfEntry = ({ type, payload }: LogEntry): string => {
  const { edit } = (payload ?? {}) as { edit?: { edit?: unknown } };
  const name = typeof edit?.edit === 'string' ? edit.edit : type.slice(type.indexOf('/') + 1);
  return name.replace(/([a-z])([A-Z])/g, (_, end: string, next: string) => `${end} ${next.toLowerCase()}`);
};

/**
 * Does edits one after the other and leaves out those after which the beat could not be read again: one slip does not cost
 * what was done before and after it.
 *
 * @param reads whether a beat can be read again once it is written
 */
export const soundBeat = <T>(
  beat: Beat,
  edits: readonly T[],
  entryOf: (edit: T) => LogEntry,
  reads: (beat: Beat) => boolean,
): ReadBackSound<T> => {
  const made = (all: readonly T[]): Beat | null => {
    try {
      const one = beatWith(beat, all.map(entryOf));
      return reads(one) ? one : null;
    } catch {
      return null;
    }
  };
  let kept = [...edits];
  const left: T[] = [];
  for (;;) {
    const whole = made(kept);
    if (whole || !kept.length) return { beat: whole ?? beat, left };
    // The first of them that spoils it, looked for by halves: what is spoilt mostly stays so.
    let [sound, spoilt] = [0, kept.length];
    while (spoilt - sound > 1) {
      const middle = (sound + spoilt) >> 1;
      if (made(kept.slice(0, middle))) sound = middle;
      else spoilt = middle;
    }
    left.push(kept[sound]!);
    kept = kept.filter((_, at) => at !== sound);
  }
};
