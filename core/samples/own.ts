import type { Beat, Lane, Loop, Voice } from '../document/schema';

/** The properties of a lane that decide how it sounds. */
export type SoundingLane = Pick<
  Lane,
  'instrument' | 'tune' | 'decay' | 'lowPass' | 'highPass' | 'voice' | 'loop'
>;

/** The kit of a beat: one that ships, and over it the beat's own sounds. */
export type SoundingKit = Pick<Beat, 'kit' | 'own'>;

/** A sound of one's own: a voice, or a loop that is cut. */
export type OwnLayers = { voice: Voice } | { loop: Loop };

/**
 * The sound of its own that a lane plays: its loop, its voice, or that of the beat's own kit; null where the kit's drum plays.
 *
 * @example ownOf({ kit: 'quay' }, { instrument: 'kick' }) // null
 */
export const ownOf = ({ own }: SoundingKit, { instrument, voice, loop }: SoundingLane): OwnLayers | null => {
  if (loop) return { loop };
  const there = voice ?? own?.voices[instrument];
  return there ? { voice: there } : null;
};
