import readAiff from '@audio/decode-aiff';
import readFlac from '@audio/decode-flac';
import readMp3 from '@audio/decode-mp3';
import readOgg from '@audio/decode-vorbis';
import readWav from '@audio/decode-wav';
import { RANGES } from '../document/ranges';
import { audioKind, textAt, type AudioKind } from './audioKind';
import { mp3Delay } from './mp3Delay';
import { peakOf, sampleSecondsOf, type Audio } from './sample';

/** From the bytes of a file to audio. */

/** The outcome of reading: audio, with a sentence where not all of it was there; or a sentence that says why not. */
export type Decoded = { ok: true; audio: Audio; warning?: string } | { ok: false; error: string };

type Read = (bytes: Uint8Array) => Promise<{ channelData: Float32Array[]; sampleRate: number }>;

const READ: Record<AudioKind, Read> = {
  WAV: (bytes) => Promise.resolve(readWav(bytes)),
  AIFF: (bytes) => Promise.resolve(readAiff(bytes)),
  FLAC: async (bytes) => readFlac(bytes),
  OGG: async (bytes) => readOgg(bytes),
  MP3: async (bytes) => {
    const { channelData, sampleRate } = await readMp3(bytes);
    const delay = mp3Delay(bytes);
    return {
      channelData: channelData.map((data) => data.subarray(Math.min(delay, data.length))),
      sampleRate,
    };
  },
};

/** Fewer frames than this are nothing that could be heard. */
const LEAST_FRAMES = 32;
/** Softer than this it is silent: the last bit of 24. */
const SILENCE = 2 ** -23;

const minutes = (seconds: number): string => `${Math.round(seconds / 60)} minutes`;

/** The length that the head of a WAV promises: so much audio, at so many bytes a second. Null where it does not say. */
const promisedOf = (bytes: Uint8Array): { seconds: number; there: number } | null => {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let perSecond = 0;
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = view.getUint32(at + 4, true);
    const id = textAt(bytes, at, at + 4);
    if (id === 'fmt ' && at + 20 <= bytes.length) perSecond = view.getUint32(at + 16, true);
    if (id === 'data')
      return perSecond && size && size < 0xffffffff
        ? { seconds: size / perSecond, there: Math.min(size, bytes.length - at - 8) / perSecond }
        : null;
    at += 8 + size + (size % 2);
  }
  return null;
};

/** Rates of samples a second that there are, and more sides than any recording has. */
const RATE = { least: 1000, most: 768_000 };
const MOST_CHANNELS = 32;

/** How many sides the head of a WAV or an AIFF claims; null where it does not say. */
const channelsClaimed = (bytes: Uint8Array, kind: AudioKind): number | null => {
  if (kind !== 'WAV' && kind !== 'AIFF') return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const little = kind === 'WAV';
  for (let at = 12; at + 12 <= bytes.length;) {
    const size = view.getUint32(at + 4, little);
    const id = textAt(bytes, at, at + 4);
    if (id === 'fmt ') return view.getUint16(at + 10, true);
    if (id === 'COMM') return view.getUint16(at + 8, false);
    at += 8 + size + (size % 2);
  }
  return null;
};

/** Five sides and a low one become two, as ITU-R BS.775 mixes them. */
const toTwo = (all: Float32Array[]): Float32Array[] => {
  if (all.length < 3) return all;
  const [left, right, middle] = all as [Float32Array, Float32Array, Float32Array];
  const behind = all.length >= 6 ? all.slice(4, 6) : all.length >= 5 ? all.slice(3, 5) : [];
  const side = (front: Float32Array, back: Float32Array | undefined) =>
    front.map((x, at) => (x + Math.SQRT1_2 * (middle[at]! + (back?.[at] ?? 0))) / (1 + Math.SQRT1_2));
  return [side(left, behind[0]), side(right, behind[1])];
};

const finite = (channels: Float32Array[]): Float32Array[] =>
  channels.map((data) => {
    // A sum is finite where all of them are: asked one by one it would take longer than to decode them.
    let sum = 0;
    for (let at = 0; at < data.length; at++) sum += data[at]!;
    return Number.isFinite(sum) ? data : data.map((x) => (Number.isFinite(x) ? x : 0));
  });

const longText = (file: string, seconds: number): string =>
  `“${file}” is ${minutes(seconds)} long; a sound may be ${minutes(RANGES.inSound.most)} long at the most. Cut out what you need of it.`;

/**
 * Says what is wrong with audio before it is used; null where it can be.
 *
 * @param file what it is called
 * @example faultOf({ rate: 8000, channels: [new Float32Array(8000)] }, 'rain.wav') // "“rain.wav” is silent: there is nothing in it to hear."
 */
export const faultOf = (audio: Audio, file: string): string | null => {
  const frames = audio.channels[0]?.length ?? 0;
  if (audio.rate && !(audio.rate >= RATE.least && audio.rate <= RATE.most))
    return `“${file}” says that it has ${audio.rate} samples a second; from ${RATE.least} to ${RATE.most} can be read.`;
  if (!frames || !audio.rate) return `“${file}” holds no audio.`;
  if (frames < LEAST_FRAMES)
    return `“${file}” is too short to be heard: ${frames === 1 ? 'one sample' : `${frames} samples`}.`;
  if (sampleSecondsOf(audio) > RANGES.inSound.most) return longText(file, sampleSecondsOf(audio));
  if (peakOf(audio.channels) < SILENCE) return `“${file}” is silent: there is nothing in it to hear.`;
  return null;
};

/**
 * Decodes a WAV, AIFF, FLAC, MP3 or OGG file.
 *
 * @param bytes the whole file
 * @param file what it is called, for what is said of it
 * @returns audio of one side or two, at its own rate; or a sentence for a person. It never throws
 */
export const decodeAudio = async (bytes: Uint8Array, file: string): Promise<Decoded> => {
  const kind = audioKind(bytes);
  if (!kind)
    return { ok: false, error: `“${file}” is no audio file that can be read: WAV, AIFF, FLAC, MP3 or OGG.` };
  const sides = channelsClaimed(bytes, kind);
  if (sides !== null && sides > MOST_CHANNELS)
    return {
      ok: false,
      error: `“${file}” says that it has ${sides} channels; ${MOST_CHANNELS} can be read at the most.`,
    };
  const promised = kind === 'WAV' ? promisedOf(bytes) : null;
  if (promised && promised.seconds > RANGES.inSound.most && promised.there > RANGES.inSound.most)
    return { ok: false, error: longText(file, promised.seconds) };
  try {
    const { channelData, sampleRate } = await READ[kind](bytes);
    const audio = { rate: sampleRate, channels: finite(toTwo(channelData)) };
    const fault = faultOf(audio, file);
    if (fault) return { ok: false, error: fault };
    const cut = promised && promised.seconds - promised.there > 0.001;
    return {
      ok: true,
      audio,
      ...(cut && {
        warning: `“${file}” is cut short: ${promised.there.toFixed(2)} of ${promised.seconds.toFixed(2)} s are there.`,
      }),
    };
  } catch (fault) {
    const why = fault instanceof Error ? fault.message : String(fault);
    return { ok: false, error: `“${file}” is damaged and could not be decoded (${why}).` };
  }
};
