import { z } from 'zod';
import { CHOOSINGS, MOST, PASSES, SOUND } from './choices';
import { figure } from './figure';
import { INSTRUMENT_IDS } from './instruments';
import { RANGES } from './ranges';

/** Sounds of one's own: samples, what is made of them, kits and loops. */

const kit = z.string().trim().min(1).max(MOST.name);

/** An audio file, known by what is in it. */
export const sampleSchema = z.strictObject({
  /** The SHA-256 of its bytes, in hexadecimal. */
  id: z.string().regex(/^[0-9a-f]{64}$/, 'is no name of a sample'),
  /** The name of the file that it came as. */
  file: z.string().trim().min(1).max(120),
  seconds: z.number().positive().max(SOUND.seconds),
});

const inSound = figure(RANGES.inSound);
const envelope = figure(RANGES.envelope);

/** One sound of a voice, and what is made of it. What is left out leaves it as it is. */
export const layerSchema = z.strictObject({
  source: z.union([
    z.strictObject({ kit, drum: z.enum(INSTRUMENT_IDS) }),
    z.strictObject({ sample: sampleSchema }),
  ]),
  /** The velocities that it is for. */
  low: figure(RANGES.velocity),
  high: figure(RANGES.velocity),
  /** From where to where it is heard, in seconds of the sound as it came. */
  start: inSound.optional(),
  end: inSound.optional(),
  reverse: z.boolean().optional(),
  /** In semitones, and in hundredths of one besides. */
  tune: figure(RANGES.tune).optional(),
  fine: figure(RANGES.fine).optional(),
  level: figure(RANGES.level).optional(),
  pan: figure(RANGES.pan).optional(),
  /** In ms: it rises, stays, and falls to nothing. Without a decay it rings as it does by itself. */
  attack: envelope.optional(),
  hold: envelope.optional(),
  decay: envelope.optional(),
  filter: z
    .strictObject({
      pass: z.enum(PASSES),
      hertz: figure(RANGES.cutoff),
      /** In dB an octave. */
      slope: z.union([z.literal(12), z.literal(24)]),
      follow: figure(RANGES.follow),
    })
    .optional(),
  drive: figure(RANGES.drive).optional(),
  /** The level below which it is silent after the attack, in dB below the loudest. */
  gate: figure(RANGES.gate).optional(),
  /** Where its attack is, in seconds from where it begins, set by hand; left out, it is found. */
  lands: inSound.optional(),
});

/** How one instrument sounds: 1 to 12 layers. */
export const voiceSchema = z.strictObject({
  choose: z.enum(CHOOSINGS),
  /** By velocity: over so many velocities one layer fades into the next. */
  crossFade: figure(RANGES.crossFade).optional(),
  /** It ends with its note; otherwise it rings out. */
  held: z.boolean().optional(),
  /** It begins on its hit; otherwise so much earlier that its attack falls there. */
  late: z.boolean().optional(),
  /** Its choke group: voices of one number; 0 is none, left out it is as the instrument has it. */
  choke: figure(RANGES.choke).optional(),
  layers: z.array(layerSchema).min(1).max(SOUND.layers),
});

const marks = z
  .array(inSound)
  .min(1)
  .max(SOUND.marks)
  .refine((all) => all.every((mark, at) => !at || mark > all[at - 1]!), 'are not in order');

/** A loop that is cut: its lane's pitches are its slices, from 0. */
export const loopSchema = z.strictObject({
  sample: sampleSchema,
  /** Where its slices begin, in seconds; the last one lasts to the end. */
  marks,
  end: inSound,
  /** How many bars it is long, and how fast that is. */
  bars: figure(RANGES.loopBars),
  tempo: z.number().min(20).max(400),
  /** The slices that sound backwards. */
  reversed: z.array(z.int().min(0).max(SOUND.marks)).max(SOUND.marks).optional(),
});

/** By instrument; what is not there is played by the kit below. */
export const voicesSchema = z.partialRecord(z.enum(INSTRUMENT_IDS), voiceSchema);

/** A kit of one's own, over a kit that ships. */
export const ownKitSchema = z.strictObject({
  name: z.string().trim().min(1).max(MOST.name),
  voices: voicesSchema,
});

export type Sample = z.infer<typeof sampleSchema>;
export type Layer = z.infer<typeof layerSchema>;
export type Voice = z.infer<typeof voiceSchema>;
export type Loop = z.infer<typeof loopSchema>;
export type OwnKit = z.infer<typeof ownKitSchema>;
