import { z } from 'zod';
import { drumMapSchema, type DrumMap } from '../../document/drumMapSchema';
import { feelSchema, followSchema, swingSchema, templateSchema } from '../../document/feelSchema';
import { GRIDS } from '../../document/grid';
import { INSTRUMENT_IDS } from '../../document/instruments';
import { meterSchema } from '../../document/meterSchema';
import {
  detourSchema,
  echoesSchema,
  routeSchema,
  sparkSchema,
  staggerSchema,
} from '../../document/movesSchema';
import { bandSchema } from '../../document/playersSchema';
import {
  beatSchema,
  graceSchema,
  hitSchema,
  laneSchema,
  partSchema,
  patternSchema,
  rollSchema,
  takeSchema,
} from '../../document/schema';
import { entrySchema, placeSchema, sectionSchema, songSchema } from '../../document/songSchema';
import { loopSchema, ownKitSchema, voiceSchema } from '../../document/soundSchema';
import type { Groove } from '../../groove/groove';
import { thing } from '../define';
import type { FillOffer } from '../fills';

const instrument = z.enum(INSTRUMENT_IDS);
const text = z.string();

/** Of what is read by a schema of its own where it comes from: here only that it is one. */
const readBefore = <T extends object>() =>
  z.custom<T>((value) => typeof value === 'object' && value !== null);

const struck = z.object({ instrument, velocity: z.number() });

/** What a section may have of its own, or null. */
const own = <K extends keyof typeof sectionSchema.shape>(key: K) =>
  z.exactOptional(z.nullable(sectionSchema.shape[key]));

const laneParts = z.record(text, partSchema);

/** What is given as a whole: a part of a document, in the form of its schema, or what is outside it. */
export const THINGS = {
  band: thing('band', bandSchema),
  beat: thing('beat', beatSchema),
  blend: thing('blend', feelSchema.shape.blend.unwrap()),
  bring: thing(
    'bring',
    z.discriminatedUnion('how', [
      z.object({ how: z.literal('new'), id: text, name: text }),
      z.object({ how: z.literal('all'), ids: z.array(z.object({ pattern: text, tray: text })), name: text }),
      z.object({ how: z.literal('replace'), patternId: text }),
      z.object({ how: z.literal('over'), patternId: text, instruments: z.array(instrument) }),
    ]),
  ),
  clip: thing(
    'clip',
    z.object({
      length: z.number(),
      rows: z.array(z.object({ down: z.int(), grid: z.enum(GRIDS), hits: z.array(hitSchema) })),
    }),
  ),
  detour: thing('detour', detourSchema),
  drumMap: thing('drum map', drumMapSchema as z.ZodType<DrumMap>),
  echoes: thing('echoes', echoesSchema),
  entry: thing('entry', entrySchema),
  feel: thing('feel', feelSchema),
  follow: thing('template with its amounts', followSchema),
  fillOffer: thing('fill offer', readBefore<FillOffer>()),
  graceStrokes: thing('grace strokes', z.array(graceSchema)),
  groove: thing('groove', readBefore<Groove>()),
  idsByLane: thing('ids by lane', z.record(text, text)),
  key: thing('key', patternSchema.shape.key.unwrap()),
  lanes: thing('lanes', z.array(laneSchema)),
  laneParts: thing('lane patterns', laneParts),
  loop: thing('loop', loopSchema),
  maker: thing('maker', takeSchema.shape.made.unwrap()),
  mapChoice: thing(
    'map choice',
    z.discriminatedUnion('keep', [
      z.object({ keep: z.literal('instruments'), as: z.record(text, z.nullable(instrument)) }),
      z.object({ keep: z.literal('notes') }),
    ]),
  ),
  meter: thing('meter', meterSchema),
  notesByLane: thing('notes by lane', z.record(text, z.number())),
  ownKit: thing('own kit', ownKitSchema),
  passes: thing('passes', hitSchema.shape.passes.unwrap()),
  pattern: thing('pattern', patternSchema),
  place: thing('place', placeSchema),
  roll: thing('roll', rollSchema),
  route: thing('route', routeSchema),
  section: thing('section', sectionSchema),
  sectionChange: thing(
    'section change',
    z.object({
      name: z.exactOptional(sectionSchema.shape.name),
      pigment: z.exactOptional(sectionSchema.shape.pigment),
      entries: z.exactOptional(sectionSchema.shape.entries),
      silent: z.exactOptional(sectionSchema.shape.silent),
      feel: own('feel'),
      tempo: own('tempo'),
      level: own('level'),
      fill: own('fill'),
      change: own('change'),
      into: own('into'),
    }),
  ),
  song: thing('song', songSchema),
  sparks: thing('sparks', z.array(sparkSchema)),
  stagger: thing('stagger', staggerSchema),
  swing: thing('swing', swingSchema),
  switchedRoutes: thing(
    'switched routes',
    z.array(z.object({ at: z.number(), detour: z.nullable(detourSchema) })),
  ),
  template: thing('template', templateSchema),
  toldSlices: thing(
    'told slices',
    z.array(z.nullable(struck.extend({ also: z.exactOptional(z.array(struck)) }))),
  ),
  voice: thing('voice', voiceSchema),
};
