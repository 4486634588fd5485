import fs from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { decodeAudio } from './decode';
import { readAt, toRate } from './sample';
import { wavOf } from '../files/wav';

describe('audio files', () => {
  const tone = Float32Array.from({ length: 4000 }, (_, at) => 0.5 * Math.sin(at * 0.3));

  test('WAVs of 16, 24 and 32 bits come back as they were written, one side or two', async () => {
    for (const bits of [16, 24, 32] as const)
      for (const channels of [[tone], [tone, tone.map((x) => -x)]]) {
        const read = await decodeAudio(wavOf(channels, 44100, bits), 'tone.wav');
        if (!read.ok) throw new Error(read.error);
        expect(read.audio.rate).toBe(44100);
        expect(read.audio.channels).toHaveLength(channels.length);
        read.audio.channels.forEach((data, side) =>
          data.forEach((x, at) => expect(Math.abs(x - channels[side]![at]!)).toBeLessThan(2 / 2 ** 15)),
        );
      }
  });

  /** A WAV of any number of sides, bits and rate, as programs write them: whole numbers, or 32 bits of floating point. */
  const anyWav = (sides: Float32Array[], rate: number, bits: 8 | 16 | 24 | 32, float = false): Uint8Array => {
    const width = bits / 8;
    const data = sides[0]!.length * sides.length * width;
    const view = new DataView(new ArrayBuffer(44 + data));
    const text = (at: number, letters: string) =>
      [...letters].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
    text(0, 'RIFF');
    view.setUint32(4, 36 + data, true);
    text(8, 'WAVEfmt ');
    view.setUint32(16, 16, true);
    view.setUint16(20, float ? 3 : 1, true);
    view.setUint16(22, sides.length, true);
    view.setUint32(24, rate, true);
    view.setUint32(28, rate * sides.length * width, true);
    view.setUint16(32, sides.length * width, true);
    view.setUint16(34, bits, true);
    text(36, 'data');
    view.setUint32(40, data, true);
    let at = 44;
    for (let frame = 0; frame < sides[0]!.length; frame++)
      for (const side of sides) {
        const x = side[frame]!;
        if (float) view.setFloat32(at, x, true);
        // Eight bits alone count from 0.
        else if (bits === 8) view.setUint8(at, Math.round(x * 127 + 128));
        else if (bits === 16) view.setInt16(at, Math.round(x * 32767), true);
        else if (bits === 24) {
          const whole = Math.round(x * 8388607);
          view.setUint16(at, whole & 0xffff, true);
          view.setInt8(at + 2, whole >> 16);
        } else view.setInt32(at, Math.round(x * 2147483647), true);
        at += width;
      }
    return new Uint8Array(view.buffer);
  };

  test.each([
    [8, false],
    [16, false],
    [24, false],
    [32, false],
    [32, true],
  ] as const)('WAVs of %i bits (floating point: %s) are read at 8 to 192 kHz', async (bits, float) => {
    for (const rate of [8000, 11025, 44100, 96000, 192000]) {
      const read = await decodeAudio(anyWav([tone, tone.map((x) => x / 2)], rate, bits, float), 'x.wav');
      if (!read.ok) throw new Error(read.error);
      expect(read.audio.rate).toBe(rate);
      const [left, right] = read.audio.channels;
      for (let i = 0; i < tone.length; i += 13) {
        expect(Math.abs(left![i]! - tone[i]!)).toBeLessThan(1.5 / 2 ** Math.min(15, bits - 1));
        expect(Math.abs(right![i]! - tone[i]! / 2)).toBeLessThan(1.5 / 2 ** Math.min(15, bits - 1));
      }
    }
  });

  test('five sides and a low one become two: the middle and what is behind 3 dB softer, the low one left out', async () => {
    const only = (at: number) =>
      Array.from({ length: 6 }, (_, side) => (side === at ? tone : new Float32Array(4000)));
    const share = async (at: number) => {
      const read = await decodeAudio(anyWav(only(at), 48000, 24), 'rain 5.1.wav');
      if (!read.ok) throw new Error(read.error);
      const top = (data: Float32Array) => Math.max(...data.map(Math.abs)) / 0.5;
      return read.audio.channels.map((data) => Math.round(top(data) * (1 + Math.SQRT1_2) * 1000) / 1000);
    };
    expect(await share(0)).toEqual([1, 0]);
    expect(await share(1)).toEqual([0, 1]);
    expect(await share(2)).toEqual([0.707, 0.707]);
    expect(await share(4)).toEqual([0.707, 0]);
    expect(await share(5)).toEqual([0, 0.707]);
    await expect(decodeAudio(anyWav(only(3), 48000, 24), 'low.wav')).resolves.toMatchObject({
      ok: false,
      error: expect.stringMatching(/silent/) as string,
    });
  });

  /** An AIFF of one side and 16 bits whose rate is written as ten bytes of extended precision. */
  const aiff = (rate: readonly number[], sides = 1): Uint8Array => {
    const data = tone.length * 2;
    const view = new DataView(new ArrayBuffer(54 + data));
    const text = (at: number, letters: string) =>
      [...letters].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
    text(0, 'FORM');
    view.setUint32(4, 46 + data);
    text(8, 'AIFFCOMM');
    view.setUint32(16, 18);
    view.setUint16(20, sides);
    view.setUint32(22, tone.length);
    view.setUint16(26, 16);
    rate.forEach((byte, at) => view.setUint8(28 + at, byte));
    text(38, 'SSND');
    view.setUint32(42, 8 + data);
    tone.forEach((x, at) => view.setInt16(54 + 2 * at, Math.round(x * 32767)));
    return new Uint8Array(view.buffer);
  };

  test('rates that are none and sides that nothing has are refused in a sentence, before any work', async () => {
    const read = async (bytes: Uint8Array) => ({ out: await decodeAudio(bytes, 'x') });
    const at44100 = [0x40, 0x0e, 0xac, 0x44, 0, 0, 0, 0, 0, 0];
    expect((await read(aiff(at44100))).out).toMatchObject({ ok: true, audio: { rate: 44100 } });
    const negative = [0xc0, ...at44100.slice(1)];
    const infinite = [0x7f, 0xff, 0x80, 0, 0, 0, 0, 0, 0, 0];
    const none = [0x7f, 0xff, 0xc0, 0, 0, 0, 0, 0, 0, 0];
    for (const rate of [negative, infinite, none, Array<number>(10).fill(0)]) {
      const { out } = await read(aiff(rate));
      expect(out.ok ? '' : out.error).toMatch(/samples a second|holds no audio|damaged/);
    }
    for (const rate of [1, 999, 4_000_000_000]) {
      const { out } = await read(anyWav([tone], rate, 16));
      expect(out.ok ? '' : out.error).toMatch(/samples a second; from 1000 to 768000|minutes long/);
    }
    const wide = anyWav([tone], 44100, 16);
    new DataView(wide.buffer).setUint16(22, 65_282, true);
    for (const bytes of [wide, aiff(at44100, 65_282)]) {
      const { out } = await read(bytes);
      expect(out.ok ? '' : out.error).toBe(
        '“x” says that it has 65282 channels; 32 can be read at the most.',
      );
    }
  });

  test('what cannot be used is said in a sentence, and nothing is thrown', async () => {
    const whole = wavOf([tone], 44100, 16);
    const why = async (bytes: Uint8Array, name = 'x.wav') => {
      const read = await decodeAudio(bytes, name);
      return read.ok ? (read.warning ?? 'fine') : read.error;
    };
    expect(await why(new Uint8Array(0))).toMatch(/no audio file/);
    expect(await why(new TextEncoder().encode('Dear diary, it rained on the tarps.'))).toMatch(
      /no audio file/,
    );
    expect(await why(wavOf([new Float32Array(1)], 44100, 16))).toMatch(/too short to be heard: one sample/);
    expect(await why(wavOf([new Float32Array(4000)], 44100, 16))).toMatch(/silent/);
    expect(await why(whole.slice(0, 4000))).toMatch(/cut short: 0\.04 of 0\.09 s are there/);
    expect(await why(wavOf([new Float32Array(700 * 100).fill(0.5)], 100, 16))).toMatch(/12 minutes long/);
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { minLength: 1, maxLength: 20 }),
        async (changes) => {
          const bytes = whole.slice();
          for (const [at, value] of changes) bytes[at] = value;
          expect(typeof (await why(bytes))).toBe('string');
        },
      ),
      { numRuns: 200 },
    );
  });

  test('between the usual rates, taken place by place, a sound is what it is when it is read one by one', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(8000, 11025, 22050, 44100, 48000, 96000, 192000),
        fc.constantFrom(44100, 48000),
        fc.array(fc.float({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 900 }),
        (from, to, samples) => {
          const data = Float32Array.from(samples);
          const [taken] = toRate({ rate: from, channels: [data] }, to).channels;
          const read = readAt(data, from / to);
          expect(taken).toHaveLength(read.length);
          read.forEach((x, at) => expect(Math.abs(x - taken![at]!)).toBeLessThan(0.01));
        },
      ),
    );
  });

  test('read at another rate a tone keeps its pitch and level, and what would fold back is gone', () => {
    const at = (hertz: number, rate: number) =>
      Float32Array.from({ length: rate }, (_, i) => Math.sin((2 * Math.PI * hertz * i) / rate));
    const { channels } = toRate({ rate: 44100, channels: [at(1000, 44100)] }, 48000);
    const wanted = at(1000, 48000);
    for (let i = 100; i < 47900; i += 7) expect(Math.abs(channels[0]![i]! - wanted[i]!)).toBeLessThan(0.002);
    const folded = readAt(at(9000, 22050), 2).slice(200, -200);
    expect(Math.max(...folded.map(Math.abs))).toBeLessThan(0.05);
  });
});

/** The same click at 4,410 frames of 44.1 kHz, written with a head that tells of the encoder and without. */
test.each(['told', 'untold'])(
  'an MP3 begins where its sound does, whether its head tells of the encoder: %s',
  async (head) => {
    const file = path.join(__dirname, 'fixtures', `click-${head}.mp3`);
    const decoded = await decodeAudio(new Uint8Array(fs.readFileSync(file)), 'click.mp3');
    if (!decoded.ok) throw new Error(decoded.error);
    const [data] = decoded.audio.channels;
    expect(decoded.audio.rate).toBe(44100);
    // The click passes a fifth of full scale within its first frames.
    expect(Math.abs(data!.findIndex((x) => Math.abs(x) > 0.2) - 4411)).toBeLessThanOrEqual(2);
  },
);
