import type { MidiNote } from '../units';

/** The material of an instrument decides the shape of its bead: skins round, metal a lens, wood and shaken things a triangle. */
export type Material = 'skin' | 'metal' | 'wood';
/** The dye a lane is drawn in. */
export type Pigment = 'walnut' | 'weld' | 'lichen' | 'madder' | 'heather';

export interface Instrument {
  name: string;
  /** Its General MIDI note, or that of its nearest relative where General MIDI has none. */
  note: MidiNote;
  material: Material;
  pigment: Pigment;
  /** Whom a kit asks in its place when it has no sound for it. */
  like?: string;
  /** Instruments of one group silence one another. */
  choke?: string;
  /** It plays pitches: it is none of General MIDI's percussion, and its note is the one that it sounds on by itself. */
  tuned?: true;
}

const skin = (name: string, note: MidiNote, pigment: Pigment, like?: string): Instrument => ({
  name,
  note,
  material: 'skin',
  pigment,
  ...(like && { like }),
});
const metal = (name: string, note: MidiNote, like?: string, choke?: string): Instrument => ({
  name,
  note,
  material: 'metal',
  pigment: 'lichen',
  ...(like && { like }),
  ...(choke && { choke }),
});
const wood = (name: string, note: MidiNote, like?: string, choke?: string): Instrument => ({
  name,
  note,
  material: 'wood',
  pigment: 'heather',
  ...(like && { like }),
  ...(choke && { choke }),
});

/**
 * Every instrument that a lane can play: General MIDI's percussion, notes 35 to 81, all of it, and below them those that play
 * pitches.
 */
export const INSTRUMENTS = {
  'kick.second': skin('Second kick', 35, 'walnut', 'kick'),
  kick: skin('Kick', 36, 'walnut'),
  'snare.sideStick': skin('Side stick', 37, 'weld', 'snare'),
  snare: skin('Snare', 38, 'weld'),
  clap: skin('Clap', 39, 'weld', 'snare'),
  'snare.second': skin('Second snare', 40, 'weld', 'snare'),
  'snare.rimshot': skin('Rimshot', 40, 'weld', 'snare'),
  'tom.floorLow': skin('Low floor tom', 41, 'madder', 'tom.low'),
  'hat.closed': metal('Closed hat', 42, undefined, 'hat'),
  'tom.floor': skin('Floor tom', 43, 'madder', 'tom.low'),
  'hat.pedal': metal('Pedal hat', 44, 'hat.closed', 'hat'),
  'tom.low': skin('Low tom', 45, 'madder'),
  'hat.open': metal('Open hat', 46, 'hat.closed', 'hat'),
  'hat.half': metal('Half-open hat', 46, 'hat.open', 'hat'),
  'tom.mid': skin('Mid tom', 47, 'madder', 'tom.low'),
  'tom.highMid': skin('High-mid tom', 48, 'madder', 'tom.high'),
  crash: metal('Crash', 49),
  'tom.high': skin('High tom', 50, 'madder', 'tom.mid'),
  ride: metal('Ride', 51, 'crash'),
  china: metal('China cymbal', 52, 'crash'),
  'ride.bell': metal('Ride bell', 53, 'ride'),
  tambourine: wood('Tambourine', 54, 'shaker'),
  splash: metal('Splash', 55, 'crash'),
  cowbell: metal('Cowbell', 56, 'ride.bell'),
  'crash.second': metal('Second crash', 57, 'crash'),
  vibraslap: wood('Vibraslap', 58, 'shaker'),
  'ride.second': metal('Second ride', 59, 'ride'),
  'bongo.high': skin('High bongo', 60, 'madder', 'conga.mute'),
  'bongo.low': skin('Low bongo', 61, 'madder', 'conga.open'),
  'conga.mute': skin('Muted conga', 62, 'madder', 'conga.open'),
  'conga.open': skin('Open conga', 63, 'madder', 'tom.high'),
  'conga.low': skin('Low conga', 64, 'madder', 'conga.open'),
  'timbale.high': skin('High timbale', 65, 'madder', 'tom.high'),
  'timbale.low': skin('Low timbale', 66, 'madder', 'tom.mid'),
  'agogo.high': metal('High agogo', 67, 'cowbell'),
  'agogo.low': metal('Low agogo', 68, 'cowbell'),
  cabasa: wood('Cabasa', 69, 'shaker'),
  maracas: wood('Maracas', 70, 'shaker'),
  shaker: wood('Shaker', 70),
  'whistle.short': wood('Short whistle', 71, 'claves', 'whistle'),
  'whistle.long': wood('Long whistle', 72, 'claves', 'whistle'),
  'guiro.short': wood('Short guiro', 73, 'shaker', 'guiro'),
  'guiro.long': wood('Long guiro', 74, 'shaker', 'guiro'),
  claves: wood('Claves', 75, 'woodblock.high'),
  'woodblock.high': wood('High woodblock', 76),
  'woodblock.low': wood('Low woodblock', 77, 'woodblock.high'),
  'cuica.mute': wood('Muted cuica', 78, 'conga.mute', 'cuica'),
  'cuica.open': wood('Open cuica', 79, 'conga.open', 'cuica'),
  'triangle.mute': metal('Muted triangle', 80, 'ride.bell', 'triangle'),
  'triangle.open': metal('Open triangle', 81, 'ride.bell', 'triangle'),
  marimba: { ...wood('Marimba', 60, 'woodblock.low'), tuned: true },
  kalimba: { ...metal('Kalimba', 60, 'triangle.open'), tuned: true },
  steelPan: { ...metal('Steel pan', 60, 'cowbell'), tuned: true },
  logDrum: { ...wood('Log drum', 48, 'woodblock.low'), tuned: true },
  'kick.tuned': { ...skin('Tuned kick', 36, 'walnut', 'kick'), tuned: true },
} satisfies Record<string, Instrument>;

export type InstrumentId = keyof typeof INSTRUMENTS;

export const INSTRUMENT_IDS = Object.keys(INSTRUMENTS) as [InstrumentId, ...InstrumentId[]];

/** Those that play a drum's one note. */
export const DRUM_IDS = INSTRUMENT_IDS.filter((id) => !('tuned' in INSTRUMENTS[id]));

/** The description of an instrument. @example instrument('snare').note // 38 */
export const instrument = (id: InstrumentId): Instrument => INSTRUMENTS[id];

/**
 * The name of the instrument that General MIDI has on a note; null where it has none.
 *
 * @example instrumentOf(36) // "Kick"
 */
export const instrumentOf = (note: MidiNote): string | null =>
  DRUM_IDS.map(instrument).find((one) => one.note === note)?.name ?? null;
