import type { Follow, LaneFeel, PlainFeel } from '../../document/feelSchema';
import { heldBand } from '../../feel/heldBand';
import { BASES, STAGES } from '../../document/choices';
import { GRIDS } from '../../document/grid';
import { RANGES } from '../../document/ranges';
import {
  choice,
  defineEdit,
  figure,
  FLAG,
  LANE,
  LANES,
  maybe,
  optional,
  SEED,
  some,
  type ArgsOf,
} from '../define';
import { changedSwing, heardAgain, withSwing } from '../swing';
import { THINGS } from './things';

/** Every change of a feel by its name, as plain data. A value out of its range is held to it. */

/** A template that is chosen anew is counted from the bar lines, however the one before it was. */
const setFollow = ({ runsOn, ...now }: Follow, change: Partial<Follow>): Follow => ({
  ...now,
  ...(runsOn && change.template === undefined && { runsOn }),
  ...change,
});

/** A lane's own settings without those that say nothing. */
const tidied = (lane: LaneFeel): LaneFeel | null => {
  const left = Object.entries(lane).filter(([, value]) => value !== undefined);
  return left.length ? (Object.fromEntries(left) as LaneFeel) : null;
};

/** A change of a lane's own settings; `undefined` gives a setting back to all lanes. */
export type LaneFeelChange = { [K in keyof LaneFeel]?: LaneFeel[K] | undefined };

const setLane = (feel: PlainFeel, laneId: string, change: LaneFeelChange): PlainFeel => {
  const lane = tidied({ ...feel.lanes[laneId], ...change } as LaneFeel);
  const { [laneId]: _, ...others } = feel.lanes;
  return { ...feel, lanes: lane ? { ...others, [laneId]: lane } : others };
};

const MOST_TAKES = 200;

const plainly = ({ soft, hands, leftHanded, ...rest }: PlainFeel['humanize']): PlainFeel['humanize'] => ({
  ...rest,
  ...(soft && { soft }),
  ...(hands && { hands }),
  ...(leftHanded && { leftHanded }),
});

const edit = defineEdit<PlainFeel>();

const SWING_CHANGE = some({
  percent: figure(RANGES.swing),
  grid: choice(['1/8', '1/16']),
  withTempo: optional(maybe(figure(RANGES.share))),
});
const FOLLOW_CHANGE = some({
  template: maybe(THINGS.template),
  timing: figure(RANGES.amount),
  velocity: figure(RANGES.amount),
});

/** Edits of a feel; each gives a new one. */
export const FEEL_EDITS = {
  /** Passes a stage by, or takes it up again. */
  passBy: edit({
    does: 'Bypasses a stage, or takes it up again',
    args: { stage: choice(STAGES), off: FLAG },
    run: (feel, a) => {
      const others = feel.off.filter((one) => one !== a.stage);
      return { ...feel, off: a.off ? [...others, a.stage] : others };
    },
  }),
  setQuantize: edit({
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
    run: (feel, a) => ({
      ...feel,
      quantize: { ...feel.quantize, ...a.change },
    }),
  }),
  /** A base that is chosen is heard: the stage takes part again. */
  setBase: edit({
    does: 'Chooses the base feel',
    args: { base: choice(BASES) },
    run: (feel, a) => ({ ...heardAgain(feel), base: a.base }),
  }),
  /** A swing that is set is heard: the base becomes swing. */
  setSwing: edit({
    does: 'Sets the swing, and lets it be the base feel',
    args: { change: SWING_CHANGE },
    run: (feel, a) => withSwing(feel, a.change),
  }),
  setTemplate: edit({
    does: 'Sets the template, and lets it be the base feel',
    args: { change: FOLLOW_CHANGE },
    run: (feel, a) => ({
      ...heardAgain(feel),
      base: 'template',
      template: setFollow(feel.template, a.change),
    }),
  }),
  setLaneSwing: edit({
    does: 'Gives a lane a swing of its own',
    args: { laneId: LANE, change: SWING_CHANGE },
    run: (feel, a) =>
      setLane(heardAgain(feel), a.laneId, {
        base: 'swing',
        swing: changedSwing(feel.lanes[a.laneId]?.swing ?? feel.swing, a.change),
      }),
  }),
  setLaneTemplate: edit({
    does: 'Gives lanes a template of their own',
    args: { laneIds: LANES, change: FOLLOW_CHANGE },
    run: (feel, a) =>
      a.laneIds.reduce(
        (now, laneId) =>
          setLane(now, laneId, {
            base: 'template',
            template: setFollow(now.lanes[laneId]?.template ?? now.template, a.change),
          }),
        heardAgain(feel),
      ),
  }),
  setLanes: edit({
    does: 'Sets what lanes have of their own: ahead or behind, contrast, level, their share in the spreads',
    args: {
      laneIds: LANES,
      change: some({
        base: optional(choice(BASES)),
        swing: optional(THINGS.swing),
        template: optional(THINGS.follow),
        offset: optional(figure(RANGES.offset)),
        contrast: optional(figure(RANGES.level)),
        level: optional(figure(RANGES.level)),
        timing: optional(figure(RANGES.scale)),
        velocity: optional(figure(RANGES.scale)),
        apart: optional(FLAG),
        shares: optional(figure(RANGES.share)),
      }),
    },
    run: (feel, a) => a.laneIds.reduce((now, laneId) => setLane(now, laneId, a.change), feel),
  }),
  /** A stagger that is set is heard; null takes it away. */
  setStagger: edit({
    does: 'Lets each next stroke of some lanes come later than the one before; null lets none',
    args: { stagger: maybe(THINGS.stagger) },
    run: (feel, a) => {
      const { stagger: _, ...rest } = feel;
      if (!a.stagger) return rest;
      return { ...rest, off: feel.off.filter((one) => one !== 'stagger'), stagger: a.stagger };
    },
  }),
  setLevel: edit({
    does: 'Sets how hard the kit is played',
    args: { level: figure(RANGES.level) },
    run: (feel, a) => ({ ...feel, level: a.level }),
  }),
  setHumanize: edit({
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
    run: (feel, a) => ({
      ...feel,
      humanize: plainly({ ...feel.humanize, ...a.change }),
    }),
  }),
  /** Players are heard once they are set; null takes them away. */
  setBand: edit({
    does: 'Lets the timing come from players who follow one another; null takes them away',
    args: { band: maybe(THINGS.band) },
    run: (feel, a) => {
      const { band: _, ...humanize } = feel.humanize;
      if (!a.band) return { ...feel, humanize };
      const band = heldBand(a.band);
      return {
        ...feel,
        off: band.on ? feel.off.filter((one) => one !== 'humanize') : feel.off,
        humanize: { ...humanize, band },
      };
    },
  }),
  setContrast: edit({
    does: 'Sets how far the velocities of all lanes lie apart',
    args: { contrast: figure(RANGES.level) },
    run: (feel, a) => {
      const { contrast: _, ...rest } = feel;
      return a.contrast === 1 ? rest : { ...rest, contrast: a.contrast };
    },
  }),
  /** How far strokes come to lean over a phrase and into a fill. */
  setLean: edit({
    does: 'Sets how far strokes come to lean by the end of a phrase, and of a fill',
    args: { phrase: figure(RANGES.lean), fill: figure(RANGES.lean) },
    run: (feel, a) => {
      const { lean: _, ...rest } = feel;
      return a.phrase || a.fill ? { ...rest, lean: { phrase: a.phrase, fill: a.fill } } : rest;
    },
  }),
  /** Another take, or one had before: every seed is kept. */
  setTake: edit({
    does: 'Humanizes with another seed; every seed is kept',
    args: { seed: SEED },
    run: (feel, a) => {
      const { takes } = feel.humanize;
      const all = takes.includes(a.seed) ? takes : [...takes, a.seed].slice(-MOST_TAKES);
      return { ...feel, humanize: { ...feel.humanize, seed: a.seed, takes: all } };
    },
  }),
};

/** A change of what humanize does at random; 0 of what may be left out leaves it out. */
export type HumanizeChange = ArgsOf<(typeof FEEL_EDITS)['setHumanize']>['change'];
