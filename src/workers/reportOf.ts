import { readMidiFile } from '../../core/midi/read/readMidi';
import type { Shape } from '../../core/document/feelSchema';
import type { Beat } from '../../core/document/schema';
import { reportFeel, type FeelReport } from '../../core/analysis/measure';
import { ticksPerMs } from '../../core/units';
import type { Groove } from '../../core/groove/groove';
import { groovePerformance } from '../../core/groove/perform';
import type { Performance } from '../../core/analysis/performance';
import { drumGroupOfFile, performanceOf } from '../../core/midi/read/midiFile';
import { feelOf, patternOf } from '../../core/document/defaults';
import { patternPerformance, shapePerformance } from '../../core/analysis/patternPerformance';
import type { Read } from '../../core/document/file';
import { beatTicks } from '../../core/document/meter';
import type { DrumGroup } from '../../core/document/choices';
import { drumGroupOf } from '../../core/document/drumGroups';
import { playability } from '../../core/groove/playability';
import { sticking, unplayable } from '../../core/hands/sticking';
import { drumStrokes } from '../../core/midi/read/drumStrokes';
import { handStrokes } from '../../core/play/plan';
import { playedFeel, type PlayedFeel } from '../../core/analysis/playedFeel';
import { playersLines } from '../../core/analysis/playedText';
import { ownPerformance, type PlayedKept } from '../keeping/ownFeel';
import { words } from '../words/workers';

/** What a report may be asked of. */
export type ReportSource =
  | { kind: 'pattern'; beat: Beat; patternId: string; passes: number }
  | { kind: 'file'; bytes: Uint8Array }
  /** A template has no tempo: its distances are told at that of what it is set against, or at 120. */
  | { kind: 'template'; shape: Shape; bpm?: number }
  | { kind: 'groove'; groove: Groove }
  /** What the user played in over time. */
  | { kind: 'played'; all: PlayedKept[] };

const performed = (source: ReportSource): Read<Performance> => {
  if (source.kind === 'pattern')
    return {
      ok: true,
      value: patternPerformance(source.beat, patternOf(source.beat, source.patternId), source.passes),
    };
  if (source.kind === 'groove') return { ok: true, value: groovePerformance(source.groove) };
  if (source.kind === 'played') {
    const own = ownPerformance(source.all);
    return own ? { ok: true, value: own } : { ok: false, error: words.thereAreNoDrumsIn };
  }
  if (source.kind === 'template') {
    const { shape, bpm = 120 } = source;
    return { ok: true, value: { ...shapePerformance(shape), ticksPerMs: () => ticksPerMs(bpm) } };
  }
  const file = readMidiFile(source.bytes);
  return file.ok ? { ok: true, value: performanceOf(file.value) } : file;
};

/** What of its drums is beyond one drummer. */
const handsIn = (source: ReportSource): FeelReport['hands'] => {
  if (source.kind === 'template' || source.kind === 'played') return undefined;
  if (source.kind === 'groove') return playability(source.groove);
  if (source.kind === 'pattern') {
    const pattern = patternOf(source.beat, source.patternId);
    const strokes = handStrokes(source.beat, pattern);
    const leftHanded = feelOf(source.beat, pattern).humanize.leftHanded ?? false;
    const stuck = sticking(strokes, { leftHanded, beat: beatTicks(pattern.meter) });
    return { ...unplayable(stuck), strokes: strokes.length };
  }
  const file = readMidiFile(source.bytes);
  if (!file.ok) return undefined;
  const { strokes } = drumStrokes(file.value);
  return { ...unplayable(sticking(strokes, { beat: beatTicks(file.value.meter) })), strokes: strokes.length };
};

/** The group of drums that each lane of a performance belongs to. */
const groupsIn =
  (source: ReportSource) =>
  (lane: string): DrumGroup | null => {
    if (source.kind === 'template') return null;
    if (source.kind === 'played') return lane as DrumGroup;
    if (source.kind === 'groove') {
      const own = source.groove.lanes[Number(lane)];
      return own && !own.unknown && !own.tuned ? drumGroupOf(own.instrument) : null;
    }
    if (source.kind === 'pattern') {
      const own = source.beat.lanes.find(({ id }) => id === lane);
      return own && !own.tuning ? drumGroupOf(own.instrument) : null;
    }
    return drumGroupOfFile(lane);
  };

/** How a pattern, a file or a groove is played, as a feel to play by; a sentence where that cannot be told. */
export const playedOf = (name: string, source: ReportSource): Read<PlayedFeel> => {
  const read = performed(source);
  if (!read.ok) return read;
  const played = playedFeel(name, read.value, groupsIn(source));
  return played ? { ok: true, value: played } : { ok: false, error: words.thereAreNoDrumsIn };
};

/** The feel report of a pattern, a file or a template; a sentence where there is none. */
export const reportOf = (source: ReportSource): Read<FeelReport> => {
  const read = performed(source);
  if (!read.ok) return read;
  if (!read.value.notes.length) return { ok: false, error: words.thereAreNoNotesIn };
  const hands = handsIn(source);
  const played = source.kind === 'file' ? playedOf('', source) : null;
  return {
    ok: true,
    value: {
      ...reportFeel(read.value),
      ...(hands && { hands }),
      ...(played?.ok && played.value.players && { players: playersLines(played.value) }),
    },
  };
};
