import { patternTicks } from '../../document/defaults';
import { barTicks } from '../../document/meter';
import type { Detour, Pattern } from '../../document/schema';
import { draw, PURPOSE } from '../../random/draw';
import { clamp, type Ticks } from '../../units';
import type { LanePlan } from '../plan';
import { newStroke, writtenStrokes, type Stroke } from '../strokes';

/** A detour made ready: the slots of a bar, or of the pattern, played from other slots. */
export interface DetourPlan {
  /** The span that is divided, and the length of its slots. */
  span: Ticks;
  slot: Ticks;
  /** For each slot from which slot it plays, from 0; -1 is silence. */
  route: readonly number[];
  chance: number;
  seed: number;
}

/**
 * A pattern's detour made ready for one lane; null where it has none.
 *
 * @example planDetour(pattern, 'kick', 7) // null
 */
export const planDetour = (pattern: Pattern, laneId: string, seed: number): DetourPlan | null => {
  const { detour } = pattern;
  if (!detour || (detour.lanes && !detour.lanes.includes(laneId))) return null;
  const span = detour.over === 'bar' ? barTicks(pattern.meter) : patternTicks(pattern);
  return {
    span,
    slot: span / detour.route.length,
    route: detour.route.map((from) => from - 1),
    chance: detour.chance,
    seed,
  };
};

/** From a time on a pattern goes by a detour, or as written. */
export interface Switched {
  /** From where play began. */
  at: Ticks;
  detour: Detour | null;
}

/** The same made ready for one lane: null is as written. */
export interface DetourSpan {
  from: Ticks;
  plan: DetourPlan | null;
}

/**
 * Detours that were switched while a pattern played, made ready for one lane. The first holds from the beginning on.
 *
 * @param switched in order of time
 * @example detourSpans(pattern, 'kick', 7, [{ at: 0, detour: null }]) // [{ from: 0, plan: null }]
 */
export const detourSpans = (
  pattern: Pattern,
  laneId: string,
  seed: number,
  switched: readonly Switched[],
): DetourSpan[] => {
  const { detour: _, ...plain } = pattern;
  return switched.map(({ at, detour }) => ({
    from: at,
    plan: planDetour(detour ? { ...plain, detour } : plain, laneId, seed),
  }));
};

/**
 * From which slot a slot plays, in one time through what is divided.
 *
 * @param time how often it has been gone through before
 * @returns from 0; -1 is silence
 * @example
 * sourceOf({ span: 3840, slot: 960, route: [1, 0, -1, 2], chance: 1, seed: 7 }, 0, 3)
 * // 2
 */
export const sourceOf = ({ route, chance, seed }: DetourPlan, time: number, slot: number): number =>
  chance >= 1 || draw(seed, time, slot, PURPOSE.detour) < chance ? route[slot]! : slot;

/** Where a stroke belongs: a hit by its step, whichever way it is nudged; what a roll adds to it by how much later it is. */
const placeOf = (stroke: Stroke): Ticks =>
  stroke.gridTick + (stroke.kind === 'roll' && stroke.lead ? stroke.at - stroke.lead.at : 0);

/**
 * A hit that is played from another slot has its own number, and so many more for each slot: what is drawn for it is its own,
 * and which hit it was is what is left of its number by this.
 */
export const DETOUR_HITS = 64;

const moved = (stroke: Stroke, by: Ticks, slot: number): Stroke =>
  newStroke(stroke.at + by, stroke.velocity, stroke.length, stroke.cut, {
    gridTick: stroke.gridTick + by,
    cycle: stroke.cycle,
    readIndex: stroke.readIndex,
    step: stroke.step,
    hitIndex: stroke.hitIndex + DETOUR_HITS * (slot + 1),
    kind: stroke.kind,
    stroke: stroke.stroke,
    sounds: stroke.sounds,
    pitch: stroke.pitch,
  });

/** The strokes of a slot at the place of another one, grace strokes and rolls with those that they belong to. */
const movedTogether = (strokes: readonly Stroke[], by: Ticks, slot: number): Stroke[] => {
  if (strokes.every(({ lead, tie }) => !lead && !tie))
    return strokes.map((stroke) => moved(stroke, by, slot));
  const copies = new Map<Stroke, Stroke>();
  const leads = new Map<Stroke, Stroke>();
  for (const stroke of strokes) {
    const copy = moved(stroke, by, slot);
    copies.set(stroke, copy);
    if (stroke.lead) {
      const lead = leads.get(stroke.lead) ?? copy;
      leads.set(stroke.lead, lead);
      copy.lead = lead;
    }
  }
  for (const [stroke, copy] of copies) {
    if (!stroke.tie) continue;
    const main = copies.get(stroke.tie.main as Stroke);
    if (main) copy.tie = { ...stroke.tie, main };
    else copies.delete(stroke);
  }
  return [...copies.values()];
};

/** The same where no other slot plays them too: it need not be copies. */
const movedThemselves = (strokes: Stroke[], by: Ticks, slot: number): Stroke[] | null => {
  for (const { lead, tie } of strokes) if (lead || tie) return null;
  for (const stroke of strokes) {
    stroke.at += by;
    stroke.gridTick += by;
    stroke.hitIndex += DETOUR_HITS * (slot + 1);
  }
  return strokes;
};

/** The strokes of one time through, by the slot that each stands in. */
const placedIn = (lane: LanePlan, plan: DetourPlan, start: Ticks): (Stroke[] | undefined)[] => {
  const last = plan.route.length - 1;
  const slots: (Stroke[] | undefined)[] = new Array<Stroke[] | undefined>(last + 1).fill(undefined);
  writtenStrokes(lane, start, start + plan.span, (stroke) => {
    const of = stroke.tie ? (stroke.tie.main as Stroke) : stroke;
    const slot = clamp(Math.floor((placeOf(of) - start) / plan.slot + 1e-9), 0, last);
    const there = slots[slot];
    if (there) there.push(stroke);
    else slots[slot] = [stroke];
  });
  return slots;
};

/** The strokes of a lane by the way of a detour: those that belong to a stretch of time once they are moved. */
export const detouredStrokes = (
  lane: LanePlan,
  plan: DetourPlan,
  from: Ticks,
  to: Ticks,
  take: (stroke: Stroke) => void,
): void => {
  for (let time = Math.max(0, Math.floor(from / plan.span)); time * plan.span < to; time++) {
    const start = time * plan.span;
    const slots = placedIn(lane, plan, start);
    const sources = plan.route.map((_, slot) => sourceOf(plan, time, slot));
    for (let slot = 0; slot < sources.length; slot++) {
      const source = sources[slot]!;
      const own = slots[source];
      if (!own) continue;
      for (const stroke of playedIn(own, sources, slot, plan.slot))
        if (stroke.gridTick >= from - 1e-6 && stroke.gridTick < to - 1e-6) take(stroke);
    }
  }
};

/** The place of a stroke, or of the one that it is tied to. */
const ownPlace = (stroke: Stroke): Ticks => placeOf(stroke.tie ? (stroke.tie.main as Stroke) : stroke);

/** The strokes of a lane that goes by one detour after the other: each by the one that holds where it comes to stand. */
export const switchedStrokes = (
  lane: LanePlan,
  spans: readonly DetourSpan[],
  from: Ticks,
  to: Ticks,
  take: (stroke: Stroke) => void,
): void => {
  spans.forEach(({ from: own, plan }, at) => {
    const first = at === 0 ? -Infinity : own;
    const end = spans[at + 1]?.from ?? Infinity;
    // A stroke never stands before its step, and not farther behind it than its hit is long.
    if (end <= from || first > to + lane.longest) return;
    const give = (stroke: Stroke) => {
      const place = ownPlace(stroke);
      if (place >= first - 1e-6 && place < end - 1e-6) take(stroke);
    };
    if (plan) detouredStrokes(lane, plan, from, to, give);
    else writtenStrokes(lane, from, to, give);
  });
};

/** The strokes that a slot plays of the one that it plays from. */
const playedIn = (own: Stroke[], sources: readonly number[], slot: number, length: Ticks): Stroke[] => {
  const source = sources[slot]!;
  if (source === slot) return own;
  const by = (slot - source) * length;
  const only = sources.indexOf(source) === slot && sources.lastIndexOf(source) === slot;
  return (only && movedThemselves(own, by, slot)) || movedTogether(own, by, slot);
};

/** Routes that are known by name, for so many slots. */
export const KNOWN_ROUTES = [
  'as written',
  'reversed',
  'odds then evens',
  'evens then odds',
  'halves swapped',
  'each twice',
  'quarters only',
] as const;
export type KnownRoute = (typeof KNOWN_ROUTES)[number];

/**
 * A route by its name.
 *
 * @param slots 4, 8, 16 or 32
 * @example knownRoute('odds then evens', 8) // [1, 3, 5, 7, 2, 4, 6, 8]
 */
export const knownRoute = (name: KnownRoute, slots: number): number[] => {
  const all = Array.from({ length: slots }, (_, at) => at + 1);
  const odd = all.filter((slot) => slot % 2 === 1);
  const even = all.filter((slot) => slot % 2 === 0);
  switch (name) {
    case 'as written':
      return all;
    case 'reversed':
      return all.reverse();
    case 'odds then evens':
      return [...odd, ...even];
    case 'evens then odds':
      return [...even, ...odd];
    case 'halves swapped':
      return [...all.slice(slots / 2), ...all.slice(0, slots / 2)];
    case 'each twice':
      return all.map((slot) => Math.ceil(slot / 2));
    case 'quarters only':
      return all.map((slot) => ((slot - 1) % (slots / 4) === 0 ? slot : 0));
  }
};

/**
 * A route by chance.
 *
 * @example randomRoute(8, 7).length // 8
 */
export const randomRoute = (slots: number, seed: number): number[] =>
  Array.from({ length: slots }, (_, slot) => 1 + Math.floor(draw(seed, slot, PURPOSE.detour) * slots));

/** Whether a detour leaves all as it is written. @example isAsWritten([1, 2, 3, 4]) // true */
export const isAsWritten = (route: Detour['route']): boolean =>
  route.every((from, slot) => from === slot + 1);
