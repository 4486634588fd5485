import {
  ended,
  inOrder,
  margin,
  PIECE,
  sorted,
  stretchNotes,
  type LoopEdges,
  type Merged,
  type Note,
} from '../play/play';
import { held, type Ticks } from '../units';
import type { LanePlan } from '../play/plan';
import type { Stretch } from './layout';
import type { SongPlan } from './plan';

/** A stretch of time, `from` included and `to` not. */
export interface Range {
  from: Ticks;
  to: Ticks;
}

const ALL: Range = { from: -Infinity, to: Infinity };

/** The farthest that the feel carries a note from its stretch: ten quarters are two seconds at the fastest tempo. */
const FAR: Ticks = 9600;

/** What one lane plays in a stretch, told from the song's start. */
const laneInStretch = (
  lane: LanePlan,
  stretch: Stretch,
  part: number,
  { from, to }: Range,
  onMerged?: Merged,
): Note[] => {
  const shift = stretch.from - stretch.offset;
  const begin = stretch.offset;
  const inSong = stretch.span.section !== null;
  const told: Merged | undefined = onMerged && ((rule) => onMerged(rule + shift));
  const notes = stretchNotes(lane, begin, begin + stretch.length, from - shift, to - shift, inSong, told);
  for (const note of notes) {
    note.tick += shift;
    note.rule += shift;
    note.part = part;
  }
  return notes;
};

/** The stretches of a song that may have a note within a stretch of time. */
const stretchesNear = ({ layout }: SongPlan, from: Ticks, to: Ticks): { stretch: Stretch; part: number }[] =>
  layout.stretches
    .map((stretch, part) => ({ stretch, part }))
    .filter(({ stretch }) => stretch.from - FAR < to && stretch.from + stretch.length + FAR > from);

/** What one lane plays within a stretch of time, and some around it; none sounding into the next. */
const laneWithin = (plan: SongPlan, index: number, { from, to }: Range, onMerged?: Merged): Note[] => {
  const last = to + plan.longest + FAR;
  const notes: Note[] = [];
  for (const { stretch, part } of stretchesNear(plan, from, last)) {
    const lane = plan.lanesOf(stretch).find((one) => one.index === index);
    if (lane)
      for (const note of laneInStretch(lane, stretch, part, { from, to: last }, onMerged)) notes.push(note);
  }
  return ended(sorted(notes));
};

/**
 * The notes of a song that begin within a stretch of time. A note that the feel moves sounds earlier or later, in the
 * section before or after if it comes to that; only what would sound before the first bar is held there.
 *
 * @param rules only notes whose steps lie within it
 * @param start where play begins: what would sound before it is held there
 * @returns in order of time
 */
export const songWindow = (
  plan: SongPlan,
  from: Ticks,
  to: Ticks,
  rules: Range = ALL,
  start: Ticks = 0,
): Note[] => {
  const out: Note[] = [];
  // At its start, what is held there has to be looked for before it.
  const range = { from: from <= start ? start - FAR : from, to };
  for (let lane = 0; lane < plan.beat.lanes.length; lane++)
    for (const note of laneWithin(plan, lane, range)) {
      if (note.rule < rules.from - 1e-6 || note.rule >= rules.to - 1e-6) continue;
      if (note.tick < start) {
        note.length = Math.max(1, note.length + note.tick - start);
        note.tick = start;
        note.moved = true;
      }
      if (note.tick >= from && note.tick < to) out.push(note);
    }
  return out.sort(inOrder);
};

/** A note that the feel carries past an edge comes in at the other one, or is held. */
const aroundEdges = (note: Note, length: Ticks, edges: LoopEdges): void => {
  if (note.tick >= 0 && note.tick < length) return;
  note.moved = true;
  note.tick =
    edges === 'wrap' ? note.tick - Math.floor(note.tick / length) * length : held(note.tick, 0, length - 1);
};

/** What a lane plays in a stretch, as far as its steps lie within a range, in pieces. */
function* piecesOf(
  lane: LanePlan,
  stretch: Stretch,
  part: number,
  range: Range,
  onMerged?: Merged,
): Generator<Note[], void, void> {
  const end = Math.min(range.to, stretch.from + stretch.length);
  const around = margin(lane);
  for (let at = Math.max(range.from, stretch.from); at < end - 1e-6; at += PIECE) {
    const to = Math.min(end, at + PIECE);
    // A piece sees what stands around it too; each stroke belongs where its step is.
    const own = (rule: Ticks) => rule >= at - 1e-6 && rule < to - 1e-6;
    const seen = { from: at - around, to: to + around };
    const notes = laneInStretch(lane, stretch, part, seen, (rule) => own(rule) && onMerged?.(rule));
    yield notes.filter(({ rule }) => own(rule));
  }
}

/**
 * All notes lane by lane, as they are written to a file. A lane comes in pieces, so that a long file need not hold all
 * notes at once: tidying up after them would cost more than writing them.
 *
 * @param edges what becomes of what the feel carries past the first or the last bar line: it comes in at the other end,
 *   as in a loop, or is held
 * @param range only what belongs to a part of the song, told from its start; left out, all of it
 * @param onMerged told of every stroke that has become one with another, being less than 1 ms from it
 * @yields pieces of one lane each, none empty; a length may reach past the next note of another piece, or past the end
 */
export function* songLanes(
  plan: SongPlan,
  edges: LoopEdges,
  range: Range = { from: 0, to: plan.layout.length },
  onMerged?: Merged,
): Generator<Note[], void, void> {
  const length = range.to - range.from;
  for (let index = 0; index < plan.beat.lanes.length; index++)
    for (const { stretch, part } of stretchesNear(plan, range.from, range.to)) {
      const lane = plan.lanesOf(stretch).find((one) => one.index === index);
      if (!lane) continue;
      for (const notes of piecesOf(lane, stretch, part, range, onMerged)) {
        for (const note of notes) {
          note.tick -= range.from;
          note.rule -= range.from;
          aroundEdges(note, length, edges);
        }
        if (notes.length) yield notes;
      }
    }
}

/** The same in order of time, none sounding past the next of its lane or the end: for all that is no MIDI file. */
export const songNotes = (plan: SongPlan, edges: LoopEdges, range?: Range): Note[] => {
  const length = range ? range.to - range.from : plan.layout.length;
  const lanes = plan.beat.lanes.map((): Note[] => []);
  for (const notes of songLanes(plan, edges, range)) for (const note of notes) lanes[note.lane]!.push(note);
  const notes = lanes.flatMap((lane) => ended(sorted(lane)));
  for (const note of notes) note.length = Math.min(note.length, length - note.tick);
  return notes.sort(inOrder);
};
