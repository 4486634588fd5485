import { z } from 'zod';
import { MOST } from './choices';
import { INSTRUMENT_IDS } from './instruments';

/** Which instrument a note number plays. */
export const mapNoteSchema = z.strictObject({
  /** 0 to 127; one that a shift moved beyond is kept, and sounds again once it is moved back. */
  note: z.int().min(-1024).max(1024),
  /** On this channel alone; left out, on any. */
  channel: z.int().min(1).max(16).optional(),
  instrument: z.enum(INSTRUMENT_IDS),
});

/** A drum map: the meaning of note numbers in a kit, a sampler or a file. */
export const drumMapSchema = z.strictObject({
  kind: z.literal('ruddik.drumMap'),
  version: z.literal(1),
  name: z.string().trim().min(1).max(MOST.name),
  notes: z.array(mapNoteSchema).max(2048),
});

export type MapNote = z.infer<typeof mapNoteSchema>;
export type DrumMap = z.infer<typeof drumMapSchema>;
