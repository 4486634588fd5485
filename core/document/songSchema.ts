import { id } from './idSchema';
import { z } from 'zod';
import { MOST, OVERS, PIGMENTS, SONG } from './choices';
import { figure } from './figure';
import { RANGES } from './ranges';
import { feelSchema } from './feelSchema';
import { meterSchema } from './meterSchema';

const name = z.string().trim().min(1).max(MOST.name);
const times = figure(RANGES.times);
const level = figure(RANGES.level);

/** A pattern that was set aside for the song. */
export const trayItemSchema = z.strictObject({ id, name, patternId: id });

/** One pattern in the row of a section. */
export const entrySchema = z.strictObject({
  id,
  patternId: id,
  /** How often it plays. */
  times,
  /** So many of its bars instead: it is repeated, or cut. */
  bars: figure(RANGES.entryBars).optional(),
  /** The pattern's outline, once it has been deleted: it is silent, and the song keeps its length. */
  gone: z.strictObject({ name, meter: meterSchema, bars: figure(RANGES.bars) }).optional(),
});

/** A fill in the place of a section's end. The end of the pattern falls on the end of the section. */
export const fillSchema = z.strictObject({ patternId: id, over: z.enum(OVERS) });

export const sectionSchema = z.strictObject({
  id,
  name,
  pigment: z.enum(PIGMENTS),
  entries: z.array(entrySchema).max(SONG.entries),
  fill: fillSchema.optional(),
  /** Ids of the lanes that are silent in it. */
  silent: z.array(id).max(MOST.lanes),
  /** Its own; left out, those of its patterns and of the beat. */
  feel: feelSchema.optional(),
  tempo: figure(RANGES.tempo).optional(),
  /** How hard all drums are played, 1 is as they are. */
  level: level.optional(),
  /** What is reached at its end, little by little. */
  change: z
    .strictObject({
      tempo: figure(RANGES.tempo).optional(),
      level: level.optional(),
      swing: figure(RANGES.swing).optional(),
      /** The tempo changes over so many of its last bars only; left out, over all of it. */
      bars: figure(RANGES.leanBars).optional(),
    })
    .optional(),
  /** Over so many bars before it, strokes come to lean by so many ms; negative is a push. */
  into: z.strictObject({ ms: figure(RANGES.lean), bars: figure(RANGES.leanBars) }).optional(),
});

/** A section at its place in the song. Two places of one section are linked: what is changed in one is changed in both. */
export const placeSchema = z.strictObject({ id, sectionId: id, times });

export const songSchema = z
  .strictObject({
    sections: z.array(sectionSchema).max(SONG.sections),
    order: z.array(placeSchema).max(SONG.places),
  })
  .superRefine(({ sections, order }, ctx) => {
    const known = new Set(sections.map((section) => section.id));
    order.forEach(({ sectionId }, at) => {
      if (!known.has(sectionId))
        ctx.addIssue({
          code: 'custom',
          path: ['order', at, 'sectionId'],
          message: 'is a section that the song does not have',
        });
    });
    for (const list of [sections, order]) {
      const ids = list.map((one) => one.id);
      if (new Set(ids).size < ids.length)
        ctx.addIssue({
          code: 'custom',
          path: [list === sections ? 'sections' : 'order'],
          message: 'has two entries of one id',
        });
    }
  });

export type TrayItem = z.infer<typeof trayItemSchema>;
export type Entry = z.infer<typeof entrySchema>;
export type Fill = z.infer<typeof fillSchema>;
export type Section = z.infer<typeof sectionSchema>;
export type Place = z.infer<typeof placeSchema>;
export type Song = z.infer<typeof songSchema>;
