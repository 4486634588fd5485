import { z } from 'zod';
import { DETOUR_OVER, DETOUR_SLOTS, MOST, MOVES, SPARK_OF } from './choices';
import { figure } from './figure';
import { GRIDS } from './grid';
import { id } from './idSchema';
import { RANGES } from './ranges';

/** Moves change the strokes that are played, and not the hits. */

/** Repeats after each hit of a lane. */
export const echoesSchema = z.strictObject({
  count: figure(RANGES.echoes),
  /** In notes, which swing, or in ms. */
  rate: z.union([z.strictObject({ grid: z.enum(GRIDS) }), z.strictObject({ ms: figure(RANGES.echoMs) })]),
  /** Each repeat has so much of the velocity of the one before. */
  slope: figure(RANGES.echoSlope),
  /** By how much each repeat is higher than the one before. */
  interval: figure(RANGES.interval),
  /** The hit itself is silent. */
  withoutHit: z.boolean(),
});

/** A lane's strokes set off another lane. */
export const sparkSchema = z.strictObject({
  /** The lane that is set off. */
  to: id,
  of: z.enum(SPARK_OF),
  /** Strokes nearer to one another are one run. */
  gap: z.enum(GRIDS),
  chance: figure(RANGES.chance),
  factor: figure(RANGES.sparkFactor),
  delay: z
    .union([z.strictObject({ grid: z.enum(GRIDS) }), z.strictObject({ ms: figure(RANGES.sparkMs) })])
    .nullable(),
  pitch: figure(RANGES.interval),
});

const slots = DETOUR_SLOTS.map(String).join(', ');

/** For each slot from which slot it plays, from 1; 0 is silence. */
export const routeSchema = z
  .array(z.int().min(0).max(32))
  .refine((route) => DETOUR_SLOTS.some((count) => count === route.length), `does not have ${slots} slots`)
  .refine((route) => route.every((from) => from <= route.length), 'leads to a slot that is not there');

/** The slots of a bar, or of the whole pattern, played in another order. */
export const detourSchema = z.strictObject({
  over: z.enum(DETOUR_OVER),
  route: routeSchema,
  /** How likely each slot is to be played otherwise. */
  chance: figure(RANGES.chance),
  /** The lanes that it is for; null is all. */
  lanes: z.array(id).max(MOST.lanes).nullable(),
});

/** A route that was kept under a name. */
export const namedRouteSchema = z.strictObject({
  id,
  name: z.string().trim().min(1).max(MOST.name),
  route: routeSchema,
});

/** Each next stroke of some lanes later than the one before. */
export const staggerSchema = z.strictObject({
  /** The lanes that are counted together; null is all. */
  lanes: z.array(id).max(MOST.lanes).nullable(),
  /** By a count, or by a list of delays. */
  by: z.union([
    z.strictObject({
      count: figure(RANGES.staggerCount),
      each: z.number().min(0).max(RANGES.staggerMs.most),
    }),
    z.strictObject({ list: z.array(z.number().min(0).max(RANGES.staggerMs.most)).min(1).max(MOVES.delays) }),
  ]),
  /** The unit of delays: ms, or percent of a sixteenth. */
  unit: z.enum(['ms', 'percent']),
  /** A random part, from 0 to so much. */
  random: z.number().min(0).max(RANGES.staggerMs.most),
  /** The random part is added before the counting. */
  randomFirst: z.boolean(),
});

export type Echoes = z.infer<typeof echoesSchema>;
export type Spark = z.infer<typeof sparkSchema>;
export type Detour = z.infer<typeof detourSchema>;
export type NamedRoute = z.infer<typeof namedRouteSchema>;
export type Stagger = z.infer<typeof staggerSchema>;
