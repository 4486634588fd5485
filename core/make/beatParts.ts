import { inOrder, placed, positionOf } from '../document/position';
import { lanePatternOf, newLane, patternTicks } from '../document/defaults';
import { MOST } from '../document/choices';
import { freeId } from '../document/numbered';

import { drumGroupOf } from '../document/drumGroups';

import type { Hit, Lane, Pattern } from '../document/schema';
import type { Groove } from '../groove/groove';

import { ticksPerMs, type Bpm } from '../units';

import { isOfKind } from './drumKind';
import { drummable, type DrummerStroke } from './oneDrummer';

import { partWith, type Made } from './makers';

/** The parts that a whole beat gives to lanes, and the lanes that it needs. */

/** Which lane plays a line: that of its instrument, or one of its kind that no other line has. */
const laneFor = (
  lanes: Lane[],
  instrument: Lane['instrument'],
  taken: ReadonlySet<string>,
): Lane | undefined =>
  lanes.find((lane) => lane.instrument === instrument && !lane.loop) ??
  lanes.find((lane) => isOfKind(lane.instrument, instrument) && !lane.loop && !taken.has(lane.id));

/** The outcome of a whole beat: the part of each lane, the lanes that it needs besides, and what was left out. */
export interface BeatParts {
  parts: Made;
  /** To be added, with the parts that are theirs. */
  added: Lane[];
  /** Instruments for which there was no lane, where none are added, or no room. */
  left: Lane['instrument'][];
}

/** The settings that lay out a whole beat. */
export interface BeatLayout {
  /** Ids of the lanes that stay as they are. */
  kept: readonly string[];
  /** Whether lanes that the style needs and the beat does not have are added. */
  adds: boolean;
  /** Only what one drummer can play beside the lanes that stay. */
  oneDrummer: boolean;
  tempo: Bpm;
}

/** A hit that is struck, and whether it may give way. */
interface Stroke extends DrummerStroke {
  hit: Hit | null;
  laneId: string;
}

/** Strokes that never give way: those that stay as they are, then the strong strokes of the snare. */
const RANK = { kept: 400, backbeat: 200 } as const;
const BACKBEAT = 75;

/** Without the hits for which no hand or foot is free beside what stays. */
const playableParts = (pattern: Pattern, lanes: Lane[], made: Made, { kept, tempo }: BeatLayout): Made => {
  const strokesOf = (lane: Lane): Stroke[] => {
    const fixed = kept.includes(lane.id) || !made[lane.id];
    const part = made[lane.id] ?? lanePatternOf(pattern, lane.id);
    if (lane.mute) return [];
    return part.hits.map((hit) => {
      const strong = drumGroupOf(lane.instrument) === 'snare' && hit.velocity >= BACKBEAT;
      return {
        ms: positionOf(hit, part.grid) / ticksPerMs(tempo),
        velocity: hit.velocity + (fixed ? RANK.kept : strong ? RANK.backbeat : 0),
        instrument: lane.instrument,
        hit: fixed ? null : hit,
        laneId: lane.id,
      };
    });
  };
  const kit = drummable(lanes.filter(({ tuning, loop }) => !tuning && !loop).flatMap(strokesOf));
  const struck = new Set(kit.flatMap(({ hit }) => hit ?? []));
  return Object.fromEntries(
    Object.entries(made).map(([id, part]) => [
      id,
      { ...part, hits: part.hits.filter((hit) => struck.has(hit)) },
    ]),
  );
};

/**
 * The parts that a whole beat gives to the lanes of a beat, each line to a drum of its own kind or to none; lanes that stay as they are are
 * left out.
 *
 * @example beatParts(pattern, beat.lanes, groove, { kept: [], adds: true, oneDrummer: true, tempo: 100 }).left // []
 */
export const beatParts = (pattern: Pattern, lanes: Lane[], groove: Groove, layout: BeatLayout): BeatParts => {
  const { kept, adds, oneDrummer } = layout;
  const length = patternTicks(pattern);
  const empty = (id: string) => partWith(lanePatternOf(pattern, id), '1/16', null, []);
  const parts: Made = Object.fromEntries(
    lanes.filter(({ id, loop }) => !kept.includes(id) && !loop).map(({ id }) => [id, empty(id)]),
  );
  const [added, left]: [Lane[], Lane['instrument'][]] = [[], []];
  const taken = new Set(
    groove.lanes.flatMap(({ instrument }) => lanes.find((lane) => lane.instrument === instrument)?.id ?? []),
  );
  for (const { instrument, part } of groove.lanes) {
    let lane = laneFor(lanes, instrument, taken);
    if (!lane && adds && lanes.length + added.length < MOST.lanes) {
      const ids = [...lanes, ...added].map(({ id }) => id);
      lane = newLane(freeId(instrument, ids), instrument);
      added.push(lane);
      parts[lane.id] = empty(lane.id);
    }
    if (!lane) left.push(instrument);
    if (!lane || kept.includes(lane.id)) continue;
    taken.add(lane.id);
    const hits = part.hits.flatMap((hit) => {
      const at = positionOf(hit, part.grid);
      return at < length - 1e-6 ? [{ ...hit, ...placed(Math.max(0, at), '1/16') }] : [];
    });
    const before = parts[lane.id]!;
    parts[lane.id] = { ...before, hits: inOrder([...before.hits, ...hits]) };
  }
  const all = [...lanes, ...added];
  return { parts: oneDrummer ? playableParts(pattern, all, parts, layout) : parts, added, left };
};
