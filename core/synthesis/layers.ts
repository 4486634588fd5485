import type { InstrumentId } from '../document/instruments';
import type { Velocity } from '../units';
import { draw, PURPOSE } from '../random/draw';
import type { Kit } from './kits/kit';
import { struckVoice } from './voices';

/** How hard each layer of a drum is struck. */
export const FORCES = [0.25, 0.5, 0.75, 1] as const;

/** Of so many strikes of a drum each is a little different, so that repeats do not sound like a machine. */
export const STRIKES = 3;

/** Drums that are struck again and again: the rest is heard too rarely to be told apart. */
const OFTEN: ReadonlySet<InstrumentId> = new Set([
  'kick',
  'kick.second',
  'snare',
  'snare.second',
  'snare.rimshot',
  'snare.sideStick',
  'clap',
  'hat.closed',
  'hat.pedal',
  'hat.half',
  'hat.open',
  'ride',
  'tom.low',
  'tom.mid',
  'tom.high',
  'conga.open',
  'conga.mute',
  'shaker',
  'tambourine',
]);

/** One drum in all its layers, from the softest, each with its strikes one after the other. */
export interface LayerSound {
  id: InstrumentId;
  layers: Float32Array[];
}

/**
 * Makes one drum of a kit that the kit has a recipe for.
 *
 * @example makeSound(KITS.quay, 'kick', 8000).layers.length // 12
 */
export const makeSound = (kit: Kit, id: InstrumentId, rate: number): LayerSound => ({
  id,
  layers: FORCES.flatMap((force) =>
    struckVoice(kit.sounds[id]!, force, rate, OFTEN.has(id) ? STRIKES : 1, kit.finish, kit.level),
  ),
});

/**
 * Which layer a velocity sounds from, from 0.
 *
 * @param layers how many the sound has in all
 * @param which of its strikes
 * @example layerOf(127, 12, 1) // 10
 */
export const layerOf = (velocity: Velocity, layers: number = FORCES.length, which = 0): number => {
  const strikes = Math.max(1, Math.floor(layers / FORCES.length));
  return (
    Math.min(FORCES.length - 1, Math.floor((velocity * FORCES.length) / 128)) * strikes + (which % strikes)
  );
};

/** The order of a drum's strikes in the n-th time through all of them. */
const orderOf = (strikes: number, seed: number, key: number, time: number): number[] =>
  Array.from({ length: strikes }, (_, which) => ({ which, at: draw(seed, key, time, which, PURPOSE.strike) }))
    .sort((a, b) => a.at - b.at)
    .map(({ which }) => which);

/**
 * Which of its strikes a drum gives: at random, each once before any comes again, and never the same twice in a row.
 *
 * @param strikes how many there are
 * @param key the lane, as a number
 * @param count which stroke of the lane it is, from where play began
 * @example [0, 1, 2].map((count) => strikeAt(3, 7, 1, count)).sort() // [0, 1, 2]
 */
export const strikeAt = (strikes: number, seed: number, key: number, count: number): number => {
  if (strikes < 2) return 0;
  const time = Math.floor(count / strikes);
  const order = orderOf(strikes, strikes > 2 ? seed : 0, key, strikes > 2 ? time : 0);
  // The first two change places where the first was the last of the time before: what is last stays so.
  if (strikes > 2 && time > 0 && orderOf(strikes, seed, key, time - 1).at(-1) === order[0])
    order.splice(0, 2, order[1]!, order[0]!);
  return order[count - time * strikes]!;
};

/**
 * The level of a velocity: 127 is 1, half of it about a third, as a listener expects of a softer stroke.
 *
 * @example levelOf(127) // 1
 */
export const levelOf = (velocity: Velocity): number => Math.pow(velocity / 127, 1.6);
