/** A WAV file is written as it comes: its head says how long it will be, so nothing of it need be held twice. */

export type Bits = 16 | 24 | 32;

export interface WavShape {
  rate: number;
  channels: number;
  /** 32 is float; the others are whole numbers. */
  bits: Bits;
  frames: number;
}

const HEAD = 44;

/** How many bytes a file has. @example wavBytes({ rate: 48000, channels: 2, bits: 16, frames: 48000 }) // 192044 */
export const wavBytes = ({ channels, bits, frames }: WavShape): number =>
  HEAD + (frames * channels * bits) / 8;

const text = (view: DataView, at: number, word: string): void => {
  for (let i = 0; i < word.length; i++) view.setUint8(at + i, word.charCodeAt(i));
};

const FLOAT = 3;
const WHOLE = 1;

/**
 * An empty file of a shape: its head, and room for the samples.
 *
 * @example newWav({ rate: 48000, channels: 2, bits: 16, frames: 100 }).length // 444
 */
export const newWav = (shape: WavShape): Uint8Array => {
  const { rate, channels, bits } = shape;
  const size = wavBytes(shape);
  const bytes = new Uint8Array(size);
  const view = new DataView(bytes.buffer);
  const frame = (channels * bits) / 8;
  text(view, 0, 'RIFF');
  view.setUint32(4, size - 8, true);
  text(view, 8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, bits === 32 ? FLOAT : WHOLE, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * frame, true);
  view.setUint16(32, frame, true);
  view.setUint16(34, bits, true);
  text(view, 36, 'data');
  view.setUint32(40, size - HEAD, true);
  return bytes;
};

/** Puts samples of two sides into a file from a frame on. What passes full scale is held at it, but for float. */
export const putSamples = (
  bytes: Uint8Array,
  { channels, bits }: WavShape,
  from: number,
  left: Float32Array,
  right: Float32Array,
  count: number,
): void => {
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  const size = bits / 8;
  const most = 2 ** (bits - 1) - 1;
  let at = HEAD + from * channels * size;
  for (let i = 0; i < count; i++)
    for (let side = 0; side < channels; side++) {
      const x = side ? right[i]! : left[i]!;
      if (bits === 32) view.setFloat32(at, x, true);
      else {
        const value = Math.round(Math.max(-1, Math.min(1, x)) * most);
        if (bits === 16) view.setInt16(at, value, true);
        else {
          view.setUint8(at, value & 0xff);
          view.setInt16(at + 1, value >> 8, true);
        }
      }
      at += size;
    }
};

/**
 * Audio as a file.
 *
 * @param channels one side or two, each as long as the other
 * @example wavOf([new Float32Array(100)], 48000, 16).length // 244
 */
export const wavOf = (channels: readonly Float32Array[], rate: number, bits: Bits): Uint8Array => {
  const frames = channels[0]?.length ?? 0;
  const shape = { rate, channels: channels.length, bits, frames };
  const bytes = newWav(shape);
  putSamples(bytes, shape, 0, channels[0]!, channels[1] ?? channels[0]!, frames);
  return bytes;
};
