import { instrument } from '../document/instruments';
import type { Lane } from '../document/schema';
import type { Semitones, Velocity } from '../units';
import { layerOf, levelOf } from './layers';
import type { MixNote } from './mixer';

const GROUPS = new Map<string, number>();

/** The numbers of a lane's own choke groups, apart from those of the instruments. */
const OWN = 1000;

/** Choke groups as numbers from 1; 0 is none. */
const groupOf = (lane: Lane): number => {
  if (lane.choke !== undefined) return lane.choke ? OWN + lane.choke : 0;
  const { choke } = instrument(lane.instrument);
  if (!choke) return 0;
  if (!GROUPS.has(choke)) GROUPS.set(choke, GROUPS.size + 1);
  return GROUPS.get(choke)!;
};

/**
 * How a lane sounds a velocity: which layer, how loud on each side. The pan keeps the power equal.
 *
 * @param pitch against the lane's own note: it is read faster or slower by it
 * @param sound the number under which the mixer has the lane's sound
 * @example mixNote(beat.lanes[0]!, 127, 3, 480).sound // 3
 */
export const mixNote = (
  lane: Lane,
  velocity: Velocity,
  sound: number,
  frame: number,
  pitch: Semitones = 0,
): MixNote => {
  const level = levelOf(velocity) * lane.level;
  const angle = ((lane.pan + 1) * Math.PI) / 4;
  return {
    frame,
    sound,
    layer: layerOf(velocity),
    left: level * Math.cos(angle),
    right: level * Math.sin(angle),
    group: groupOf(lane),
    ...(pitch !== 0 && { speed: 2 ** (pitch / 12) }),
    ...(lane.slide && { slide: lane.slide / 1000 }),
  };
};
