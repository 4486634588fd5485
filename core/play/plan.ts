import { drumGroupOf } from '../document/drumGroups';
import { gridTicks } from '../document/grid';
import { feelOf, lanePatternOf, patternTicks, soundingLanes, stepsOf } from '../document/defaults';
import type { PlainFeel } from '../document/feelSchema';
import type { Beat, Direction, Feel, Hit, Lane, LanePattern, Pattern } from '../document/schema';
import { steadyBars } from '../feel/bars';
import { noiseReach, prepareFeel, wandered, type LaneFeelPlan } from '../feel/prepareFeel';
import { LOOK_MS, ROOM_SHARE } from '../feel/feelStrokes';
import { bandAlone, bandOf, SIXTEENTH, type PlacedBand } from '../feel/bandAt';
import { fastestOf, followingTempos, throughTempo } from './bandTempo';
import { tempoAt, tempoMap, type TempoMap } from './tempoMap';
import type { FeltLane } from '../feel/stage';
import type { Bpm, Channel, MidiNote, Ticks, Velocity } from '../units';
import { ticksPerMs, type Ms } from '../units';
import { modulo } from '../numbers';
import { hashText } from '../random/draw';
import { echoReach, planEchoes, type EchoPlan } from './moves/echoes';
import { detourSpans, planDetour, type DetourPlan, type DetourSpan, type Switched } from './moves/detours';
import { sparkedStrokes, sparkReach, sparksTo, type SparkPlan } from './moves/sparks';
import { stepsInCycle, rateOf } from './reading';
import { newShared, staggered, type SharedCount } from './staggerCount';
import { weakerHand, writtenForHands, type WeakerHand } from './weakerHand';
import { newFeel } from '../document/feelDefaults';
import type { Stroke } from './strokes';

/** A lane made ready to be read for any window of time. */
export interface LanePlan {
  id: string;
  /** Its place among the beat's lanes, from 0. */
  index: number;
  note: MidiNote;
  channel: Channel;
  /** How many steps the loop has. */
  steps: number;
  /** The length of a step as it is read, rate included. */
  step: Ticks;
  cycleTicks: Ticks;
  direction: Direction;
  byStep: (Hit[] | undefined)[];
  /** How many hits its loop has before each step, and in all: the last one. */
  before: readonly number[];
  /** The farthest that a stroke can stand from the start of its step, before or after, feel included; players come on top. */
  reach: Ticks;
  /** How far players have moved any of its strokes up to a position. */
  wandered: (upTo: Ticks) => Ticks;
  /** The longest note. */
  longest: Ticks;
  feel: LaneFeelPlan;
  /** How far beyond that one has to look to know what becomes of a stroke beside its neighbours. */
  around: Ticks;
  /** Fractions of a step: all steps are nudged by the one, every second one by the other besides. */
  shift: number;
  offbeat: number;
  /** Which steps are off-beats. */
  isOffbeat: (step: number) => boolean;
  detour: DetourPlan | null;
  /** Where detours were switched while it played: they hold, and not the one above. */
  switched: readonly DetourSpan[] | null;
  echoes: EchoPlan | null;
  /** The strokes that other lanes set off on it: gives the strokes that come of steps within a stretch of time. */
  sparkedBy: readonly ((from: Ticks, to: Ticks, take: (stroke: Stroke) => void) => void)[];
  /** Its strokes of a stretch of time, each with how much a stagger holds it back; null where none does. */
  staggered: ((from: Ticks, to: Ticks) => Stroke[]) | null;
  /** The lane's id as a number, for what is drawn at random. */
  key: number;
  seed: number;
}

const sortedBySteps = (part: LanePattern, steps: number): (Hit[] | undefined)[] => {
  const byStep: (Hit[] | undefined)[] = new Array<Hit[] | undefined>(steps).fill(undefined);
  for (const hit of part.hits) {
    if (hit.step >= steps) continue;
    const hits = byStep[hit.step];
    if (hits) hits.push(hit);
    else byStep[hit.step] = [hit];
  }
  for (const hits of byStep) if (hits && hits.length > 1) hits.sort((a, b) => a.nudge - b.nudge);
  return byStep;
};

const countedBefore = (byStep: (Hit[] | undefined)[]): number[] => {
  const before = [0];
  for (const hits of byStep) before.push(before.at(-1)! + (hits?.length ?? 0));
  return before;
};

/**
 * The off-beats of a lane: of quarters the steps that stand on a second eighth, of eighths on a second sixteenth; where no grid
 * is said, every second step.
 */
const offbeatsOf = ({ grid, offbeatGrid }: LanePattern): ((step: number) => boolean) => {
  if (!offbeatGrid) return (step) => step % 2 === 1;
  const [g, pair] = [gridTicks(grid), gridTicks(offbeatGrid)];
  return (step) => {
    const inside = (step * g) % pair;
    return Math.abs(inside - pair / 2) < 1e-6;
  };
};

/** The farthest that a stroke can stand from its step before the feel. */
const farthest = (part: LanePattern, step: Ticks, tempo: Bpm): Ticks => {
  let roll = 0;
  let grace = 0;
  for (const hit of part.hits) {
    if (hit.roll) roll = Math.max(roll, (hit.length ?? 1) * step);
    for (const one of hit.grace ?? []) grace = Math.max(grace, one.before * ticksPerMs(tempo));
  }
  const together = Math.abs(part.shift ?? 0) + Math.abs(part.offbeat ?? 0);
  return step * (0.5 + together) + Math.max(roll, grace) + ticksPerMs(tempo);
};

/** A little more than a run of strokes that merge can be long, so that a window sees where it begins. */
const RUN: Ticks = 480;

/** A neighbour holds a stroke off only where the noise could carry it that near. */
const around = (feel: LaneFeelPlan, tempo: Bpm): Ticks =>
  RUN + (LOOK_MS + noiseReach(feel) / ROOM_SHARE) * ticksPerMs(tempo);

/** The mean velocity of the hits that the lane's loop has. */
const meanVelocity = (part: LanePattern, steps: number): Velocity => {
  let [sum, count] = [0, 0];
  for (const hit of part.hits)
    if (hit.step < steps) {
      sum += hit.velocity;
      count += 1;
    }
  return count ? sum / count : 0;
};

const longestOf = (part: LanePattern, step: Ticks): Ticks =>
  part.hits.reduce((most, hit) => Math.max(most, (hit.length ?? 1) * step), step);

const laneNamed = ({ lanes }: Beat, id: string): Lane => lanes.find((lane) => lane.id === id)!;

/** The song's changes of a pattern at one place in it. Positions are those of the pattern, from its own start. */
export interface PlanSetting {
  feel: Feel;
  seed: number;
  /** The fastest tempo there, and how many ticks a millisecond lasts at each position. */
  fastest: Bpm;
  rateAt: (position: Ticks) => number;
  swingAt: ((position: Ticks) => number) | null;
  levelAt: ((position: Ticks) => number) | null;
  /** The players of a feel at this place. */
  band: (feel: PlainFeel) => PlacedBand | null;
  /** The lean of strokes at this place, and the farthest. */
  leanAt: NonNullable<FeltLane['leanAt']>;
  mostLean: Ms;
  switched?: readonly Switched[];
}

/** How many sixteenths a pass has, for what is the same on each; null where it runs on. */
export const everyOf = ({ humanize }: PlainFeel, pass: Ticks): number | null =>
  humanize.anew || pass === Infinity ? null : Math.max(1, Math.round(pass / SIXTEENTH));

/** The lean of strokes over a pattern's pass, from nothing at its start to the most at its end. */
export const phraseLean =
  (pass: Ticks): NonNullable<FeltLane['leanAt']> =>
  ({ lean }) =>
    lean?.phrase ? (position) => (lean.phrase * modulo(position, pass)) / pass : null;

/** The farthest that any feel of a setting leans. */
export const phraseMost = ({ lean, blend }: Feel): Ms =>
  Math.max(Math.abs(lean?.phrase ?? 0), Math.abs(blend?.with.lean?.phrase ?? 0));

/** Beyond so much more than a pass nothing of a pattern by itself is drawn. */
const AFTER: Ticks = 3840;

/** The tempo that follows a pattern's players, as far as it is drawn; null where it does not follow them. */
const tempoAlone = (beat: Beat, feel: Feel, pass: Ticks): { plain: TempoMap; tempos: TempoMap } | null => {
  if (!bandOf(feel)?.tempo) return null;
  const { run } = bandAlone(feel, everyOf(feel, pass))!;
  const plain = tempoMap([{ at: 0, bpm: beat.tempo }]);
  return { plain, tempos: followingTempos(plain, run.mean, 2 * pass + AFTER) };
};

/** A pattern by itself: the beat's tempo throughout, or that of the players whom it follows. */
const alone = (beat: Beat, pattern: Pattern): PlanSetting => {
  const rate = ticksPerMs(beat.tempo);
  const feel = feelOf(beat, pattern);
  const pass = patternTicks(pattern);
  const led = tempoAlone(beat, feel, pass);
  const band = (one: PlainFeel): PlacedBand | null => {
    const placed = bandAlone(one, everyOf(one, pass));
    if (!placed || !led) return placed;
    return { ...placed, through: throughTempo(led.plain, led.tempos) };
  };
  return {
    feel,
    seed: beat.seed,
    fastest: led ? Math.max(beat.tempo, fastestOf(led.tempos)) : beat.tempo,
    rateAt: led ? (position) => ticksPerMs(tempoAt(led.tempos, position)) : () => rate,
    swingAt: null,
    levelAt: null,
    band,
    leanAt: phraseLean(pass),
    mostLean: phraseMost(feel),
  };
};

/** Lanes that have hits, made ready as they are written. */
const plainPlans = (
  beat: Beat,
  lanes: readonly Lane[],
  pattern: Pattern,
  shared: SharedCount,
  setting: PlanSetting,
) =>
  lanes
    .filter(({ id }) => lanePatternOf(pattern, id).hits.length)
    .map((lane) => planLane(beat, pattern, lane, { ...shared, counting: true }, setting, 'own'));

/** Which strokes the weaker hand plays: hands go by all lanes of a pattern, as they are written. */
const handsOf = (
  beat: Beat,
  pattern: Pattern,
  shared: SharedCount,
  setting: PlanSetting,
  leftHanded: boolean,
): WeakerHand => {
  const plain = { ...setting, feel: newFeel(), leanAt: () => null, mostLean: 0 };
  const plans = plainPlans(beat, beat.lanes, pattern, shared, plain);
  const length = patternTicks(pattern);
  return weakerHand(writtenForHands(beat, plans, length, setting.rateAt(0)), length, leftHanded);
};

/**
 * The strokes that one drummer would have to play in one pass of a pattern, as it is written.
 *
 * @example handStrokes(beat, pattern).length // 6
 */
export const handStrokes = (beat: Beat, pattern: Pattern) => {
  const setting = { ...alone(beat, pattern), feel: newFeel() };
  const plans = plainPlans(beat, soundingLanes(beat), pattern, newShared(), setting);
  return writtenForHands(beat, plans, patternTicks(pattern), ticksPerMs(beat.tempo));
};

/**
 * Makes one lane ready, whether it is muted or not.
 *
 * @example planLane(beat, pattern, beat.lanes[0]!).cycleTicks // 3840
 */
export const planLane = (
  beat: Beat,
  pattern: Pattern,
  lane: Lane,
  shared: SharedCount = newShared(),
  setting: PlanSetting = alone(beat, pattern),
  moves: 'all' | 'own' = 'all',
): LanePlan => {
  const most = ticksPerMs(setting.fastest);
  const part = lanePatternOf(pattern, lane.id);
  const steps = stepsOf(part, pattern);
  const step = gridTicks(part.grid) / rateOf(part.rate);
  const places = stepsInCycle(part.direction, steps);
  const follows = part.steps === null && part.direction !== 'thereAndBack';
  const key = hashText(lane.id);
  const index = beat.lanes.indexOf(lane);
  const feel = prepareFeel(setting.feel, {
    id: lane.id,
    key,
    grid: part.grid,
    group: drumGroupOf(lane.instrument),
    random: beat.random,
    bars: steadyBars(pattern.meter),
    ticksPerMs: setting.rateAt,
    most,
    swingAt: setting.swingAt,
    levelAt: setting.levelAt,
    band: setting.band,
    weaker: shared.counting
      ? null
      : (stroke, leftHanded) => {
          const there = shared.weaker.get(leftHanded) ?? handsOf(beat, pattern, shared, setting, leftHanded);
          shared.weaker.set(leftHanded, there);
          return there(index, stroke);
        },
    leanAt: setting.leanAt,
    mostLean: setting.mostLean,
    pinks: shared.pinks,
    mean: meanVelocity(part, steps),
    pass: patternTicks(pattern),
  });
  const moved = Math.max(feel.a.reach, feel.b?.reach ?? 0);
  const echoes = planEchoes(part.echoes);
  const byStep = sortedBySteps(part, steps);
  const plan: LanePlan = {
    id: lane.id,
    index,
    note: lane.note,
    channel: lane.channel,
    steps,
    step,
    cycleTicks: follows ? patternTicks(pattern) / rateOf(part.rate) : places * step,
    direction: part.direction,
    byStep,
    before: countedBefore(byStep),
    reach: farthest(part, step, setting.fastest) + echoReach(echoes, setting.fastest) + moved,
    wandered: (upTo) => wandered(feel, upTo),
    around: around(feel, setting.fastest),
    longest: longestOf(part, step),
    feel,
    shift: part.shift ?? 0,
    offbeat: part.offbeat ?? 0,
    isOffbeat: offbeatsOf(part),
    detour: planDetour(pattern, lane.id, setting.seed),
    switched: setting.switched ? detourSpans(pattern, lane.id, setting.seed, setting.switched) : null,
    echoes,
    sparkedBy: [],
    staggered: null,
    key,
    seed: setting.seed,
  };
  if (moves === 'own') return plan;
  const sparks = sparksTo(beat, pattern, lane.id).map(({ from, spark }, index): SparkPlan => ({
    spark,
    source: planLane(beat, pattern, laneNamed(beat, from), shared, setting, 'own'),
    gap: gridTicks(spark.gap),
    index,
  }));
  plan.sparkedBy = sparks.map((spark) => (from, to, take) => sparkedStrokes(plan, spark, from, to, take));
  plan.reach = Math.max(plan.reach, sparkReach(sparks, setting.fastest) + moved);
  plan.staggered = staggered(plan, setting.feel, shared, {
    planOf: (id) => planLane(beat, pattern, laneNamed(beat, id), { ...shared, counting: true }, setting),
    laneIds: beat.lanes.map(({ id }) => id),
    length: patternTicks(pattern),
  });
  return plan;
};

export interface PlanOptions {
  /** Play the muted lanes too, and those that a solo silences. */
  includeMuted?: boolean;
  /** By which detours the pattern goes from when on, in order of time; left out, by its own. */
  switched?: readonly Switched[];
}
