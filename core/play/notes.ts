import { baseBend } from '../feel/prepareFeel';
import { feelStrokes } from '../feel/feelStrokes';
import { isPast, type StrokeKind } from '../feel/struck';
import type { Channel, MidiNote, Ticks, Velocity } from '../units';
import { clamp, type Semitones } from '../units';
import { endedByNext } from './edges';
import type { LanePlan } from './plan';
import { eachStroke } from './laneStrokes';
import { DETOUR_HITS } from './moves/detours';
import type { Stroke } from './strokes';

/** A stroke as it sounds. */
export interface Note {
  /** From where play began. */
  tick: Ticks;
  /** To its end, or to the lane's next note. */
  length: Ticks;
  /** Whether the sound ends with its length; otherwise it rings out. */
  cut: boolean;
  velocity: Velocity;
  note: MidiNote;
  /** In semitones against the lane's own note: its sound is tuned by it. */
  pitch: number;
  channel: Channel;
  /** The lane's place in the beat, from 0. */
  lane: number;
  cycle: number;
  readIndex: number;
  /** From 0. */
  step: number;
  hitIndex: number;
  kind: StrokeKind;
  stroke: number;
  /** The straight position of its step. */
  gridTick: Ticks;
  /** Which region of its timeline it is of, from 0. */
  regionIndex: number;
  /**
   * Which stroke of its lane it is since play began, as the hits are written: what chance silences counts, so that any window
   * agrees with any other.
   */
  turn: number;
  /** True where the note would have sounded before the start and is held there, or was carried round a loop's end. */
  moved: boolean;
}

/**
 * From a position of a lane to where its base feel takes it: also for the touch cells, which bend as the beads do.
 *
 * @example
 * bendOf(planLane({ ...beat, feel: newFeel({ percent: 60, grid: '1/16' }) }, pattern, beat.lanes[0]!))(240)
 * // 288
 */
export const bendOf = (lane: LanePlan): ((position: Ticks) => Ticks) => baseBend(lane.feel);

const turnOf = ({ before }: LanePlan, { cycle, step, hitIndex, stroke, kind }: Stroke): number =>
  cycle * before.at(-1)! +
  (before[step] ?? 0) +
  (hitIndex % DETOUR_HITS) +
  (kind === 'main' ? 0 : Math.abs(stroke));

const noteOf = (lane: LanePlan, stroke: Stroke): Note => ({
  tick: stroke.tick,
  length: stroke.length ?? lane.step,
  cut: stroke.cut,
  velocity: forceOf(stroke),
  note: stroke.pitch === 0 ? lane.note : clamp(lane.note + stroke.pitch, 0, 127),
  pitch: stroke.pitch,
  channel: lane.channel,
  lane: lane.index,
  cycle: stroke.cycle,
  readIndex: stroke.readIndex,
  step: stroke.step,
  hitIndex: stroke.hitIndex,
  kind: stroke.kind,
  stroke: stroke.stroke,
  gridTick: stroke.gridTick,
  regionIndex: 0,
  turn: turnOf(lane, stroke),
  moved: false,
});

/** By time; what sounds together, by lane. */
export const notesInOrder = (a: Note, b: Note): number =>
  a.tick - b.tick || a.lane - b.lane || a.cycle - b.cycle || a.readIndex - b.readIndex || a.stroke - b.stroke;

/** Sorts in place; a lane's notes mostly are in order as they come, which is found out much faster than sorted. */
export const sorted = (notes: Note[]): Note[] => {
  for (let i = 1; i < notes.length; i++)
    if (notesInOrder(notes[i - 1]!, notes[i]!) > 0) return notes.sort(notesInOrder);
  return notes;
};

const asMoved = (lane: LanePlan, from: Ticks, to: Ticks): Stroke[] => {
  if (lane.staggered) return lane.staggered(from, to);
  const strokes: Stroke[] = [];
  eachStroke(lane, from, to, (stroke) => strokes.push(stroke));
  return strokes;
};

const felt = (lane: LanePlan, from: Ticks, to: Ticks, end: Ticks): Stroke[] => {
  const strokes = asMoved(lane, from, to);
  feelStrokes(lane.feel, strokes, end);
  return strokes;
};

/** Told of a stroke that has become one with another. */
export type Merged = (gridTick: Ticks) => void;

const laneNotes = (
  lane: LanePlan,
  from: Ticks,
  to: Ticks,
  end: Ticks = Infinity,
  onMerged?: Merged,
): Note[] => {
  const notes: Note[] = [];
  for (const stroke of felt(lane, from, to, end)) {
    if (!stroke.sounds || isPast(stroke, end)) continue;
    if (stroke.into) onMerged?.(stroke.gridTick);
    else notes.push(noteOf(lane, stroke));
  }
  return endedByNext(sorted(notes));
};

/**
 * Every stroke of a lane's first so many cycles with what the feel makes of it, whether chance lets it sound or not.
 *
 * @example feltCycles(planLane(beat, pattern, beat.lanes[0]!), 2).length // 8
 */
export const feltCycles = (lane: LanePlan, cycles: number): Stroke[] =>
  felt(lane, 0, cycles * lane.cycleTicks + margin(lane, cycles * lane.cycleTicks), Infinity).filter(
    ({ cycle }) => cycle < cycles,
  );

/**
 * The strokes of a lane that belong to a stretch of time by their steps, with what moves and feel make of them.
 *
 * @param from included, to excluded, both from where play began
 * @example feltWithin(planLane(beat, pattern, beat.lanes[0]!), 0, 3840).length // 4
 */
export const feltWithin = (lane: LanePlan, from: Ticks, to: Ticks): Stroke[] => {
  const far = margin(lane, to);
  return felt(lane, Math.max(0, from - far), to + far, Infinity).filter(
    ({ gridTick }) => gridTick >= from - 1e-6 && gridTick < to - 1e-6,
  );
};

/** The strength of a stroke as it is sent. @example forceOf({ force: 90.4 }) // 90 */
export const forceOf = ({ force }: Pick<Stroke, 'force'>): Velocity => clamp(Math.round(force), 1, 127);

/**
 * Every stroke of a lane whose step begins before `end`, with what the feel makes of it.
 *
 * @example passStrokes(planLane(beat, pattern, beat.lanes[0]!), 3840).length // 4
 */
export const passStrokes = (lane: LanePlan, end: Ticks): Stroke[] =>
  felt(lane, 0, end + margin(lane, end), end).filter((stroke) => !isPast(stroke, end));

/**
 * The notes of a lane whose steps begin within a part of its pattern. What the feel carries over the edges of that part
 * sounds there.
 *
 * @param begin where the part begins, from the pattern's own start: included, `end` excluded; Infinity has no end
 * @param rollsEnd whether a roll ends with the part
 * @param from the window that is asked for: the notes that sound in it are given, and some around it
 * @param onMerged told of every stroke that has become one with another, being less than 1 ms from it
 * @example regionNotes(planLane(beat, pattern, beat.lanes[0]!), 0, 1920).map(({ tick }) => tick) // [0, 960]
 */
export const regionNotes = (
  lane: LanePlan,
  begin: Ticks,
  end: Ticks,
  from: Ticks = -Infinity,
  to: Ticks = Infinity,
  rollsEnd = true,
  onMerged?: Merged,
): Note[] => {
  const own: Merged = (gridTick) => gridTick >= begin - 1e-6 && gridTick < end - 1e-6 && onMerged?.(gridTick);
  const last = Math.min(end, to);
  const far = margin(lane, last);
  const first = Math.max(0, begin - far, from - far);
  return laneNotes(lane, first, last + far, end, own).filter(
    ({ gridTick, kind, tick }) => gridTick >= begin - 1e-6 && !(rollsEnd && kind === 'roll' && tick >= end),
  );
};

/** How far around a window that ends at a position strokes may stand that have to do with it. */
export const margin = (lane: LanePlan, upTo: Ticks): Ticks => {
  const still = lane.reach + lane.around;
  // What they have done to strokes that are a little later may bring those in.
  const first = lane.wandered(upTo);
  return first ? still + lane.wandered(upTo + first + still) : still;
};

/** A hit as it is drawn: where its stroke sounds in the pattern's first pass, whether chance lets it sound or not. */
export interface Drawn {
  step: number;
  hitIndex: number;
  kind: StrokeKind;
  stroke: number;
  /** The straight grid's position of its step. */
  gridTick: Ticks;
  /** Where it sounds. */
  tick: Ticks;
  velocity: Velocity;
  pitch: Semitones;
}

/**
 * The strokes of a lane over the pattern's length from the start, for the eye: every stroke, none merged or held.
 *
 * @param part only strokes whose steps lie within it, `from` included and `to` not; left out, all of them
 * @example
 * drawnStrokes(planLane(beat, pattern, beat.lanes[0]!), 3840).map(({ tick }) => tick)
 * // [0, 960, 1920, 2880]
 */
export const drawnStrokes = (
  lane: LanePlan,
  length: Ticks,
  part: { from: Ticks; to: Ticks } = { from: 0, to: length },
): Drawn[] => {
  const drawn: Drawn[] = [];
  const last = Math.min(part.to, length);
  const around = margin(lane, last);
  for (const stroke of felt(lane, Math.max(0, part.from - around), last + around, length)) {
    if (isPast(stroke, length) || stroke.gridTick < part.from - 1e-6 || stroke.gridTick >= last - 1e-6)
      continue;
    drawn.push({
      step: stroke.step,
      hitIndex: stroke.hitIndex,
      kind: stroke.kind,
      stroke: stroke.stroke,
      gridTick: stroke.gridTick,
      tick: stroke.tick,
      velocity: forceOf(stroke),
      pitch: stroke.pitch,
    });
  }
  return drawn;
};
