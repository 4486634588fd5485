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
import type { WeakerHand } from './weakerHand';

/** What the lanes of one pattern at one place share: the noise that they drift by, and the counting of their strokes. */
export interface Shared {
  pinks: Pinks;
  counters: Map<'a' | 'b', Counter>;
  /** A lane that is made ready to be counted has nothing to ask of the count. */
  counting: boolean;
  /** Which strokes the weaker hand plays, once that has been asked for: of a right-handed drummer, and of a left-handed one. */
  weaker: Map<boolean, WeakerHand>;
}

/** What lanes share before any of it has been asked for. @example newShared().counting // false */
export const newShared = (): Shared => ({
  pinks: sharedPinks(),
  counters: new Map(),
  counting: false,
  weaker: new Map(),
});

/**
 * By lane, then by the place in its round: which one of its pass each stroke there is, from 0, the stroke's own number before it.
 * Small whole numbers all: as keys they cost the engine a fraction of what large ones do.
 */
type Counts = ReadonlyMap<number, ReadonlyMap<number, readonly number[]>>;

/** The strokes of one pass by lane, each with its delay. */
type Delayed = Map<number, Stroke[]>;

interface Counter {
  /** Which one of its pass each stroke is. */
  counts: (pass: number) => Counts;
  /**
   * The strokes of a lane in a pass, if they are at hand: to count, all lanes' strokes are worked out, and are given to the first
   * who asks. Whoever has them takes them through the feel, which leaves its marks on them, so they are given once.
   */
  take: (pass: number, lane: number) => Stroke[] | null;
}

/** So many passes are remembered. */
const PASSES = 64;

/** Strokes are kept for so many passes: enough for the lanes that are played one after the other. */
const KEPT = 256;

/** The place in a lane's rounds that a stroke belongs to, told from one of them: no round has more steps. */
const spotOf = ({ cycle, readIndex }: Stroke, from: number): number => (cycle - from) * 4096 + readIndex;

/** What tells it apart from all others of its place. */
const numberOf = ({ hitIndex, stroke }: Stroke): number => hitIndex * 512 + stroke + 8;

/** The round that a pass begins in: places are told from there. */
const firstRound = (lane: LanePlan, pass: number, length: Ticks): number =>
  Math.floor((pass * length) / lane.cycleTicks + 1e-9);

const passOf = ({ gridTick }: Stroke, length: Ticks): number => Math.floor(gridTick / length + 1e-9);

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

/** A stroke that is not counted has this for its count. */
const NOT = -1;

/**
 * All strokes of one pass by lane, each with its count. The fields of a stroke that the feel fills later hold meanwhile what goes
 * with counting it, since one more object for each would cost as much as the stroke: `tick` when it is counted, `moved` its
 * note, `delay` the random part of its delay, `otherDelay` the ticks of a ms there, `force` its count.
 */
const countedStrokes = (
  { stagger, feelOf, everyPass, lanes, length }: Counting,
  pass: number,
): Map<number, Stroke[]> => {
  const counted: Stroke[] = [];
  const byLane = new Map<number, Stroke[]>();
  for (const lane of lanes()) {
    const feel = feelOf(lane);
    const own: Stroke[] = [];
    byLane.set(lane.index, own);
    eachStroke(lane, pass * length, (pass + 1) * length, (stroke) => {
      if (passOf(stroke, length) !== pass) return;
      own.push(stroke);
      stroke.force = NOT;
      if (!stroke.sounds || stroke.tie) return;
      const before = beforeStagger(feel, stroke.at);
      stroke.otherDelay = feel.ticksPerMs(before);
      stroke.delay = randomPart(stagger, lane, stroke, everyPass);
      stroke.tick =
        before + (stagger.randomFirst ? staggerTicks(stagger, stroke.delay, stroke.otherDelay) : 0);
      stroke.moved = lane.note + stroke.pitch;
      counted.push(stroke);
    });
  }
  const ordered = inCountingOrder(counted, ({ moved }) => moved);
  for (let c = 0; c < ordered.length; c++) ordered[c]!.force = c;
  return byLane;
};

const countsOf = (counting: Counting, pass: number): Counts => {
  const out = new Map<number, Map<number, number[]>>();
  const lanes = new Map(counting.lanes().map((lane) => [lane.index, lane]));
  for (const [index, strokes] of countedStrokes(counting, pass)) {
    const own = new Map<number, number[]>();
    out.set(index, own);
    const round = firstRound(lanes.get(index)!, pass, counting.length);
    for (const stroke of strokes) {
      if (stroke.force === NOT) continue;
      const spot = spotOf(stroke, round);
      const there = own.get(spot);
      if (there) there.push(numberOf(stroke), stroke.force);
      else own.set(spot, [numberOf(stroke), stroke.force]);
    }
  }
  return out;
};

/** The oldest is forgotten where there are too many. */
const keep = <T>(all: Map<number, T>, pass: number, most: number, made: T): T => {
  all.delete(pass);
  all.set(pass, made);
  if (all.size > most) all.delete(all.keys().next().value!);
  return made;
};

const newCounter = (counting: Counting): Counter => {
  const counts = new Map<number, Counts>();
  const strokes = new Map<number, Delayed>();
  const delayed = (pass: number): Delayed => {
    const { stagger } = counting;
    const made = countedStrokes(counting, pass);
    for (const own of made.values())
      for (const stroke of own)
        stroke.delay =
          stroke.force === NOT
            ? 0
            : staggerTicks(stagger, staggerDelay(stagger, stroke.force) + stroke.delay, stroke.otherDelay);
    return keep(strokes, pass, KEPT, made);
  };
  return {
    counts: (pass) => keep(counts, pass, PASSES, counts.get(pass) ?? countsOf(counting, pass)),
    take: (pass, lane) => {
      // What is counted by its places already has been given before.
      if (counts.has(pass)) return null;
      const own = (strokes.get(pass) ?? delayed(pass)).get(lane) ?? null;
      strokes.get(pass)!.delete(lane);
      return own;
    },
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

/** A stagger as it concerns one lane. */
interface Delays {
  counter: Counter;
  of: (stroke: Stroke) => Ticks;
}

const delaysOf = (
  lane: LanePlan,
  { counter, counting }: { counter: Counter; counting: Counting },
): Delays => {
  const { stagger, length, everyPass } = counting;
  const feel = counting.feelOf(lane);
  return {
    counter,
    of: (stroke) => {
      const pass = passOf(stroke, length);
      const there = counter
        .counts(pass)
        .get(lane.index)
        ?.get(spotOf(stroke, firstRound(lane, pass, length)));
      const number = numberOf(stroke);
      let at = 0;
      while (there && at < there.length && there[at] !== number) at += 2;
      const c = there?.[at + 1];
      if (c === undefined) return 0;
      const delay = staggerDelay(stagger, c) + randomPart(stagger, lane, stroke, everyPass);
      return staggerTicks(stagger, delay, feel.ticksPerMs(beforeStagger(feel, stroke.at)));
    },
  };
};

/**
 * The strokes of one lane with by how much a stagger holds each back, for any stretch of time; null where there is no stagger for
 * the lane.
 */
export const staggered = (
  lane: LanePlan,
  feel: Feel,
  shared: Shared,
  { planOf, laneIds, length }: Countable,
): LanePlan['staggered'] => {
  if (shared.counting) return null;
  const delays = (plain: PlainFeel, which: 'a' | 'b'): Delays | null => {
    const stagger = staggerIn(plain, lane.id);
    if (!stagger) return null;
    let lanes: LanePlan[] | null = null;
    const counting: Counting = {
      stagger,
      feelOf: (one) => one.feel[which]!,
      everyPass: plain.humanize.anew,
      lanes: () =>
        (lanes ??= laneIds.filter((id) => !stagger.lanes || stagger.lanes.includes(id)).map(planOf)),
      length,
    };
    const counter = shared.counters.get(which) ?? newCounter(counting);
    shared.counters.set(which, counter);
    return delaysOf(lane, { counter, counting });
  };
  const own = delays(feel, 'a');
  const other = feel.blend && feel.blend.amount > 0 ? delays(feel.blend.with, 'b') : null;
  if (!own && !other) return null;
  return (from, to) => {
    const out: Stroke[] = [];
    const add = (stroke: Stroke) => {
      if (own && !stroke.tie) stroke.delay = own.of(stroke);
      if (other && !stroke.tie) stroke.otherDelay = other.of(stroke);
      out.push(stroke);
    };
    if (!own || other) {
      eachStroke(lane, from, to, add);
      return out;
    }
    for (let pass = Math.max(0, Math.floor(from / length)); pass * length < to; pass++) {
      const [first, last] = [Math.max(from, pass * length), Math.min(to, (pass + 1) * length)];
      const there = own.counter.take(pass, lane.index);
      if (there) {
        for (const stroke of there)
          if (stroke.gridTick >= first - 1e-6 && stroke.gridTick < last - 1e-6) out.push(stroke);
      } else
        eachStroke(lane, first, last, (stroke) => {
          if (passOf(stroke, length) === pass) add(stroke);
        });
    }
    return out;
  };
};
