import { readMidiFile } from '../../core/midi/read/readMidi';
import type { Shape } from '../../core/document/feelSchema';
import type { Beat } from '../../core/document/schema';
import { reportFeel, type FeelReport } from '../../core/analysis/measure';
import { ticksPerMs } from '../../core/units';
import type { Groove } from '../../core/groove/groove';
import { groovePerformance } from '../../core/groove/perform';
import type { Performance } from '../../core/analysis/performance';
import { performanceOf } from '../../core/midi/read/midiFile';
import { patternOf } from '../../core/document/defaults';
import { patternPerformance, shapePerformance } from '../../core/analysis/patternPerformance';
import type { Read } from '../../core/document/file';
import { words } from '../words/workers';

/** What a report may be asked of. */
export type ReportSource =
  | { kind: 'pattern'; beat: Beat; patternId: string; passes: number }
  | { kind: 'file'; bytes: Uint8Array }
  /** A template has no tempo: its distances are told at that of what it is set against, or at 120. */
  | { kind: 'template'; shape: Shape; bpm?: number }
  | { kind: 'groove'; groove: Groove };

const performed = (source: ReportSource): Read<Performance> => {
  if (source.kind === 'pattern')
    return {
      ok: true,
      value: patternPerformance(source.beat, patternOf(source.beat, source.patternId), source.passes),
    };
  if (source.kind === 'groove') return { ok: true, value: groovePerformance(source.groove) };
  if (source.kind === 'template') {
    const { shape, bpm = 120 } = source;
    return { ok: true, value: { ...shapePerformance(shape), ticksPerMs: () => ticksPerMs(bpm) } };
  }
  const file = readMidiFile(source.bytes);
  return file.ok ? { ok: true, value: performanceOf(file.value) } : file;
};

/** The feel report of a pattern, a file or a template; a sentence where there is none. */
export const reportOf = (source: ReportSource): Read<FeelReport> => {
  const read = performed(source);
  if (!read.ok) return read;
  return read.value.notes.length
    ? { ok: true, value: reportFeel(read.value) }
    : { ok: false, error: words.thereAreNoNotesIn };
};
