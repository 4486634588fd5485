import { instrument } from '../document/instruments';
import type { Beat, Lane } from '../document/schema';
import type { Note } from '../play/notes';
import { hashText } from '../random/draw';
import type { Semitones, Velocity } from '../units';
import { FORCES, layerOf, levelOf, strikeAt } from './layers';
import type { MixNote } from './mixer';
import type { Layers } from './sounds';

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
 * @param layers how many layers that has, its strikes included
 * @param which of its strikes
 * @example mixNote(beat.lanes[0]!, 127, 3, 480).sound // 3
 */
export const mixNote = (
  lane: Lane,
  velocity: Velocity,
  sound: number,
  frame: number,
  pitch: Semitones = 0,
  layers?: number,
  which = 0,
): MixNote => {
  const level = levelOf(velocity) * lane.level;
  const angle = ((lane.pan + 1) * Math.PI) / 4;
  return {
    frame,
    sound,
    layer: layerOf(velocity, layers, which),
    left: level * Math.cos(angle),
    right: level * Math.sin(angle),
    group: groupOf(lane),
    ...(pitch !== 0 && { speed: 2 ** (pitch / 12) }),
    ...(lane.slide && { slide: lane.slide / 1000 }),
  };
};

/**
 * The same for a note of a beat: which strike of the drum it is goes by the beat's seed, the lane and its count.
 *
 * @param layers the lane's sound
 */
export const mixed = (
  { seed, lanes }: Pick<Beat, 'seed' | 'lanes'>,
  { lane: at, velocity, pitch, turn }: Pick<Note, 'lane' | 'velocity' | 'pitch' | 'turn'>,
  layers: Layers,
  sound: number,
  frame: number,
): MixNote => {
  const lane = lanes[at]!;
  const strikes = Math.floor(layers.length / FORCES.length);
  const which = strikeAt(strikes, seed, hashText(lane.id), turn);
  return { ...mixNote(lane, velocity, sound, frame, pitch, layers.length, which), lane: at };
};
