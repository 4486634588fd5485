import { DIRECTIONS, OFFBEAT_GRIDS, RATES } from '../../document/choices';
import { GRIDS } from '../../document/grid';
import { RANGES } from '../../document/ranges';
import type { Pattern } from '../../document/schema';
import { randomized, rolled, varied } from '../../make/chance';
import * as moves from '../moves';
import * as parts from '../parts';
import { applyLanePreset, LANE_PRESETS } from '../presets';
import { fillEvery } from '../spots';
import {
  choice,
  figure,
  FLAG,
  id,
  LANE,
  LANES,
  maybe,
  NEW_ID,
  optional,
  PLACE,
  SEED,
  some,
  patternEdit as edit,
  type ArgsOf,
} from '../define';
import { THINGS } from './things';

const TURN = { least: -4096, most: 4096, whole: true, unit: 'steps' } as const;

const each = (
  pattern: Pattern,
  laneIds: string[],
  change: (now: Pattern, laneId: string) => Pattern | null,
) => laneIds.reduce((now, laneId) => change(now, laneId) ?? now, pattern);

/** The same done to each of some lanes; one that it cannot be done to stays as it is. */
const ofLanes = (does: string, change: (now: Pattern, laneId: string) => Pattern | null) =>
  edit({ does, args: { laneIds: LANES }, run: (pattern, a) => each(pattern, a.laneIds, change) });

/** Edits of what lanes play in a pattern. */
export const LANE_EDITS = {
  fillEvery: edit({
    does: 'Puts a hit on every nth step that is free',
    args: {
      laneIds: LANES,
      every: figure({ least: 1, most: 64, whole: true, unit: 'steps' }),
      from: PLACE,
      to: figure(RANGES.velocity),
    },
    run: (pattern, a) =>
      each(pattern, a.laneIds, (now, laneId) => fillEvery(now, laneId, a.every, a.from, a.to)),
  }),
  setPart: edit({
    does: 'Sets how lanes are read: grid, steps of their own, rate, direction, what all steps and off-beats are nudged by',
    args: {
      laneIds: LANES,
      change: some({
        grid: choice(GRIDS),
        steps: maybe(figure(RANGES.steps)),
        rate: choice(RATES),
        direction: choice(DIRECTIONS),
        shift: figure(RANGES.nudge),
        offbeat: figure(RANGES.nudge),
        offbeatGrid: choice(OFFBEAT_GRIDS),
      }),
    },
    run: (pattern, a) => each(pattern, a.laneIds, (now, laneId) => parts.setPart(now, laneId, a.change)),
  }),
  regrid: edit({
    does: 'Gives lanes another grid; their hits keep their time',
    args: { laneIds: LANES, grid: choice(GRIDS) },
    run: (pattern, a) => each(pattern, a.laneIds, (now, laneId) => parts.regrid(now, laneId, a.grid)),
  }),
  rotate: edit({
    does: 'Rotates lanes round their loop',
    args: { laneIds: LANES, by: figure(TURN) },
    run: (pattern, a) => each(pattern, a.laneIds, (now, laneId) => parts.rotate(now, laneId, a.by)),
  }),
  shift: edit({
    does: 'Shifts lanes by steps; what leaves is kept out of sight',
    args: { laneIds: LANES, by: figure(TURN) },
    run: (pattern, a) => each(pattern, a.laneIds, (now, laneId) => parts.shift(now, laneId, a.by)),
  }),
  reverse: ofLanes('Turns lanes back to front', parts.reverse),
  mirror: ofLanes('Lets the second half mirror the first', parts.mirror),
  double: ofLanes('Makes lanes twice as long and repeats them', parts.double),
  halve: ofLanes('Makes lanes half as long', parts.halve),
  stretch: edit({
    does: 'Moves hits apart or together in time by a factor',
    args: { laneIds: LANES, factor: figure({ least: 0.25, most: 4 }) },
    run: (pattern, a) => each(pattern, a.laneIds, (now, laneId) => parts.stretch(now, laneId, a.factor)),
  }),
  thin: ofLanes('Thins lanes out', parts.thin),
  thicken: ofLanes('Adds softer hits in between', parts.thicken),
  clearLanes: ofLanes('Clears lanes', parts.clearLane),
  randomize: edit({
    does: 'Randomizes lanes, as a take',
    args: {
      laneIds: LANES,
      seed: SEED,
      id: NEW_ID,
      keep: some({ count: FLAG, places: FLAG, velocities: FLAG }),
    },
    run: (pattern, a) =>
      rolled(
        pattern,
        a.laneIds,
        (part, steps, laneId) => randomized(part, steps, laneId, a.seed, a.keep),
        'Rolled anew',
        { maker: 'randomize', settings: { ...a.keep } },
        a.seed,
        a.id,
      ),
  }),
  vary: edit({
    does: 'Changes a share of the hits of lanes, as a take',
    args: { laneIds: LANES, seed: SEED, id: NEW_ID, share: figure(RANGES.share) },
    run: (pattern, a) =>
      rolled(
        pattern,
        a.laneIds,
        (part, steps, laneId) => varied(part, steps, laneId, a.seed, a.share),
        `Varied by ${Math.round(a.share * 100)} %`,
        { maker: 'vary', settings: { share: a.share } },
        a.seed,
        a.id,
      ),
  }),
  setEchoes: edit({
    does: 'Lets repeats follow the hits of lanes; null lets none',
    args: { laneIds: LANES, echoes: maybe(THINGS.echoes) },
    run: (pattern, a) => moves.setEchoes(pattern, a.laneIds, a.echoes),
  }),
  setSparks: edit({
    does: 'Lets a lane set off other lanes; null lets it set off none',
    args: { laneId: LANE, sparks: maybe(THINGS.sparks) },
    run: (pattern, a) => moves.setSparks(pattern, a.laneId, a.sparks),
  }),
  /** @param asWritten grid and length come with it too */
  lanePreset: edit({
    does: 'Puts a preset rhythm into a lane',
    args: { laneId: LANE, presetId: id('lane preset'), asWritten: optional(FLAG) },
    run: (pattern, a) => {
      const preset = LANE_PRESETS.find(({ id }) => id === a.presetId);
      return preset ? applyLanePreset(pattern, a.laneId, preset, a.asWritten) : pattern;
    },
  }),
};

/** A change of how lanes are read. */
export type PartChange = ArgsOf<(typeof LANE_EDITS)['setPart']>['change'];
