import { BASES, STAGES } from '../document/choices';
import { GRIDS } from '../document/grid';
import { RANGES } from '../document/ranges';
import { choice, figure, FLAG, LANE, LANES, maybe, SEED, some, thing, type Described } from './arguments';
import type { FEEL_EDITS } from './feel';

const SWING_CHANGE = some({
  percent: figure(RANGES.swing),
  grid: choice(['1/8', '1/16']),
  withTempo: maybe(figure(RANGES.share)),
});
const FOLLOW_CHANGE = some({
  template: maybe(thing('template')),
  timing: figure(RANGES.amount),
  velocity: figure(RANGES.amount),
});

type Args<K extends keyof typeof FEEL_EDITS> = Parameters<(typeof FEEL_EDITS)[K]>[1];

/** Every edit of a feel: what it does, what it takes and from where to where. */
export const FEEL_LIST: { [K in keyof typeof FEEL_EDITS]: Described<Args<K>> } = {
  passBy: { does: 'Bypasses a stage, or takes it up again', args: { stage: choice(STAGES), off: FLAG } },
  setQuantize: {
    does: 'Sets quantize: its grid, its strength, its window, whether flams stay flams, which lanes',
    args: {
      change: some({
        grid: choice(GRIDS),
        strength: figure(RANGES.share),
        window: figure(RANGES.share),
        flams: FLAG,
        lanes: maybe(LANES),
      }),
    },
  },
  setBase: { does: 'Chooses the base feel', args: { base: choice(BASES) } },
  setSwing: { does: 'Sets the swing, and lets it be the base feel', args: { change: SWING_CHANGE } },
  setTemplate: { does: 'Sets the template, and lets it be the base feel', args: { change: FOLLOW_CHANGE } },
  setLaneSwing: { does: 'Gives a lane a swing of its own', args: { laneId: LANE, change: SWING_CHANGE } },
  setLaneTemplate: {
    does: 'Gives lanes a template of their own',
    args: { laneIds: LANES, change: FOLLOW_CHANGE },
  },
  setLanes: {
    does: 'Sets what lanes have of their own: ahead or behind, contrast, level, their share in the spreads',
    args: {
      laneIds: LANES,
      change: some({
        base: choice(BASES),
        offset: figure(RANGES.offset),
        contrast: figure(RANGES.level),
        level: figure(RANGES.level),
        timing: figure(RANGES.scale),
        velocity: figure(RANGES.scale),
        apart: FLAG,
        shares: figure(RANGES.share),
      }),
    },
  },
  setStagger: {
    does: 'Lets each next stroke of some lanes come later than the one before; null lets none',
    args: { stagger: maybe(thing('stagger')) },
  },
  setLevel: { does: 'Sets how hard the kit is played', args: { level: figure(RANGES.level) } },
  setHumanize: {
    does: 'Sets the spreads of timing and velocity, the drift, how much looser soft strokes are, the weaker hand, and whether each pass is drawn anew',
    args: {
      change: some({
        timing: figure(RANGES.timingSpread),
        velocity: figure(RANGES.velocitySpread),
        drift: figure(RANGES.share),
        anew: FLAG,
        soft: figure(RANGES.share),
        hands: figure(RANGES.share),
        leftHanded: FLAG,
      }),
    },
  },
  setBand: {
    does: 'Lets the timing come from players who follow one another; null takes them away',
    args: { band: maybe(thing('band')) },
  },
  setContrast: {
    does: 'Sets how far the velocities of all lanes lie apart',
    args: { contrast: figure(RANGES.level) },
  },
  setLean: {
    does: 'Sets how far strokes come to lean by the end of a phrase, and of a fill',
    args: { phrase: figure(RANGES.lean), fill: figure(RANGES.lean) },
  },
  setTake: { does: 'Humanizes with another seed; every seed is kept', args: { seed: SEED } },
};
