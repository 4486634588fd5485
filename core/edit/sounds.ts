import { gridTicks, type Grid } from '../document/grid';
import { MOST, STEPS } from '../document/choices';
import { lanePatternOf, newHit, newLane, patternTicks, withLanePattern } from '../document/defaults';
import type { InstrumentId } from '../document/instruments';
import { barTicks } from '../document/meter';
import { inOrder, placed, placedWithin } from '../document/position';
import { RANGES } from '../document/ranges';
import type { Beat, Hit, Lane, LanePattern, Loop, OwnKit, Pattern, Voice } from '../document/schema';
import { straightenLane } from '../feel/straight';
import type { Ticks } from '../units';

/** Sounds of one's own: on a lane, in the beat's kit, as the slices of a loop. */

const without = <K extends 'voice' | 'loop' | 'own' | 'ceiling', T extends { [key in K]?: unknown }>(
  thing: T,
  key: K,
): Omit<T, K> => {
  const { [key]: _, ...rest } = thing;
  return rest;
};

/**
 * Gives a lane a sound of its own in the place of the kit's; null gives it the kit's back.
 *
 * @example setVoice(beat, 'kick', null) === beat // true
 */
export const setVoice = (beat: Beat, laneId: string, voice: Voice | null): Beat => {
  const lane = beat.lanes.find(({ id }) => id === laneId);
  if (!lane || (!voice && !lane.voice && !lane.loop)) return beat;
  const bare: Lane = without(without(lane, 'voice'), 'loop');
  const changed: Lane = voice ? { ...bare, voice } : bare;
  return { ...beat, lanes: beat.lanes.map((one) => (one.id === laneId ? changed : one)) };
};

/** A kit of one's own with nothing in it yet. */
const NEW_KIT: OwnKit = { name: 'My kit', voices: {} };

/**
 * Gives an instrument another sound in the beat's own kit; null gives it that of the kit below.
 *
 * @example setKitVoice(beat, 'kick', null) === beat // true
 */
export const setKitVoice = (beat: Beat, instrument: InstrumentId, voice: Voice | null): Beat => {
  const own = beat.own ?? NEW_KIT;
  const { [instrument]: before, ...rest } = own.voices;
  if (!voice && !before) return beat;
  return { ...beat, own: { ...own, voices: voice ? { ...rest, [instrument]: voice } : rest } };
};

/**
 * Plays the beat on another kit: one that ships, and over it one's own or none.
 *
 * @example setKit(beat, 'lantern', null).kit // "lantern"
 */
export const setKit = (beat: Beat, kit: string, own: OwnKit | null): Beat => {
  const bare: Beat = without(beat, 'own');
  return { ...bare, kit, ...(own && { own }) };
};

/** Names the beat's own kit. @example nameKit(beat, 'Crates').own // undefined */
export const nameKit = (beat: Beat, name: string): Beat =>
  beat.own && name.trim() ? { ...beat, own: { ...beat.own, name: name.trim() } } : beat;

/** Nothing leaves louder than this, in dB; null is just below full scale. @example setCeiling(beat, -3).ceiling // -3 */
export const setCeiling = (beat: Beat, ceiling: number | null): Beat =>
  ceiling === null ? without(beat, 'ceiling') : { ...beat, ceiling };

/** Grids that a loop is written on, the finest first: a lane may have so many steps. */
const LOOP_GRIDS: Grid[] = ['1/16', '1/8', '1/4'];

/** The finest grid on which a loop has no more steps than a lane may have; null where none has. */
const gridFor = (length: Ticks): Grid | null =>
  LOOP_GRIDS.find(
    (grid) => length / gridTicks(grid) <= STEPS.most && Number.isInteger(length / gridTicks(grid)),
  ) ?? null;

/** How long a loop is in a meter. */
const loopTicks = ({ bars }: Loop, { meter }: Pattern): Ticks => bars * barTicks(meter);

/** Where each slice begins, in ticks from the loop's start. */
const sliceTicks = (loop: Loop, length: Ticks): Ticks[] =>
  loop.marks.map((mark) => (mark / loop.end) * length);

/** A slice as loud as it was recorded. */
const AS_RECORDED = 100;

/** A loop lane is a tuned lane: every semitone from its note on is a slice. */
const slicesOf = ({ marks }: Loop, note: number): NonNullable<Lane['tuning']> => ({
  root: 'C',
  scale: 'chromatic',
  low: note,
  high: Math.min(127, note + marks.length - 1),
});

/** A lane's part that plays a loop as it was. */
const loopPart = (loop: Loop, pattern: Pattern, grid: Grid, part: LanePattern): LanePattern => {
  const length = loopTicks(loop, pattern);
  const steps = length / gridTicks(grid);
  const hits = sliceTicks(loop, length).map((tick, slice): Hit => {
    const { step, nudge } = placed(tick, grid);
    // What is nearer to the next round's first step than to this one's last is told from there: it comes round.
    const at = step < steps ? { step, nudge } : { step: 0, nudge };
    return { ...newHit(at.step, AS_RECORDED), nudge: at.nudge, ...(slice && { pitch: slice }) };
  });
  const own = length === patternTicks(pattern) ? null : steps;
  return { ...part, grid, steps: own, rate: '1', direction: 'forward', hits: inOrder(hits) };
};

/** The first note that slices are written with. */
const FIRST_NOTE = 36;

/**
 * Adds a lane that plays the slices of a loop as it was recorded, at the tempo of the beat: the lane's pitches are its slices, and
 * its feel is straight, since the loop has its own.
 *
 * @param id of the new lane
 * @param note the first slice is written with it, each next one a note higher
 */
export const addLoop = (
  beat: Beat,
  a: { id: string; name: string; loop: Loop; patternId: string; note?: number },
): Beat => {
  const pattern = beat.patterns.find(({ id }) => id === a.patternId);
  const grid = pattern && gridFor(loopTicks(a.loop, pattern));
  if (!pattern || !grid || beat.lanes.length >= MOST.lanes) return beat;
  const note = Math.min(a.note ?? FIRST_NOTE, 128 - a.loop.marks.length);
  const lane: Lane = {
    ...newLane(a.id, 'snare'),
    name: a.name,
    note,
    pigment: 'heather',
    loop: a.loop,
    tuning: slicesOf(a.loop, note),
  };
  const part = loopPart(a.loop, pattern, grid, lanePatternOf(pattern, a.id));
  const written = withLanePattern(pattern, a.id, part);
  const added: Beat = {
    ...beat,
    lanes: [...beat.lanes, lane],
    patterns: beat.patterns.map((one) => (one.id === pattern.id ? written : one)),
  };
  return {
    ...added,
    feel: straightenLane(added, added.feel, a.id),
    patterns: added.patterns.map((one) =>
      one.feel ? { ...one, feel: straightenLane(added, one.feel, a.id) } : one,
    ),
  };
};

/** Marks nearer than this, in seconds, are one. */
const SAME_MARK = 1e-3;

/** Which of the new slices a slice becomes: none where it belongs to the end of the one before it now. */
interface Becomes {
  slices: { slice: number; after: number }[];
  /** The slice that it is the end of now, and how long after its start, in seconds. */
  joins: { slice: number; after: number } | null;
}

/** Marks of two cuts that are the same one, moved: between two that stayed as many stand as before. */
const pairedMarks = (before: number[], after: number[]): Map<number, number> => {
  const pairs = new Map<number, number>();
  before.forEach((mark, at) => {
    const same = after.findIndex((one) => Math.abs(one - mark) < SAME_MARK);
    if (same >= 0) pairs.set(at, same);
  });
  const fixed = [[-1, -1], ...[...pairs].sort((a, b) => a[0] - b[0]), [before.length, after.length]] as [
    number,
    number,
  ][];
  for (let at = 1; at < fixed.length; at++) {
    const [[a, x], [b, y]] = [fixed[at - 1]!, fixed[at]!];
    if (b - a === y - x) for (let step = 1; step < b - a; step++) pairs.set(a + step, x + step);
  }
  return pairs;
};

/** The new number of each slice of a loop once it is cut otherwise, so that hits keep the piece of sound that they played. */
const becoming = (before: Loop, after: Loop): Becomes[] => {
  const pairs = pairedMarks(before.marks, after.marks);
  const kept = new Set(pairs.values());
  return before.marks.map((mark, at): Becomes => {
    const end = before.marks[at + 1] ?? before.end;
    const own = pairs.get(at);
    // Marks that are new within it divide it.
    const within = after.marks.flatMap((one, slice) =>
      !kept.has(slice) && one > mark + SAME_MARK && one < end - SAME_MARK
        ? [{ slice, after: one - mark }]
        : [],
    );
    if (own !== undefined) return { slices: [{ slice: own, after: 0 }, ...within], joins: null };
    const slice = Math.max(
      0,
      after.marks.findLastIndex((one) => one <= mark + SAME_MARK),
    );
    return { slices: within, joins: { slice, after: mark - after.marks[slice]! } };
  });
};

/** The hits of a lane that plays slices, on those of another cut. @param ticks how long a second of the loop is there */
const onOtherCut = (part: LanePattern, cut: Becomes[], ticks: number): LanePattern => {
  const g = gridTicks(part.grid);
  const at = (hit: Hit) => (hit.step + hit.nudge) * g;
  const sliceOf = (hit: Hit) => hit.pitch ?? 0;
  const withSlice = ({ pitch: _, ...hit }: Hit, slice: number): Hit =>
    slice ? { ...hit, pitch: slice } : hit;
  const hits = part.hits.flatMap((hit): Hit[] => {
    const to = cut[sliceOf(hit)];
    if (!to) return [hit];
    const [first] = to.slices;
    // Right after the slice that it joins it is the end of that one, which sounds on; elsewhere that is heard in its place.
    const { joins } = to;
    const follows =
      joins !== null &&
      part.hits.some(
        (one) =>
          one !== hit &&
          cut[sliceOf(one)]?.slices[0]?.slice === joins.slice &&
          Math.abs(at(hit) - at(one) - joins.after * ticks) < g / 2,
      );
    const begins = !joins ? [withSlice(hit, first!.slice)] : follows ? [] : [withSlice(hit, joins.slice)];
    const rest = to.slices.slice(joins ? 0 : 1).map(({ slice, after }) => {
      const place = placed(at(hit) + after * ticks, part.grid);
      return withSlice({ ...hit, ...place }, slice);
    });
    return [...begins, ...rest.filter(({ step }) => step < 4096)];
  });
  return { ...part, hits: inOrder(hits) };
};

/**
 * The slices that sound backwards once a loop is cut otherwise: those that begin within one that did.
 *
 * @param marks of the new cut, in seconds
 * @example reversedAt({ marks: [0, 1], reversed: [1] }, [0, 1, 1.5]) // [1, 2]
 */
export const reversedAt = (
  { marks: before, reversed = [] }: Pick<Loop, 'marks' | 'reversed'>,
  marks: number[],
): number[] =>
  marks.flatMap((mark, at) => {
    const from = before.findLastIndex((one) => one <= mark + SAME_MARK);
    return reversed.includes(from) ? [at] : [];
  });

/**
 * Changes the loop of a lane: its marks, which slices sound backwards. Its hits keep the piece of sound that they play: one whose
 * slice is divided becomes two, one whose slice is joined to the one before it ends in that.
 *
 * @param loop without `reversed`, what sounded backwards goes on doing so
 * @param rewrite the pattern in which its hits are written anew, as the loop was recorded; left out, they stay
 */
export const setLoop = (beat: Beat, laneId: string, loop: Loop, rewrite?: string): Beat => {
  const before = beat.lanes.find(({ id }) => id === laneId)?.loop;
  if (!before) return beat;
  const same = before.sample.id === loop.sample.id;
  const cut = same ? becoming(before, loop) : [];
  // Who says which ones are backwards means it.
  const turned = loop.reversed ?? (same ? reversedAt(before, loop.marks) : []);
  const { reversed: _, ...plain } = loop;
  const given: Loop = turned.length ? { ...plain, reversed: turned } : plain;
  const moves = same && JSON.stringify(before.marks) !== JSON.stringify(loop.marks);
  const changed = {
    ...beat,
    lanes: beat.lanes.map((lane) =>
      lane.id === laneId ? { ...lane, loop: given, tuning: slicesOf(given, lane.note) } : lane,
    ),
    patterns: moves
      ? beat.patterns.map((pattern) => {
          const part = pattern.parts[laneId];
          if (!part) return pattern;
          const ticks = loopTicks(before, pattern) / before.end;
          return withLanePattern(pattern, laneId, onOtherCut(part, cut, ticks));
        })
      : beat.patterns,
  };
  const pattern = changed.patterns.find(({ id }) => id === rewrite);
  const grid = pattern && gridFor(loopTicks(given, pattern));
  if (!pattern || !grid) return changed;
  const part = loopPart(given, pattern, grid, lanePatternOf(pattern, laneId));
  return {
    ...changed,
    patterns: changed.patterns.map((one) =>
      one.id === pattern.id ? withLanePattern(pattern, laneId, part) : one,
    ),
  };
};

/** The drum that a slice sounds like, and how hard it was struck. */
export interface SoundsTold {
  instrument: InstrumentId;
  velocity: number;
  /** Other drums struck with it at once. */
  also?: { instrument: InstrumentId; velocity: number }[];
}

/** All that is struck in a slice. */
const struckIn = (one: SoundsTold | null) => (one ? [one, ...(one.also ?? [])] : []);

/**
 * Spreads the slices of a loop over the lanes of the kit, each where it is in the loop. Lanes that are not there are added.
 *
 * @param told what each slice is; null is left out
 * @param ids for lanes that are added, by instrument
 */
export const loopToDrums = (
  beat: Beat,
  a: { loop: Loop; told: (SoundsTold | null)[]; patternId: string; ids: Record<string, string> },
): Beat => {
  const pattern = beat.patterns.find(({ id }) => id === a.patternId);
  if (!pattern) return beat;
  const length = loopTicks(a.loop, pattern);
  const ticks = sliceTicks(a.loop, length);
  let lanes = beat.lanes;
  // A pattern shorter than the loop becomes as long.
  const bars = Math.min(RANGES.bars.most, Math.ceil(length / barTicks(pattern.meter) - 1e-9));
  let changed: Pattern = bars > pattern.bars ? { ...pattern, bars } : pattern;
  for (const instrument of new Set(a.told.flatMap((one) => struckIn(one).map((drum) => drum.instrument)))) {
    let lane = lanes.find((one) => one.instrument === instrument && !one.loop);
    if (!lane) {
      const id = a.ids[instrument];
      if (!id || lanes.length >= MOST.lanes) continue;
      lane = newLane(id, instrument);
      lanes = [...lanes, lane];
    }
    const part = lanePatternOf(changed, lane.id);
    const round = patternTicks(changed);
    const hits = a.told.flatMap((one, slice): Hit[] => {
      const drum = struckIn(one).find((each) => each.instrument === instrument);
      if (!drum || ticks[slice]! >= round) return [];
      const steps = Math.max(1, Math.ceil(round / gridTicks(part.grid) - 1e-9));
      const { step, nudge } = placedWithin(ticks[slice]!, part.grid, part.steps ?? steps);
      return [{ ...newHit(step, drum.velocity), nudge }];
    });
    const taken = new Set(hits.map(({ step }) => step));
    const kept = part.hits.filter(({ step }) => !taken.has(step));
    changed = withLanePattern(changed, lane.id, { ...part, hits: inOrder([...kept, ...hits]) });
  }
  return {
    ...beat,
    lanes,
    patterns: beat.patterns.map((one) => (one.id === pattern.id ? changed : one)),
  };
};
