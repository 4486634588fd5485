import { instrument } from '../document/instruments';
import type { Beat, Lane } from '../document/schema';
import type { Note } from '../play/notes';
import { hashText } from '../random/draw';
import { clamp, type Frames, type Semitones, type Velocity } from '../units';
import { levelOf, strikeAt } from '../synthesis/layers';
import type { MixNote } from './mixer';
import { bufferOf, layersAt, type PlannedLayer, type Sound, type SoundPlan } from '../samples/voiceSound';

const GROUPS = new Map<string, number>();

/** The numbers of a lane's own choke groups, apart from those of the instruments; and of lanes whose slices end one another. */
const OWN = 1000;
const SLICES = 2000;

/** Choke groups as numbers from 1; 0 is none. */
const groupOf = (lane: Lane, { choke: voice, slices }: SoundPlan): number => {
  if (slices) return SLICES + (hashText(lane.id) % 1_000_000);
  const own = lane.choke ?? voice;
  if (own !== undefined) return own ? OWN + own : 0;
  const { choke } = instrument(lane.instrument);
  if (!choke) return 0;
  if (!GROUPS.has(choke)) GROUPS.set(choke, GROUPS.size + 1);
  return GROUPS.get(choke)!;
};

/** A stroke to be sounded. */
export interface MixStroke {
  velocity: Velocity;
  /** Against the lane's own note: it is read faster or slower by it; of a loop it says which slice. */
  pitch?: Semitones;
  /** The frame that it falls on. */
  frame: Frames;
  /** Which stroke of its lane it is, from where play began. */
  turn: number;
  /** Nothing begins before this: what leads up to a stroke is cut there. */
  earliest?: Frames;
  /** The lane's place, from 0: whose peak it counts towards. */
  place?: number;
}

/** How strong a side of a layer is on the left and on the right. The pan keeps the power equal. */
const sidesOf = (pan: number, level: number, { sides }: PlannedLayer, side: number) => {
  const angle = ((clamp(pan, -1, 1) + 1) * Math.PI) / 4;
  return {
    left: sides < 2 || side === 0 ? level * Math.cos(angle) : 0,
    right: sides < 2 || side === 1 ? level * Math.sin(angle) : 0,
  };
};

/**
 * How a lane sounds a stroke: for each layer that sounds which buffer, from when, how loud on each side.
 *
 * @param index the number under which the mixer has the lane's sound
 * @param seed what is drawn for it follows from it
 */
export const mixNotes = (
  lane: Lane,
  { plan }: Pick<Sound, 'plan'>,
  index: number,
  { velocity, pitch = 0, frame, turn, earliest = -Infinity, place }: MixStroke,
  seed: number,
): MixNote[] => {
  const key = hashText(lane.id);
  const group = groupOf(lane, plan);
  const speed = plan.slices || !pitch ? 1 : 2 ** (pitch / 12);
  const level = levelOf(velocity) * lane.level;
  const out: MixNote[] = [];
  for (const { layer, gain } of layersAt(plan, velocity, seed, key, turn, pitch)) {
    const which = strikeAt(layer.strikes, seed, key, turn);
    const first = bufferOf(layer, velocity, which);
    const lead = Math.round(layer.lead / speed);
    const begin = Math.max(frame - lead, earliest);
    const missed = (begin - (frame - lead)) * speed;
    for (let side = 0; side < layer.sides; side++)
      out.push({
        frame: begin,
        sound: index,
        layer: first + side,
        ...sidesOf(lane.pan + layer.pan, level * gain * layer.level, layer, side),
        group,
        ...(speed !== 1 && { speed }),
        ...(lane.slide && { slide: lane.slide / 1000 }),
        ...(lead > 0 && frame > begin && { lead: frame - begin }),
        ...(missed > 0 && { from: missed }),
        ...(place !== undefined && { lane: place }),
      });
    // What leads up to a stroke silences nothing before the stroke itself.
    if (lead > 0 && group && frame > begin)
      out.push({
        frame,
        sound: CHOKE,
        layer: 0,
        left: 0,
        right: 0,
        group,
        ...(place !== undefined && { lane: place }),
      });
  }
  return out;
};

/** No sound of its own: it only silences its group. */
export const CHOKE = -1;

/**
 * The same for a note of a beat: which strike of the drum it is goes by the beat's seed, the lane and its count.
 *
 * @param sound the lane's
 */
export const mixed = (
  { seed, lanes }: Pick<Beat, 'seed' | 'lanes'>,
  { lane: place, velocity, pitch, turn }: Pick<Note, 'lane' | 'velocity' | 'pitch' | 'turn'>,
  sound: Pick<Sound, 'plan'>,
  index: number,
  frame: Frames,
  earliest?: Frames,
): MixNote[] =>
  mixNotes(
    lanes[place]!,
    sound,
    index,
    { velocity, pitch, frame, turn, place, ...(earliest !== undefined && { earliest }) },
    seed,
  );
