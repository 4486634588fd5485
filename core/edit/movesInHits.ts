import { EMPTY_LANE_PATTERN, lanePatternOf, patternTicks } from '../document/defaults';
import { STEPS } from '../document/choices';
import { GRIDS, gridTicks, type Grid } from '../document/grid';
import { inOrder, placedWithin } from '../document/position';
import { RANGES } from '../document/ranges';
import type { Beat, Hit, LanePattern, Pattern } from '../document/schema';
import { DETOUR_HITS } from '../play/moves/detours';
import { sparksTo } from '../play/moves/sparks';
import { feltWithin, forceOf } from '../play/notes';
import { planLane, type LanePlan } from '../play/plan';
import type { Stroke } from '../play/strokes';
import { clamp, ticksPerMs, type Ticks } from '../units';

/** Hits of sparks are told apart by this (see sparks.ts). */
const SPARK_HITS = 4096;

const common = (a: number, b: number): number => (b ? common(b, a % b) : a);

/** Steps may be thirds and fifths of ticks. */
const PARTS = 60;

/** After how long both come round together; null beyond so long that nobody asks. */
const together = (a: Ticks, b: Ticks): Ticks | null => {
  const [x, y] = [Math.round(a * PARTS), Math.round(b * PARTS)];
  const out = (x / common(x, y)) * y;
  return out > 1e9 ? null : out / PARTS;
};

/** The grid of a loop of a length: one's own, or the coarsest that divides it, of at most 64 steps unless it is the pattern's. */
export const gridFor = (own: Grid, length: Ticks, whole: boolean): Grid | null => {
  const goes = (grid: Grid) => {
    const steps = length / gridTicks(grid);
    return Math.abs(steps - Math.round(steps)) < 1e-6 && (whole || Math.round(steps) <= STEPS.most);
  };
  if (goes(own)) return own;
  const straight = GRIDS.filter((grid) => gridTicks(grid) >= gridTicks('1/64T'));
  return straight.sort((a, b) => gridTicks(a) - gridTicks(b)).find(goes) ?? null;
};

/** The pattern of a beat that is written. */
export interface Context {
  beat: Beat;
  pattern: Pattern;
  /** With the strokes of all hits, whether chance lets them sound or not. */
  all: Pattern;
}

/** The hit that a stroke came of, and the lane that it is of. */
const sourceOf = ({ beat, pattern }: Context, lane: LanePlan, stroke: Stroke) => {
  const set = Math.floor(stroke.hitIndex / SPARK_HITS) - 1;
  const id = set < 0 ? lane.id : sparksTo(beat, pattern, lane.id)[set]!.from;
  const plan = planLane(
    beat,
    pattern,
    beat.lanes.find((one) => one.id === id)!,
    undefined,
    undefined,
    'own',
  );
  const place = (stroke.hitIndex % SPARK_HITS) % DETOUR_HITS;
  const hit = plan.byStep[stroke.step]?.[place];
  return hit ? { id, plan, place, hit } : null;
};

/** A place in a loop, and how many rounds later than its hit it is. */
interface Landed {
  place: Pick<Hit, 'step' | 'nudge'>;
  round: number;
}

/**
 * Where in a loop something stands that comes so long after its beginning.
 *
 * @param rel in ticks; before 0 it is early, beyond the period it belongs to a later round
 * @param period of the loop, in ticks
 * @example landed(3960, 3840, "1/16") // { place: { step: 1, nudge: -0.5 }, round: 1 }
 */
export const landed = (rel: Ticks, period: Ticks, grid: Grid): Landed => {
  const g = gridTicks(grid);
  const steps = Math.round(period / g);
  if (rel < 0 && rel >= -g / 2) return { place: { step: 0, nudge: rel / g }, round: 0 };
  const round = Math.floor(rel / period + 1e-9);
  const at = rel - round * period;
  // What even the last step does not reach is early for the next round's first.
  if (at > (steps - 0.5) * g + 1e-6)
    return { place: { step: 0, nudge: clamp((at - period) / g, -0.5, 0) }, round: round + 1 };
  return { place: placedWithin(Math.max(0, at), grid, steps), round };
};

/** How a lane is written: with the feel left on it, or with it in its hits. */
type How = 'felt later' | 'felt';

const follow = (
  source: NonNullable<ReturnType<typeof sourceOf>>,
  lane: LanePlan,
  stroke: Stroke,
  { from, period, round }: { from: Ticks; period: Ticks; round: number },
): Pick<Hit, 'chance' | 'passes' | 'follows'> | null => {
  const { hit, plan, id, place } = source;
  const every = period / plan.cycleTicks;
  const first = stroke.cycle - Math.round(from / plan.cycleTicks) - Math.round(round * every);
  const plain: Pick<Hit, 'chance' | 'passes'> = {
    chance: hit.chance,
    ...(hit.passes && { passes: hit.passes }),
  };
  if (first === 0 && every === 1 && hit.chance >= 1 && !hit.passes && !hit.follows) return plain;
  if (first >= 0 && hit.chance >= 1 && !hit.passes && !hit.follows) return plain;
  // What was written in before follows its own hit; a loop that is no whole number of rounds has no one to follow.
  if (hit.follows || Math.abs(every - Math.round(every)) > 1e-6)
    return hit.follows && first === 0 ? { ...plain, follows: hit.follows } : null;
  const follows = {
    ...(id !== lane.id && { lane: id }),
    step: stroke.step,
    place,
    every: Math.round(every),
    from: clamp(first, -4096, 4096),
  };
  return { ...plain, follows };
};

const writtenHit = (
  { beat }: Context,
  lane: LanePlan,
  stroke: Stroke,
  source: NonNullable<ReturnType<typeof sourceOf>>,
  how: How,
  { from, period, grid }: { from: Ticks; period: Ticks; grid: Grid },
): Hit | null => {
  const felt = how === 'felt';
  const before =
    stroke.tie && stroke.kind !== 'grace'
      ? stroke.tie.main.at + stroke.tie.apart * ticksPerMs(beat.tempo)
      : stroke.at;
  const { place, round } = landed((felt ? stroke.tick : before) - from, period, grid);
  const chance = follow(source, lane, stroke, { from, period, round });
  if (!chance) return null;
  const { roll, grace, hand } = source.hit;
  const whole = !felt && stroke.kind === 'main' && source.id === lane.id;
  const scale = gridTicks(grid);
  const own = whole
    ? source.hit.length
    : stroke.length === null || (felt && !stroke.cut)
      ? null
      : stroke.length / scale;
  const length = whole && own !== null ? (own * lane.step) / scale : own;
  return {
    ...place,
    velocity: felt
      ? forceOf(stroke)
      : clamp(Math.round(whole ? source.hit.velocity : stroke.velocity), 1, 127),
    length: length === null ? (whole && roll ? lane.step / scale : null) : clamp(length, 1e-3, 64),
    ...chance,
    ...(whole && roll && { roll }),
    ...(whole && grace && { grace }),
    ...(stroke.pitch !== 0 && { pitch: clamp(stroke.pitch, RANGES.pitch.least, RANGES.pitch.most) }),
    ...(whole && hand && { hand }),
  };
};

/** A lane's part with its moves in its hits; null where no loop of it can be written. */
export const writtenPart = (context: Context, laneId: string, how: How): LanePattern | null => {
  const { beat, pattern, all } = context;
  const lane = beat.lanes.find(({ id }) => id === laneId)!;
  const plan = planLane(beat, all, lane);
  const part = lanePatternOf(pattern, laneId);
  const pass = patternTicks(pattern);
  const sources = sparksTo(beat, pattern, laneId).map(
    ({ from }) =>
      planLane(
        beat,
        pattern,
        beat.lanes.find(({ id }) => id === from)!,
        undefined,
        undefined,
        'own',
      ).cycleTicks,
  );
  const turned = pattern.detour && (!pattern.detour.lanes || pattern.detour.lanes.includes(laneId));
  const rounds = [
    ...(part.hits.length ? [plan.cycleTicks] : []),
    ...sources,
    ...(turned || how === 'felt' ? [pass] : []),
  ];
  const period = rounds.reduce<Ticks | null>(
    (now, one) => (now === null ? null : together(now, one)),
    rounds[0] ?? pass,
  );
  if (period === null) return null;
  const whole = Math.abs(period - pass) < 1e-6;
  const grid = gridFor(part.grid, period, whole);
  if (!grid) return null;
  // A round that others came before: what crosses the end is there at its start.
  const from = Math.ceil((plan.reach + 1) / period) * period;
  const strokes = feltWithin(plan, from, from + period);
  const isHit = ({ kind, sounds, into }: Stroke) => kind === 'main' && sounds && !into;
  const hits = strokes.flatMap((stroke): Hit[] => {
    if (!stroke.sounds || (how === 'felt' && stroke.into)) return [];
    const isGrace = stroke.kind === 'grace' && !!stroke.tie && isHit(stroke.tie.main as Stroke);
    if (how === 'felt' ? isGrace : stroke.kind === 'grace' || stroke.kind === 'roll') return [];
    const source = sourceOf(context, plan, stroke);
    const hit = source && writtenHit(context, plan, stroke, source, how, { from, period, grid });
    if (!hit || how !== 'felt' || !isHit(stroke)) return hit ? [hit] : [];
    // Grace strokes keep their distance in ms from the main one, which they are written with.
    const grace = strokes
      .filter((one) => one.kind === 'grace' && one.tie?.main === stroke && one.sounds && !one.into)
      .map((one) => ({
        before: -one.tie!.apart,
        level: clamp(forceOf(one) / hit.velocity, RANGES.strokeLevel.least, RANGES.strokeLevel.most),
      }));
    return [{ ...hit, ...(grace.length > 0 && { grace: grace.slice(0, 3) }) }];
  });
  return {
    ...EMPTY_LANE_PATTERN,
    grid,
    steps: whole ? null : Math.round(period / gridTicks(grid)),
    hits: inOrder(hits).slice(0, 8192),
  };
};
