import { capital } from '../../capital';
import { parseMidi, type MidiData } from 'midi-file';
import type { Read } from '../../document/file';
import { count } from '../../document/text';
import { QUARTER, type Bpm } from '../../units';
import { smfOf } from '../bytes';
import { readChunks, type Damage } from './chunks';
import { beyondBounds, FILE_BOUNDS } from './limits';
import { fileOf, metersLeftOut, type MidiFile, type ReadNote } from './midiFile';

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

/** Its parser shifts a bit by the power of a note value: 31 gives less than 0, which would be written as another one. */
const parsed = (bytes: Uint8Array): MidiData => {
  const data = parseMidi(bytes);
  for (const event of data.tracks.flat())
    if (event.type === 'timeSignature' && event.denominator < 0) event.denominator = 2 ** 30;
  return data;
};

/** Sentences of what was mended. @example ["Track 2 breaks off; what stands before that was read."] */
const warningsOf = (damage: Damage[]): string[] =>
  damage.map(({ what, mended: done }) => {
    const clause = done ? `${what}; ${done}` : what;
    return `${capital(clause)}.`;
  });

/**
 * Reads a Standard MIDI File. Strictly, a damaged one is refused; leniently, it gives what can be read of it, with a warning
 * for each thing that was mended. Both give the same events of a file that is whole.
 *
 * @param how `strict` for files whose notes are moved and written again, `lenient` for files from anywhere
 * @returns the file, or a sentence for a person that says why it is refused; it never throws
 * @example readMidi(new Uint8Array(), 'strict') // { ok: false, error: 'It is empty.' }
 */
export const readMidi = (bytes: Uint8Array, how: 'strict' | 'lenient'): Read<OpenedFile> => {
  if (bytes.length > FILE_BOUNDS.bytes) return fault('It is larger than 4 MB.');
  const chunks = readChunks(bytes);
  if (!chunks.ok) return chunks;
  const { format, division, tracks, damage } = chunks.value;
  const isFilm = (division & SMPTE) !== 0;
  if (how === 'strict') {
    if (isFilm) return fault('It counts time in film frames (SMPTE), which has no beats to move notes by.');
    if (damage.length) return fault(`It is damaged: ${damage[0]!.what}.`);
  }
  const frames = isFilm ? filmFault(division) : null;
  if (frames) return fault(frames);
  let file: MidiFile;
  try {
    file = fileOf(parsed(smfOf(format, QUARTER, tracks)), ppqOf(division));
  } catch {
    return fault('It is damaged: one of its events could not be read.');
  }
  const beyond = beyondBounds(file);
  if (beyond) return fault(beyond);
  const warnings = warningsOf(damage);
  if (isFilm)
    warnings.push(`It counts time in film frames (SMPTE): read as if its tempo were ${SMPTE_TEMPO} BPM.`);
  const endless = endAtNext(file.notes);
  if (endless === 1) warnings.push('1 note has no end and was given one.');
  if (endless > 1) warnings.push(`${endless} notes have no end and were given one.`);
  const uncounted = metersLeftOut(file.tracks);
  if (uncounted)
    warnings.push(`${count(uncounted, 'time signature')} skipped: the note value is shorter than a 64th.`);
  return { ok: true, value: { file, division, warnings } };
};

/** The same for those that want the notes alone: read strictly. @example readMidiFile(bytes).ok // true */
export const readMidiFile = (bytes: Uint8Array): Read<MidiFile> => {
  const read = readMidi(bytes, 'strict');
  return read.ok ? { ok: true, value: read.value.file } : read;
};
