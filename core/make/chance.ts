import { inOrder } from '../document/position';
import { withLanePattern } from '../document/defaults';
import { newHit, lanePatternOf, stepsOf } from '../document/defaults';
import type { Hit, LanePattern, Pattern, Take } from '../document/schema';
import { draw, hashText, PURPOSE } from '../random/draw';
import { clamp } from '../units';

/** The properties that a randomization leaves as they are. */
export interface HeldByChance {
  count?: boolean;
  places?: boolean;
  velocities?: boolean;
}

/** Strong places are the likelier: the fewer times a place must be halved to be reached, the stronger it is. */
const weight = (step: number, steps: number): number => {
  let strength = 1;
  for (let half = steps / 2; half >= 1; half /= 2) if (step % half === 0) strength += 1;
  return strength;
};

const randomPlaces = (steps: number, count: number, random: (at: number) => number): number[] =>
  Array.from({ length: steps }, (_, step) => ({ step, key: Math.pow(random(step), 1 / weight(step, steps)) }))
    .sort((a, b) => b.key - a.key)
    .slice(0, count)
    .map(({ step }) => step)
    .sort((a, b) => a - b);

/**
 * A lane rolled anew: how many hits, where and how hard, as far as they are not held.
 *
 * @param seed 0 to 2^32 - 1; the same seed gives the same hits
 * @example
 * randomized(EMPTY_LANE_PATTERN, 16, 'kick', 7, { count: false, places: false, velocities: false }).hits.every(({ step }) => step < 16)
 * // true
 */
export const randomized = (
  part: LanePattern,
  steps: number,
  laneId: string,
  seed: number,
  keep: HeldByChance,
): LanePattern => {
  const lane = hashText(laneId);
  const random = (what: number) => (at: number) => draw(seed, lane, at, what);
  const inside = part.hits.filter(({ step }) => step < steps);
  const beyond = part.hits.filter(({ step }) => step >= steps);
  const some = Math.max(1, Math.round(steps * (0.15 + 0.5 * random(PURPOSE.makeCount)(0))));
  const count = keep.count ? new Set(inside.map(({ step }) => step)).size : some;
  const places = keep.places
    ? [...new Set(inside.map(({ step }) => step))].slice(0, keep.count ? undefined : Math.max(count, 1))
    : randomPlaces(steps, count, random(PURPOSE.makePlace));
  const velocityAt = (step: number, at: number) =>
    keep.velocities
      ? (inside[at % Math.max(1, inside.length)]?.velocity ?? 96)
      : Math.round(clamp(40 + 62 * random(PURPOSE.makeVelocity)(step) + 6 * weight(step, steps), 1, 127));
  const hits = places.map((step, at): Hit => {
    const before = keep.places ? inside.find((hit) => hit.step === step) : undefined;
    return { ...(before ?? newHit(step)), velocity: velocityAt(step, at) };
  });
  return { ...part, hits: inOrder([...hits, ...beyond]) };
};

const freeNear = (step: number, steps: number, taken: Set<number>): number | null => {
  for (const by of [1, -1, 2, -2]) {
    const place = (step + by + steps) % steps;
    if (!taken.has(place)) return place;
  }
  return null;
};

const varied1 = (hit: Hit, steps: number, taken: Set<number>, kind: number, amount: number): Hit[] => {
  const near = freeNear(hit.step, steps, taken);
  if (kind < 0.35 && near !== null) {
    taken.delete(hit.step);
    taken.add(near);
    return [{ ...hit, step: near }];
  }
  if (kind < 0.55 && near !== null) {
    taken.add(near);
    return [hit, { ...newHit(near, Math.max(1, Math.round(hit.velocity * 0.6))) }];
  }
  if (kind < 0.7) {
    taken.delete(hit.step);
    return [];
  }
  const moved = Math.round(clamp(hit.velocity + (amount < 0.5 ? -1 : 1) * (8 + 24 * amount), 1, 127));
  return [{ ...hit, velocity: moved === hit.velocity ? Math.max(1, moved - 10) : moved }];
};

/**
 * A lane with a share of its hits changed: moved to a free neighbour, joined by a soft one, left out, or struck otherwise.
 * The rest stays; the strongest are changed last.
 *
 * @param share 0 to 1: about so many of the hits
 * @example varied(pattern.parts['kick']!, 16, 'kick', 7, 0).hits.length // 4
 */
export const varied = (
  part: LanePattern,
  steps: number,
  laneId: string,
  seed: number,
  share: number,
): LanePattern => {
  const lane = hashText(laneId);
  const random = (step: number, what: number) => draw(seed, lane, step, what);
  const inside = part.hits.filter(({ step }) => step < steps);
  const count = inside.length ? Math.max(1, Math.round(inside.length * clamp(share, 0, 1))) : 0;
  const byTurn = [...inside].sort(
    (a, b) =>
      a.velocity / 127 +
      0.25 * random(a.step, PURPOSE.varyChoose) -
      (b.velocity / 127 + 0.25 * random(b.step, PURPOSE.varyChoose)),
  );
  const chosen = new Set(byTurn.slice(0, count));
  const taken = new Set(part.hits.map(({ step }) => step));
  const hits = part.hits.flatMap((hit) =>
    chosen.has(hit)
      ? varied1(hit, steps, taken, random(hit.step, PURPOSE.varyKind), random(hit.step, PURPOSE.varyWhere))
      : [hit],
  );
  return { ...part, hits: inOrder(hits) };
};

/** How many takes that nobody asked to keep a pattern holds; beyond it the oldest of them give way. */
export const MOST_TAKES = 200;

const shortened = (takes: Take[]): Take[] => {
  let over = takes.filter(({ kept }) => !kept).length - MOST_TAKES;
  return over <= 0 ? takes : takes.filter(({ kept }) => kept || over-- <= 0);
};

const sameParts = (a: Record<string, LanePattern>, b: Record<string, LanePattern>): boolean =>
  Object.keys({ ...a, ...b }).every((lane) => a[lane] === b[lane]);

/** How many takes a pattern has had: by the names, where an older beat did not count. */
const takenSoFar = ({ taken, takes = [] }: Pattern): number =>
  takes.reduce(
    (most, { name }) => Math.max(most, Number(/^Take (\d+)$/.exec(name)?.[1] ?? 0)),
    taken ?? takes.length,
  );

/** Adds takes to a pattern, each with a name that none has had before. */
export const withTakes = (pattern: Pattern, added: Omit<Take, 'name' | 'kept'>[]): Pattern => {
  const before = takenSoFar(pattern);
  const takes = added.map((take, at): Take => ({ ...take, name: `Take ${before + at + 1}`, kept: false }));
  return {
    ...pattern,
    takes: shortened([...(pattern.takes ?? []), ...takes]),
    taken: before + takes.length,
  };
};

/** The parts of some lanes; empty ones too, so that a lane that was silent is so again. */
const partsOf = (pattern: Pattern, lanes: string[]): Record<string, LanePattern> =>
  Object.fromEntries(lanes.map((laneId) => [laneId, lanePatternOf(pattern, laneId)]));

/** Whether a take is what the lanes that it is for play now. */
const isPlayed = (
  pattern: Pattern,
  { parts, lanes, detour }: Pick<Take, 'parts' | 'lanes' | 'detour'>,
): boolean =>
  (detour === undefined || sameDetour(detour, pattern.detour)) &&
  (lanes
    ? lanes.every((laneId) => samePart(parts[laneId], pattern.parts[laneId]))
    : sameParts(parts, pattern.parts));

const sameDetour = (a: Take['detour'], b: Pattern['detour']): boolean =>
  JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** An empty part and none at all are alike. */
const samePart = (a: LanePattern | undefined, b: LanePattern | undefined): boolean =>
  a === b || (!a?.hits.length && !b?.hits.length && a?.steps === b?.steps);

/**
 * Puts an outcome of chance in the place of some lanes' parts and keeps it as a take, with what was there before it.
 *
 * @param change the new part of each lane
 * @param made what makes it, and how that is set: with it and the seed it can be made again
 * @param id of the new take
 */
export const rolled = (
  pattern: Pattern,
  lanes: string[],
  change: (part: LanePattern, steps: number, laneId: string) => LanePattern,
  how: string,
  made: NonNullable<Take['made']>,
  seed: number,
  id: string,
): Pattern => {
  const out = lanes.reduce((now, laneId) => {
    const part = lanePatternOf(now, laneId);
    return withLanePattern(now, laneId, change(part, stepsOf(part, now), laneId));
  }, pattern);
  const known = (pattern.takes ?? []).some(
    (take) => lanes.every((laneId) => !take.lanes || take.lanes.includes(laneId)) && isPlayed(pattern, take),
  );
  const before = known
    ? []
    : [{ id: `${id}.before`, how: 'What was there', seed, parts: partsOf(pattern, lanes), lanes }];
  const kept = withTakes(pattern, [...before, { id, how, made, seed, parts: partsOf(out, lanes), lanes }]);
  return { ...out, takes: kept.takes!, taken: kept.taken!, take: id };
};

/** A pattern with a take in it, to be heard or used: of one lane that lane, of all of them all. */
export const withTake = (
  pattern: Pattern,
  { parts, lanes, detour }: Pick<Take, 'parts' | 'lanes' | 'detour'>,
): Pattern => {
  const taken: Pattern = {
    ...pattern,
    parts: lanes
      ? {
          ...pattern.parts,
          ...Object.fromEntries(lanes.flatMap((id) => (parts[id] ? [[id, parts[id]]] : []))),
        }
      : parts,
  };
  if (detour === undefined) return taken;
  const { detour: _, ...asWritten } = taken;
  return detour ? { ...asWritten, detour } : asWritten;
};

/**
 * Puts a take back in its place. What was changed by hand since the last take is kept as one too.
 *
 * @param id of the take that is made of what was changed by hand, if anything was
 */
export const recalled = (pattern: Pattern, takeId: string, id: string): Pattern => {
  const takes = pattern.takes ?? [];
  const take = takes.find((one) => one.id === takeId);
  if (!take) return pattern;
  const lanes = take.lanes ?? [...new Set([...Object.keys(pattern.parts), ...Object.keys(take.parts)])];
  const known = takes.some(
    (one) => lanes.every((laneId) => !one.lanes || one.lanes.includes(laneId)) && isPlayed(pattern, one),
  );
  const kept = known
    ? pattern
    : withTakes(pattern, [
        {
          id,
          how: 'By hand',
          seed: 0,
          parts: partsOf(pattern, lanes),
          ...(take.lanes && { lanes }),
          ...(take.detour !== undefined && { detour: pattern.detour ?? null }),
        },
      ]);
  return { ...withTake(kept, take), take: takeId };
};

/** Names a take, or keeps it from being dropped; one that is not there changes nothing. */
export const changeTake = (
  pattern: Pattern,
  takeId: string,
  change: Partial<Pick<Take, 'name' | 'kept'>>,
): Pattern => ({
  ...pattern,
  takes: (pattern.takes ?? []).map((take) => (take.id === takeId ? { ...take, ...change } : take)),
});

/** Takes a take off the list; the pattern stays as it is. */
export const dropTake = (pattern: Pattern, takeId: string): Pattern => {
  const { take, ...rest } = pattern;
  const takes = (pattern.takes ?? []).filter(({ id }) => id !== takeId);
  return { ...rest, takes, ...(take !== undefined && take !== takeId && { take }) };
};
