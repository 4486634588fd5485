import { soundingLanes } from '../beat/defaults';
import { fileName } from '../beat/text';
import type { Beat, Pattern } from '../beat/schema';
import { planPattern } from '../play/plan';
import { playLoopByLane, type LoopEdges, type Note } from '../play/play';
import type { Channel } from '../units';
import { fileNotes } from './fileNotes';
import { microsOf } from '../song/tempoMap';
import { writeSong } from './write';

/** What may be chosen for a MIDI file, and its bounds. */
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

/** What lanes are on as long as nobody gives them a channel of their own. */
const DRUM_CHANNEL: Channel = 10;

/** Lanes that were given a channel of their own keep it. */
function* onChannel(lanes: Iterable<Note[]>, channel: Channel): Generator<Note[], void, void> {
  for (const lane of lanes) {
    for (const note of lane) if (note.channel === DRUM_CHANNEL) note.channel = channel;
    yield lane;
  }
}

/**
 * A pattern as a Standard MIDI File: note for note what is heard.
 *
 * @param pattern one of the beat's
 * @example exportPattern(beat, beat.patterns[0]!, EXPORT_DEFAULTS).name // "Lantern-Walk-A.mid"
 */
export const exportPattern = (beat: Beat, pattern: Pattern, options: ExportOptions): Exported => {
  const plan = planPattern(beat, pattern, { includeMuted: options.includeMuted });
  let merged = 0;
  const played = playLoopByLane(plan, options.passes, options.edges, () => (merged += 1));
  const file = fileNotes(
    onChannel(played, options.channel),
    plan.length * options.passes,
    options.ppq,
    options.edges,
  );
  const sounding = new Set(options.includeMuted ? beat.lanes : soundingLanes(beat));
  return {
    bytes: writeSong({
      format: options.format,
      ppq: options.ppq,
      name: beat.name,
      tempos: [{ tick: 0, micros: microsOf(beat.tempo) }],
      meters: [{ tick: 0, meter: pattern.meter }],
      markers: [{ tick: 0, text: pattern.name }],
      tracks: [{ name: pattern.name, notes: file.notes }],
      end: file.end,
    }),
    name: `${fileName(beat.name, pattern.name)}.mid`,
    notes: file.notes.size,
    bars: pattern.bars * options.passes,
    leftOut: beat.lanes.filter((lane) => !sounding.has(lane)).map((lane) => lane.name),
    dropped: file.dropped,
    merged,
    carried: file.carried,
  };
};
