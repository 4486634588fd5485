import type { Ticks } from '../units';
import { atLoopEdges, cutAtEnd, endedByNext, heldAtStart, type LoopEdges } from './edges';
import { notesInOrder, margin, regionNotes, sorted, type Merged, type Note } from './notes';
import type { LanePlan } from './plan';
import type { Region } from './timeline';
import type { TimelinePlan } from './timelinePlan';

/**
 * The one driver: from a timeline to its notes. A pattern that loops, so many passes, a section, a song and some bars of it
 * are all timelines; live playback, beads, reports, files and bounces ask for a window of them, or for all.
 */

/** A part of a timeline, `from` included and `to` not. */
export interface TickRange {
  from: Ticks;
  to: Ticks;
}

const ALL: TickRange = { from: -Infinity, to: Infinity };

/** Steps lie on a grid that is told in fractions: so near to an edge they are on it. */
const NEAR = 1e-6;

const isWithin = (gridTick: Ticks, { from, to }: TickRange): boolean =>
  gridTick >= from - NEAR && gridTick < to - NEAR;

/** The notes of one lane in a region, told from the timeline's start. @param seen the notes that sound in it, and some around */
const laneInRegion = (
  lane: LanePlan,
  region: Region,
  index: number,
  seen: TickRange,
  onMerged?: Merged,
): Note[] => {
  const shift = region.from - region.offset;
  const told: Merged | undefined = onMerged && ((gridTick) => onMerged(gridTick + shift));
  const notes = regionNotes(
    lane,
    region.offset,
    region.offset + region.length,
    seen.from - shift,
    seen.to - shift,
    region.span.section !== null,
    told,
  );
  for (const note of notes) {
    note.tick += shift;
    note.gridTick += shift;
    note.regionIndex = index;
  }
  return notes;
};

interface Near {
  region: Region;
  index: number;
}

/** The regions that may have a note within a range, as far as the feel can carry one. */
const regionsNear = ({ timeline, reach }: TimelinePlan, { from, to }: TickRange): Near[] => {
  const far = reach(to);
  const out: Near[] = [];
  timeline.regions.forEach((region, index) => {
    if (region.from - far < to && region.from + region.length + far > from) out.push({ region, index });
  });
  return out;
};

const laneOf = (plan: TimelinePlan, region: Region, lane: number): LanePlan | undefined =>
  plan.lanesOf(region).find(({ index }) => index === lane);

/** The notes of one lane within a range, and some around it; none sounding into the next. */
const laneWithin = (plan: TimelinePlan, lane: number, range: TickRange): Note[] => {
  // A note may be ended by one that sounds as late as the longest note is long.
  const seen = { from: range.from, to: range.to + plan.longest };
  const notes: Note[] = [];
  for (const { region, index } of regionsNear(plan, seen)) {
    const own = laneOf(plan, region, lane);
    if (own) for (const note of laneInRegion(own, region, index, seen)) notes.push(note);
  }
  return endedByNext(sorted(notes));
};

/** A long time is played in pieces, so that what is needed of them can be kept without the rest. */
const PIECE: Ticks = 16 * 3840;

/** How a window is heard. */
export interface WindowOptions {
  /** Where play begins: what would sound before it is held there. */
  start?: Ticks;
  /** Only notes whose steps lie within it. */
  steps?: TickRange;
}

/**
 * The notes of a timeline that begin within a window of time. Any window agrees with the same part of any other. A note that
 * the feel moves sounds earlier or later, in the region before or after if it comes to that.
 *
 * @param from included, from the timeline's start
 * @param to excluded
 * @returns in order of time
 * @example
 * notesIn(planLive(beat, pattern), 0, 1920).map(({ tick, note }) => [tick, note])
 * // [[0, 36], [960, 36], [960, 38]]
 */
export const notesIn = (plan: TimelinePlan, from: Ticks, to: Ticks, options: WindowOptions = {}): Note[] => {
  if (!Number.isFinite(to - from) || to - from <= PIECE) return windowIn(plan, from, to, options);
  // Strokes that live no longer than their piece cost half as much as ones that are all kept until the end.
  const out: Note[] = [];
  for (let at = from; at < to; at += PIECE)
    for (const note of windowIn(plan, at, Math.min(at + PIECE, to), options)) out.push(note);
  return out;
};

const mergedPair = (a: Note[], b: Note[]): Note[] => {
  const out: Note[] = [];
  let [i, j] = [0, 0];
  while (i < a.length && j < b.length) {
    const [x, y] = [a[i]!, b[j]!];
    if (x.tick < y.tick || (x.tick === y.tick && notesInOrder(x, y) <= 0)) {
      out.push(x);
      i += 1;
    } else {
      out.push(y);
      j += 1;
    }
  }
  for (; i < a.length; i++) out.push(a[i]!);
  for (; j < b.length; j++) out.push(b[j]!);
  return out;
};

/** Lists that are in order, as one: sorted all over again it would cost as much as all the rest. */
const merged = (lists: Note[][]): Note[] => {
  let left = lists;
  while (left.length > 1) {
    const pairs: Note[][] = [];
    for (let at = 0; at < left.length; at += 2)
      pairs.push(at + 1 < left.length ? mergedPair(left[at]!, left[at + 1]!) : left[at]!);
    left = pairs;
  }
  return left[0] ?? [];
};

const windowIn = (
  plan: TimelinePlan,
  from: Ticks,
  to: Ticks,
  { start = 0, steps = ALL }: WindowOptions,
): Note[] => {
  // At its start, what is held there has to be looked for before it.
  const range = { from: from <= start ? start - plan.reach(to) : from, to };
  const lanes: Note[][] = [];
  for (let lane = 0; lane < plan.beat.lanes.length; lane++) {
    const own: Note[] = [];
    for (const note of laneWithin(plan, lane, range)) {
      if (!isWithin(note.gridTick, steps)) continue;
      heldAtStart(note, start);
      if (note.tick >= from && note.tick < to) own.push(note);
    }
    if (own.length) lanes.push(own);
  }
  return sorted(merged(lanes));
};

/** The notes of a lane in a region, as far as its steps lie within a range, in pieces. */
function* piecesOf(
  lane: LanePlan,
  region: Region,
  index: number,
  range: TickRange,
  onMerged?: Merged,
): Generator<Note[], void, void> {
  const end = Math.min(range.to, region.from + region.length);
  const around = margin(lane, Math.min(range.to, region.from + region.length) - region.from + region.offset);
  for (let at = Math.max(range.from, region.from); at < end - NEAR; at += PIECE) {
    const steps = { from: at, to: Math.min(end, at + PIECE) };
    // A piece sees what stands around it too; each stroke belongs where its step is.
    const seen = { from: steps.from - around, to: steps.to + around + lane.longest };
    const told: Merged = (gridTick) => isWithin(gridTick, steps) && onMerged?.(gridTick);
    yield laneInRegion(lane, region, index, seen, told).filter(({ gridTick }) => isWithin(gridTick, steps));
  }
}

/**
 * All notes lane by lane, as they are written to a file. A lane comes in pieces, so that a long file need not hold all
 * notes at once: tidying up after them would cost more than writing them.
 *
 * @param edges what becomes of what the feel carries past the first or the last bar line: it comes in at the other end,
 *   as in a loop, or is held
 * @param range only what belongs to a part of the timeline, told from its start; left out, all of it
 * @param onMerged told of every stroke that has become one with another, being less than 1 ms from it
 * @yields pieces of one lane each, none empty; a length may reach past the next note of another piece, or past the end
 * @example [...lanesIn(planPasses(beat, pattern, 1), 'wrap')].map((lane) => lane.length) // [4, 2]
 */
export function* lanesIn(
  plan: TimelinePlan,
  edges: LoopEdges,
  range: TickRange = { from: 0, to: plan.timeline.length },
  onMerged?: Merged,
): Generator<Note[], void, void> {
  const length = range.to - range.from;
  for (let lane = 0; lane < plan.beat.lanes.length; lane++) {
    // In a loop the first piece waits for the last: what comes round the end may stand on a stroke of it.
    let first: Note[] | null = null;
    let last: Note[] | null = null;
    let near = 0;
    for (const { region, index } of regionsNear(plan, range)) {
      const own = laneOf(plan, region, lane);
      if (!own) continue;
      near = own.feel.a.ticksPerMs(0);
      for (const notes of piecesOf(own, region, index, range, onMerged)) {
        for (const note of notes) {
          note.tick -= range.from;
          note.gridTick -= range.from;
          atLoopEdges(note, length, edges);
        }
        if (!notes.length) continue;
        if (edges !== 'wrap') yield notes;
        else if (!first) first = notes;
        else {
          if (last) yield last;
          last = notes;
        }
      }
    }
    if (!first) continue;
    yield roundMerged(last ? [...first, ...last] : first, near, onMerged);
  }
}

/**
 * A stroke that came round the loop's end and now stands less than 1 ms from another of its lane and pitch becomes one with it,
 * the louder: as in every later pass, where both are met in time.
 */
const roundMerged = (notes: Note[], near: Ticks, onMerged?: Merged): Note[] => {
  const round = notes.filter(({ moved }) => moved);
  if (!round.length) return notes;
  const gone = new Set<Note>();
  for (const one of round)
    for (const other of notes) {
      if (other === one || other.note !== one.note || gone.has(other) || gone.has(one)) continue;
      if (Math.abs(other.tick - one.tick) >= near) continue;
      const softer = other.velocity < one.velocity ? other : one;
      gone.add(softer);
      onMerged?.(softer.gridTick);
    }
  return gone.size ? notes.filter((note) => !gone.has(note)) : notes;
};

/**
 * The same in order of time, none sounding past the next of its lane or the end: for all that is no MIDI file.
 *
 * @example allNotes(planPasses(beat, pattern, 2), 'wrap').length // 12
 */
export const allNotes = (plan: TimelinePlan, edges: LoopEdges, range?: TickRange): Note[] => {
  const lanes = plan.beat.lanes.map((): Note[] => []);
  for (const notes of lanesIn(plan, edges, range)) for (const note of notes) lanes[note.lane]!.push(note);
  const notes = lanes.flatMap((lane) => endedByNext(sorted(lane)));
  cutAtEnd(notes, range ? range.to - range.from : plan.timeline.length);
  return notes.sort(notesInOrder);
};
