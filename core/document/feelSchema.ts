import { id } from './idSchema';
import { z } from 'zod';
import { BASES, DRUM_GROUPS, MOST, STAGES } from './choices';
import { figure } from './figure';
import { staggerSchema } from './movesSchema';
import { RANGES } from './ranges';
import { GRIDS } from './grid';
import { meterSchema } from './meterSchema';
import { bandSchema } from './playersSchema';

const name = z.string().trim().min(1).max(MOST.name);
const seed = z.int().min(0).max(0xffffffff);

/** Where a template puts what stands on one step of its grid. */
export const slotSchema = z
  .strictObject({
    /** Fraction of a step, negative is early. */
    offset: z.number().min(-0.5).max(0.5),
    velocity: figure(RANGES.share),
  })
  .nullable();

const slotsSchema = z
  .array(slotSchema)
  .min(1)
  .max(MOST.slots)
  .refine((slots) => slots.some((slot) => slot !== null), 'has no slot that is not open');

/** A groove template: timing and accents, step by step. `null` is an open slot. */
export const shapeSchema = z.strictObject({
  name,
  grid: z.enum(GRIDS),
  slots: slotsSchema,
  /** Curves of their own for groups of drums, on the same grid; a group that is left out takes the common slots. */
  groups: z.partialRecord(z.enum(DRUM_GROUPS), slotsSchema).optional(),
  /** The meter that it was made in; left out, it is told by its length. */
  meter: meterSchema.optional(),
});

/** A template as a beat keeps it. */
export const templateSchema = shapeSchema.extend({
  id,
  /** How it feels, in words. */
  about: z.string().max(200).optional(),
});

export const swingSchema = z.strictObject({
  /** 50 is straight. */
  percent: figure(RANGES.swing),
  grid: z.enum(['1/8', '1/16']),
  /** It follows the tempo instead of the percent, by so much of what players do; left out, it does not. */
  withTempo: figure(RANGES.share).optional(),
});

/** A template in use. */
export const followSchema = z.strictObject({
  template: templateSchema.nullable(),
  /** Amounts: 1 is as the template has it. */
  timing: figure(RANGES.amount),
  velocity: figure(RANGES.amount),
  /** Its slots are counted from where play began and not anew from each bar line: as beats of format 4 sounded. */
  runsOn: z.boolean().optional(),
});

/** The settings of one lane; those left out are those of all lanes. */
export const laneFeelSchema = z.strictObject({
  base: z.enum(BASES).optional(),
  swing: swingSchema.optional(),
  template: followSchema.optional(),
  /** In ms; negative is ahead of the beat. */
  offset: figure(RANGES.offset).optional(),
  /** 1 leaves velocities as they are, 0 makes them all equal. */
  contrast: figure(RANGES.level).optional(),
  level: figure(RANGES.level).optional(),
  /** How much of the spread of timing and of velocity it has. */
  timing: figure(RANGES.scale).optional(),
  velocity: figure(RANGES.scale).optional(),
  /** It drifts by itself and not with the kit. */
  apart: z.boolean().optional(),
  /** How much of the kit's drift it shares, 0 to 1; left out, all of it or, apart, none. */
  shares: figure(RANGES.share).optional(),
});

const plainShape = {
  /** The stages that are passed by. */
  off: z.array(z.enum(STAGES)).max(STAGES.length),
  quantize: z.strictObject({
    grid: z.enum(GRIDS),
    strength: figure(RANGES.share),
    window: figure(RANGES.share),
    /** Notes within 35 ms stay together. */
    flams: z.boolean(),
    /** The lanes that it is for; null is all. */
    lanes: z.array(id).max(MOST.lanes).nullable(),
  }),
  base: z.enum(BASES),
  swing: swingSchema,
  template: followSchema,
  /** Left out, no stroke waits for another. */
  stagger: staggerSchema.optional(),
  /** The kit's own level. */
  level: figure(RANGES.level),
  /** How far the velocities of all lanes lie apart, beside what each lane has of its own; left out, as they are. */
  contrast: figure(RANGES.level).optional(),
  /** How far strokes come to lean, in ms, by the end of a pass, and by the end of a fill; negative is ahead. */
  lean: z.strictObject({ phrase: figure(RANGES.lean), fill: figure(RANGES.lean) }).optional(),
  /** By lane id. */
  lanes: z.record(id, laneFeelSchema),
  humanize: z.strictObject({
    /** Standard deviations, in ms and in steps of velocity. */
    timing: figure(RANGES.timingSpread),
    velocity: figure(RANGES.velocitySpread),
    /** The share of the timing that hangs together. */
    drift: figure(RANGES.share),
    seed,
    /** Every take's seed, in the order in which they came; the one in use is among them. */
    takes: z.array(seed).max(MOST.seeds),
    /** Drawn anew on every pass, and not the same for all. */
    anew: z.boolean(),
    /** How much looser soft strokes are than hard ones; left out, all are alike. */
    soft: figure(RANGES.share).optional(),
    /** How much the weaker hand is later and softer; left out, both hands are alike. */
    hands: figure(RANGES.share).optional(),
    /** The leading hand is the left one. */
    leftHanded: z.boolean().optional(),
    /** Players who follow one another. */
    band: bandSchema.optional(),
  }),
};

export const plainFeelSchema = z.strictObject(plainShape);

/** How a pattern is played. Never burnt into it unless asked for. */
export const feelSchema = z.strictObject({
  ...plainShape,
  /** Another feel that this one is blended with. */
  blend: z.strictObject({ with: plainFeelSchema, name, amount: figure(RANGES.share) }).optional(),
});

/** A feel that was kept under a name. */
export const namedFeelSchema = z.strictObject({ id, name, feel: feelSchema });

export type Slot = z.infer<typeof slotSchema>;
export type Shape = z.infer<typeof shapeSchema>;
export type Template = z.infer<typeof templateSchema>;
export type Swing = z.infer<typeof swingSchema>;
export type Follow = z.infer<typeof followSchema>;
export type LaneFeel = z.infer<typeof laneFeelSchema>;
export type PlainFeel = z.infer<typeof plainFeelSchema>;
export type Feel = z.infer<typeof feelSchema>;
export type NamedFeel = z.infer<typeof namedFeelSchema>;
