import { RANGES } from '../document/ranges';
import { inOrder } from '../document/position';
import { MOST } from '../document/choices';
import { newPattern } from '../document/defaults';
import { gridTicks } from '../document/grid';
import { barTicks, type Meter } from '../document/meter';
import { numbered } from '../document/numbered';
import type { Beat, Hit, Pattern, PatternKey } from '../document/schema';
import { withoutPattern } from './deleted';
import { clamp } from '../units';

/** Making, ordering and comparing patterns. */

/** The next letter that no pattern is named by. @example freeName(beat) // "B" */
export const freeName = (beat: Beat): string => {
  const names = new Set(beat.patterns.map(({ name }) => name.split(' ')[0]));
  for (let at = 0; ; at++) {
    const name = String.fromCharCode(65 + (at % 26)) + (at < 26 ? '' : String(Math.floor(at / 26)));
    if (!names.has(name)) return name;
  }
};

const isFull = (beat: Beat): boolean => beat.patterns.length >= MOST.patterns;

/**
 * Adds an empty pattern of the meter and length of another one; a full beat stays as it is.
 *
 * @example addPattern(beat, 'b', pattern).patterns.map(({ name }) => name) // ["A", "B"]
 */
export const addPattern = (beat: Beat, id: string, like: Pattern): Beat => {
  if (isFull(beat)) return beat;
  const added = { ...newPattern(id, freeName(beat)), meter: like.meter, bars: like.bars };
  return { ...beat, patterns: [...beat.patterns, added] };
};

/**
 * A variation: the same hits, with the original as its parent, right after it. Its takes are its own from now on.
 *
 * @example duplicatePattern(beat, 'b', 'a').patterns[1]!.parent // "a"
 */
export const duplicatePattern = (beat: Beat, id: string, from: string): Beat => {
  const at = beat.patterns.findIndex((pattern) => pattern.id === from);
  const original = beat.patterns[at];
  if (!original || isFull(beat)) return beat;
  const { takes: _takes, take: _take, taken: _taken, ...rest } = original;
  const name = `${freeName(beat)} of ${original.name}`.slice(0, MOST.name);
  const copy: Pattern = { ...rest, id, name, parent: from };
  return { ...beat, patterns: [...beat.patterns.slice(0, at + 1), copy, ...beat.patterns.slice(at + 1)] };
};

/**
 * Takes a pattern away; the last one stays. Variations of it keep its parent's parent.
 *
 * @example removePattern(addPattern(beat, 'b', pattern), 'b').patterns.length // 1
 */
export const removePattern = (beat: Beat, id: string): Beat => {
  if (beat.patterns.length < 2) return beat;
  const gone = beat.patterns.find((pattern) => pattern.id === id);
  const patterns = beat.patterns
    .filter((pattern) => pattern.id !== id)
    .map((pattern) => {
      if (pattern.parent !== id) return pattern;
      const { parent: _, ...rest } = pattern;
      return gone?.parent ? { ...rest, parent: gone.parent } : rest;
    });
  return { ...beat, patterns, song: gone ? withoutPattern(beat.song, gone) : beat.song };
};

const moved = <T>(list: T[], from: number, to: number): T[] => {
  const rest = [...list.slice(0, from), ...list.slice(from + 1)];
  const at = clamp(to, 0, rest.length);
  return from < 0 ? list : [...rest.slice(0, at), list[from]!, ...rest.slice(at)];
};

/**
 * Moves one of a list with ids to another place, from 0.
 *
 * @example movedTo([{ id: 'a' }, { id: 'b' }], 'b', 0).map(({ id }) => id) // ["b", "a"]
 */
export const movedTo = <T extends { id: string }>(list: T[], id: string, to: number): T[] =>
  moved(
    list,
    list.findIndex((one) => one.id === id),
    to,
  );

/**
 * Another time signature; hits stay at their steps, and those beyond the end are kept.
 *
 * @example setMeter(pattern, { beats: 3, unit: 4 }).meter // { beats: 3, unit: 4 }
 */
export const setMeter = (pattern: Pattern, meter: Meter): Pattern => ({
  ...pattern,
  meter: { ...meter, beats: Math.round(clamp(meter.beats, RANGES.beats.least, RANGES.beats.most)) },
});

/** Another length; what lies beyond is kept and comes back. @example setBars(pattern, 99).bars // 16 */
export const setBars = (pattern: Pattern, bars: number): Pattern => ({
  ...pattern,
  bars: Math.round(clamp(bars, RANGES.bars.least, RANGES.bars.most)),
});

/** Twice as many bars, the second half like the first. @returns null where that is more than 16 */
export const repeatBars = (pattern: Pattern, stepsOf: (laneId: string) => number): Pattern | null => {
  if (pattern.bars * 2 > RANGES.bars.most) return null;
  const parts = Object.fromEntries(
    Object.entries(pattern.parts).map(([laneId, part]) => {
      if (part.steps !== null) return [laneId, part];
      const steps = stepsOf(laneId);
      // What was out of sight beyond the end stays so.
      const later = part.hits
        .map((hit) => ({ ...hit, step: hit.step + steps }))
        .filter(({ step }) => step < 4096);
      return [laneId, { ...part, hits: [...part.hits.filter(({ step }) => step < steps), ...later] }];
    }),
  );
  return { ...pattern, bars: pattern.bars * 2, parts };
};

/**
 * Copies what all lanes that follow the pattern play in one bar onto another one, in the place of what it has; a bar after the
 * last one is added. Lanes with a loop of their own go on as they do.
 *
 * @param from which bar, from 0
 * @param to which bar, from 0, up to the one after the last
 * @example copyBar({ ...pattern, bars: 2 }, 0, 1).parts['kick']!.hits.length // 8
 */
export const copyBar = (pattern: Pattern, from: number, to: number): Pattern => {
  const fits = (bar: number, most: number) => Number.isInteger(bar) && bar >= 0 && bar <= most;
  if (!fits(from, pattern.bars - 1) || !fits(to, Math.min(pattern.bars, RANGES.bars.most - 1)) || from === to)
    return pattern;
  const bar = barTicks(pattern.meter);
  const parts = Object.entries(pattern.parts).map(([laneId, part]) => {
    if (part.steps !== null) return [laneId, part];
    const g = gridTicks(part.grid);
    const inBar = (which: number) => (hit: Hit) =>
      hit.step * g >= which * bar - 1e-6 && hit.step * g < (which + 1) * bar - 1e-6;
    const copied = part.hits.filter(inBar(from)).map((hit) => {
      const place = hit.step + hit.nudge + ((to - from) * bar) / g;
      const step = Math.max(0, Math.floor(place + 0.5));
      return { ...hit, step, nudge: clamp(place - step, -0.5, 0.5) + 0 };
    });
    const kept = part.hits.filter((hit) => !inBar(to)(hit));
    const hits = inOrder([...kept, ...copied]);
    return [laneId, { ...part, hits }];
  });
  return {
    ...pattern,
    bars: Math.max(pattern.bars, to + 1),
    parts: Object.fromEntries(parts) as Pattern['parts'],
  };
};

/**
 * A pattern that was copied, at the end, under a name of its own; lanes that the beat does not have are left out.
 *
 * @example copyPattern(beat, 'b', pattern).patterns.length // 2
 */
export const copyPattern = (beat: Beat, id: string, copied: Pattern): Beat => {
  if (isFull(beat)) return beat;
  const { takes: _takes, take: _take, taken: _taken, parent: _parent, ...rest } = copied;
  const known = new Set(beat.lanes.map((lane) => lane.id));
  const parts = Object.fromEntries(Object.entries(copied.parts).filter(([laneId]) => known.has(laneId)));
  const name = numbered(
    copied.name,
    beat.patterns.map((pattern) => pattern.name),
  );
  return { ...beat, patterns: [...beat.patterns, { ...rest, id, name, parts }] };
};

/**
 * Gives a pattern a key of its own, which no other pattern has then; null takes it.
 *
 * @example setKey(beat, 'a', { code: 'KeyZ', at: 'beat', held: false }).patterns[0]!.key!.code // "KeyZ"
 */
export const setKey = (beat: Beat, id: string, key: PatternKey | null): Beat => ({
  ...beat,
  patterns: beat.patterns.map((pattern) => {
    const { key: own, ...rest } = pattern;
    if (pattern.id === id) return key ? { ...rest, key } : rest;
    return key && own?.code === key.code ? rest : pattern;
  }),
});
