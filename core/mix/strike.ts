import type { Lane } from '../document/schema';
import { createMixer, mix, replan } from './mixer';
import { mixNotes } from './mixNotes';
import { peakOf, type Audio } from '../samples/sample';
import type { Sound } from '../samples/voiceSound';

/** A strike rings for so long at the most. */
const MOST_SECONDS = 12;
const BLOCK = 4096;

/**
 * One strike of a lane by itself, as long as it rings, without the limiter.
 *
 * @param velocity 1 to 127
 * @param rate frames a second, at which the sound was rendered
 */
export const strikeOf = (lane: Lane, sound: Sound, velocity: number, rate: number): Audio => {
  const mixer = createMixer(rate);
  mixer.limiting = false;
  mixer.sounds[0] = sound.buffers;
  replan(mixer, 0, mixNotes(lane, sound, 0, { velocity, frame: 0, turn: 0, earliest: 0 }, 0));
  const sides: [Float32Array[], Float32Array[]] = [[], []];
  for (let at = 0; at < MOST_SECONDS * rate; at += BLOCK) {
    const [left, right] = [new Float32Array(BLOCK), new Float32Array(BLOCK)];
    mix(mixer, left, right, at);
    sides[0].push(left);
    sides[1].push(right);
    if (!mixer.voices.length && !mixer.queue.length) break;
  }
  const joined = sides.map((blocks) => {
    const out = new Float32Array(blocks.length * BLOCK);
    blocks.forEach((block, at) => out.set(block, at * BLOCK));
    return out;
  });
  const last = lastHeard(joined);
  return { rate, channels: joined.map((data) => data.slice(0, last)) };
};

/** Softer than this at the end it is over. */
const SILENT = 1e-5;

const lastHeard = (channels: Float32Array[]): number => {
  if (peakOf(channels) < SILENT) return Math.min(channels[0]!.length, 1);
  return 1 + Math.max(...channels.map((data) => data.findLastIndex((x) => Math.abs(x) >= SILENT)));
};
