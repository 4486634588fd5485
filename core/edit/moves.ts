import { lanePatternOf, withLanePattern } from '../document/defaults';
import { MOVES } from '../document/choices';
import { RANGES } from '../document/ranges';
import { numbered } from '../document/numbered';
import type { Beat, Detour, Echoes, LanePattern, NamedRoute, Pattern, Spark } from '../document/schema';
import { sparksTo } from '../play/moves/sparks';

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

/** How many passes of a pattern fit into one. @example passesThatFit({ ...pattern, bars: 4 }) // [2, 3, 4] */
export const passesThatFit = ({ bars }: Pick<Pattern, 'bars'>): number[] =>
  [2, 3, 4, 6, 8, 16].filter((passes) => passes * bars <= RANGES.bars.most);
