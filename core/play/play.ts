import { baseBend } from '../feel/lanePlan';
import { feelStrokes, isPast } from '../feel/stages';
import type { Channel, MidiNote, Ticks, Velocity } from '../units';
import { held } from '../units';
import type { LanePlan, PlayPlan } from './plan';
import { eachStroke, type Stroke } from './strokes';

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
  channel: Channel;
  /** The lane's place in the beat, from 0. */
  lane: number;
  round: number;
  turn: number;
  /** From 0. */
  step: number;
  place: number;
  stroke: number;
  /** The straight position of its step. */
  rule: Ticks;
  /** Which stretch of a song it is of, from 0. */
  part: number;
  /** True where the note would have sounded before the start and is held there, or was carried round a loop's end. */
  moved: boolean;
}

/** From a position of a lane to where its base feel takes it: also for the touch cells, which bend as the beads do. */
export const bendOf = (lane: LanePlan): ((position: Ticks) => Ticks) => baseBend(lane.feel);

const velocityOf = ({ force }: Stroke): Velocity => held(Math.round(force), 1, 127);

const noteOf = (lane: LanePlan, stroke: Stroke): Note => ({
  tick: stroke.tick,
  length: stroke.length ?? lane.step,
  cut: stroke.cut,
  velocity: velocityOf(stroke),
  note: lane.note,
  channel: lane.channel,
  lane: lane.index,
  round: stroke.round,
  turn: stroke.turn,
  step: stroke.step,
  place: stroke.place,
  stroke: stroke.stroke,
  rule: stroke.rule,
  part: 0,
  moved: false,
});

/** By time; what sounds together, by lane. */
export const inOrder = (a: Note, b: Note): number =>
  a.tick - b.tick || a.lane - b.lane || a.round - b.round || a.turn - b.turn || a.stroke - b.stroke;

/** Sorts in place; a lane's notes mostly are in order as they come, which is found out much faster than sorted. */
export const sorted = (notes: Note[]): Note[] => {
  for (let i = 1; i < notes.length; i++)
    if (inOrder(notes[i - 1]!, notes[i]!) > 0) return notes.sort(inOrder);
  return notes;
};

/** A note ends where the next one on its lane begins, at the latest. */
export const ended = (notes: Note[]): Note[] => {
  for (let i = 0; i + 1 < notes.length; i++) {
    const note = notes[i]!;
    note.length = Math.min(note.length, notes[i + 1]!.tick - note.tick);
  }
  return notes;
};

const felt = (lane: LanePlan, from: Ticks, to: Ticks, end: Ticks): Stroke[] => {
  const strokes: Stroke[] = [];
  eachStroke(lane, from, to, (stroke) => strokes.push(stroke));
  feelStrokes(lane.feel, strokes, end);
  return strokes;
};

/** Told of a stroke that has become one with another. */
export type Merged = (rule: Ticks) => void;

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
    if (stroke.into) onMerged?.(stroke.rule);
    else notes.push(noteOf(lane, stroke));
  }
  return ended(sorted(notes));
};

/** Every stroke of a lane's first so many rounds with what the feel makes of it, whether chance lets it sound or not. */
export const feltRounds = (lane: LanePlan, rounds: number): Stroke[] =>
  felt(lane, 0, rounds * lane.roundTicks + margin(lane), Infinity).filter(({ round }) => round < rounds);

/** Every stroke of a lane whose step begins before `end`, with what the feel makes of it. */
export const passStrokes = (lane: LanePlan, end: Ticks): Stroke[] =>
  felt(lane, 0, end + margin(lane), end).filter((stroke) => !isPast(stroke, end));

/**
 * The notes of a lane whose steps begin within a stretch of its pattern: what a song plays of it. What the feel carries
 * over the edges of the stretch sounds there.
 *
 * @param begin the stretch: included, to `end` excluded, from the pattern's own start
 * @param rollsEnd whether a roll ends with the stretch
 * @param from the window that is asked for: the notes that sound in it are given, and some around it
 */
export const stretchNotes = (
  lane: LanePlan,
  begin: Ticks,
  end: Ticks,
  from: Ticks = -Infinity,
  to: Ticks = Infinity,
  rollsEnd = true,
  onMerged?: Merged,
): Note[] => {
  const own: Merged = (rule) => rule >= begin - 1e-6 && rule < end - 1e-6 && onMerged?.(rule);
  const first = Math.max(0, begin - margin(lane), from - margin(lane));
  const last = Math.min(end + margin(lane), to + margin(lane) + lane.longest);
  return laneNotes(lane, first, last, end, own).filter(
    ({ rule, stroke, tick }) => rule >= begin - 1e-6 && !(rollsEnd && stroke > 0 && tick >= end),
  );
};

/** How far around a window strokes may stand that have to do with it. */
export const margin = (lane: LanePlan): Ticks => lane.reach + lane.around;

const heldAtStart = (note: Note): Note => {
  if (note.tick >= 0) return note;
  note.length = Math.max(1, note.length + note.tick);
  note.tick = 0;
  note.moved = true;
  return note;
};

/**
 * The notes that begin within a window of time, played from the start and repeated without end: live playback.
 * Any window agrees with the same part of any other. Notes before the start are held there.
 *
 * @param from included, from where play began, 0 or later
 * @param to excluded
 * @returns the notes in order of time
 * @example playWindow(planPattern(beat, pattern), 0, 3840) // the first bar
 */
export const playWindow = (plan: PlayPlan, from: Ticks, to: Ticks): Note[] => {
  const out: Note[] = [];
  for (const lane of plan.lanes) {
    const notes = laneNotes(lane, from - margin(lane), to + margin(lane) + lane.longest);
    for (const one of notes) {
      const note = heldAtStart(one);
      if (note.tick >= from && note.tick < to) out.push(note);
    }
  }
  return out.sort(inOrder);
};

/** What happens to a note that the feel carries over the edge of a loop. */
export type LoopEdges = 'wrap' | 'hold';

const aroundLoop = (note: Note, total: Ticks, edges: LoopEdges): Note => {
  if (note.tick >= 0 && note.tick < total) return note;
  note.tick =
    edges === 'wrap' ? note.tick - Math.floor(note.tick / total) * total : held(note.tick, 0, total - 1);
  note.moved = true;
  return note;
};

/** A long stretch is played in pieces, so that what a file needs of them can be kept without the rest. */
export const PIECE: Ticks = 16 * 3840;

function* loopOfLane(lane: LanePlan, total: Ticks, edges: LoopEdges): Generator<Note[], void, void> {
  const before = margin(lane);
  const after = before + lane.longest;
  for (let at = 0; at < total; at += PIECE) {
    const from = at === 0 ? -Infinity : at;
    const to = at + PIECE >= total ? Infinity : at + PIECE;
    const notes = laneNotes(lane, Math.max(0, at - before), at + PIECE + after, total);
    yield notes
      .filter((note) => note.tick >= from && note.tick < to)
      .map((note) => aroundLoop(note, total, edges));
  }
}

/**
 * The notes of so many passes as a loop, in order of time: what is carried over an edge comes in at the other one, or is
 * held at it, and nothing sounds past the end.
 *
 * @param passes 1 or more
 */
export const playLoop = (plan: PlayPlan, passes: number, edges: LoopEdges = 'wrap'): Note[] => {
  const total = plan.length * passes;
  const lanes = plan.lanes.map((lane) => ended(sorted([...loopOfLane(lane, total, edges)].flat())));
  const notes = lanes.flat();
  for (const note of notes) note.length = Math.min(note.length, total - note.tick);
  return notes.sort(inOrder);
};

/** A hit as it is drawn: where its stroke sounds in the pattern's first pass, whether chance lets it sound or not. */
export interface Drawn {
  step: number;
  place: number;
  stroke: number;
  /** The straight grid's position of its step. */
  rule: Ticks;
  /** Where it sounds. */
  tick: Ticks;
  velocity: Velocity;
}

/** What a lane plays over the pattern's length from the start, for the eye: every stroke, none merged or held. */
export const drawnStrokes = (plan: PlayPlan, lane: LanePlan): Drawn[] => {
  const drawn: Drawn[] = [];
  for (const stroke of felt(lane, 0, plan.length + margin(lane), plan.length)) {
    if (isPast(stroke, plan.length)) continue;
    drawn.push({
      step: stroke.step,
      place: stroke.place,
      stroke: stroke.stroke,
      rule: stroke.rule,
      tick: stroke.tick,
      velocity: velocityOf(stroke),
    });
  }
  return drawn;
};
