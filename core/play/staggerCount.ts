import type { Feel, PlainFeel } from '../document/feelSchema';
import type { Stagger } from '../document/schema';
import { sharedPinks, type PreparedFeel } from '../feel/prepareFeel';
import { beforeStagger, inCountingOrder, staggerDelay, staggerTicks } from '../feel/stagger';
import type { Pinks } from '../feel/stage';
import { draw, PURPOSE } from '../random/draw';
import type { Ticks } from '../units';
import { eachStroke } from './laneStrokes';
import type { LanePlan } from './plan';
import type { Stroke } from './strokes';

/** What the lanes of one pattern at one place share: the noise that they drift by, and the counting of their strokes. */
export interface Shared {
  pinks: Pinks;
  counts: Map<string, (pass: number) => Counts>;
  /** A lane that is made ready to be counted has nothing to ask of the count. */
  counting: boolean;
}

/** What lanes share before any of it has been asked for. @example newShared().counting // false */
export const newShared = (): Shared => ({ pinks: sharedPinks(), counts: new Map(), counting: false });

/**
 * By lane, then by the place in its round: which one of its pass each stroke there is, from 0, the stroke's own number before it.
 * Small whole numbers all: as keys they cost the engine a fraction of what large ones do.
 */
type Counts = ReadonlyMap<number, ReadonlyMap<number, readonly number[]>>;

/** So many passes are remembered. */
const PASSES = 4096;

/** The place in a lane's rounds that a stroke belongs to, told from one of them: no round has more steps. */
const spotOf = ({ cycle, readIndex }: Stroke, from: number): number => (cycle - from) * 4096 + readIndex;

/** What tells it apart from all others of its place. */
const numberOf = ({ hitIndex, stroke }: Stroke): number => hitIndex * 512 + stroke + 8;

/** The round that a pass begins in: places are told from there. */
const firstRound = (lane: LanePlan, pass: number, length: Ticks): number =>
  Math.floor((pass * length) / lane.cycleTicks + 1e-9);

/** The random part of a stroke's delay, in what the stagger is told in. */
const randomPart = (stagger: Stagger, lane: LanePlan, stroke: Stroke, everyPass: boolean): number =>
  stagger.random
    ? stagger.random *
      draw(
        lane.seed,
        lane.key,
        everyPass ? stroke.cycle : 0,
        stroke.step,
        stroke.hitIndex,
        stroke.stroke,
        PURPOSE.stagger,
      )
    : 0;

interface Counting {
  stagger: Stagger;
  feelOf: (lane: LanePlan) => PreparedFeel;
  everyPass: boolean;
  lanes: () => LanePlan[];
  length: Ticks;
}

/** The count of every stroke of one pass. */
const countPass = ({ stagger, feelOf, everyPass, lanes, length }: Counting, pass: number): Counts => {
  const all: { tick: Ticks; note: number; lane: number; spot: number; number: number }[] = [];
  for (const lane of lanes()) {
    const feel = feelOf(lane);
    const round = firstRound(lane, pass, length);
    eachStroke(lane, pass * length, (pass + 1) * length, (stroke) => {
      if (!stroke.sounds || stroke.tie) return;
      const tick = beforeStagger(feel, stroke.at);
      const first = stagger.randomFirst
        ? staggerTicks(stagger, randomPart(stagger, lane, stroke, everyPass), feel.ticksPerMs(tick))
        : 0;
      all.push({
        tick: tick + first,
        note: lane.note + stroke.pitch,
        lane: lane.index,
        spot: spotOf(stroke, round),
        number: numberOf(stroke),
      });
    });
  }
  const out = new Map<number, Map<number, number[]>>();
  inCountingOrder(all).forEach(({ lane, spot, number }, c) => {
    const own = out.get(lane) ?? new Map<number, number[]>();
    out.set(lane, own);
    const there = own.get(spot);
    if (there) there.push(number, c);
    else own.set(spot, [number, c]);
  });
  return out;
};

const counter = (counting: Counting) => {
  const passes = new Map<number, Counts>();
  return (pass: number): Counts => {
    const there = passes.get(pass) ?? countPass(counting, pass);
    passes.delete(pass);
    passes.set(pass, there);
    if (passes.size > PASSES) passes.delete(passes.keys().next().value!);
    return there;
  };
};

const staggerIn = ({ off, stagger }: PlainFeel, laneId: string): Stagger | null =>
  stagger && !off.includes('stagger') && (!stagger.lanes || stagger.lanes.includes(laneId)) ? stagger : null;

/** The lanes of a pattern, to be counted. */
export interface Countable {
  /** Makes a lane ready to be counted. */
  planOf: (laneId: string) => LanePlan;
  laneIds: readonly string[];
  /** The length of a pass. */
  length: Ticks;
}

/** Says of a lane's strokes by how much the stagger holds each back; null where there is none for it. */
export const staggerOf = (
  lane: LanePlan,
  feel: Feel,
  shared: Shared,
  { planOf, laneIds, length }: Countable,
): LanePlan['stagger'] => {
  if (shared.counting) return null;
  const delays = (plain: PlainFeel, which: 'a' | 'b') => {
    const stagger = staggerIn(plain, lane.id);
    if (!stagger) return null;
    const everyPass = plain.humanize.anew;
    const feelOf = (one: LanePlan) => one.feel[which]!;
    let lanes: LanePlan[] | null = null;
    const counted = () =>
      (lanes ??= laneIds.filter((id) => !stagger.lanes || stagger.lanes.includes(id)).map(planOf));
    const count = shared.counts.get(which) ?? counter({ stagger, feelOf, everyPass, lanes: counted, length });
    shared.counts.set(which, count);
    return (stroke: Stroke): Ticks => {
      const pass = Math.floor(stroke.gridTick / length + 1e-9);
      const there = count(pass)
        .get(lane.index)
        ?.get(spotOf(stroke, firstRound(lane, pass, length)));
      const number = numberOf(stroke);
      let at = 0;
      while (there && at < there.length && there[at] !== number) at += 2;
      const c = there?.[at + 1];
      if (c === undefined) return 0;
      const prepared = feelOf(lane);
      const perMs = prepared.ticksPerMs(beforeStagger(prepared, stroke.at));
      const delay = staggerDelay(stagger, c) + randomPart(stagger, lane, stroke, everyPass);
      return staggerTicks(stagger, delay, perMs);
    };
  };
  const own = delays(feel, 'a');
  const other = feel.blend && feel.blend.amount > 0 ? delays(feel.blend.with, 'b') : null;
  if (!own && !other) return null;
  return (strokes) => {
    for (const stroke of strokes) {
      if (stroke.tie) continue;
      if (own) stroke.delay = own(stroke);
      if (other) stroke.otherDelay = other(stroke);
    }
  };
};
