import fs from 'node:fs';
import fc from 'fast-check';
import { newBeat } from '../document/defaults';
import { kitFigures } from './kitFigures';
import { KIT_LIST } from './kitList';
import { KITS } from './kits';
import { kitsPage } from './kitsPage';
import { FORCES, layerOf, makeSound, STRIKES, strikeAt } from './layers';
import { loudnessOf } from './loudness';
import { mixed } from '../mix/mixNotes';
import { drumPlan } from '../samples/voiceSound';
import { centroidOf, ringOf, shareBetween, spectrumOf } from './spectrum';

const RATE = 48000;

const sine = (hertz: number, seconds: number, level = 1) =>
  Float32Array.from(
    { length: seconds * RATE },
    (_, at) => level * Math.sin((2 * Math.PI * hertz * at) / RATE),
  );

describe('what is measured', () => {
  test('loudness is that of the recommendation’s own signals', () => {
    // ITU-R BS.1770-4: a sine of 997 Hz at full scale in one channel is -3.01 LUFS; EBU Tech 3341, case 1: -23.0 in both.
    const silent = new Float32Array(2 * RATE);
    expect(loudnessOf(sine(997, 2), silent, RATE)).toBeCloseTo(-3.01, 1);
    const soft = sine(1000, 20, 10 ** (-23 / 20));
    expect(loudnessOf(soft, soft, RATE)).toBeCloseTo(-23, 1);
    expect(loudnessOf(silent, silent, RATE)).toBe(-Infinity);
    expect(loudnessOf(sine(997, 0.2), sine(997, 0.2), RATE)).toBe(-Infinity);
  });

  test('what is softer by more than 10 LU than the whole does not count', () => {
    const loud = sine(1000, 10, 0.1);
    const with60 = new Float32Array(20 * RATE);
    with60.set(loud);
    with60.set(sine(1000, 10, 0.0001), 10 * RATE);
    expect(loudnessOf(with60, with60, RATE)).toBeCloseTo(loudnessOf(loud, loud, RATE), 0);
  });

  test('a tone lies in its band, is as bright as it is high, and rings as long as it falls', () => {
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 9000 }), (hertz) => {
        const spectrum = spectrumOf(sine(hertz, 0.5), RATE);
        expect(shareBetween(spectrum, hertz * 0.95 - 10, hertz * 1.05 + 10)).toBeGreaterThan(0.95);
        expect(shareBetween(spectrum, hertz * 1.1 + 50, RATE / 2)).toBeLessThan(0.02);
      }),
      { numRuns: 20 },
    );
    const falling = sine(400, 1).map((x, at) => x * Math.exp((-6.9078 * at) / RATE / 0.5));
    expect(ringOf(falling, RATE)).toBeCloseTo(0.5, 1);
    expect(ringOf(falling, RATE, 20)).toBeCloseTo(0.5 / 3, 1);
    expect(centroidOf(spectrumOf(new Float32Array(100), RATE))).toBe(0);
  });
});

describe('kits against one another', () => {
  const figures = new Map(Object.values(KITS).map((kit) => [kit.id, kitFigures(kit, RATE)]));
  const all = [...figures.values()];
  const spread = (values: number[]) => Math.max(...values) - Math.min(...values);

  test('there are ten at least, each told of', () => {
    expect(KIT_LIST.map(({ id }) => id)).toEqual(Object.keys(KITS));
    expect(KIT_LIST.length).toBeGreaterThanOrEqual(10);
    expect(new Set(KIT_LIST.map(({ about }) => about)).size).toBe(KIT_LIST.length);
  });

  test('all are as loud and as high as one another, within 2 dB', () => {
    expect(spread(all.map(({ loudness }) => loudness))).toBeLessThanOrEqual(2);
    expect(spread(all.map(({ peak }) => peak))).toBeLessThanOrEqual(2);
  });

  test('kicks are low, hats are high, snares are brighter when they are struck harder', () => {
    for (const { kickLow, hatHigh, snareSoft, snareHard } of all) {
      expect(kickLow).toBeGreaterThan(0.7);
      expect(hatHigh).toBeGreaterThan(0.8);
      expect(snareHard).toBeGreaterThan(1.3 * snareSoft);
    }
  });

  test('no two are alike', () => {
    const seen = new Set<string>();
    for (const kit of Object.values(KITS)) {
      const [kick, snare] = (['kick', 'snare'] as const).map((id) => makeSound(kit, id, 8000).layers.at(-1)!);
      seen.add(`${kick!.slice(0, 400).join()} ${snare!.slice(0, 400).join()}`);
    }
    expect(seen.size).toBe(Object.keys(KITS).length);
  });

  test('the table in the documentation is what is measured', () => {
    expect(fs.readFileSync('docs/kits.md', 'utf8')).toBe(kitsPage(figures));
  });
});

/** Those that are heard most, one of each kind and more. */
const MAIN = [
  'kick',
  'kick.second',
  'kick.tuned',
  'snare',
  'snare.rimshot',
  'snare.sideStick',
  'clap',
  'hat.closed',
  'hat.open',
  'ride',
  'tom.low',
  'tom.high',
  'conga.open',
  'shaker',
  'tambourine',
  'cowbell',
  'claves',
  'marimba',
] as const;

/** So much of one signal is in another, -1 to 1. */
const correlation = (a: Float32Array, b: Float32Array): number => {
  let [ab, aa, bb] = [0, 0, 0];
  for (let at = 0; at < Math.min(a.length, b.length); at++) {
    ab += a[at]! * b[at]!;
    aa += a[at]! ** 2;
    bb += b[at]! ** 2;
  }
  return ab / Math.sqrt(aa * bb);
};

describe.each(Object.values(KITS).map((kit) => [kit.id, kit] as const))('the drums of %s', (_, kit) => {
  const rate = 24000;
  const ids = MAIN.filter((id) => kit.sounds[id]);
  const drums = ids.map((id) => ({ id, layers: makeSound(kit, id, rate).layers }));

  test('has no constant in it, begins and ends without a click, and is not too loud', () => {
    const faults: string[] = [];
    for (const { id, layers } of drums)
      for (const layer of layers) {
        let [sum, squares, peak] = [0, 0, 0];
        for (let at = 0; at < layer.length; at++) {
          const x = layer[at]!;
          sum += x;
          squares += x * x;
          peak = Math.max(peak, Math.abs(x));
        }
        const power = Math.sqrt(squares / layer.length);
        const constant = Math.abs(sum / layer.length) / power;
        if (constant > 0.03) faults.push(`${id}: a constant of ${constant.toFixed(3)}`);
        if (Math.abs(layer[0]!) > 0.01 * peak || Math.abs(layer.at(-1)!) > 0.001)
          faults.push(`${id}: a click`);
        if (peak > 1) faults.push(`${id}: too loud`);
      }
    expect(faults).toEqual([]);
  });

  test('is brighter at every harder strike', () => {
    for (const { id, layers } of drums) {
      const strikes = layers.length / FORCES.length;
      const bright = FORCES.map((__, force) =>
        centroidOf(spectrumOf(layers[force * strikes]!, rate, 0, 0.25)),
      );
      // What plays pitches keeps its tone: only its knock is brighter.
      const rises = bright.every((hertz, at) => at === 0 || hertz > bright[at - 1]!);
      expect([id, bright.map(Math.round), rises]).toEqual([id, bright.map(Math.round), true]);
    }
  });

  test('rings about as long as its recipe says, and the longer the room is', () => {
    for (const { id, layers } of drums) {
      const recipe = kit.sounds[id]!;
      const hard = layers[(FORCES.length - 1) * (layers.length / FORCES.length)]!;
      const room = kit.finish?.room?.seconds ?? 0;
      const longest = Math.max(recipe.decay, recipe.voice === 'snare' ? recipe.wireDecay : 0) + room;
      expect([id, ringOf(hard, rate, 60) <= 1.15 * longest + 0.06]).toEqual([id, true]);
      expect([id, ringOf(hard, rate, 60) >= 0.3 * recipe.decay - 0.02]).toEqual([id, true]);
    }
  });

  test('the main ones have three strikes, no two of them alike', () => {
    for (const id of ['kick', 'snare', 'hat.closed', 'hat.open', 'tom.low', 'clap'] as const) {
      const { layers } = drums.find((drum) => drum.id === id)!;
      expect(layers).toHaveLength(FORCES.length * STRIKES);
      for (const force of FORCES.keys())
        for (const [a, b] of [
          [0, 1],
          [0, 2],
          [1, 2],
        ] as const)
          expect(correlation(layers[force * STRIKES + a]!, layers[force * STRIKES + b]!)).toBeLessThan(
            0.9995,
          );
    }
  });
});

describe('which strike sounds', () => {
  test('each comes once before any comes again, and never one twice in a row, whatever the seed', () => {
    fc.assert(
      fc.property(fc.nat(), fc.nat(), fc.integer({ min: 2, max: 6 }), (seed, key, strikes) => {
        const order = Array.from({ length: 20 * strikes }, (_, count) => strikeAt(strikes, seed, key, count));
        for (let time = 0; time < 20; time++)
          expect(new Set(order.slice(time * strikes, (time + 1) * strikes)).size).toBe(strikes);
        for (let at = 1; at < order.length; at++) expect(order[at]).not.toBe(order[at - 1]);
      }),
    );
    expect(strikeAt(1, 7, 3, 5)).toBe(0);
  });

  test('a note sounds by its velocity and its turn; a sound without strikes as ever', () => {
    const beat = newBeat('b', 'Quay', 3);
    const note = (turn: number, velocity = 127) => ({ lane: 0, velocity, pitch: 0, turn });
    const sound = (length: number) => ({
      buffers: Array.from({ length }, () => new Float32Array(1)),
      plan: drumPlan(length),
    });
    const layers = [0, 1, 2].map((turn) => mixed(beat, note(turn), sound(12), 4, 100)[0]!.layer);
    expect([...layers].sort((a, b) => a - b)).toEqual([9, 10, 11]);
    expect(mixed(beat, note(1, 20), sound(4), 4, 100)[0]).toMatchObject({
      layer: 0,
      lane: 0,
      sound: 4,
    });
    expect(layerOf(64, 12, 5)).toBe(8);
  });
});
