import { id } from './idSchema';
import { z } from 'zod';
import { drumMapSchema } from './drumMapSchema';
import { feelSchema, namedFeelSchema, templateSchema } from './feelSchema';
import {
  BEGINS,
  DIRECTIONS,
  MOST,
  OFFBEAT_GRIDS,
  PIGMENTS,
  RATES,
  SONG,
  SPACINGS,
  MAKERS,
  MOVES,
  HANDS,
} from './choices';
import { GRIDS } from './grid';
import { INSTRUMENT_IDS } from './instruments';
import { meterSchema } from './meterSchema';
import { detourSchema, echoesSchema, namedRouteSchema, sparkSchema } from './movesSchema';
import { RANGES } from './ranges';
import { figure } from './figure';
import { loopSchema, ownKitSchema, voiceSchema } from './soundSchema';
import { songSchema, trayItemSchema } from './songSchema';
import { VERSION } from './version';

const name = z.string().trim().min(1).max(MOST.name);
const velocity = figure(RANGES.velocity);
/** A fraction of a hit's velocity: so that a loud stroke of the softest hit can be told too. */
const strokeLevel = figure(RANGES.strokeLevel);

/** The strokes that a hit is split into. `levels` are fractions of the hit's velocity, one a stroke. */
export const rollSchema = z.strictObject({
  /** Above 0 the strokes come closer together towards the end, below 0 they spread. */
  curve: figure(RANGES.curve),
  levels: z.array(strokeLevel).min(RANGES.strokes.least).max(RANGES.strokes.most),
  /** How pairs of strokes divide their time: 1 : 1, 2 : 1 or 3 : 1. Left out, it is even. */
  spacing: z.enum(SPACINGS).optional(),
});

/** One grace stroke before a hit. */
export const graceSchema = z.strictObject({
  /** How long before the main stroke, in ms, whatever the tempo. */
  before: figure(RANGES.graceBefore),
  /** A fraction of the main stroke's velocity. */
  level: strokeLevel,
});

/** A hit sounds at (step + nudge) steps of its lane's grid: programmed, recorded and imported hits are one kind of thing. */
export const hitSchema = z.strictObject({
  /** From 0. */
  step: z.int().min(0).max(4095),
  /** Fraction of a step, always forward in time. */
  nudge: figure(RANGES.nudge),
  velocity,
  /** In steps; null rings out, and is one step long in a file. */
  length: z.number().positive().max(64).nullable(),
  chance: figure(RANGES.chance),
  /** On which rounds of a cycle it sounds, counted from 0; left out, on all. */
  passes: z
    .strictObject({ of: z.int().min(2).max(8), on: z.array(z.int().min(0).max(7)).min(1).max(8) })
    .optional(),
  /**
   * The hit whose chance and passes it shares, since it was written from one of its repeats: both fall together. That hit's lane,
   * its step and its place on the step; it is of round `every` times this round plus `from`, and before round 0 there is none.
   */
  follows: z
    .strictObject({
      lane: id.optional(),
      step: z.int().min(0).max(4095),
      place: z.int().min(0).max(63),
      every: z.int().min(1).max(4096),
      from: z.int().min(-4096).max(4096),
    })
    .optional(),
  roll: rollSchema.optional(),
  grace: z.array(graceSchema).min(1).max(3).optional(),
  /** In semitones against the lane's note; left out, that note. */
  pitch: figure(RANGES.pitch).optional(),
  /** Which hand plays it; left out, it is found. */
  hand: z.enum(HANDS).optional(),
});

/** The part of one lane in one pattern. */
export const partSchema = z.strictObject({
  grid: z.enum(GRIDS),
  /** The length of the lane's own loop in steps; null follows the pattern's length. */
  steps: figure(RANGES.steps).nullable(),
  /** How many times as fast as written the lane is read. */
  rate: z.enum(RATES),
  direction: z.enum(DIRECTIONS),
  /** Fraction of a step by which all steps are nudged together, and by which the off-beats are besides. */
  shift: figure(RANGES.nudge).optional(),
  offbeat: figure(RANGES.nudge).optional(),
  /** Whose off-beats: of eighths the “&”; left out, every second step of the lane. */
  offbeatGrid: z.enum(OFFBEAT_GRIDS).optional(),
  /** Repeats after each hit, and other lanes that hits set off. */
  echoes: echoesSchema.optional(),
  sparks: z.array(sparkSchema).min(1).max(MOVES.sparks).optional(),
  /** In order of position. Those beyond the loop's end are kept and not played. */
  hits: z.array(hitSchema).max(8192),
});

/** One outcome of an operation of chance: nothing that was rolled is lost. */
export const takeSchema = z.strictObject({
  id,
  name,
  /** Which operation it came from, in words. */
  how: z.string().max(80),
  /** The maker and its settings, so that it can be made again; left out, what was there or was done by hand. */
  made: z
    .strictObject({
      maker: z.enum(MAKERS),
      settings: z.record(
        z.string().max(40),
        z.union([z.number(), z.boolean(), z.string().max(400), z.array(z.number()).max(512)]),
      ),
    })
    .optional(),
  seed: z.int().min(0).max(0xffffffff),
  kept: z.boolean(),
  parts: z.record(id, partSchema),
  /** The lanes that it is for; left out, all. */
  lanes: z.array(id).optional(),
  /** The order of slots that goes with it, null as written; left out, whatever the pattern has. */
  detour: detourSchema.nullable().optional(),
});

/** A key of the computer that a pattern is begun with. */
const patternKeySchema = z.strictObject({
  /** Its place on the keyboard, as browsers name it. */
  code: z.string().regex(/^(Key[A-Z]|Digit\d|Numpad\w{1,12}|F\d{1,2})$/, 'is no key that can be used'),
  at: z.enum(BEGINS),
  /** It plays while the key is held; otherwise until it is pressed again. */
  held: z.boolean(),
});

export const patternSchema = z.strictObject({
  id,
  name,
  pigment: z.enum(PIGMENTS).optional(),
  /** The pattern that it is a variation of. */
  parent: id.optional(),
  meter: meterSchema,
  bars: figure(RANGES.bars),
  /** By lane id; a lane without a part is silent. */
  parts: z.record(id, partSchema),
  /** Its slots in another order. */
  detour: detourSchema.optional(),
  /** Its own feel; left out, it follows the beat's. */
  feel: feelSchema.optional(),
  takes: z.array(takeSchema).optional(),
  /** How many takes there have been: no name is given twice. */
  taken: z.int().min(0).optional(),
  key: patternKeySchema.optional(),
  /** The take that the parts were last taken from. */
  take: id.optional(),
});

export const laneSchema = z.strictObject({
  /** Given once: what is drawn at random for a lane depends on it. */
  id,
  name,
  instrument: z.enum(INSTRUMENT_IDS),
  note: figure(RANGES.note),
  channel: figure(RANGES.channel),
  /** 0 silent, 1 as it is, 2 twice as strong. */
  level: figure(RANGES.level),
  /** -1 left to 1 right. */
  pan: figure(RANGES.pan),
  mute: z.boolean(),
  solo: z.boolean(),
  /** Its own dye; left out, that of its instrument. */
  pigment: z.enum(PIGMENTS).optional(),
  /** The id of the group that it is in. */
  group: id.optional(),
  /** Lanes of one choke group silence one another; 0 is none, left out it is as the instrument has it. */
  choke: figure(RANGES.choke).optional(),
  /** In semitones. */
  tune: figure(RANGES.tune).optional(),
  /** How much of its ringing is left, 1 is all. */
  decay: figure(RANGES.decay).optional(),
  /** In Hz; left out, open. */
  lowPass: figure(RANGES.lowPass).optional(),
  highPass: figure(RANGES.highPass).optional(),
  /** How long a note slides from the pitch of one that still sounds, in ms; left out, it does not. */
  slide: figure(RANGES.slide).optional(),
  /** A sound of its own, in the place of the kit's; or the slices of a loop, by pitch. */
  voice: voiceSchema.optional(),
  loop: loopSchema.optional(),
  /** A tuned lane: its root and scale, by their names, and the lowest and highest note that it plays. */
  tuning: z
    .strictObject({
      root: z.string().max(4),
      scale: z.string().max(40),
      low: figure(RANGES.note),
      high: figure(RANGES.note),
    })
    .optional(),
});

export const groupSchema = z.strictObject({ id, name, folded: z.boolean() });

/** The document. */
export const beatSchema = z
  .strictObject({
    kind: z.literal('ruddik.beat'),
    version: z.literal(VERSION),
    id,
    name,
    tempo: figure(RANGES.tempo),
    /** The id of a kit; one that is not there is played by another. */
    kit: z.string().trim().min(1).max(MOST.name),
    /** Sounds of its own that play in the place of the kit's. */
    own: ownKitSchema.optional(),
    /** Nothing leaves louder than this, in dB; left out, just below full scale. */
    ceiling: figure(RANGES.ceiling).optional(),
    /** The drum map that it is written for; left out, General MIDI. */
    map: drumMapSchema.optional(),
    feel: feelSchema,
    /** Feels and templates that were kept with the beat. */
    feels: z.array(namedFeelSchema).max(MOST.feels),
    templates: z.array(templateSchema).max(MOST.templates),
    /** Everything drawn at random follows from it. */
    seed: z.int().min(0).max(0xffffffff),
    /** The version of what is drawn at random: 2 lets the drift of a loop come round. */
    random: z.union([z.literal(1), z.literal(2)]),
    /** The velocities that one tap gives. */
    levels: z.strictObject({ ghost: velocity, normal: velocity, accent: velocity }),
    groups: z.array(groupSchema).max(MOST.groups),
    lanes: z.array(laneSchema).min(1).max(MOST.lanes),
    patterns: z.array(patternSchema).min(1).max(MOST.patterns),
    /** Patterns set aside for the song. */
    /** Routes that were kept with the beat. */
    routes: z.array(namedRouteSchema).max(MOVES.routes).optional(),
    tray: z.array(trayItemSchema).max(SONG.tray),
    song: songSchema,
  })
  .superRefine((beat, ctx) => {
    const twice = (ids: string[]) => ids.findIndex((one, at) => ids.indexOf(one) !== at);
    for (const list of ['lanes', 'patterns', 'groups'] as const) {
      const at = twice(beat[list].map((one) => one.id));
      if (at >= 0)
        ctx.addIssue({ code: 'custom', path: [list, at, 'id'], message: 'has the id of an earlier one' });
    }
    const lanes = new Set(beat.lanes.map((lane) => lane.id));
    beat.patterns.forEach((pattern, at) => {
      for (const lane of Object.keys(pattern.parts)) {
        if (!lanes.has(lane))
          ctx.addIssue({
            code: 'custom',
            path: ['patterns', at, 'parts', lane],
            message: 'is for a lane that the beat does not have',
          });
      }
    });
  });

export type Roll = z.infer<typeof rollSchema>;
export type Grace = z.infer<typeof graceSchema>;
export type Hit = z.infer<typeof hitSchema>;
export type LanePattern = z.infer<typeof partSchema>;
export type Pattern = z.infer<typeof patternSchema>;
export type Take = z.infer<typeof takeSchema>;
export type LaneGroup = z.infer<typeof groupSchema>;
export type Levels = Beat['levels'];
export type Spacing = (typeof SPACINGS)[number];
export type PatternKey = z.infer<typeof patternKeySchema>;
export type Lane = z.infer<typeof laneSchema>;
export type KitId = string;
export type { Detour, Echoes, NamedRoute, Spark, Stagger } from './movesSchema';
export type { Layer, Loop, OwnKit, Sample, Voice } from './soundSchema';
export type { Feel, Swing } from './feelSchema';
export type { Entry, Fill, Place, Section, Song, TrayItem } from './songSchema';
export type Direction = (typeof DIRECTIONS)[number];
export type Rate = (typeof RATES)[number];
export type Beat = z.infer<typeof beatSchema>;
