import type { MidiEvent } from 'midi-file';
import { fileOf, wholeBars, type MidiFile } from '../read/midiFile';
import { QUARTER } from '../../units';

/** Where a sequence of a file begins once all are laid out, and what it is called. */
export interface Sequence {
  /** In ticks of the file. */
  at: number;
  /** In ticks of the file: whole bars. */
  length: number;
  name: string;
}

const nameOf = (events: MidiEvent[], number: number): string => {
  const named = events.find((event) => event.type === 'trackName' || event.type === 'sequencerSpecific');
  return named?.type === 'trackName' && named.text.trim() ? named.text : `Sequence ${number}`;
};

/** The tempo and meter of a sequence without its own: nothing of the one before holds on. */
const AFRESH: MidiEvent[] = [
  { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 500_000 },
  {
    deltaTime: 0,
    meta: true,
    type: 'timeSignature',
    numerator: 4,
    denominator: 4,
    metronome: 24,
    thirtyseconds: 8,
  },
];

const saysAtStart = (events: MidiEvent[], type: MidiEvent['type']): boolean => {
  let tick = 0;
  for (const event of events) {
    tick += event.deltaTime;
    if (tick > 0) return false;
    if (event.type === type) return true;
  }
  return false;
};

/**
 * A file of format 2 holds sequences that do not sound together. They are laid one after the other, each from a bar line
 * on with its own tempo and meter, so that it can be read as any other file.
 *
 * @param file of any format
 * @returns the file, and its sequences; of another format than 2 the file itself and none
 * @example inSequence(file).sequences // []
 */
export const inSequence = (file: MidiFile): { file: MidiFile; sequences: Sequence[] } => {
  if (file.format !== 2) return { file, sequences: [] };
  const sequences: Sequence[] = [];
  const all: MidiEvent[][] = [];
  let at = 0;
  file.tracks.forEach((events) => {
    const alone = fileOf(
      { header: { format: 0, numTracks: 1, ticksPerBeat: 1 }, tracks: [events] },
      file.ppq,
    );
    if (!alone.notes.length) return;
    const length = Math.round((wholeBars(alone) * file.ppq) / QUARTER);
    const afresh = AFRESH.filter(({ type }) => !saysAtStart(events, type));
    const [first, ...others] = [...afresh, ...events] as [MidiEvent, ...MidiEvent[]];
    all.push([{ ...first, deltaTime: first.deltaTime + at }, ...others]);
    sequences.push({ at, length, name: nameOf(events, sequences.length + 1) });
    at += length;
  });
  const laid = fileOf(
    { header: { format: 1, numTracks: all.length, ticksPerBeat: 1 }, tracks: all },
    file.ppq,
  );
  return { file: { ...laid, format: file.format }, sequences };
};
