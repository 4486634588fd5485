import type { Frames } from '../units';
import { textAt } from './audioKind';

/**
 * The delay that an encoder of MP3 adds before the sound, where the file does not say: 576 frames of the usual encoder, and 529 that any
 * decoder is late by (the filter bank of ISO/IEC 11172-3).
 */
const USUAL_DELAY: Frames = 576 + 529;

/** Where the audio begins behind an ID3 tag of version 2. */
const afterTag = (bytes: Uint8Array): number => {
  if (textAt(bytes, 0, 3) !== 'ID3' || bytes.length < 10) return 0;
  const size = (bytes[6]! << 21) | (bytes[7]! << 14) | (bytes[8]! << 7) | bytes[9]!;
  return 10 + size + (bytes[5]! & 0x10 ? 10 : 0);
};

/** The first frame of the audio; -1 where there is none near. */
const firstFrame = (bytes: Uint8Array): number => {
  const from = afterTag(bytes);
  for (let at = from; at + 4 < Math.min(bytes.length, from + 8192); at++)
    if (bytes[at] === 0xff && (bytes[at + 1]! & 0xe6) === 0xe2) return at;
  return -1;
};

/** The most that is looked at for the head that tells of the encoder. */
const HEAD = 200;

/**
 * How many frames at the start of a decoded MP3 are the encoder's and no sound: where the file tells of them the decoder has taken
 * them off already.
 *
 * @param bytes of the file
 * @example mp3Delay(new Uint8Array(200)) // 0
 */
export const mp3Delay = (bytes: Uint8Array): Frames => {
  const at = firstFrame(bytes);
  if (at < 0) return 0;
  const head = textAt(bytes, at + 4, Math.min(bytes.length, at + HEAD));
  const tag = Math.max(head.indexOf('Xing'), head.indexOf('Info'));
  if (tag < 0) return USUAL_DELAY;
  // The name of the encoder stands 120 bytes behind, its delay 21 more; an empty one says nothing.
  const delay = at + 4 + tag + 141;
  const named = /[A-Za-z]{3}/.test(textAt(bytes, delay - 21, delay - 12));
  return named && delay + 1 < bytes.length ? 0 : USUAL_DELAY;
};
