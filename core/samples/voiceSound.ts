import type { Choosing } from '../document/choices';
import type { Velocity } from '../units';
import { draw, PURPOSE } from '../random/draw';
import { FORCES, layerOf, strikeAt } from '../synthesis/layers';

/** A sound as the mixer has it: its buffers, and how a stroke chooses among them. */
export interface Sound {
  buffers: Float32Array[];
  plan: SoundPlan;
}

/** One layer of a voice among the buffers: for each force its strikes, for each strike its sides. */
export interface PlannedLayer {
  /** The velocities that it is for. */
  low: Velocity;
  high: Velocity;
  level: number;
  pan: number;
  /** Its first buffer, and how many forces, strikes and sides it has. */
  first: number;
  forces: number;
  strikes: number;
  sides: number;
  /** How many frames after it begins its attack is. */
  lead: number;
}

export interface SoundPlan {
  choose: Choosing;
  /** Over so many velocities one layer fades into the next. */
  crossFade: number;
  /** It ends with its note. */
  held: boolean;
  /** Its layers are the slices of a loop, one for each pitch. */
  slices: boolean;
  /** The choke group, where the voice has one. */
  choke?: number;
  layers: PlannedLayer[];
}

/**
 * The plan of a drum of a kit, whose buffers are its strikes at each force.
 *
 * @param buffers how many
 * @example drumPlan(12).layers[0]!.strikes // 3
 */
export const drumPlan = (buffers: number): SoundPlan => ({
  choose: 'velocity',
  crossFade: 0,
  held: false,
  slices: false,
  layers: [
    {
      low: 1,
      high: 127,
      level: 1,
      pan: 0,
      first: 0,
      forces: FORCES.length,
      strikes: Math.max(1, Math.floor(buffers / FORCES.length)),
      sides: 1,
      lead: 0,
    },
  ],
});

/** A layer that sounds, and how strong. */
interface Sounding {
  layer: PlannedLayer;
  gain: number;
}

/** How far a velocity is outside of what a layer is for. */
const outside = ({ low, high }: PlannedLayer, velocity: Velocity): number =>
  Math.max(0, low - velocity, velocity - high);

/** Strong in the middle of its range, and over the fade as much weaker as its neighbour is stronger: the power stays equal. */
const fadedBy = ({ low, high }: PlannedLayer, velocity: Velocity, fade: number): number => {
  const share = (inside: number) => Math.min(1, Math.max(0, 0.5 + inside / fade));
  const below = low <= 1 ? 1 : share(velocity - low + 0.5);
  const above = high >= 127 ? 1 : share(high - velocity + 0.5);
  return Math.sqrt(below * above);
};

const byVelocity = ({ layers, crossFade }: SoundPlan, velocity: Velocity): Sounding[] => {
  const nearest = Math.min(...layers.map((layer) => outside(layer, velocity)));
  if (!crossFade)
    return layers
      .filter((layer) => outside(layer, velocity) === nearest)
      .map((layer) => ({ layer, gain: 1 }));
  const faded = layers
    .map((layer) => ({ layer, gain: fadedBy(layer, velocity, crossFade) }))
    .filter(({ gain }) => gain > 0);
  // Between two ranges that do not meet, the nearest sounds.
  return faded.length
    ? faded
    : layers.filter((layer) => outside(layer, velocity) === nearest).map((layer) => ({ layer, gain: 1 }));
};

/**
 * Which layers of a voice a stroke sounds.
 *
 * @param key the lane, as a number
 * @param count which stroke of the lane it is, from where play began
 * @param slice of a loop, from 0
 */
export const layersAt = (
  plan: SoundPlan,
  velocity: Velocity,
  seed: number,
  key: number,
  count: number,
  slice = 0,
): Sounding[] => {
  const { layers, choose, slices } = plan;
  const one = (at: number): Sounding[] => (layers[at] ? [{ layer: layers[at], gain: 1 }] : []);
  if (slices) return one(slice);
  if (layers.length === 1) return one(0);
  switch (choose) {
    case 'velocity':
      return byVelocity(plan, velocity);
    case 'stacked':
      return layers.map((layer) => ({ layer, gain: 1 }));
    case 'turn':
      return one(count % layers.length);
    case 'random':
      return one(Math.floor(draw(seed, key, count, PURPOSE.layer) * layers.length));
    case 'shuffle':
      return one(strikeAt(layers.length, seed, key, count));
  }
};

/**
 * The first buffer of what a layer sounds at a stroke; where it has two sides, the other follows.
 *
 * @param which of its strikes
 */
export const bufferOf = (
  { first, forces, strikes, sides }: PlannedLayer,
  velocity: Velocity,
  which: number,
): number => first + sides * (forces > 1 ? layerOf(velocity, forces * strikes, which) : which % strikes);
