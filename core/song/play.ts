import { ended, inOrder, sorted, stretchNotes, type LoopEdges, type Merged, type Note } from '../play/play';
import { held, type Ticks } from '../units';
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

/** Adds what a stretch plays to the notes of each lane. */
const addStretch = (
  plan: SongPlan,
  stretch: Stretch,
  part: number,
  { from, to }: Range,
  lanes: Map<number, Note[]>,
  onMerged?: Merged,
): void => {
  const shift = stretch.from - stretch.offset;
  const begin = stretch.offset;
  const inSong = stretch.span.section !== null;
  for (const lane of plan.lanesOf(stretch)) {
    const told: Merged | undefined = onMerged && ((rule) => onMerged(rule + shift));
    const notes = stretchNotes(lane, begin, begin + stretch.length, from - shift, to - shift, inSong, told);
    if (!notes.length) continue;
    for (const note of notes) {
      note.tick += shift;
      note.rule += shift;
      note.part = part;
    }
    const list = lanes.get(lane.index);
    if (list) for (const note of notes) list.push(note);
    else lanes.set(lane.index, notes);
  }
};

/** The notes of each lane that sound within a stretch of time, and some around it. */
const lanesWithin = (plan: SongPlan, { from, to }: Range, onMerged?: Merged): Map<number, Note[]> => {
  const lanes = new Map<number, Note[]>();
  const last = to + plan.longest + FAR;
  plan.layout.stretches.forEach((stretch, part) => {
    if (stretch.from - FAR < last && stretch.from + stretch.length + FAR > from)
      addStretch(plan, stretch, part, { from, to: last }, lanes, onMerged);
  });
  for (const [lane, notes] of lanes) lanes.set(lane, ended(sorted(notes)));
  return lanes;
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
  const lanes = lanesWithin(plan, { from: from <= start ? start - FAR : from, to });
  for (const notes of lanes.values())
    for (const note of notes) {
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

/**
 * All notes lane by lane, as they are written to a file.
 *
 * @param edges what becomes of what the feel carries past the first or the last bar line: it comes in at the other end,
 *   as in a loop, or is held
 * @param onMerged told of every stroke that has become one with another, being less than 1 ms from it
 * @param range only what belongs to a part of the song, told from its start; left out, all of it
 */
export const songLanes = (
  plan: SongPlan,
  edges: LoopEdges,
  range: Range = { from: 0, to: plan.layout.length },
  onMerged?: Merged,
): Map<number, Note[]> => {
  const length = range.to - range.from;
  const own: Merged = (rule) => rule >= range.from - 1e-6 && rule < range.to - 1e-6 && onMerged?.(rule);
  const lanes = lanesWithin(plan, { from: range.from - FAR, to: range.to + FAR }, own);
  for (const [lane, all] of lanes) {
    const notes = all.filter(({ rule }) => rule >= range.from - 1e-6 && rule < range.to - 1e-6);
    lanes.set(lane, notes);
    for (const note of notes) {
      note.tick -= range.from;
      note.rule -= range.from;
      if (note.tick >= 0 && note.tick < length) continue;
      note.moved = true;
      note.tick =
        edges === 'wrap'
          ? note.tick - Math.floor(note.tick / length) * length
          : held(note.tick, 0, length - 1);
    }
  }
  return lanes;
};

/** The same in order of time, none sounding past the end: for all that is no MIDI file. */
export const songNotes = (plan: SongPlan, edges: LoopEdges, range?: Range): Note[] => {
  const length = range ? range.to - range.from : plan.layout.length;
  const notes = [...songLanes(plan, edges, range).values()].flatMap((lane) => ended(sorted(lane)));
  for (const note of notes) note.length = Math.min(note.length, length - note.tick);
  return notes.sort(inOrder);
};
