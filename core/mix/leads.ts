import type { Beat } from '../document/schema';
import type { Note } from '../play/notes';
import { hashText } from '../random/draw';
import type { Seconds } from '../units';
import { ownOf } from '../samples/own';
import type { Sounds } from '../samples/sounds';
import { layersAt, type SoundPlan } from '../samples/voiceSound';

/** How long before its stroke each of a beat's own sounds begins, so that its attack falls on the stroke. */
export interface Leads {
  /** Frames a second. */
  rate: number;
  /** By lane; null where a lane plays a drum of the kit, which begins on its stroke. */
  plans: (SoundPlan | null)[];
}

/** The leads of a beat, from its sounds. */
export const leadsOf = async (sounds: Sounds, beat: Pick<Beat, 'kit' | 'own' | 'lanes'>): Promise<Leads> => ({
  rate: sounds.rate,
  plans: await Promise.all(
    beat.lanes.map(async (lane) => (ownOf(beat, lane) ? (await sounds.soundsFor(beat, lane)).plan : null)),
  ),
});

/**
 * How long before a note the sound that plays it begins: where several layers sound, the one that begins first.
 *
 * @example leadAt({ rate: 48000, plans: [] }, beat, { lane: 0, velocity: 100, pitch: 0, turn: 0 }) // 0
 */
export const leadAt = (
  { rate, plans }: Leads,
  { seed, lanes }: Pick<Beat, 'seed' | 'lanes'>,
  { lane, velocity, pitch = 0, turn }: Pick<Note, 'lane' | 'velocity' | 'pitch' | 'turn'>,
): Seconds => {
  const plan = plans[lane];
  if (!plan) return 0;
  const speed = plan.slices ? 1 : 2 ** (pitch / 12);
  const sounding = layersAt(plan, velocity, seed, hashText(lanes[lane]!.id), turn, pitch);
  return Math.max(0, ...sounding.map(({ layer }) => layer.lead)) / speed / rate;
};
