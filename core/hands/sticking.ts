import type { Hand, HandRule } from '../document/choices';
import type { InstrumentId } from '../document/instruments';
import type { Ms, Ticks, Velocity } from '../units';
import { AT_ONCE_MS, footOf, keepsTime, placeOf, SAME_LIMB_MS, type PlanPlace } from './kitPlan';

/**
 * Which hand or foot plays each stroke: the way of least effort over all of them, found by dynamic programming (R. Bellman, 1957). A
 * hand that strikes twice has the more effort the sooner; so it has the farther it goes in the time; hands that cross, and a leading
 * hand that is not on the beat, cost a little.
 */

/** A stroke to be played. */
export interface StickStroke {
  ms: Ms;
  /** Where it stands, in ticks from a bar line. */
  at: Ticks;
  velocity: Velocity;
  instrument: InstrumentId;
  /** Set by hand. */
  hand?: Hand;
  /** It bounces on from the stroke of its drum before it: the same hand, without a blow of its own. */
  bounces?: boolean;
}

/** A hand, or a foot. */
export type Limb = Hand | 'RF' | 'LF';

/** Why a stroke cannot be played. */
export const STICK_FAULTS = ['tooMany', 'tooSoon', 'tooFar', 'foot'] as const;
export type StickFault = (typeof STICK_FAULTS)[number];

/** The hand or foot of a stroke; nothing where no hand is left. */
export interface Stuck {
  limb: Limb | null;
  fault?: StickFault;
}

export interface StickOptions {
  leftHanded?: boolean;
  rule?: HandRule;
  /** The length of a beat in ticks: the leading hand plays on it. */
  beat?: Ticks;
  /** The finder of rudiments, for the rule that goes by them: `recognized`, which is large and seldom wanted. */
  recognize?: (
    strokes: readonly StickStroke[],
    order: readonly number[],
    leftHanded: boolean,
  ) => Map<number, Hand>;
}

/** A remedy for a stroke that cannot be played. */
export const MENDS: Record<StickFault, string> = {
  tooMany: 'a third hand would be needed: leave out the softest, or give it to a foot',
  tooSoon: 'the same hand would strike twice within 60 ms: leave one out, or make it a roll',
  tooFar: 'the hand would have to go too far in the time: take a drum that is nearer',
  foot: 'the foot would strike twice within 60 ms: give one to the other foot',
};

/** A hand goes no faster, in cm a ms; what is nearer than this is no way to go. */
const FASTEST = 0.6;
const NEAR_CM = 15;
/** An impossible stroke is chosen only where nothing else can be. */
const CANNOT = 60;
/** Hands that struck so long ago are rested. */
const RESTED = 10;

interface Last {
  ms: Ms;
  place: PlanPlace;
  /** Which stroke it was. */
  at: number;
}

interface Event {
  ms: Ms;
  /** Places among all strokes: at most two that hands play. */
  strokes: number[];
}

/** Strokes at once; of more than two for the hands the hardest two. */
const eventsOf = (strokes: readonly StickStroke[], order: number[], out: Stuck[]): Event[] => {
  const events: Event[] = [];
  for (const at of order) {
    const last = events.at(-1);
    if (last && strokes[at]!.ms - last.ms < AT_ONCE_MS) last.strokes.push(at);
    else events.push({ ms: strokes[at]!.ms, strokes: [at] });
  }
  for (const event of events) {
    event.strokes.sort((a, b) => strokes[b]!.velocity - strokes[a]!.velocity || a - b);
    for (const extra of event.strokes.splice(2)) out[extra] = { limb: null, fault: 'tooMany' };
  }
  return events;
};

/** Two grace strokes are one bounce where both are so much softer than what they lead up to. */
const GRACE_SHARE = 0.75;

/**
 * Strokes that bounce on from the one before on their drum: those that say so, and the second of two grace strokes.
 *
 * @returns for each the one that it comes from
 */
const bouncesOf = (strokes: readonly StickStroke[], byHand: readonly number[]): Map<number, number> => {
  const out = new Map<number, number>();
  const last = new Map<InstrumentId, number[]>();
  for (const at of byHand) {
    const { instrument, ms, velocity, bounces } = strokes[at]!;
    const row = last.get(instrument) ?? last.set(instrument, []).get(instrument)!;
    const [first, second] = row.slice(-2);
    if (bounces && row.length) out.set(at, row.at(-1)!);
    else if (second !== undefined) {
      const soft = (one: number) => strokes[one]!.velocity < GRACE_SHARE * velocity;
      const near =
        ms - strokes[second]!.ms < SAME_LIMB_MS && strokes[second]!.ms - strokes[first!]!.ms < SAME_LIMB_MS;
      if (near && soft(first!) && soft(second)) out.set(second, first!);
    }
    row.push(at);
  }
  return out;
};

const apart = (a: PlanPlace, b: PlanPlace): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Why a hand cannot do it; null where it can. */
const cannot = (last: Last | null, ms: Ms, place: PlanPlace): StickFault | null => {
  if (!last) return null;
  const gap = ms - last.ms;
  if (gap < SAME_LIMB_MS) return 'tooSoon';
  const way = apart(last.place, place);
  return way > NEAR_CM && way / gap > FASTEST ? 'tooFar' : null;
};

const effort = (last: Last | null, ms: Ms, place: PlanPlace): number => {
  if (!last) return 0;
  if (cannot(last, ms, place)) return CANNOT;
  const gap = ms - last.ms;
  return (110 / gap) ** 2 + 0.5 * (apart(last.place, place) / gap / 0.25) ** 2;
};

interface Ways {
  strokes: readonly StickStroke[];
  /** Strokes that bounce on, with the one that each comes from. */
  bounces: ReadonlyMap<number, number>;
  lead: Hand;
  rule: HandRule;
  beat: Ticks;
  places: PlanPlace[];
  lasts: Last[];
  /** From this velocity on a stroke is an accent. */
  accent: Velocity;
}

/** A hand lifts for an accent: so long before it, it should not have struck. */
const LIFT_MS = 260;

/** The cost of a stroke for a hand, beside the effort. */
const manners = (
  { strokes, lead, rule, beat, accent }: Ways,
  at: number,
  hand: Hand,
  last: Last | null,
): number => {
  const stroke = strokes[at]!;
  if (stroke.hand) return stroke.hand === hand ? 0 : 4 * CANNOT;
  const leads = hand === lead;
  let cost = 0;
  const on = (grid: Ticks) => Math.abs(stroke.at / grid - Math.round(stroke.at / grid)) < 1e-3;
  if (on(beat)) cost += leads ? 0 : 0.3;
  else if (on(beat / 2)) cost += leads ? 0 : 0.12;
  else cost += leads ? 0.06 : 0;
  if (keepsTime(stroke.instrument) && !leads) cost += 0.4;
  if (rule === 'lead' && !leads) cost += 1.5;
  if (stroke.velocity >= accent && last) cost += 0.5 * Math.max(0, 1 - (stroke.ms - last.ms) / LIFT_MS);
  return cost;
};

const crossed = (left: Last | null, right: Last | null, ms: Ms): number =>
  left && right && ms - left.ms < 400 && ms - right.ms < 400 && right.place.x < left.place.x - 5 ? 0.2 : 0;

interface Way {
  cost: number;
  L: Last | null;
  R: Last | null;
  /** The hands of this event's strokes, and the way that led here. */
  hands: Hand[];
  before: Way | null;
}

const options = (count: number): Hand[][] =>
  count === 1
    ? [['R'], ['L']]
    : [
        ['R', 'L'],
        ['L', 'R'],
      ];

/** Whether a hand that struck last with a stroke lets another one bounce on from it. */
const bouncesOn = ({ bounces }: Ways, at: number, last: Last | null): boolean =>
  last !== null && bounces.get(at) === last.at;

const step = (ways: Way[], event: Event, about: Ways): Way[] => {
  const { strokes, places, lasts, rule, bounces } = about;
  const best = new Map<number, Way>();
  for (const way of ways)
    for (const hands of options(event.strokes.length)) {
      let cost = way.cost;
      const next = { L: way.L, R: way.R };
      event.strokes.forEach((at, place) => {
        const hand = hands[place]!;
        if (!bouncesOn(about, at, way[hand])) {
          cost += effort(way[hand], strokes[at]!.ms, places[at]!) + manners(about, at, hand, way[hand]);
          // No other hand can go on with a bounce.
          if (bounces.has(at)) cost += CANNOT;
        }
        next[hand] = lasts[at]!;
      });
      const again = hands.length === 1 && way.hands.length === 1 && hands[0] === way.hands[0];
      if (rule === 'alternate' && again && !bounces.has(event.strokes[0]!)) cost += 2 * CANNOT;
      cost += crossed(next.L, next.R, event.ms);
      const key =
        ((next.L?.at ?? -1) + 1) * strokes.length + (next.R?.at ?? -1) + 1 + ((next.L?.at ?? -1) + 1);
      const there = best.get(key);
      if (!there || cost < there.cost) best.set(key, { cost, ...next, hands, before: way });
    }
  // Ways on which a hand rested long differ in nothing that is still to come: the cheapest few are gone on with.
  return [...best.values()].sort((a, b) => a.cost - b.cost).slice(0, RESTED);
};

const feet = (strokes: readonly StickStroke[], order: number[], leftHanded: boolean, out: Stuck[]): void => {
  const last = { lead: -Infinity, other: -Infinity };
  for (const at of order) {
    const { instrument, ms } = strokes[at]!;
    const foot = footOf(instrument);
    if (!foot) continue;
    const limb = (foot === 'lead') === leftHanded ? 'LF' : 'RF';
    out[at] = { limb, ...(ms - last[foot] < SAME_LIMB_MS && { fault: 'foot' as const }) };
    last[foot] = ms;
  }
};

/** Strokes of each drum with the hands of the rudiments that they are. */
const asRudiments = (
  strokes: readonly StickStroke[],
  leftHanded: boolean,
  recognize: NonNullable<StickOptions['recognize']>,
): StickStroke[] => {
  const out = [...strokes];
  const byDrum = new Map<InstrumentId, number[]>();
  strokes.forEach(({ instrument }, at) => {
    if (footOf(instrument)) return;
    const list = byDrum.get(instrument);
    if (list) list.push(at);
    else byDrum.set(instrument, [at]);
  });
  for (const order of byDrum.values()) {
    order.sort((a, b) => strokes[a]!.ms - strokes[b]!.ms);
    for (const [at, hand] of recognize(strokes, order, leftHanded))
      if (!strokes[at]!.hand) out[at] = { ...strokes[at]!, hand };
  }
  return out;
};

/**
 * The hand or foot of each stroke.
 *
 * @param strokes in any order
 * @returns in the same order; a stroke that cannot be played says why
 * @example
 * sticking([0, 125].map((ms, at) => ({ ms, at: at * 240, velocity: 90, instrument: 'snare' as const }))).map(({ limb }) => limb)
 * // ["R", "L"]
 */
export const sticking = (
  given: readonly StickStroke[],
  { leftHanded = false, rule = 'easiest', beat = 960, recognize }: StickOptions = {},
): Stuck[] => {
  const strokes = rule === 'rudiment' && recognize ? asRudiments(given, leftHanded, recognize) : given;
  const out: Stuck[] = strokes.map(() => ({ limb: null }));
  const order = strokes.map((_, at) => at).sort((a, b) => strokes[a]!.ms - strokes[b]!.ms || a - b);
  feet(strokes, order, leftHanded, out);
  const byHand = order.filter((at) => !footOf(strokes[at]!.instrument));
  if (!byHand.length) return out;
  const mean = byHand.reduce((sum, at) => sum + strokes[at]!.velocity, 0) / byHand.length;
  const places = strokes.map(({ instrument }) => placeOf(instrument, leftHanded));
  const about: Ways = {
    strokes,
    bounces: bouncesOf(strokes, byHand),
    lasts: strokes.map(({ ms }, at) => ({ ms, place: places[at]!, at })),
    lead: leftHanded ? 'L' : 'R',
    rule,
    beat,
    places,
    accent: mean + 12,
  };
  const events = eventsOf(strokes, byHand, out);
  let ways: Way[] = [{ cost: 0, L: null, R: null, hands: [], before: null }];
  for (const event of events) ways = step(ways, event, about);
  let way: Way | null = ways[0]!;
  for (let at = events.length - 1; at >= 0 && way; at--) {
    const { strokes: own, ms } = events[at]!;
    const from: Way | null = way.before;
    own.forEach((stroke, place) => {
      const hand = way!.hands[place]!;
      const fault =
        from && !bouncesOn(about, stroke, from[hand])
          ? cannot(from[hand], strokes[stroke]?.ms ?? ms, about.places[stroke]!)
          : null;
      out[stroke] = { limb: hand, ...(fault && { fault }) };
    });
    way = from;
  }
  return out;
};

/** How many strokes cannot be played, by why. @example unplayable([{ limb: 'R' }]).all // 0 */
export const unplayable = (stuck: readonly Stuck[]): Record<StickFault, number> & { all: number } => {
  const counts = { tooMany: 0, tooSoon: 0, tooFar: 0, foot: 0, all: 0 };
  for (const { fault } of stuck) {
    if (!fault) continue;
    counts[fault] += 1;
    counts.all += 1;
  }
  return counts;
};
