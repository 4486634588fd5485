import type { InstrumentId } from '../document/instruments';
import type { Velocity } from '../units';
import type { Kit } from './kits';
import { strike } from './voices';

/** How hard each layer of a drum is struck. */
export const FORCES = [0.25, 0.5, 0.75, 1] as const;

/** One drum in all its layers, from the softest. */
export interface Sound {
  id: InstrumentId;
  layers: Float32Array[];
}

/**
 * Makes one drum of a kit that the kit has a recipe for.
 *
 * @example makeSound(KITS.quay, 'kick', 8000).layers.length // 4
 */
export const makeSound = (kit: Kit, id: InstrumentId, rate: number): Sound => ({
  id,
  layers: FORCES.map((force) => strike(kit.sounds[id]!, force, rate)),
});

/** Which layer a velocity sounds from, from 0. @example layerOf(127) // 3 */
export const layerOf = (velocity: Velocity): number =>
  Math.min(FORCES.length - 1, Math.floor((velocity * FORCES.length) / 128));

/**
 * The level of a velocity: 127 is 1, half of it about a third, as a listener expects of a softer stroke.
 *
 * @example levelOf(127) // 1
 */
export const levelOf = (velocity: Velocity): number => Math.pow(velocity / 127, 1.6);
