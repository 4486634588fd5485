import { feelOf } from '../document/defaults';
import { beatTicks } from '../document/meter';
import type { Beat, Pattern } from '../document/schema';
import { sticking } from '../hands/sticking';
import { handStrokes } from './plan';

/** The letters under the hits of a lane's steps, by the step: hands in order of
 * time, those of grace strokes small; of a lane read round and round, of its first time. */
export type HandLetters = ReadonlyMap<number, string>;

/** More letters than this are no help: of a longer roll the first is told. */
const MOST_LETTERS = 4;

/**
 * Which hand plays each hit of a pattern, as it is written under the beads; what feet play has no letter.
 *
 * @returns by the lane's id
 * @example handLetters(beat, pattern).get('snare')!.get(4) // "R"
 */
export const handLetters = (beat: Beat, pattern: Pattern): ReadonlyMap<string, HandLetters> => {
  const strokes = handStrokes(beat, pattern);
  const stuck = sticking(strokes, {
    leftHanded: feelOf(beat, pattern).humanize.leftHanded ?? false,
    beat: beatTicks(pattern.meter),
  });
  const rows = new Map<string, Map<number, { at: number; letter: string }[]>>();
  strokes.forEach(({ lane, step, at, kind, cycle }, place) => {
    const { limb } = stuck[place]!;
    if ((limb !== 'R' && limb !== 'L') || kind === 'echo' || kind === 'spark' || cycle > 0) return;
    const { id } = beat.lanes[lane]!;
    const row = rows.get(id) ?? rows.set(id, new Map()).get(id)!;
    const list = row.get(step) ?? row.set(step, []).get(step)!;
    // Grace strokes of the first step come at the end of the pass before.
    const grace = kind === 'grace';
    list.push({ at: grace ? at - 1e9 : at, letter: grace ? limb.toLowerCase() : limb });
  });
  return new Map(
    [...rows].map(([id, row]) => [
      id,
      new Map(
        [...row].map(([step, list]) => {
          const letters = list.sort((a, b) => a.at - b.at).map(({ letter }) => letter);
          const text = letters.length > MOST_LETTERS ? `${letters[0]}~` : letters.join('');
          return [step, text] as const;
        }),
      ),
    ]),
  );
};
