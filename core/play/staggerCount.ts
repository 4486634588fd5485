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

/** The state that the lanes of one pattern at one place share: the noise that they drift by, and the counting of their strokes. */
export interface SharedCount {
  pinks: Pinks;
  counters: Map<'a' | 'b', Counter>;
  /** A lane that is made ready to be counted has nothing to ask of the count. */
  counting: boolean;
  /** Which strokes the weaker hand plays, once that has been asked for: of a right-handed drummer, and of a left-handed one. */
  weaker: Map<boolean, WeakerHand>;
}

/** The state that lanes share, before any of it has been asked for. @example newShared().counting // false */
export const newShared = (): SharedCount => ({
  pinks: sharedPinks(),
  counters: new Map(),
  counting: false,
  weaker: new Map(),
});

/**
 * The delays by which the strokes of one lane in one pass are held back, in the order in which they are given. A stroke of theirs is known by
 * where its step is and by its number; any part of a pass gives its strokes in the same order as the whole.
 */
interface Delays {
  steps: Ticks[];
  numbers: number[];
  delays: Ticks[];
}

interface Counter {
  /** The delays of a lane's strokes in a pass; undefined for a lane that is not counted. */
  delays: (pass: number, lane: number) => Delays | undefined;
  /**
   * The strokes of a lane in a pass with their delays, if they are at hand: to count, all lanes' strokes are worked out, and
   * are given to the first who asks. Whoever has them takes them through the feel, which leaves its marks on them, so they are
   * given once.
   */
  take: (pass: number, lane: number) => Stroke[] | null;
}

/** So many strokes are remembered at the most, beyond the last passes: enough for lanes that are written one after the other. */
const KEPT_STROKES = 200_000;
const KEPT_PASSES = 4;

/** A number that tells a stroke apart from all others of its step. */
const numberOf = ({ hitIndex, stroke }: Stroke): number => hitIndex * 512 + stroke + 8;

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

/** The strokes of one pass by lane, each with its delay. */
const delayedStrokes = (counting: Counting, pass: number): Map<number, Stroke[]> => {
  const { stagger } = counting;
  const made = countedStrokes(counting, pass);
  for (const own of made.values())
    for (const stroke of own)
      stroke.delay =
        stroke.force === NOT
          ? 0
          : staggerTicks(stagger, staggerDelay(stagger, stroke.force) + stroke.delay, stroke.otherDelay);
  return made;
};

const delaysIn = (strokes: readonly Stroke[]): Delays => {
  const out: Delays = { steps: [], numbers: [], delays: [] };
  for (const stroke of strokes) {
    out.steps.push(stroke.gridTick);
    out.numbers.push(numberOf(stroke));
    out.delays.push(stroke.delay);
  }
  return out;
};

/** Of one pass: the strokes that are still to be given, and what all are held back by. */
interface Counted {
  strokes: Map<number, Stroke[]>;
  delays: Map<number, Delays>;
  /** How many strokes. */
  size: number;
}

const newCounter = (counting: Counting): Counter => {
  const passes = new Map<number, Counted>();
  let kept = 0;
  const forgetOldest = (): void => {
    for (const [pass, { size }] of passes) {
      if (kept <= KEPT_STROKES || passes.size <= KEPT_PASSES) return;
      passes.delete(pass);
      kept -= size;
    }
  };
  const counted = (pass: number): Counted => {
    const there = passes.get(pass);
    if (there) return there;
    const strokes = delayedStrokes(counting, pass);
    const made: Counted = { strokes, delays: new Map(), size: 0 };
    for (const [lane, own] of strokes) {
      made.delays.set(lane, delaysIn(own));
      made.size += own.length;
    }
    passes.set(pass, made);
    kept += made.size;
    forgetOldest();
    return made;
  };
  return {
    delays: (pass, lane) => counted(pass).delays.get(lane),
    take: (pass, lane) => {
      const { strokes } = counted(pass);
      const own = strokes.get(lane) ?? null;
      strokes.delete(lane);
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
interface LaneDelays {
  counter: Counter;
  of: (stroke: Stroke) => Ticks;
}

const delaysOf = (lane: LanePlan, counter: Counter, length: Ticks): LaneDelays => {
  let [pass, next] = [-1, 0];
  let known: Delays | undefined;
  return {
    counter,
    of: (stroke) => {
      const wanted = passOf(stroke, length);
      if (wanted !== pass) [pass, next, known] = [wanted, 0, counter.delays(wanted, lane.index)];
      if (!known) return 0;
      const { steps, numbers, delays } = known;
      const number = numberOf(stroke);
      // Strokes are asked about in their order: mostly it is the next one.
      for (let tried = 0; tried < steps.length; tried++) {
        const at = (next + tried) % steps.length;
        if (numbers[at] !== number || steps[at] !== stroke.gridTick) continue;
        next = at + 1;
        return delays[at]!;
      }
      return 0;
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
  shared: SharedCount,
  { planOf, laneIds, length }: Countable,
): LanePlan['staggered'] => {
  if (shared.counting) return null;
  const delays = (plain: PlainFeel, which: 'a' | 'b'): LaneDelays | null => {
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
    return delaysOf(lane, counter, length);
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
