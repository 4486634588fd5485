import type { Beat, Lane } from '../document/schema';
import { hiddenHits } from './seen';

/** Side effects of an edit that nobody would see. */
export interface ComesAlong {
  /** How many hits lie beyond the end of their lane now, which were played before. */
  hidden: number;
  /** Pairs of lanes that have one note on one channel now: outside they are one drum. */
  alike: [Lane, Lane][];
  /** Keys that one pattern lost, since another one has them. */
  keys: { code: string; lost: string; has: string }[];
}

const hiddenIn = (beat: Beat, before: Beat): number =>
  before.patterns.reduce((sum, was) => {
    const now = beat.patterns.find(({ id }) => id === was.id);
    if (!now || now === was) return sum;
    const lanes = beat.lanes.map(({ id }) => hiddenHits(now, id) - hiddenHits(was, id));
    return sum + lanes.reduce((all, more) => all + Math.max(0, more), 0);
  }, 0);

const goesWhere = ({ note, channel }: Lane): number => channel * 128 + note;

const alikeIn = ({ lanes }: Beat, before: Beat): [Lane, Lane][] => {
  if (lanes === before.lanes) return [];
  const was = new Map(before.lanes.map((lane) => [lane.id, goesWhere(lane)]));
  return lanes.flatMap((lane, at) =>
    lanes
      .slice(0, at)
      .filter((one) => {
        const here = goesWhere(lane);
        const alikeBefore = was.has(one.id) && was.get(one.id) === was.get(lane.id);
        return goesWhere(one) === here && !alikeBefore;
      })
      .map((one): [Lane, Lane] => [one, lane]),
  );
};

const keysIn = ({ patterns }: Beat, before: Beat): ComesAlong['keys'] =>
  before.patterns.flatMap(({ id, name, key }) => {
    const now = patterns.find((one) => one.id === id);
    const has = key && patterns.find((one) => one.id !== id && one.key?.code === key.code);
    return now && key && now.key?.code !== key.code && has
      ? [{ code: key.code, lost: name, has: has.name }]
      : [];
  });

/**
 * Side effects of an edit of a beat: hits that went beyond the end of their lane, lanes that fell on one note, keys that
 * changed hands.
 *
 * @example comesAlong(beat, addLane(beat, 'x', 'kick')).alike.map(([a, b]) => a.note === b.note) // [true]
 */
export const comesAlong = (before: Beat, after: Beat): ComesAlong => ({
  hidden: hiddenIn(after, before),
  alike: alikeIn(after, before),
  keys: keysIn(after, before),
});
