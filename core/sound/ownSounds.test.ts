import fc from 'fast-check';
import { newBeat, newLane } from '../document/defaults';
import type { Layer, Loop, Voice } from '../document/schema';
import { decodeAudio } from './decode';
import { createMixer, mix, replan, type MixNote } from './mixer';
import { mixNotes } from './mixNotes';
import { renderLoop, renderVoice, sliceFrames } from './renderVoice';
import { attackOf, readAt, toRate, type Audio } from './sample';
import { shapeOf } from './shape';
import { createSounds, soundKey } from './sounds';
import { strikeOf } from './strike';
import { layersAt, type SoundPlan } from './voiceSound';
import { wavOf } from './wav';

const RATE = 8000;
const PLAIN = shapeOf({});
const ID = (letter: string) => letter.repeat(64);
const sample = (letter = 'a') => ({ id: ID(letter), file: `${letter}.wav`, seconds: 1 });
const layer = (change: Partial<Layer> = {}, letter = 'a'): Layer => ({
  source: { sample: sample(letter) },
  low: 1,
  high: 127,
  ...change,
});
const voice = (layers: Layer[], change: Partial<Voice> = {}): Voice => ({
  choose: 'velocity',
  layers,
  ...change,
});

/** A tone that is silent, then rises evenly to its full level. */
const slow = (silent: number, rise: number, length = 1): Audio => ({
  rate: RATE,
  channels: [
    Float32Array.from({ length: length * RATE }, (_, at) => {
      const t = at / RATE - silent;
      const level = t < 0 ? 0 : Math.min(1, t / Math.max(1e-6, rise));
      return 0.8 * level * Math.sin(at * 0.9);
    }),
  ],
});
const loadOf = (audio: Record<string, Audio>) => (id: string) => Promise.resolve(audio[id[0]!] ?? null);

const rendered = (notes: MixNote[], buffers: Float32Array[], frames: number, piece = 128): Float32Array => {
  const mixer = createMixer(RATE);
  mixer.limiting = false;
  mixer.sounds[0] = buffers;
  replan(mixer, 0, notes);
  const out = new Float32Array(frames);
  for (let at = 0; at < frames; at += piece) {
    const left = new Float32Array(piece);
    mix(mixer, left, new Float32Array(piece), at);
    out.set(left.subarray(0, Math.min(piece, frames - at)), at);
  }
  return out;
};

describe('where the attack is', () => {
  test('a sound of 5 to 80 ms of attack is begun so much earlier that it is heard on its hit, within 1 ms', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.double({ min: 0.005, max: 0.08, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        async (rise, silent) => {
          const sound = (await renderVoice(
            voice([layer()]),
            PLAIN,
            RATE,
            loadOf({ a: slow(silent, rise) }),
          ))!;
          const hit = 4000;
          const notes = mixNotes(newLane('k', 'kick'), sound, 0, { velocity: 127, frame: hit, turn: 0 }, 1);
          const out = rendered(notes, sound.buffers, 8000);
          const heard = 3000 + attackOf([out.slice(3000, 7000)], RATE);
          expect(Math.abs(heard - hit)).toBeLessThanOrEqual(RATE / 1000);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('it can be turned off, and set by hand; nothing begins before it may', async () => {
    const load = loadOf({ a: slow(0.1, 0.02) });
    const at = { velocity: 100, frame: 1000, turn: 0 };
    const begins = async (one: Voice, earliest?: number) => {
      const sound = (await renderVoice(one, PLAIN, RATE, load))!;
      return mixNotes(
        newLane('k', 'kick'),
        sound,
        0,
        { ...at, ...(earliest !== undefined && { earliest }) },
        1,
      )[0]!;
    };
    expect((await begins(voice([layer()], { late: true }))).frame).toBe(1000);
    expect((await begins(voice([layer({ lands: 0.05 })]))).frame).toBe(600);
    const held = await begins(voice([layer({ lands: 0.05 })]), 800);
    expect([held.frame, held.from, held.lead]).toEqual([800, 200, 200]);
  });

  test('what leads up to a stroke that is taken away fades; one that stays is not begun twice', () => {
    const data = new Float32Array(4000).fill(0.5);
    const note: MixNote = { frame: 100, sound: 0, layer: 0, left: 1, right: 1, group: 0, lead: 400, lane: 2 };
    const after = (notes: MixNote[]) => {
      const mixer = createMixer(RATE);
      mixer.sounds[0] = [data];
      replan(mixer, 0, [note]);
      mix(mixer, new Float32Array(200), new Float32Array(200), 0);
      replan(mixer, 300, notes);
      const left = new Float32Array(400);
      mix(mixer, left, new Float32Array(400), 200);
      return { left, voices: mixer.voices.length };
    };
    expect(after([note]).voices).toBe(1);
    expect(after([]).left.at(-1)).toBe(0);
    // Known of too late, it goes on from where it would be.
    expect(after([{ ...note, frame: 150 }]).left[10]).toBeGreaterThan(0.4);
  });

  test('what leads up to a stroke silences its group at the stroke, not before', () => {
    const long = new Float32Array(8000).fill(0.5);
    const plan: SoundPlan = {
      choose: 'velocity',
      crossFade: 0,
      held: false,
      slices: false,
      layers: [{ low: 1, high: 127, level: 1, pan: 0, first: 1, forces: 1, strikes: 1, sides: 1, lead: 800 }],
    };
    const open: MixNote = { frame: 0, sound: 0, layer: 0, left: 1, right: 1, group: 1, lane: 1 };
    const hat = { ...newLane('h', 'hat.closed'), choke: 0 };
    const sound = { buffers: [long, new Float32Array(8000)], plan: { ...plan, choke: 1 } };
    const { choke: _, ...bare } = hat;
    const notes = mixNotes(bare, sound, 0, { velocity: 127, frame: 2000, turn: 0, place: 2 }, 1);
    const group = notes[0]!.group;
    const out = rendered(
      [{ ...open, group }, ...notes].sort((a, b) => a.frame - b.frame),
      sound.buffers,
      4000,
    );
    expect(out[1990]).toBeCloseTo(0.5);
    expect(out[2000 + RATE * 0.004]).toBe(0);
  });
});

describe('which layer sounds', () => {
  const planOf = (change: Partial<SoundPlan>, ranges: [number, number][]): SoundPlan => ({
    choose: 'velocity',
    crossFade: 0,
    held: false,
    slices: false,
    layers: ranges.map(([low, high], first) => ({
      low,
      high,
      level: 1,
      pan: 0,
      first,
      forces: 1,
      strikes: 1,
      sides: 1,
      lead: 0,
    })),
    ...change,
  });
  const firsts = (plan: SoundPlan, velocity: number, count = 0) =>
    layersAt(plan, velocity, 7, 3, count).map(({ layer: { first } }) => first);
  const HALVES: [number, number][] = [
    [1, 63],
    [64, 127],
  ];

  test('by velocity, the nearest where none is for it; with a cross-fade the power stays equal', () => {
    const plan = planOf({}, HALVES);
    expect([1, 63, 64, 127].map((velocity) => firsts(plan, velocity))).toEqual([[0], [0], [1], [1]]);
    expect(
      firsts(
        planOf({}, [
          [1, 20],
          [100, 127],
        ]),
        50,
      ),
    ).toEqual([0]);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 127 }),
        fc.integer({ min: 2, max: 64 }),
        (velocity, crossFade) => {
          const all = layersAt(planOf({ crossFade }, HALVES), velocity, 7, 3, 0);
          expect(all.reduce((sum, { gain }) => sum + gain ** 2, 0)).toBeCloseTo(1, 6);
        },
      ),
    );
  });

  test('stacked all; in turn one after the other; at random none left out for long; without repeats each once', () => {
    const three: [number, number][] = [
      [1, 127],
      [1, 127],
      [1, 127],
    ];
    const run = (choose: SoundPlan['choose'], count: number) =>
      Array.from({ length: count }, (_, at) => firsts(planOf({ choose }, three), 90, at));
    expect(run('stacked', 1)).toEqual([[0, 1, 2]]);
    expect(run('turn', 4)).toEqual([[0], [1], [2], [0]]);
    expect(new Set(run('random', 60).flat()).size).toBe(3);
    const shuffled = run('shuffle', 60).flat();
    for (let at = 0; at < 60; at += 3) expect(new Set(shuffled.slice(at, at + 3)).size).toBe(3);
    for (let at = 1; at < 60; at++) expect(shuffled[at]).not.toBe(shuffled[at - 1]);
    // What is heard is what is bounced: the same by any way of asking.
    expect(run('random', 60)).toEqual(run('random', 60));
  });
});

describe('what is made of a layer', () => {
  const tone: Audio = {
    rate: RATE,
    channels: [
      Float32Array.from({ length: RATE }, (_, at) => 0.5 * Math.sin((2 * Math.PI * 400 * at) / RATE)),
    ],
  };
  const made = async (change: Partial<Layer>, shape = PLAIN) =>
    (await renderVoice(voice([layer(change)]), shape, RATE, loadOf({ a: tone })))!.buffers[0]!;
  const energy = (data: Float32Array, from = 0, to = data.length) =>
    data.slice(from, to).reduce((sum, x) => sum + x * x, 0);
  const crossings = (data: Float32Array) =>
    data.reduce((sum, x, at) => sum + (at && x >= 0 !== data[at - 1]! >= 0 ? 1 : 0), 0);

  test('start and end cut it, reversed it is back to front, tuned it is shorter and higher', async () => {
    expect((await made({ start: 0.25, end: 0.75 })).length).toBe(RATE / 2);
    const rising: Audio = { rate: RATE, channels: [Float32Array.from({ length: 800 }, (_, at) => at / 800)] };
    const back = (await renderVoice(voice([layer({ reverse: true })]), PLAIN, RATE, loadOf({ a: rising })))!;
    expect(back.buffers[0]![0]).toBeGreaterThan(0.9);
    expect(back.buffers[0]!.at(-1)).toBeLessThan(0.01);
    const up = await made({ tune: 12 });
    expect(up.length).toBe(RATE / 2);
    expect(crossings(up) / up.length).toBeCloseTo((2 * 2 * 400) / RATE, 2);
    expect((await made({ fine: 100 })).length).toBe((await made({ tune: 1 })).length);
  });

  test('it rises, is held and falls as told; a gate ends it; what is cut neither begins nor ends with a jump', async () => {
    const short = await made({ attack: 100, hold: 100, decay: 200 });
    expect(energy(short, 0, 160)).toBeLessThan(energy(short, 900, 1060) / 20);
    expect(energy(short, RATE * 0.42)).toBe(0);
    const tail: Audio = {
      rate: RATE,
      channels: [Float32Array.from({ length: RATE }, (_, at) => Math.sin(at * 0.05) * Math.exp(-at / 400))],
    };
    const gated = (await renderVoice(voice([layer({ gate: -30 })]), PLAIN, RATE, loadOf({ a: tail })))!
      .buffers[0]!;
    expect(gated.length).toBeLessThan(2000);
    for (const data of [short, gated, await made({ start: 0.1001, end: 0.3003 })])
      for (let at = 0; at < data.length; at++)
        expect(Math.abs(data[at]! - (data[at - 1] ?? 0))).toBeLessThan(0.2);
    expect(Math.abs((await made({ start: 0.1001, end: 0.3003 })).at(-1)!)).toBeLessThan(0.02);
  });

  test('filters take what they should, the steep one more; a filter that follows is darker when struck softly', async () => {
    const filter = (hertz: number, slope: 12 | 24, follow = 0) =>
      made({ filter: { pass: 'low', hertz, slope, follow } });
    const [gentle, steep] = [energy(await filter(100, 12)), energy(await filter(100, 24))];
    expect(gentle).toBeLessThan(energy(tone.channels[0]!) / 50);
    expect(steep).toBeLessThan(gentle / 10);
    expect(energy(await made({ filter: { pass: 'high', hertz: 50, slope: 12, follow: 0 } }))).toBeGreaterThan(
      0.9 * energy(tone.channels[0]!),
    );
    const sound = (await renderVoice(
      voice([layer({ filter: { pass: 'low', hertz: 800, slope: 12, follow: 4 } })]),
      PLAIN,
      RATE,
      loadOf({ a: tone }),
    ))!;
    expect(sound.buffers).toHaveLength(4);
    const levels = sound.buffers.map((data) => energy(data));
    expect([...levels].sort((a, b) => a - b)).toEqual(levels);
  });

  test('a layer whose sample is missing is left out; where none is there the kit’s drum stands in', async () => {
    const two = voice([layer({}, 'a'), layer({}, 'z')]);
    expect((await renderVoice(two, PLAIN, RATE, loadOf({ a: tone })))!.plan.layers).toHaveLength(1);
    expect(await renderVoice(two, PLAIN, RATE, loadOf({}))).toBeNull();
    const lane = { ...newLane('k', 'kick'), voice: two };
    const sounds = createSounds(RATE, undefined, () => Promise.resolve(null));
    const kick = await sounds.soundsFor({ kit: 'quay' }, newLane('k', 'kick'));
    expect((await sounds.soundsFor({ kit: 'quay' }, lane)).buffers).toEqual(kick.buffers);
    expect(soundKey({ kit: 'quay' }, lane)).not.toBe(soundKey({ kit: 'quay' }, newLane('k', 'kick')));
  });

  test('the beat’s own kit plays on every lane of its instrument, a lane’s own sound goes first', async () => {
    const load = loadOf({ a: tone, b: slow(0, 0.001) });
    const sounds = createSounds(RATE, undefined, (own, shape, rate) =>
      'voice' in own ? renderVoice(own.voice, shape, rate, load) : Promise.resolve(null),
    );
    const kit = { kit: 'quay', own: { name: 'Mine', voices: { kick: voice([layer()]) } } };
    const [first, own] = [newLane('a', 'kick'), { ...newLane('b', 'kick'), voice: voice([layer({}, 'b')]) }];
    expect((await sounds.soundsFor(kit, first)).buffers[0]).toEqual(tone.channels[0]);
    expect((await sounds.soundsFor(kit, own)).buffers[0]).toEqual(slow(0, 0.001).channels[0]);
    expect((await sounds.soundsFor(kit, newLane('s', 'snare'))).buffers).toHaveLength(12);
  });

  test('both sides of a sample are heard, each on its own; one strike ends as it rings out', async () => {
    const two: Audio = {
      rate: RATE,
      channels: [new Float32Array(400).fill(0.5), new Float32Array(400).fill(-0.25)],
    };
    const sound = (await renderVoice(voice([layer()]), PLAIN, RATE, loadOf({ a: two })))!;
    const { channels } = strikeOf(newLane('k', 'kick'), sound, 127, RATE);
    expect(channels[0]![100]! / channels[1]![100]!).toBeCloseTo(-2);
    expect(channels[0]!.length).toBe(400);
  });
});

describe('a loop that is cut', () => {
  const noise: Audio = {
    rate: RATE,
    channels: [Float32Array.from({ length: 2 * RATE }, (_, at) => 0.6 * Math.sin(at * at * 0.0007))],
  };
  const loop = (marks: number[], change: Partial<Loop> = {}): Loop => ({
    sample: { ...sample(), seconds: 2 },
    marks,
    end: 2,
    bars: 1,
    tempo: 120,
    ...change,
  });
  const lane = { ...newLane('l', 'snare'), level: 1 };

  test('its slices, one after the other as they were recorded, are the loop, but for the fades', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.uniqueArray(fc.integer({ min: 1, max: 39 }), { minLength: 1, maxLength: 12 }),
        async (cuts) => {
          const marks = [0, ...cuts.sort((a, b) => a - b).map((cut) => cut * 0.05)];
          const sound = (await renderLoop(loop(marks), PLAIN, RATE, loadOf({ a: noise })))!;
          const notes = marks.flatMap((mark, slice) =>
            mixNotes(
              lane,
              sound,
              0,
              { velocity: 100, pitch: slice, frame: Math.round(mark * RATE), turn: 0 },
              1,
            ),
          );
          const out = rendered(notes, sound.buffers, 2 * RATE);
          const starts = sliceFrames(loop(marks), RATE).map(([from]) => from);
          let [difference, whole] = [0, 0];
          for (let at = 0; at < out.length; at++) {
            if (starts.some((start) => start > 0 && at >= start && at < start + 0.0035 * RATE)) continue;
            const x = noise.channels[0]![at]! * Math.SQRT1_2;
            difference += (out[at]! - x) ** 2;
            whole += x ** 2;
          }
          expect(10 * Math.log10(difference / whole)).toBeLessThan(-60);
        },
      ),
      { numRuns: 20 },
    );
  });

  test('slower, a slice rings on and fades without a jump; faster, it is cut in 3 ms; backwards it is turned round', async () => {
    const sound = (await renderLoop(loop([0, 0.5]), PLAIN, RATE, loadOf({ a: noise })))!;
    const [first] = sound.buffers;
    expect(first!.length).toBeGreaterThan(0.5 * RATE);
    expect(Math.abs(first!.at(-1)!)).toBeLessThan(0.001);
    expect(Math.abs(first![4000]! - first![3999]!)).toBeLessThan(0.01);
    const at = (slice: number, frame: number) =>
      mixNotes(lane, sound, 0, { velocity: 100, pitch: slice, frame, turn: 0 }, 1);
    const quick = rendered(
      [...at(0, 0), ...at(0, 1000).map((note) => ({ ...note, left: 0 }))],
      sound.buffers,
      2000,
    );
    expect(quick[1000 + 0.004 * RATE]).toBe(0);
    const back = (await renderLoop(loop([0, 0.5], { reversed: [0] }), PLAIN, RATE, loadOf({ a: noise })))!;
    expect(back.buffers[0]![2000]).toBeCloseTo(noise.channels[0]![1999]!);
    expect(at(7, 0)).toEqual([]);
  });
});

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

test('a stroke of a beat’s own sound is the same whether it is bounced or played: it goes by seed, lane and count', async () => {
  const beat = newBeat('b', 'Quay', 3);
  const load = loadOf({ a: slow(0, 0.001), b: slow(0.01, 0.001), c: slow(0.02, 0.001) });
  const sound = (await renderVoice(
    voice([layer({}, 'a'), layer({}, 'b'), layer({}, 'c')], { choose: 'random' }),
    PLAIN,
    RATE,
    load,
  ))!;
  const of = (turn: number) =>
    mixNotes(beat.lanes[0]!, sound, 0, { velocity: 90, frame: 5000, turn }, beat.seed).map(
      ({ layer: at }) => at,
    );
  expect(Array.from({ length: 30 }, (_, turn) => of(turn))).toEqual(
    Array.from({ length: 30 }, (_, turn) => of(29 - turn)).reverse(),
  );
});
