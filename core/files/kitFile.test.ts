import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import type { OwnKit } from '../document/schema';
import { readKit, samplesOf, writeKit } from './kitFile';
import { layerOfSample, voiceOfDrum, voiceOfSamples } from '../samples/newVoice';

/** A name that goes by what is in it, without the browser's digest. */
const nameOf = (bytes: Uint8Array): Promise<string> =>
  Promise.resolve(
    [...bytes]
      .reduce((sum, byte, at) => (sum * 31 + byte + at) % 0xffffffff, 7)
      .toString(16)
      .padStart(64, '0'),
  );

const kitOf = async (files: [string, Uint8Array][]) => {
  const samples = new Map<string, Uint8Array>();
  const layers = [];
  for (const [file, bytes] of files) {
    const id = await nameOf(bytes);
    samples.set(id, bytes);
    layers.push({ id, file, seconds: 1 });
  }
  const own: OwnKit = {
    name: 'Crates',
    voices: { kick: voiceOfSamples(layers), snare: voiceOfDrum('attic', 'snare') },
  };
  return { own, samples };
};

test('a kit comes back from its file as it was, with its samples as they came, whatever their names', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.uniqueArray(fc.uint8Array({ minLength: 1, maxLength: 40 }), {
        minLength: 1,
        maxLength: 6,
        selector: (bytes) => bytes.join(),
      }),
      fc.constantFrom('kick.wav', '../../kick.wav', 'a/b:c.wav', '.hidden', 'Käse & Brot.wav'),
      async (all, name) => {
        const { own, samples } = await kitOf(all.map((bytes) => [name, bytes]));
        const read = await readKit(writeKit({ kit: 'quay', own }, samples), nameOf);
        if (!read.ok) throw new Error(read.error);
        expect(read.value.own).toEqual(own);
        expect(read.value.kit).toBe('quay');
        expect(read.value.missing).toEqual([]);
        expect([...read.value.samples.keys()].sort()).toEqual([...samples.keys()].sort());
        for (const [id, bytes] of read.value.samples) expect([...bytes]).toEqual([...samples.get(id)!]);
      },
    ),
  );
});

test('a sample that is missing, or is not what it is said to be, is named; the rest is there', async () => {
  const { own, samples } = await kitOf([
    ['a.wav', Uint8Array.of(1)],
    ['b.wav', Uint8Array.of(2)],
  ]);
  const [first, second] = [...samples.keys()];
  const less = await readKit(
    writeKit({ kit: 'quay', own }, new Map([[first!, samples.get(first!)!]])),
    nameOf,
  );
  expect(less).toMatchObject({ ok: true, value: { missing: ['b.wav'] } });
  const swapped = new Map([
    [first!, samples.get(second!)!],
    [second!, samples.get(second!)!],
  ]);
  expect(await readKit(writeKit({ kit: 'quay', own }, swapped), nameOf)).toMatchObject({
    ok: true,
    value: { missing: ['a.wav'] },
  });
  expect(samplesOf(own)).toHaveLength(2);
  expect(layerOfSample(samplesOf(own)[0]!)).toMatchObject({ low: 1, high: 127 });
});

test('what is no kit is said in a sentence', async () => {
  const why = async (bytes: Uint8Array) => {
    const read = await readKit(bytes, nameOf);
    return read.ok ? 'fine' : read.error;
  };
  const json = (value: object) => zipSync({ 'kit.json': strToU8(JSON.stringify(value)) });
  expect(await why(Uint8Array.of(1, 2, 3))).toMatch(/no ZIP/);
  expect(await why(zipSync({ 'notes.txt': strToU8('x') }))).toMatch(/kit\.json is missing/);
  expect(await why(zipSync({ 'kit.json': strToU8('{') }))).toMatch(/could not be read/);
  expect(await why(json({ kind: 'other' }))).toMatch(/not a kit/);
  expect(await why(json({ kind: 'ruddik.kit', version: 9 }))).toMatch(/newer Ruddik/);
  expect(await why(json({ kind: 'ruddik.kit', version: 1, name: 'x', kit: 'quay', voices: {} }))).toMatch(
    /samples is missing/,
  );
  const { own, samples } = await kitOf([['a.wav', Uint8Array.of(1, 2, 3)]]);
  const whole = writeKit({ kit: 'quay', own }, samples);
  await fc.assert(
    fc.asyncProperty(fc.nat(whole.length - 1), fc.nat(255), async (at, value) => {
      const bytes = whole.slice();
      bytes[at] = value;
      expect(typeof (await why(bytes))).toBe('string');
    }),
    { numRuns: 300 },
  );
});
