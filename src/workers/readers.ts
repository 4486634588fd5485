/** All that reads what comes from outside, for the worker that does it. */
import { readMidiFile } from '../../core/midi/read/readMidi';
import { bareName } from '../../core/document/text';
import { readBeat, readBeats } from '../../core/document/file';
import type { Shape } from '../../core/document/feelSchema';
import type { Read } from '../../core/document/file';
import { findGrid, extractTemplate } from '../../core/analysis/extractTemplate';
import { readTemplate } from '../../core/feel/templateFile';
import { readFavourites } from '../../core/groove/favouritesFile';
import { isMidi } from '../../core/midi/read/chunks';
import { readDrumMap } from '../../core/midi/drumMap/drumMapFile';
import { guessMap, type Guess } from '../../core/analysis/guessMap';
import { readMapCsv, readMidnam } from '../../core/midi/drumMap/mapFiles';
import { readMidi } from '../../core/midi/read/readMidi';
import { performanceOf, type MidiFile } from '../../core/midi/read/midiFile';
import { beatFromMidi, midiParts } from '../../core/bring/beatFromMidi';
import { words } from '../words/workers';

/** The notes of a MIDI file, to take a template from. */
const readNotes = (name: string, bytes: Uint8Array): Read<MidiFile> => {
  const file = readMidiFile(bytes);
  if (!file.ok) return { ok: false, error: words.nameCouldNotBeRead(name, file.error) };
  if (!file.value.notes.length) return { ok: false, error: words.nameHasNoNotesSo(name) };
  return file;
};

/** A template from a file of either kind: its own, or a MIDI file whose every bar is taken. */
const openTemplate = (name: string, bytes: Uint8Array): Read<Shape & { about?: string | undefined }> => {
  if (!isMidi(bytes)) {
    const read = readTemplate(new TextDecoder().decode(bytes));
    return read.ok ? read : { ok: false, error: words.nameCouldNotBeRead(name, read.error) };
  }
  const file = readNotes(name, bytes);
  if (!file.ok) return file;
  const performance = performanceOf(file.value);
  const shape = extractTemplate(bareName(name), performance, {
    grid: findGrid(performance),
    length: performance.length,
  });
  return shape ? { ok: true, value: shape } : { ok: false, error: words.nameHasNoNotes(name) };
};

/** What the notes of a file are likely to be. */
const guess = (bytes: Uint8Array, examples: Parameters<typeof guessMap>[1]): Read<Guess[]> => {
  const opened = readMidi(bytes, 'lenient');
  return opened.ok ? { ok: true, value: guessMap(performanceOf(opened.value.file), examples) } : opened;
};

export const readers = {
  readBeats: (text: string): Read<ReturnType<typeof readBeats>> => ({ ok: true, value: readBeats(text) }),
  /** Whether the text of a beat can be read again, once it is written. */
  checkBeat: (text: string): Read<true> => {
    const read = readBeat(text);
    return read.ok ? { ok: true, value: true } : read;
  },
  readTemplate,
  readFavourites,
  readDrumMap,
  readMidnam,
  readMapCsv,
  /** Whether it has notes and can be read in time: what is read knows how to reckon, and cannot be handed over itself. */
  checkNotes: (name: string, bytes: Uint8Array): Read<true> => {
    const file = readNotes(name, bytes);
    return file.ok ? { ok: true, value: true } : file;
  },
  openTemplate,
  guess,
  midiParts,
  beatFromMidi,
};
export type Readers = typeof readers;

/** Any of them, by its name: what is called from afar takes its values as one list. */
export const read = <K extends keyof Readers>(
  what: K,
  given: Parameters<Readers[K]>,
): ReturnType<Readers[K]> =>
  (readers[what] as unknown as (...all: Parameters<Readers[K]>) => ReturnType<Readers[K]>)(...given);
