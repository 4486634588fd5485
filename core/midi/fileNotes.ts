import type { Note } from '../play/play';
import type { Channel, MidiNote, Ticks, Velocity } from '../units';
import { held, QUARTER } from '../units';

/** A note as it stands in a file: whole ticks of the file's own division. */
export interface FileNote {
  tick: number;
  length: number;
  velocity: Velocity;
  note: MidiNote;
  channel: Channel;
}

export interface FileNotes {
  notes: FileNote[];
  /** Where the file ends, in its own ticks. */
  end: number;
  /** How many notes found no room among those of the same number and were left out, the softer ones. */
  dropped: number;
}

/** Lanes that share channel and note count as one. */
const byNumber = (notes: FileNote[]): FileNote[][] => {
  const groups = new Map<number, FileNote[]>();
  for (const note of notes) {
    const key = note.channel * 128 + note.note;
    const group = groups.get(key);
    if (group) group.push(note);
    else groups.set(key, [note]);
  }
  return [...groups.values()];
};

/** A run of occupied ticks, one note a tick, that ends with `out`. Finds where it begins. */
const runStart = (out: FileNote[]): number => {
  let at = out.length - 1;
  while (at > 0 && out[at - 1]!.tick === out[at]!.tick - 1) at--;
  return at;
};

/** Every note its own tick: one that falls onto the tick before goes one later; at the end the softest gives way. */
const spread = (notes: FileNote[], end: number): FileNote[] => {
  const out: FileNote[] = [];
  for (const note of notes) {
    const last = out[out.length - 1];
    const tick = last ? Math.max(note.tick, last.tick + 1) : note.tick;
    if (tick < end) {
      out.push({ ...note, tick });
      continue;
    }
    const from = runStart(out);
    let softest = from;
    for (let i = from; i < out.length; i++) if (out[i]!.velocity < out[softest]!.velocity) softest = i;
    if (out[softest]!.velocity >= note.velocity) continue;
    for (let i = softest; i + 1 < out.length; i++) out[i] = { ...out[i + 1]!, tick: out[i]!.tick };
    out[out.length - 1] = { ...note, tick: end - 1 };
  }
  return out;
};

const endedBeforeNext = (notes: FileNote[], end: number): FileNote[] => {
  notes.forEach((note, at) => {
    const limit = notes[at + 1]?.tick ?? end;
    note.length = held(note.length, 1, limit - note.tick);
  });
  return notes;
};

/**
 * Brings notes onto the ticks of a file: at most one note a tick for each channel and number, none longer than to the
 * next one or the file's end, none shorter than a tick.
 *
 * @param total the length of what is written, in ticks of 960 to the quarter; a note that rounds onto it is carried
 *   to the start
 * @param ppq the file's division, ticks a quarter
 */
export const fileNotes = (played: Note[], total: Ticks, ppq: number): FileNotes => {
  const scale = ppq / QUARTER;
  const end = Math.round(total * scale);
  const rounded = played.map((note) => {
    const tick = Math.round(note.tick * scale) % end;
    return {
      tick,
      length: Math.round(note.length * scale),
      velocity: note.velocity,
      note: note.note,
      channel: note.channel,
    };
  });
  const notes = byNumber(rounded).flatMap((group) =>
    endedBeforeNext(
      spread(
        group.sort((a, b) => a.tick - b.tick),
        end,
      ),
      end,
    ),
  );
  return { notes, end, dropped: played.length - notes.length };
};
