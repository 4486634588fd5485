import { soundingLanes } from '../document/defaults';
import { fileName } from '../document/text';
import type { Beat, Pattern } from '../document/schema';
import { HOW_DEFAULTS } from './choice';
import { midiOf } from './midi';
import { newPiece } from './pieces';
import type { LoopEdges } from '../play/edges';
import { planPasses } from '../play/timelinePlan';
import type { Channel } from '../units';

/** The choices for a MIDI file, and their bounds. */
export interface ExportOptions {
  format: 0 | 1;
  /** Ticks a quarter note. */
  ppq: number;
  /** How many times the pattern is played. */
  passes: number;
  channel: Channel;
  includeMuted: boolean;
  edges: LoopEdges;
}

export const EXPORT_DEFAULTS: ExportOptions = {
  format: 1,
  ppq: 960,
  passes: 1,
  channel: 10,
  includeMuted: false,
  edges: 'wrap',
};

export const EXPORT_BOUNDS = {
  ppq: { least: 96, most: 1920 },
  passes: { least: 1, most: 64 },
  channel: { least: 1, most: 16 },
} as const;

/** A written file, and what there is to say about it. */
export interface Exported {
  bytes: Uint8Array;
  /** Named after beat and pattern. */
  name: string;
  notes: number;
  bars: number;
  /** Names of the lanes that were left out because they are muted, or another one is soloed. */
  leftOut: string[];
  /** Notes for which there was no room among others of the same number. */
  dropped: number;
  /** Strokes that stood less than 1 ms from another one of their lane and became one with it. */
  merged: number;
  /** Notes that the feel carries over the loop's edge. */
  carried: number;
}

/**
 * A pattern as a Standard MIDI File: note for note what is heard.
 *
 * @param pattern one of the beat's
 * @example exportPattern(beat, beat.patterns[0]!, EXPORT_DEFAULTS).name // "Lantern-Walk-A.mid"
 */
export const exportPattern = (beat: Beat, pattern: Pattern, options: ExportOptions): Exported => {
  const plan = planPasses(beat, pattern, options.passes, { includeMuted: options.includeMuted });
  const range = { from: 0, to: plan.timeline.length };
  const piece = newPiece({ name: pattern.name, number: null, plan, range, edges: options.edges });
  const { files, bars, dropped, merged, carried } = midiOf(piece, beat, { ...HOW_DEFAULTS, ...options });
  const [file] = files;
  const sounding = new Set(options.includeMuted ? beat.lanes : soundingLanes(beat));
  return {
    bytes: file!.bytes,
    name: `${fileName(beat.name, pattern.name)}.mid`,
    notes: file!.notes,
    bars,
    leftOut: beat.lanes.filter((lane) => !sounding.has(lane)).map((lane) => lane.name),
    dropped,
    merged,
    carried,
  };
};
