import { swingBend } from '../feel/swing';
import type { Channel, MidiNote, Ticks, Velocity } from '../units';
import { held, ticksPerMs } from '../units';
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
  /** True where the note would have sounded before the start and is held there, or was carried round a loop's end. */
  moved: boolean;
}

/** From a position of a lane to where the base feel takes it. */
type Bend = (position: Ticks) => Ticks;

/** Makes a lane's base feel ready: also for the touch cells, which bend as the beads do. */
export const bendOf = (plan: PlayPlan, lane: LanePlan): Bend => swingBend(plan.meter, lane.swing);

const feel = (lane: LanePlan, bend: Bend, stroke: Stroke): Note => ({
  tick: bend(stroke.at) + stroke.before,
  length: stroke.length ?? lane.step,
  cut: stroke.cut,
  velocity: held(Math.round(stroke.velocity), 1, 127),
  note: lane.note,
  channel: lane.channel,
  lane: lane.index,
  round: stroke.round,
  turn: stroke.turn,
  step: stroke.step,
  place: stroke.place,
  stroke: stroke.stroke,
  moved: false,
});

const inOrder = (a: Note, b: Note): number =>
  a.tick - b.tick || a.lane - b.lane || a.round - b.round || a.turn - b.turn || a.stroke - b.stroke;

/** Sorts in place; a lane's notes mostly are in order as they come, which is found out much faster than sorted. */
const sorted = (notes: Note[]): Note[] => {
  for (let i = 1; i < notes.length; i++)
    if (inOrder(notes[i - 1]!, notes[i]!) > 0) return notes.sort(inOrder);
  return notes;
};

/** Strokes of one lane that stand less than 1 ms apart become one, the louder. */
const merged = (notes: Note[], apart: Ticks): Note[] => {
  const out: Note[] = [];
  let last = -Infinity;
  for (const note of notes) {
    const before = out[out.length - 1];
    if (before && note.tick - last < apart) {
      if (note.velocity > before.velocity) out[out.length - 1] = note;
    } else out.push(note);
    last = note.tick;
  }
  return out;
};

/** A note ends where the next one on its lane begins, at the latest. */
const ended = (notes: Note[]): Note[] => {
  for (let i = 0; i + 1 < notes.length; i++) {
    const note = notes[i]!;
    note.length = Math.min(note.length, notes[i + 1]!.tick - note.tick);
  }
  return notes;
};

const laneNotes = (plan: PlayPlan, lane: LanePlan, from: Ticks, to: Ticks): Note[] => {
  const notes: Note[] = [];
  const bend = bendOf(plan, lane);
  eachStroke(lane, from, to, plan.tempo, (stroke) => {
    if (stroke.sounds) notes.push(feel(lane, bend, stroke));
  });
  return ended(merged(sorted(notes), ticksPerMs(plan.tempo)));
};

/** A little more than a run of strokes that merge can be long, so that a window sees where it begins. */
const RUN: Ticks = 480;

const heldAtStart = (note: Note): Note =>
  note.tick < 0 ? { ...note, tick: 0, length: Math.max(1, note.length + note.tick), moved: true } : note;

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
    const notes = laneNotes(plan, lane, from - lane.reach - RUN, to + lane.reach + lane.longest + RUN);
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
  const tick =
    edges === 'wrap' ? note.tick - Math.floor(note.tick / total) * total : held(note.tick, 0, total - 1);
  return { ...note, tick, moved: true };
};

/** A long loop is played in pieces, so that what a file needs of them can be kept without the rest. */
const PIECE: Ticks = 16 * 3840;

function* loopOfLane(
  plan: PlayPlan,
  lane: LanePlan,
  total: Ticks,
  edges: LoopEdges,
): Generator<Note[], void, void> {
  const before = lane.reach + RUN;
  const after = before + lane.longest;
  for (let at = 0; at < total; at += PIECE) {
    const from = at === 0 ? -Infinity : at;
    const to = at + PIECE >= total ? Infinity : at + PIECE;
    const notes = laneNotes(plan, lane, Math.max(0, at - before), Math.min(total, at + PIECE + after));
    yield notes
      .filter((note) => note.tick >= from && note.tick < to)
      .map((note) => aroundLoop(note, total, edges));
  }
}

/**
 * The notes of so many passes as a loop: what is carried over an edge comes in at the other one, or is held at it.
 *
 * @param passes 1 or more
 * @yields one lane after the other, each in pieces, so that a long file need not hold all notes at once; a length may
 *   still reach past the end, or past a note that was carried round
 */
export function* playLoopByLane(
  plan: PlayPlan,
  passes: number,
  edges: LoopEdges = 'wrap',
): Generator<Note[], void, void> {
  for (const lane of plan.lanes) yield* loopOfLane(plan, lane, plan.length * passes, edges);
}

/**
 * The same with all lanes together, in order of time, and nothing sounding past the end.
 *
 * @param passes 1 or more
 */
export const playLoop = (plan: PlayPlan, passes: number, edges: LoopEdges = 'wrap'): Note[] => {
  const total = plan.length * passes;
  const lanes = plan.lanes.map((lane) => ended(sorted([...loopOfLane(plan, lane, total, edges)].flat())));
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
  const bend = bendOf(plan, lane);
  const drawn: Drawn[] = [];
  eachStroke(lane, 0, plan.length, plan.tempo, (stroke) => {
    const { tick, velocity } = feel(lane, bend, stroke);
    drawn.push({
      step: stroke.step,
      place: stroke.place,
      stroke: stroke.stroke,
      rule: stroke.round * lane.roundTicks + stroke.turn * lane.step,
      tick,
      velocity,
    });
  });
  return drawn;
};
