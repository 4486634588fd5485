import type { Base, Stage } from '../document/choices';
import type { Feel, Follow, LaneFeel, PlainFeel, Swing } from '../document/feelSchema';
import type { Band } from '../document/playersSchema';
import { heldBand } from '../feel/heldBand';
import type { Stagger } from '../document/schema';
import { heldAll, type Argument } from './arguments';
import { FEEL_LIST } from './feelList';

/** Every change of a feel by its name, as plain data. A value out of its range is held to it. */

/** A template that is chosen anew is counted from the bar lines, however the one before it was. */
const setFollow = ({ runsOn, ...now }: Follow, change: Partial<Follow>): Follow => ({
  ...now,
  ...(runsOn && change.template === undefined && { runsOn }),
  ...change,
});

/** A change of a swing; `withTempo: null` lets it go by its percent again, and so does a percent. */
export type SwingChange = Partial<Omit<Swing, 'withTempo'>> & { withTempo?: number | null | undefined };

const changedSwing = ({ withTempo, ...now }: Swing, change: SwingChange): Swing => {
  const { withTempo: asked, ...rest } = change;
  const amount = asked === undefined ? (rest.percent === undefined ? withTempo : undefined) : asked;
  return { ...now, ...rest, ...(amount != null && { withTempo: amount }) };
};

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

/** A base that is set while its stage is passed by would not be heard. */
const heardAgain = (feel: PlainFeel): PlainFeel =>
  feel.off.includes('base') ? { ...feel, off: feel.off.filter((one) => one !== 'base') } : feel;

const MOST_TAKES = 200;

/** A change of what humanize does at random; 0 of what may be left out leaves it out. */
export type HumanizeChange = Partial<
  Pick<PlainFeel['humanize'], 'timing' | 'velocity' | 'drift' | 'anew' | 'soft' | 'hands' | 'leftHanded'>
>;

const plainly = ({ soft, hands, leftHanded, ...rest }: PlainFeel['humanize']): PlainFeel['humanize'] => ({
  ...rest,
  ...(soft && { soft }),
  ...(hands && { hands }),
  ...(leftHanded && { leftHanded }),
});

/** Edits of a feel; each gives a new one. */
export const FEEL_EDITS = {
  /** Passes a stage by, or takes it up again. */
  passBy: (feel: PlainFeel, a: { stage: Stage; off: boolean }): PlainFeel => {
    const others = feel.off.filter((one) => one !== a.stage);
    return { ...feel, off: a.off ? [...others, a.stage] : others };
  },
  setQuantize: (feel: PlainFeel, a: { change: Partial<PlainFeel['quantize']> }): PlainFeel => ({
    ...feel,
    quantize: { ...feel.quantize, ...a.change },
  }),
  /** A base that is chosen is heard: the stage takes part again. */
  setBase: (feel: PlainFeel, a: { base: Base }): PlainFeel => ({ ...heardAgain(feel), base: a.base }),
  /** A swing that is set is heard: the base becomes swing. */
  setSwing: (feel: PlainFeel, a: { change: SwingChange }): PlainFeel => ({
    ...heardAgain(feel),
    base: 'swing',
    swing: changedSwing(feel.swing, a.change),
  }),
  setTemplate: (feel: PlainFeel, a: { change: Partial<Follow> }): PlainFeel => ({
    ...heardAgain(feel),
    base: 'template',
    template: setFollow(feel.template, a.change),
  }),
  setLaneSwing: (feel: PlainFeel, a: { laneId: string; change: SwingChange }): PlainFeel =>
    setLane(heardAgain(feel), a.laneId, {
      base: 'swing',
      swing: changedSwing(feel.lanes[a.laneId]?.swing ?? feel.swing, a.change),
    }),
  setLaneTemplate: (feel: PlainFeel, a: { laneIds: string[]; change: Partial<Follow> }): PlainFeel =>
    a.laneIds.reduce(
      (now, laneId) =>
        setLane(now, laneId, {
          base: 'template',
          template: setFollow(now.lanes[laneId]?.template ?? now.template, a.change),
        }),
      heardAgain(feel),
    ),
  setLanes: (feel: PlainFeel, a: { laneIds: string[]; change: LaneFeelChange }): PlainFeel =>
    a.laneIds.reduce((now, laneId) => setLane(now, laneId, a.change), feel),
  /** A stagger that is set is heard; null takes it away. */
  setStagger: (feel: PlainFeel, a: { stagger: Stagger | null }): PlainFeel => {
    const { stagger: _, ...rest } = feel;
    if (!a.stagger) return rest;
    return { ...rest, off: feel.off.filter((one) => one !== 'stagger'), stagger: a.stagger };
  },
  setLevel: (feel: PlainFeel, a: { level: number }): PlainFeel => ({ ...feel, level: a.level }),
  setHumanize: (feel: PlainFeel, a: { change: HumanizeChange }): PlainFeel => ({
    ...feel,
    humanize: plainly({ ...feel.humanize, ...a.change }),
  }),
  /** Players are heard once they are set; null takes them away. */
  setBand: (feel: PlainFeel, a: { band: Band | null }): PlainFeel => {
    const { band: _, ...humanize } = feel.humanize;
    if (!a.band) return { ...feel, humanize };
    const band = heldBand(a.band);
    return {
      ...feel,
      off: band.on ? feel.off.filter((one) => one !== 'humanize') : feel.off,
      humanize: { ...humanize, band },
    };
  },
  setContrast: (feel: PlainFeel, a: { contrast: number }): PlainFeel => {
    const { contrast: _, ...rest } = feel;
    return a.contrast === 1 ? rest : { ...rest, contrast: a.contrast };
  },
  /** How far strokes come to lean over a phrase and into a fill. */
  setLean: (feel: PlainFeel, a: { phrase: number; fill: number }): PlainFeel => {
    const { lean: _, ...rest } = feel;
    return a.phrase || a.fill ? { ...rest, lean: { phrase: a.phrase, fill: a.fill } } : rest;
  },
  /** Another take, or one had before: every seed is kept. */
  setTake: (feel: PlainFeel, a: { seed: number }): PlainFeel => {
    const { takes } = feel.humanize;
    const all = takes.includes(a.seed) ? takes : [...takes, a.seed].slice(-MOST_TAKES);
    return { ...feel, humanize: { ...feel.humanize, seed: a.seed, takes: all } };
  },
} as const;

export type FeelEdit = {
  [K in keyof typeof FEEL_EDITS]: { edit: K; args: Parameters<(typeof FEEL_EDITS)[K]>[1] };
}[keyof typeof FEEL_EDITS];

/**
 * Makes an edit of a feel by its name; what it is blended with stays.
 *
 * @example editFeel(beat.feel, { edit: 'setLevel', args: { level: 3 } }).level // 2
 */
export const editFeel = (feel: Feel, { edit, args }: FeelEdit): Feel => {
  const { blend, ...plain } = feel;
  const within = heldAll(FEEL_LIST[edit].args as Record<string, Argument>, args);
  const edited = (FEEL_EDITS[edit] as (feel: PlainFeel, args: unknown) => PlainFeel)(plain, within);
  return blend ? { ...edited, blend } : edited;
};

/** A feel without what it is blended with. @example plainOf(beat.feel).base // "swing" */
export const plainOf = ({ blend: _, ...feel }: Feel): PlainFeel => feel;
