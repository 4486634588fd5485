import { instrumentOf } from '../../document/instruments';
import { meterText } from '../../document/meter';
import type { Read } from '../../document/file';
import { measureSwing } from '../../analysis/measure';
import type { Bpm, MidiNote } from '../../units';
import { readMidi } from './readMidi';
import { performanceOf, wholeBars, type MidiFile } from './midiFile';

/** The facts about a file before it is heard. */
export interface Inspected {
  format: number;
  ppq: number;
  /** The first tempo. */
  bpm: Bpm;
  /** How many tempos come after it. */
  tempoChanges: number;
  /** @example "4/4" */
  timeSignature: string;
  bars: number;
  notes: number;
  swing: { percent: number; grid: string; hits: number } | null;
  /** By note number, the lowest first. */
  instruments: { note: MidiNote; name: string; hits: number }[];
  warnings: string[];
}

/** How many bars there are, meters that change counted as they come. */
const barsOf = (file: MidiFile): number => {
  const length = wholeBars(file) - 1e-6;
  let count = 0;
  // From meter to meter and not from bar to bar: silence may be long, and bars short.
  for (let at = 0; at < length;) {
    const { from, to, bar } = file.bars.at(at);
    const end = Math.min(to, length);
    count += Math.max(1, Math.ceil((end - from) / bar - 1e-9) - Math.floor((at - from) / bar + 1e-9));
    at = Math.max(at + 1e-3, end);
  }
  return count;
};

const rounded = (value: number): number => Math.round(value * 100) / 100;

const instrumentsOf = ({ notes }: MidiFile): Inspected['instruments'] => {
  const hits = new Map<MidiNote, number>();
  for (const { note } of notes) hits.set(note, (hits.get(note) ?? 0) + 1);
  return [...hits]
    .sort(([a], [b]) => a - b)
    .map(([note, count]) => ({ note, name: instrumentOf(note) ?? `note ${note}`, hits: count }));
};

/**
 * Looks into a MIDI file.
 *
 * @returns what it holds, or a sentence that says why it cannot be read
 * @example
 * inspectMidi(new TextEncoder().encode('no MIDI at all'))
 * // { ok: false, error: "It is not a MIDI file." }
 */
export const inspectMidi = (bytes: Uint8Array): Read<Inspected> => {
  const opened = readMidi(bytes, 'lenient');
  if (!opened.ok) return opened;
  const { file, warnings } = opened.value;
  const swing = file.notes.length ? measureSwing(performanceOf(file)) : null;
  return {
    ok: true,
    value: {
      format: file.format,
      ppq: rounded(file.ppq),
      bpm: rounded(file.tempo),
      tempoChanges: file.tempoChanges,
      timeSignature: meterText(file.meter),
      bars: barsOf(file),
      notes: file.notes.length,
      swing: swing && { percent: rounded(swing.percent), grid: swing.grid, hits: swing.notes },
      instruments: instrumentsOf(file),
      warnings,
    },
  };
};
