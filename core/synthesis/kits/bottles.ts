import type { Kit } from './kit';
import { clap, cymbal, hat, metal, ride, shaken, skin, snare, TUNED, wood } from './recipes';

/** A bottle: its glass by its modes, over the air in it. */
const bottle = (pitch: number, decay: number, peak: number, seed: number) =>
  wood({ peak, decay, modes: [pitch, pitch * 2.71, pitch * 5.15, pitch * 8.43], click: 0.35, seed });
/** A sheet or a lid of tin. */
const tin = (low: number, decay: number, peak: number, seed: number) =>
  metal({
    peak,
    decay,
    low,
    high: 9000,
    partials: 20,
    hiss: 0.5,
    cut: low * 0.7,
    ping: 0.3,
    pitch: low * 1.9,
    swell: 0,
    seed,
  });

export const BOTTLES: Kit = {
  id: 'bottles',
  level: 1.07,
  finish: { room: { seconds: 0.4, level: 0.2, dark: 8000 } },
  sounds: {
    ...TUNED,
    // A barrel, struck on its side.
    kick: skin({
      peak: 0.93,
      decay: 0.4,
      pitch: 60,
      bend: 1.8,
      sweep: 0.02,
      click: 0.8,
      drive: 0.8,
      mode: 0.4,
      seed: 601,
    }),
    'kick.second': skin({
      peak: 0.88,
      decay: 0.5,
      pitch: 52,
      bend: 1.6,
      sweep: 0.02,
      click: 0.5,
      drive: 0.6,
      mode: 0.4,
      seed: 602,
    }),
    // A tin with gravel in it.
    snare: snare({
      peak: 0.76,
      decay: 0.13,
      pitch: 318,
      wires: 1.2,
      wireDecay: 0.17,
      bright: 2600,
      rim: 0.8,
      seed: 603,
    }),
    'snare.rimshot': tin(620, 0.3, 0.72, 604),
    'snare.sideStick': bottle(1320, 0.08, 0.44, 605),
    clap: clap({ peak: 0.6, decay: 0.16, colour: 1900, apart: 0.007, seed: 606 }),
    'hat.closed': hat(0.05, 0.3, 0.32, 6200, 621),
    'hat.pedal': hat(0.04, 0.3, 0.26, 5600, 621),
    'hat.half': hat(0.2, 0.35, 0.32, 5900, 621),
    'hat.open': hat(0.55, 0.35, 0.32, 5800, 621),
    ride: ride(3300, 0.8, 1.6, 631),
    'ride.bell': bottle(1560, 1.1, 0.42, 632),
    crash: cymbal(2, 0.52, 0.015, 0.6, 641),
    splash: tin(980, 0.7, 0.5, 642),
    'tom.low': tin(150, 0.5, 0.66, 651),
    'tom.mid': tin(205, 0.44, 0.66, 652),
    'tom.high': tin(280, 0.38, 0.66, 653),
    'tom.floor': tin(118, 0.6, 0.66, 654),
    'conga.open': bottle(430, 0.3, 0.5, 661),
    'conga.low': bottle(320, 0.36, 0.5, 662),
    'conga.mute': bottle(520, 0.09, 0.5, 663),
    shaker: shaken({ peak: 0.28, decay: 0.06, colour: 9200, rise: 0.006, jingle: 0.2, seed: 671 }),
    tambourine: shaken({ peak: 0.34, decay: 0.2, colour: 8000, rise: 0.003, jingle: 1.4, seed: 672 }),
    cowbell: tin(560, 0.24, 0.44, 673),
    claves: bottle(2450, 0.12, 0.44, 674),
    'woodblock.high': bottle(1180, 0.2, 0.44, 675),
    'woodblock.low': bottle(860, 0.24, 0.44, 676),
    'triangle.open': bottle(3560, 1.5, 0.3, 677),
  },
};
