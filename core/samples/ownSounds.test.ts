import fc from 'fast-check';
import { newBeat, newLane } from '../document/defaults';
import type { Layer, Loop, Voice } from '../document/schema';
import { createMixer, mix, replan, type MixNote } from '../mix/mixer';
import { mixNotes } from '../mix/mixNotes';
import { renderLoop, renderVoice, sliceFrames } from './renderVoice';
import { attackOf, type Audio } from './sample';
import { soundShapeOf } from './shape';
import { createSounds, soundKey } from './sounds';
import { strikeOf } from '../mix/strike';
import { layersAt, type SoundPlan } from './voiceSound';

const RATE = 8000;
const PLAIN = soundShapeOf({});
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
