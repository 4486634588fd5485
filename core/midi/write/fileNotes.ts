import type { LoopEdges } from '../../play/edges';
import type { Note } from '../../play/notes';
import type { Ticks } from '../../units';
import { clamp, QUARTER } from '../../units';
import {
  concatenated,
  copyNote,
  emptyColumns,
  shortened,
  sortedByTick,
  type NoteColumns,
} from './noteColumns';

export interface FileNotes {
  notes: NoteColumns;
  /** Where the file ends, in its own ticks. */
  end: number;
  /** How many notes found no room among those of the same number and were left out, the softer ones. */
  dropped: number;
  /** How many notes the feel carried over the loop's edge. */
  carried: number;
}

/** A run of occupied ticks, one note a tick, that ends with the last of `size` notes. Finds where it begins. */
const runStart = ({ tick }: NoteColumns, size: number): number => {
  let at = size - 1;
  while (at > 0 && tick[at - 1]! === tick[at]! - 1) at--;
  return at;
};

/** No room before the end: the softest of the run gives way to a louder note. */
const makeRoom = (notes: NoteColumns, size: number, from: number, end: number): void => {
  const { velocity, tick } = notes;
  const start = runStart(notes, size);
  let softest = start;
  for (let i = start; i < size; i++) if (velocity[i]! < velocity[softest]!) softest = i;
  if (velocity[softest]! >= velocity[from]!) return;
  for (let i = softest; i + 1 < size; i++) {
    const place = tick[i]!;
    copyNote(notes, i + 1, notes, i);
    tick[i] = place;
  }
  copyNote(notes, from, notes, size - 1);
  tick[size - 1] = end - 1;
};

/** Every note its own tick: one that falls onto the tick before goes one later. */
const spread = (notes: NoteColumns, end: number): NoteColumns => {
  let size = 0;
  for (let i = 0; i < notes.size; i++) {
    const tick = size ? Math.max(notes.tick[i]!, notes.tick[size - 1]! + 1) : notes.tick[i]!;
    if (tick >= end) {
      makeRoom(notes, size, i, end);
      continue;
    }
    copyNote(notes, i, notes, size);
    notes.tick[size++] = tick;
  }
  return shortened(notes, size);
};

const endBeforeNext = (notes: NoteColumns, end: number): NoteColumns => {
  const { tick, length, size } = notes;
  for (let i = 0; i < size; i++) {
    const limit = i + 1 < size ? tick[i + 1]! : end;
    length[i] = clamp(length[i]!, 1, limit - tick[i]!);
  }
  return notes;
};

const laneColumns = (lane: Note[], scale: number, end: number, edges: LoopEdges): NoteColumns => {
  const out = emptyColumns(lane.length);
  lane.forEach((note, i) => {
    const tick = Math.round(note.tick * scale);
    out.tick[i] = edges === 'wrap' ? tick % end : Math.min(tick, end - 1);
    out.length[i] = Math.round(note.length * scale);
    out.velocity[i] = note.velocity;
    out.note[i] = note.note;
    out.channel[i] = note.channel;
    out.lane[i] = note.lane;
  });
  return out;
};

/** Notes of a lane that plays several pitches, each by itself. */
const byNumber = (lane: Note[]): Note[][] => {
  const first = lane[0]!.note;
  if (lane.every(({ note }) => note === first)) return [lane];
  const numbers = new Map<number, Note[]>();
  for (const note of lane) {
    const list = numbers.get(note.note);
    if (list) list.push(note);
    else numbers.set(note.note, [note]);
  }
  return [...numbers.values()];
};

/**
 * Brings notes onto the ticks of a file: at most one note a tick for each channel and number, none longer than to the
 * next one or the file's end, none shorter than a tick. Lanes that share channel and number count as one.
 *
 * @param played the notes in any pieces, each of one channel and number
 * @param total the length of what is written, in ticks of 960 to the quarter; a note that rounds onto it is carried
 *   to the start
 * @param ppq the file's division, ticks a quarter
 * @param edges whether a note that rounds onto the end comes in at the start, or is held
 */
export const fileNotes = (
  played: Iterable<Note[]>,
  total: Ticks,
  ppq: number,
  edges: LoopEdges = 'wrap',
): FileNotes => {
  const scale = ppq / QUARTER;
  const end = Math.round(total * scale);
  const groups = new Map<number, NoteColumns[]>();
  let all = 0;
  let carried = 0;
  for (const lane of played) {
    if (!lane[0]) continue;
    for (const alike of byNumber(lane)) {
      const key = alike[0]!.channel * 128 + alike[0]!.note;
      const group = groups.get(key);
      if (group) group.push(laneColumns(alike, scale, end, edges));
      else groups.set(key, [laneColumns(alike, scale, end, edges)]);
    }
    all += lane.length;
    for (const note of lane) if (note.moved) carried += 1;
  }
  const notes = concatenated(
    [...groups.values()].map((lanes) => endBeforeNext(spread(sortedByTick(concatenated(lanes)), end), end)),
  );
  return { notes, end, dropped: all - notes.size, carried };
};
