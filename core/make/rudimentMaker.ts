import { inOrder, placed, positionOf } from '../document/position';
import { lanePatternOf, newHit, patternTicks, stepsOf, withLanePattern } from '../document/defaults';
import type { Hand } from '../document/choices';
import { gridTicks, type Grid } from '../document/grid';
import type { Hit, LanePattern, Pattern, Take } from '../document/schema';
import { GRACES, PRESS_ROLL } from '../document/rolls';
import { RUDIMENTS, type Rudiment, type RudimentStroke } from '../hands/rudiments';
import { clamp, QUARTER, type Ticks, type Velocity } from '../units';
import type { Made } from './makers';

/** Rudiments laid over a span of a pattern, on one drum or shared out. */
export interface RudimentSettings {
  /** Its id in the list of rudiments. */
  rudiment: string;
  /** The grid that one of its steps is laid on. */
  grid: Grid;
  /** Where it begins and for how long it goes on, in beats of a quarter; 0 long is up to the pattern's end. */
  from: number;
  long: number;
  velocity: Velocity;
  accent: Velocity;
  /** It begins with the left hand. */
  left: boolean;
  /** Lanes of accents, and of what the left hand plays besides; '' is the lane itself. */
  accents: string;
  lefts: string;
}

export const RUDIMENT_DEFAULTS: RudimentSettings = {
  rudiment: 'single-paradiddle',
  grid: '1/16',
  from: 0,
  long: 0,
  velocity: 70,
  accent: 112,
  left: false,
  accents: '',
  lefts: '',
};

const graceOf = (count: 1 | 2) =>
  GRACES.find(({ id }) => id === (count === 1 ? 'flam.tight' : 'drag.tight'))!.grace;
const other = (hand: Hand): Hand => (hand === 'R' ? 'L' : 'R');

/** The strokes of one step: two or three by one hand within it are one hit that bounces. */
interface Blow extends RudimentStroke {
  bounces: number;
}

const blowsOf = ({ strokes }: Rudiment): Blow[] => {
  const out: Blow[] = [];
  for (const stroke of strokes) {
    const last = out.at(-1);
    if (last && Math.floor(last.at) === Math.floor(stroke.at) && last.hand === stroke.hand) last.bounces += 1;
    else out.push({ ...stroke, bounces: 1 });
  }
  return out;
};

const hitOf = (blow: Blow, tick: Ticks, s: RudimentSettings): Hit => ({
  ...newHit(0, blow.accent ? s.accent : s.velocity),
  ...placed(tick, s.grid),
  hand: s.left ? other(blow.hand) : blow.hand,
  ...(blow.graces > 0 && { grace: graceOf(blow.graces as 1 | 2) }),
  ...(blow.bounces > 1 && {
    length: 1,
    roll: { curve: 0, levels: Array.from({ length: blow.bounces }, (_, at) => (at ? 0.9 : 1)) },
  }),
  ...(blow.buzz && { length: 1, roll: PRESS_ROLL }),
});

/** The hits of a lane outside a span, on another grid: as often as its own loop goes round in the pattern. */
const around = (part: LanePattern, pattern: Pattern, grid: Grid, from: Ticks, to: Ticks): Hit[] => {
  const whole = patternTicks(pattern);
  const own = gridTicks(part.grid);
  const loop = part.steps === null ? whole : stepsOf(part, pattern) * own;
  const scale = own / gridTicks(grid);
  const out: Hit[] = [];
  for (let round = 0; loop > 0 && round * loop < whole - 1e-6; round++)
    for (const hit of part.hits) {
      const at = positionOf(hit, part.grid);
      if (at >= loop - 1e-6 && part.steps !== null) continue;
      // What comes so early that it belongs to the pass before stands at the end of this one.
      const early = at + round * loop < -gridTicks(grid) / 2;
      const tick = at + round * loop + (early ? whole : 0);
      // What stands close before the span is heard as the span's first stroke: it goes with it.
      if (tick >= whole - 1e-6 || (tick >= from - 20 && tick < to - 20)) continue;
      const length = hit.length === null ? null : clamp(hit.length * scale, 0.01, 64);
      out.push({ ...hit, ...placed(tick, grid), length });
    }
  return out;
};

/** The span in ticks, held to the pattern. */
const spanOf = (pattern: Pattern, { from, long }: RudimentSettings): { from: Ticks; to: Ticks } => {
  const whole = patternTicks(pattern);
  const begin = clamp(from * QUARTER, 0, whole);
  return { from: begin, to: long > 0 ? Math.min(whole, begin + long * QUARTER) : whole };
};

/**
 * The hits that a rudiment gives to its lane, and to those that it is shared out to: over and over through the span, with its hands,
 * accents and grace strokes. What a lane plays outside the span stays.
 *
 * @returns nothing where there is no such rudiment
 * @example Object.keys(rudimentParts(pattern, 'snare', RUDIMENT_DEFAULTS)) // ["snare"]
 */
export const rudimentParts = (pattern: Pattern, laneId: string, s: RudimentSettings): Made => {
  const rudiment = RUDIMENTS.find(({ id }) => id === s.rudiment);
  if (!rudiment) return {};
  const { from, to } = spanOf(pattern, s);
  const g = gridTicks(s.grid);
  const byLane = new Map<string, Hit[]>([[laneId, []]]);
  const give = (id: string, hit: Hit) => byLane.set(id, [...(byLane.get(id) ?? []), hit]);
  const blows = blowsOf(rudiment);
  for (let begin = from; begin < to - 1e-6; begin += rudiment.steps * g)
    for (const blow of blows) {
      const tick = begin + blow.at * g;
      if (tick >= to - 1e-6) break;
      const hit = hitOf(blow, tick, s);
      give((blow.accent ? s.accents : '') || (hit.hand === 'L' ? s.lefts : '') || laneId, hit);
    }
  return Object.fromEntries(
    [...byLane].map(([id, hits]): [string, LanePattern] => {
      const part = lanePatternOf(pattern, id);
      const kept = around(part, pattern, s.grid, from, to);
      const { shift: _, offbeat: __, offbeatGrid: ___, ...rest } = part;
      const own: LanePattern = { ...rest, grid: s.grid, steps: null, rate: '1', direction: 'forward' };
      return [id, { ...own, hits: inOrder([...kept, ...hits]) }];
    }),
  );
};

/**
 * A pattern as it was before the rudiment that it plays was laid over a lane; itself where it plays none. So a rudiment is laid
 * anew in the place of the one before, and not on top of it.
 *
 * @example unlaid(pattern, 'snare') === pattern // true
 */
export const unlaid = (pattern: Pattern, laneId: string): Pattern => {
  const takes = pattern.takes ?? [];
  const at = takes.findIndex(({ id }) => id === pattern.take);
  const isLaid = ({ made, lanes }: Take) => made?.maker === 'rudiment' && lanes?.[0] === laneId;
  if (at < 0 || !isLaid(takes[at]!)) return pattern;
  return (takes[at]!.lanes ?? []).reduce((now, id) => {
    const before = takes.slice(0, at).findLast((take) => !isLaid(take) && take.parts[id]);
    return before ? withLanePattern(now, id, before.parts[id]!) : now;
  }, pattern);
};

/**
 * The hits of a rudiment where another one may be laid already: that one goes, on all lanes that it was shared out to.
 *
 * @example Object.keys(relaid(pattern, 'snare', RUDIMENT_DEFAULTS)) // ["snare"]
 */
export const relaid = (pattern: Pattern, laneId: string, s: RudimentSettings): Made => {
  const bare = unlaid(pattern, laneId);
  const back =
    bare === pattern ? [] : ((pattern.takes ?? []).find(({ id }) => id === pattern.take)!.lanes ?? []);
  return {
    [laneId]: lanePatternOf(bare, laneId),
    ...Object.fromEntries(back.map((id) => [id, lanePatternOf(bare, id)])),
    ...rudimentParts(bare, laneId, s),
  };
};
