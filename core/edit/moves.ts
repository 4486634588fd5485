import { inOrder, placed } from '../document/position';
import { EMPTY_LANE_PATTERN, lanePatternOf, patternTicks, withLanePattern } from '../document/defaults';
import { MOVES } from '../document/choices';
import { numbered } from '../document/numbered';
import { gridTicks } from '../document/grid';
import type { Beat, Detour, Echoes, Hit, LanePattern, NamedRoute, Pattern, Spark } from '../document/schema';
import { modulo } from '../numbers';
import { eachStroke } from '../play/laneStrokes';
import { DETOUR_HITS } from '../play/moves/detours';
import { sparksTo } from '../play/moves/sparks';
import { planLane, type LanePlan } from '../play/plan';
import type { Stroke } from '../play/strokes';
import { ticksPerMs, type Ticks } from '../units';

/** Moves: what changes what is played and not the hits. */

const setLanePattern = (
  pattern: Pattern,
  laneId: string,
  change: (part: LanePattern) => LanePattern,
): Pattern => withLanePattern(pattern, laneId, change(lanePatternOf(pattern, laneId)));

/** Gives lanes echoes, or takes them by null. */
export const setEchoes = (pattern: Pattern, laneIds: string[], echoes: Echoes | null): Pattern =>
  laneIds.reduce(
    (now, laneId) =>
      setLanePattern(now, laneId, ({ echoes: _, ...part }) => (echoes ? { ...part, echoes } : part)),
    pattern,
  );

/** Lets a lane's strokes set off other lanes, or none by null. A lane never sets off itself. */
export const setSparks = (pattern: Pattern, laneId: string, sparks: Spark[] | null): Pattern => {
  const others = (sparks ?? []).filter(({ to }) => to !== laneId).slice(0, MOVES.sparks);
  return setLanePattern(pattern, laneId, ({ sparks: _, ...part }) =>
    others.length ? { ...part, sparks: others } : part,
  );
};

/** Plays the slots of a pattern by another way, or as written by null. */
export const setDetour = ({ detour: _, ...pattern }: Pattern, detour: Detour | null): Pattern =>
  detour ? { ...pattern, detour } : pattern;

/** Keeps a route with the beat, under a name of its own. */
export const keepRoute = (beat: Beat, { id, name, route }: NamedRoute): Beat => {
  const routes = beat.routes ?? [];
  const free = numbered(
    name,
    routes.map((one) => one.name),
  );
  return routes.length >= MOVES.routes || !free || routes.some((one) => one.id === id)
    ? beat
    : { ...beat, routes: [...routes, { id, name: free, route }] };
};

/** Forgets a route. */
export const dropRoute = ({ routes = [], ...beat }: Beat, id: string): Beat => {
  const left = routes.filter((one) => one.id !== id);
  return left.length ? { ...beat, routes: left } : beat;
};

/** Whether anything but its own hits decides what a lane plays. @example hasMoves(beat, pattern, 'kick') // false */
export const hasMoves = (beat: Beat, pattern: Pattern, laneId: string): boolean => {
  const { detour } = pattern;
  const turned = !!detour && (!detour.lanes || detour.lanes.includes(laneId));
  return turned || !!lanePatternOf(pattern, laneId).echoes || sparksTo(beat, pattern, laneId).length > 0;
};

/** Where a stroke stands before its feel; a repeat in ms as far from its hit as it is at the beat's tempo. */
const placeOf = (stroke: Stroke, tempo: number): Ticks =>
  stroke.tie ? stroke.tie.main.at + stroke.tie.apart * ticksPerMs(tempo) : stroke.at;

/** What a hit was that a stroke came of: its chance and passes go with what comes of it. */
const hitOf = (part: LanePattern, { step, hitIndex }: Stroke): Hit | undefined =>
  part.hits.filter((hit) => hit.step === step).sort((a, b) => a.nudge - b.nudge)[hitIndex % DETOUR_HITS];

const writtenHit = (
  stroke: Stroke,
  at: Ticks,
  length: Ticks,
  part: LanePattern,
  source: Hit | undefined,
): Hit => {
  const g = gridTicks(part.grid);
  const base: Hit = {
    step: 0,
    nudge: 0,
    velocity: Math.round(Math.min(127, Math.max(1, stroke.velocity))),
    length: stroke.length === null ? null : Math.min(64, Math.max(0.05, stroke.length / g)),
    chance: 1,
    ...(stroke.pitch !== 0 && { pitch: stroke.pitch }),
  };
  const own = stroke.kind === 'main' && source ? { ...base, ...source, velocity: base.velocity } : base;
  const { step, nudge } = placed(modulo(at, length), part.grid);
  const steps = Math.round(length / g);
  // What is nearest to the end is early for the first step.
  return {
    ...own,
    step: step >= steps ? 0 : step,
    nudge: step >= steps ? Math.min(0.5, Math.max(-0.5, nudge)) : nudge,
  };
};

/** What a lane plays over a pass, in hits. A pass that others came before: what crosses the end comes in at the start. */
const written = (beat: Beat, pattern: Pattern, plan: LanePlan, part: LanePattern): Hit[] => {
  const length = patternTicks(pattern);
  const hits: Hit[] = [];
  // Rolls and grace strokes come back with the hit that they belong to.
  const from = length - plan.reach;
  eachStroke(plan, Math.max(0, from), 2 * length + plan.reach, (stroke) => {
    if (stroke.kind === 'grace' || stroke.kind === 'roll' || !stroke.sounds) return;
    const at = placeOf(stroke, beat.tempo);
    if (at < length - 1e-6 || at >= 2 * length - 1e-6) return;
    const source = stroke.kind === 'main' ? hitOf(part, stroke) : undefined;
    hits.push(writtenHit(stroke, at, length, part, source));
  });
  return inOrder(hits);
};

/**
 * Writes the moves of a pattern into its hits: what is heard before and after is the same, but for what is drawn anew on every
 * pass, which is written as it is drawn for the second one, and for repeats in ms, which swing from then on.
 */
export const writeMoves = (pattern: Pattern, beat: Beat): Pattern => {
  const lanes = beat.lanes.filter(({ id }) => hasMoves(beat, pattern, id));
  const parts = Object.fromEntries(
    lanes.map((lane) => {
      const part = lanePatternOf(pattern, lane.id);
      const hits = written(beat, pattern, planLane(beat, pattern, lane), part).slice(0, 8192);
      return [lane.id, { ...EMPTY_LANE_PATTERN, grid: part.grid, hits }];
    }),
  );
  const rest = Object.fromEntries(
    Object.entries({ ...pattern.parts, ...parts }).map(([id, part]) => {
      const { echoes: _, sparks: __, ...own }: LanePattern = part;
      return [id, own];
    }),
  );
  return setDetour({ ...pattern, parts: rest }, null);
};
