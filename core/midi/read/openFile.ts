import { parseMidi, writeMidi } from 'midi-file';
import type { Read } from '../../document/file';
import type { Bpm } from '../../units';
import { readChunks, type Chunks } from './chunks';
import { beyondBounds, FILE_BOUNDS } from './limits';
import { fileOf, type MidiFile, type ReadNote } from './readFile';

/** A file as it could be read, and what was wrong with it. */
export interface OpenedFile {
  file: MidiFile;
  /** As it stands in the file's head: ticks a quarter, or film frames. */
  division: number;
  /** A sentence each. */
  warnings: string[];
}

const fault = (error: string): { ok: false; error: string } => ({ ok: false, error });

const SMPTE = 0x8000;
/** Drop frame: 30 frames less one in a thousand. */
const DROP_FRAME = 29;
/** Film time has no beats: it is read as if this were its tempo. */
const SMPTE_TEMPO: Bpm = 120;

/** Ticks a quarter: of SMPTE time, what passes in half a second. */
const ppqOf = (division: number): number => {
  if (!(division & SMPTE)) return division;
  const frames = 256 - (division >> 8);
  const rate = frames === DROP_FRAME ? 30000 / 1001 : frames;
  return (rate * (division & 0xff) * 60) / SMPTE_TEMPO;
};

/** Film runs at one of these. */
const FILM_RATES = [24, 25, 29, 30];

const filmFault = (division: number): string | null => {
  const frames = 256 - (division >> 8);
  if (!FILM_RATES.includes(frames))
    return `It counts time in film frames, ${frames} a second: there is no such film.`;
  return division & 0xff ? null : 'It counts time in film frames, and says that a frame has no ticks.';
};

const TRACK_HEAD = 8;

/** A file of the mended tracks, for the package to read. */
const mended = ({ format, tracks }: Chunks): Uint8Array => {
  const head = writeMidi({ header: { format: 0, numTracks: 0, ticksPerBeat: 960 }, tracks: [] });
  const size = tracks.reduce((sum, track) => sum + TRACK_HEAD + track.length, head.length);
  const out = new Uint8Array(size);
  out.set(head);
  const view = new DataView(out.buffer);
  view.setUint16(8, format);
  view.setUint16(10, tracks.length);
  let at = head.length;
  for (const track of tracks) {
    out.set([0x4d, 0x54, 0x72, 0x6b], at);
    view.setUint32(at + 4, track.length);
    out.set(track, at + TRACK_HEAD);
    at += TRACK_HEAD + track.length;
  }
  return out;
};

/** A note that is never let go ends at the next of its number, or at its track's end. Returns how many there are. */
const endAtNext = (notes: ReadNote[]): number => {
  const next = new Map<string, ReadNote>();
  let count = 0;
  for (const note of [...notes].reverse()) {
    const key = `${note.track} ${note.channel} ${note.note}`;
    const after = next.get(key);
    if (note.off === null) {
      count += 1;
      if (after && after.start > note.start) note.end = after.start;
    }
    next.set(key, note);
  }
  return count;
};

/**
 * Opens a MIDI file from anywhere: damaged ones give what can be read of them, with a warning.
 *
 * @returns the file, or a sentence for a person that says why it cannot be taken in; it never throws
 */
export const openMidi = (bytes: Uint8Array): Read<OpenedFile> => {
  if (bytes.length > FILE_BOUNDS.bytes) return fault('It is larger than 4 MB.');
  const chunks = readChunks(bytes);
  if (!chunks.ok) return chunks;
  const { division, warnings } = chunks.value;
  const frames = division & SMPTE ? filmFault(division) : null;
  if (frames) return fault(frames);
  let file: MidiFile;
  try {
    file = fileOf(parseMidi(mended(chunks.value)), ppqOf(division));
  } catch {
    return fault('It is damaged: one of its events could not be read.');
  }
  const beyond = beyondBounds(file);
  if (beyond) return fault(beyond);
  if (division & SMPTE)
    warnings.push(`It counts time in film frames (SMPTE): read as if its tempo were ${SMPTE_TEMPO} BPM.`);
  const endless = endAtNext(file.notes);
  if (endless === 1) warnings.push('1 note has no end and was given one.');
  if (endless > 1) warnings.push(`${endless} notes have no end and were given one.`);
  return { ok: true, value: { file, division, warnings } };
};
