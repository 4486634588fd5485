import { DETOUR_SLOTS, MOST, SONG } from '../document/choices';
import { patternTicks } from '../document/defaults';
import { numbered } from '../document/numbered';
import type { Beat, Detour, LanePattern, Pattern } from '../document/schema';
import { withTakes } from '../make/chance';
import { planDetour, sourceOf, type Switched } from '../play/moves/detours';
import type { Ticks } from '../units';
import { setDetour } from './moves';
import { writeMoves } from './writeMoves';
import { addSection, newEntry } from './song';
import { colourOf, freeSectionName } from '../document/sectionNames';

/** Routes that were switched while a pattern played, kept pass by pass. */

/** The passes that were played of a pattern. */
export interface PassesPlayed {
  /** In order of time; before the first one it went as written. */
  switched: Switched[];
  /** The first pass, from 0, and the one after the last. */
  from: number;
  to: number;
}

/** A pass as it was played. */
export interface PlayedPass {
  parts: Record<string, LanePattern>;
  detour: Detour | null;
}

const greatest = (a: number, b: number): number => (b ? greatest(b, a % b) : a);
const together = (a: number, b: number): number => (a / greatest(a, b)) * b;

/** Into how many slots a detour divides the whole pattern. */
const slotsOver = ({ over, route }: Detour, { bars }: Pattern): number =>
  over === 'all' ? route.length : route.length * bars;

/** From which slot of the whole pattern one plays by a detour, in one pass; from 0, -1 is silence. */
const sourceOver = (pattern: Pattern, detour: Detour, seed: number, pass: number, slot: number): number => {
  const plan = planDetour({ ...pattern, detour: { ...detour, lanes: null } }, '', seed)!;
  const { length } = detour.route;
  const bar = detour.over === 'bar' ? Math.floor(slot / length) : 0;
  const time = detour.over === 'bar' ? pass * pattern.bars + bar : pass;
  const source = sourceOf(plan, time, slot - bar * length);
  return source < 0 ? -1 : bar * length + source;
};

/** Every slot of every bar is so many of these long: 32 slots of a bar of one thirty-second. */
const FINEST: Ticks = 3.75;

/** How many slots the pattern has where every slot of every route, and every switch, falls between two. */
const finest = (pattern: Pattern, switched: readonly Switched[]): number => {
  const length = patternTicks(pattern);
  return switched.reduce((fine, { at, detour }) => {
    const [whole, place] = [Math.round(length / FINEST), Math.round((at % length) / FINEST)];
    const within = together(fine, place ? whole / greatest(whole, place) : 1);
    return detour ? together(within, slotsOver(detour, pattern)) : within;
  }, pattern.bars);
};

/** The route in force at a time. */
const inForce = (switched: readonly Switched[], tick: Ticks): Detour | null =>
  switched.findLast(({ at }) => Math.round(at / FINEST) * FINEST <= tick + 1e-6)?.detour ?? null;

/** The route of one pass over the whole pattern, in slots so fine that every switch falls between two. */
const wholeRoute = (
  pattern: Pattern,
  switched: readonly Switched[],
  seed: number,
  pass: number,
  fine: number,
): number[] => {
  const length = patternTicks(pattern);
  return Array.from({ length: fine }, (_, at) => {
    const tick = pass * length + (at * length) / fine;
    const detour = inForce(switched, tick);
    if (!detour) return at + 1;
    const each = fine / slotsOver(detour, pattern);
    const slot = Math.floor(at / each);
    const source = sourceOver(pattern, detour, seed, pass, slot);
    return source < 0 ? 0 : source * each + (at - slot * each) + 1;
  });
};

/** The same route in fewer slots; null where it cannot be told in so many. */
const coarser = (route: readonly number[], slots: number): number[] | null => {
  const each = route.length / slots;
  if (!Number.isInteger(each)) return null;
  const out: number[] = [];
  for (let slot = 0; slot < slots; slot++) {
    const first = route[slot * each]!;
    if (first && (first - 1) % each) return null;
    for (let at = 1; at < each; at++) if (route[slot * each + at] !== (first ? first + at : 0)) return null;
    out.push(first ? (first - 1) / each + 1 : 0);
  }
  return out;
};

/** A route over the whole pattern as one of its bar, where every bar goes by the same. */
const ofBar = (route: readonly number[], bars: number): number[] | null => {
  const each = route.length / bars;
  if (!Number.isInteger(each)) return null;
  const first = route.slice(0, each);
  if (first.some((from) => from > each)) return null;
  return route.every((from, at) => {
    const own = first[at % each]!;
    return from === (own ? own + Math.floor(at / each) * each : 0);
  })
    ? first
    : null;
};

const isPlain = (route: readonly number[]): boolean => route.every((from, at) => from === at + 1);

/** A route as a detour that a beat may hold, with as few slots as can be; null where there is none. */
const asDetour = (route: readonly number[], bars: number, lanes: Detour['lanes']): Detour | null => {
  const bar = ofBar(route, bars);
  for (const [over, whole] of [
    ['bar', bar],
    ['all', route],
  ] as const)
    for (const slots of DETOUR_SLOTS) {
      const made = whole && coarser(whole, slots);
      if (made) return { over, route: made, chance: 1, lanes };
    }
  return null;
};

/**
 * The passes played while routes were switched: a detour of its own for each pass where one can say it, otherwise
 * with its moves written into its hits. What goes by chance is as it was drawn.
 *
 * @param switched in order of time; before the first one it goes as written
 * @param from the first pass, from 0
 * @param to the pass after the last
 * @example
 * playedPasses(beat, pattern, [{ at: 0, detour: null }], 0, 2).map(({ detour }) => detour)
 * // [null, null]
 */
export const playedPasses = (
  beat: Beat,
  pattern: Pattern,
  switched: readonly Switched[],
  from: number,
  to: number,
): PlayedPass[] => {
  const detours = switched.flatMap(({ detour }) => detour ?? []);
  const fine = finest(pattern, switched);
  const length = patternTicks(pattern);
  const lanes = detours.at(-1)?.lanes ?? null;
  return Array.from({ length: Math.max(0, to - from) }, (_, at): PlayedPass => {
    const { parts } = pattern;
    const begin = (from + at) * length;
    const first = inForce(switched, begin);
    const stays = !switched.some((one) => one.at > begin && one.at < begin + length - FINEST / 2);
    // By one detour from end to end, it is that one.
    if (stays && first?.chance === 1) return { parts, detour: first };
    const route = wholeRoute(pattern, switched, beat.seed, from + at, fine);
    if (isPlain(route)) return { parts, detour: null };
    const detour = asDetour(route, pattern.bars, lanes);
    if (detour) return { parts, detour };
    const written = writeMoves(setDetour(pattern, { over: 'all', route, chance: 1, lanes }), beat);
    return { parts: written.parts, detour: null };
  });
};

const samePass = (a: PlayedPass, b: PlayedPass): boolean =>
  JSON.stringify(a.detour) === JSON.stringify(b.detour) &&
  (a.parts === b.parts || JSON.stringify(a.parts) === JSON.stringify(b.parts));

/** Keeps passes that were played as takes, each different one once. @param id their ids begin with it */
export const keepPasses = (pattern: Pattern, passes: PlayedPass[], how: string, id: string): Pattern => {
  const each = passes.filter((one, at) => passes.findIndex((other) => samePass(one, other)) === at);
  return each.length
    ? withTakes(
        pattern,
        each.map(({ parts, detour }, at) => ({
          id: `${id}.${at}`,
          how: how.slice(0, 80),
          seed: 0,
          parts,
          detour,
        })),
      )
    : pattern;
};

/**
 * Puts passes that were played at the end of the song, as a section: each different pass is a pattern of its own, one that is
 * as the pattern itself is that. Where the beat or the song has no room, nothing changes.
 *
 * @param id the ids of all that is new begin with it
 */
export const passesToSong = (
  beat: Beat,
  patternId: string,
  passes: PlayedPass[],
  name: string,
  id: string,
): Beat => {
  const pattern = beat.patterns.find((one) => one.id === patternId);
  if (!pattern || !passes.length) return beat;
  const { takes: _, taken: __, take: ___, ...plain } = pattern;
  const what = name.trim() || 'Routes';
  const lanes = new Set(beat.lanes.map((lane) => lane.id));
  const known = (parts: PlayedPass['parts']) =>
    Object.fromEntries(Object.entries(parts).filter(([laneId]) => lanes.has(laneId)));
  const made: { pass: PlayedPass; pattern: Pattern }[] = [
    { pass: { parts: pattern.parts, detour: pattern.detour ?? null }, pattern },
  ];
  const names = beat.patterns.map((one) => one.name);
  const played = passes.map((pass) => {
    const there = made.find((one) => samePass(one.pass, pass));
    if (there) return there.pattern.id;
    const free = numbered(`${pattern.name} ${what}`, names);
    names.push(free);
    const own = setDetour(
      { ...plain, id: `${id}.${made.length}`, name: free, parts: known(pass.parts) },
      pass.detour,
    );
    made.push({ pass, pattern: own });
    return own.id;
  });
  const runs = played.reduce<{ id: string; times: number }[]>((all, one) => {
    const last = all.at(-1);
    if (last?.id === one) return [...all.slice(0, -1), { id: one, times: last.times + 1 }];
    return [...all, { id: one, times: 1 }];
  }, []);
  const patterns = [...beat.patterns, ...made.slice(1).map((one) => one.pattern)];
  if (
    patterns.length > MOST.patterns ||
    runs.length > SONG.entries ||
    runs.some(({ times }) => times > SONG.times)
  )
    return beat;
  const section = {
    id: `${id}.section`,
    name: freeSectionName(beat.song, what),
    pigment: colourOf('Fill'),
    entries: runs.map((run, at) => newEntry(`${id}.entry ${at}`, run.id, run.times)),
    silent: [],
  };
  const out = addSection({ ...beat, patterns }, section, `${id}.place`, null);
  return out.song === beat.song ? beat : out;
};
