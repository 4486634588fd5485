import { instrument, type InstrumentId } from '../document/instruments';
import type { KitId } from '../document/schema';
import type { Clap, Metal, Recipe, Shaken, Skin, Snare, Wood } from './voices';

/** The sounds of a kit, made and not recorded. */
export interface Kit {
  id: KitId;
  name: string;
  /** How it sounds, in a few words. */
  about: string;
  sounds: Partial<Record<InstrumentId, Recipe>>;
}

type Of<T> = Omit<T, 'voice'>;
const skin = (r: Of<Skin>): Skin => ({ voice: 'skin', ...r });
const snare = (r: Of<Snare>): Snare => ({ voice: 'snare', ...r });
const clap = (r: Of<Clap>): Clap => ({ voice: 'clap', ...r });
const metal = (r: Of<Metal>): Metal => ({ voice: 'metal', ...r });
const wood = (r: Of<Wood>): Wood => ({ voice: 'wood', ...r });
const shaken = (r: Of<Shaken>): Shaken => ({ voice: 'shaken', ...r });

const tom = (pitch: number, decay: number, bend = 1.5, mode = 0.35) =>
  skin({ peak: 0.7, decay, pitch, bend, sweep: 0.05, click: 0.35, drive: 0.4, mode });
const hand = (pitch: number, decay: number, mode = 0.5) =>
  skin({ peak: 0.55, decay, pitch, bend: 1.12, sweep: 0.02, click: 0.6, drive: 0.2, mode, seed: 12 });

const hat = (decay: number, hiss: number, peak: number, cut: number, seed: number) =>
  metal({ peak, decay, low: 3100, high: 13500, partials: 18, hiss, cut, ping: 0, pitch: 0, swell: 0, seed });
const cymbal = (decay: number, peak: number, swell: number, hiss: number, seed: number) =>
  metal({ peak, decay, low: 420, high: 13000, partials: 34, hiss, cut: 500, ping: 0, pitch: 0, swell, seed });
const ride = (pitch: number, ping: number, decay: number, seed: number) =>
  metal({
    peak: 0.42,
    decay,
    low: 900,
    high: 11000,
    partials: 24,
    hiss: 0.25,
    cut: 500,
    ping,
    pitch,
    swell: 0,
    seed,
  });

/** What plays pitches: the same bars, tongues and pans in every kit that has none of its own. */
const TUNED: Kit['sounds'] = {
  // A bar that is cut out below: its overtones stand at four and ten times its pitch.
  marimba: wood({ peak: 0.55, decay: 0.9, modes: [261.63, 1046.5, 2606], click: 0.25 }),
  // A tongue held at one end.
  kalimba: wood({ peak: 0.5, decay: 1.3, modes: [261.63, 1640, 4595], click: 0.12, seed: 61 }),
  steelPan: wood({ peak: 0.5, decay: 1.1, modes: [261.63, 523.25, 785.5, 1048], click: 0.1, seed: 62 }),
  // A tongue sawn into a hollow log.
  logDrum: wood({ peak: 0.6, decay: 0.45, modes: [130.81, 359, 748], click: 0.4, seed: 63 }),
  'kick.tuned': skin({
    peak: 0.95,
    decay: 0.75,
    pitch: 65.41,
    bend: 1.9,
    sweep: 0.02,
    click: 0.4,
    drive: 0.7,
    mode: 0.08,
    seed: 64,
  }),
};

const QUAY: Kit = {
  id: 'quay',
  name: 'Quay',
  about: 'A dry wooden kit in a small boathouse',
  sounds: {
    ...TUNED,
    kick: skin({
      peak: 0.95,
      decay: 0.42,
      pitch: 52,
      bend: 3.2,
      sweep: 0.024,
      click: 0.75,
      drive: 1.1,
      mode: 0.16,
    }),
    'kick.second': skin({
      peak: 0.9,
      decay: 0.55,
      pitch: 44,
      bend: 2.6,
      sweep: 0.03,
      click: 0.45,
      drive: 0.8,
      mode: 0.2,
    }),
    snare: snare({
      peak: 0.8,
      decay: 0.19,
      pitch: 186,
      wires: 0.85,
      wireDecay: 0.24,
      bright: 1700,
      rim: 0.12,
    }),
    'snare.second': snare({
      peak: 0.78,
      decay: 0.14,
      pitch: 228,
      wires: 0.95,
      wireDecay: 0.19,
      bright: 2300,
      rim: 0.2,
    }),
    'snare.rimshot': snare({
      peak: 0.85,
      decay: 0.2,
      pitch: 196,
      wires: 0.7,
      wireDecay: 0.22,
      bright: 1800,
      rim: 0.75,
    }),
    'snare.sideStick': wood({ peak: 0.5, decay: 0.075, modes: [510, 1680, 2460], click: 0.9 }),
    clap: clap({ peak: 0.62, decay: 0.22, colour: 1150, apart: 0.0095 }),
    'hat.closed': hat(0.075, 0.85, 0.36, 5200, 21),
    'hat.pedal': hat(0.055, 0.6, 0.28, 4200, 22),
    'hat.half': hat(0.26, 0.9, 0.36, 4900, 21),
    'hat.open': hat(0.62, 0.75, 0.36, 4800, 21),
    ride: ride(2950, 0.35, 1.7, 31),
    'ride.bell': ride(1180, 0.9, 1.3, 32),
    crash: cymbal(2.1, 0.55, 0.03, 0.8, 41),
    splash: cymbal(0.8, 0.5, 0.01, 0.9, 42),
    'tom.low': tom(92, 0.55),
    'tom.mid': tom(124, 0.48),
    'tom.high': tom(168, 0.4),
    'tom.floor': tom(74, 0.65),
    'conga.open': hand(212, 0.34),
    'conga.low': hand(158, 0.4),
    'conga.mute': hand(236, 0.11, 0.7),
    'bongo.high': hand(410, 0.16),
    'bongo.low': hand(300, 0.2),
    shaker: shaken({ peak: 0.3, decay: 0.085, colour: 6200, rise: 0.012, jingle: 0 }),
    cabasa: shaken({ peak: 0.3, decay: 0.06, colour: 8200, rise: 0.008, jingle: 0 }),
    tambourine: shaken({ peak: 0.36, decay: 0.17, colour: 7200, rise: 0.004, jingle: 0.8 }),
    cowbell: wood({ peak: 0.45, decay: 0.26, modes: [562, 845, 1690], click: 0.3 }),
    claves: wood({ peak: 0.5, decay: 0.1, modes: [2480, 5200], click: 0.3 }),
    'woodblock.high': wood({ peak: 0.5, decay: 0.085, modes: [1080, 1910], click: 0.7 }),
    'woodblock.low': wood({ peak: 0.5, decay: 0.1, modes: [720, 1350], click: 0.7 }),
    'triangle.open': metal({
      peak: 0.25,
      decay: 1.4,
      low: 2600,
      high: 12000,
      partials: 7,
      hiss: 0.05,
      cut: 1800,
      ping: 0.5,
      pitch: 4120,
      swell: 0,
      seed: 51,
    }),
  },
};

const LANTERN: Kit = {
  id: 'lantern',
  name: 'Lantern',
  about: 'Round and warm, from circuits rather than skins',
  sounds: {
    ...TUNED,
    kick: skin({
      peak: 0.98,
      decay: 0.68,
      pitch: 46,
      bend: 4.4,
      sweep: 0.034,
      click: 0.3,
      drive: 1.6,
      mode: 0,
    }),
    'kick.second': skin({
      peak: 0.9,
      decay: 0.3,
      pitch: 58,
      bend: 3.6,
      sweep: 0.018,
      click: 0.5,
      drive: 2.2,
      mode: 0,
    }),
    snare: snare({ peak: 0.78, decay: 0.15, pitch: 172, wires: 1.1, wireDecay: 0.17, bright: 1200, rim: 0 }),
    'snare.rimshot': snare({
      peak: 0.8,
      decay: 0.1,
      pitch: 246,
      wires: 0.5,
      wireDecay: 0.12,
      bright: 2600,
      rim: 0.5,
    }),
    'snare.sideStick': wood({ peak: 0.46, decay: 0.045, modes: [820, 1720], click: 0.5 }),
    clap: clap({ peak: 0.66, decay: 0.34, colour: 1020, apart: 0.0115 }),
    'hat.closed': hat(0.052, 0.35, 0.34, 6800, 61),
    'hat.pedal': hat(0.04, 0.3, 0.26, 6000, 61),
    'hat.half': hat(0.18, 0.4, 0.34, 6300, 61),
    'hat.open': hat(0.42, 0.3, 0.34, 6200, 61),
    ride: ride(3420, 0.15, 1.1, 62),
    'ride.bell': ride(1480, 0.7, 0.8, 63),
    crash: cymbal(1.5, 0.5, 0.012, 1.1, 64),
    'tom.low': tom(80, 0.6, 2.1, 0),
    'tom.mid': tom(112, 0.5, 2.1, 0),
    'tom.high': tom(154, 0.42, 2.1, 0),
    'conga.open': hand(196, 0.3, 0.1),
    'conga.low': hand(148, 0.36, 0.1),
    'conga.mute': hand(224, 0.09, 0.2),
    shaker: shaken({ peak: 0.28, decay: 0.055, colour: 7600, rise: 0.006, jingle: 0 }),
    tambourine: shaken({ peak: 0.32, decay: 0.13, colour: 8200, rise: 0.002, jingle: 1.1 }),
    cowbell: wood({ peak: 0.42, decay: 0.2, modes: [540, 800], click: 0.15 }),
    claves: wood({ peak: 0.46, decay: 0.06, modes: [2650], click: 0.2 }),
    'woodblock.high': wood({ peak: 0.46, decay: 0.06, modes: [1240, 2050], click: 0.4 }),
    'woodblock.low': wood({ peak: 0.46, decay: 0.07, modes: [830, 1480], click: 0.4 }),
  },
};

/** The kits that ship, by their ids. */
export const KITS = { quay: QUAY, lantern: LANTERN };

/** The kit of an id; undefined where there is none. @example kitNamed('gone') // undefined */
export const kitNamed = (id: KitId): Kit | undefined => Object.values(KITS).find((kit) => kit.id === id);

/** The kit of an id; where there is none, the one that plays in its place. @example kitOf('gone').id // "quay" */
export const kitOf = (id: KitId): Kit => kitNamed(id) ?? KITS.quay;

/**
 * The instrument whose sound a kit uses for another one: itself, or the nearest relative that the kit has.
 *
 * @example standIn(KITS.quay, 'china') // 'crash'
 */
export const standIn = (kit: Kit, id: InstrumentId): InstrumentId => {
  let at: InstrumentId | undefined = id;
  while (at && !kit.sounds[at]) at = instrument(at).like as InstrumentId | undefined;
  return at ?? 'kick';
};
