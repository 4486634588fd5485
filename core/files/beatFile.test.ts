import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import { newBeat } from '../document/defaults';
import type { Beat } from '../document/schema';
import { writeBeat, writeBeats } from '../document/text';
import { readBeatsWithSounds, writeBeatsWithSounds } from './beatFile';
import { samplesOfBeat } from '../samples/beatSamples';
import { readKit, writeKit } from './kitFile';
import { voiceOfSamples } from '../samples/newVoice';

/** A name that goes by what is in it, without the browser's digest. */
const nameOf = (bytes: Uint8Array): Promise<string> =>
  Promise.resolve(
    [...bytes]
      .map((byte) => byte.toString(16).padStart(2, '0'))
      .join('')
      .padStart(64, '0')
      .slice(-64),
  );

const sampleOf = async (file: string, bytes: Uint8Array) => ({ id: await nameOf(bytes), file, seconds: 1 });

/** A beat with a sample in its kit, one on a lane and one as a loop. */
const beatWith = async (all: Uint8Array[], name: string): Promise<Beat> => {
  const [kit, lane, loop] = await Promise.all([0, 1, 2].map((at) => sampleOf(name, all[at % all.length]!)));
  const beat = newBeat('b', 'Ferry', 7);
  return {
    ...beat,
    own: { name: 'Crates', voices: { kick: voiceOfSamples([kit!]) } },
    lanes: beat.lanes.map((one, at) => ({
      ...one,
      ...(at === 1 && { voice: voiceOfSamples([lane!]) }),
      ...(at === 2 && { loop: { sample: loop!, marks: [0], end: 1, bars: 1, tempo: 240 } }),
    })),
  };
};

test('beats come back with the samples of their kits, lanes and loops, whatever those are called', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.uniqueArray(fc.uint8Array({ minLength: 1, maxLength: 30 }), {
        minLength: 1,
        maxLength: 3,
        selector: (bytes) => bytes.join(),
      }),
      fc.constantFrom(
        'rain.wav',
        '../../rain.wav',
        '.wav',
        'a/b:c.wav',
        'Käse & Brot.wav',
        'beats.ruddik.json',
      ),
      fc.boolean(),
      async (all, name, several) => {
        const beat = await beatWith(all, name);
        const text = several ? writeBeats([beat, newBeat('c', 'Plain', 1)]) : writeBeat(beat);
        const bytes = new Map(await Promise.all(all.map(async (one) => [await nameOf(one), one] as const)));
        const read = await readBeatsWithSounds(
          writeBeatsWithSounds(text, samplesOfBeat(beat), bytes),
          nameOf,
        );
        if (!read.ok) throw new Error(read.error);
        expect(read.value.beats[0]).toEqual(beat);
        expect(read.value.beats).toHaveLength(several ? 2 : 1);
        expect(read.value).toMatchObject({ faults: [], missing: [] });
        expect(new Map([...read.value.samples].map(([id, one]) => [id, [...one]]))).toEqual(
          new Map([...bytes].map(([id, one]) => [id, [...one]])),
        );
      },
    ),
  );
});

test('samples that are not there are named, files that no beat speaks of are left out', async () => {
  const all = [1, 2, 3].map((one) => Uint8Array.of(one));
  const beat = await beatWith(all, 'tarp.wav');
  const more = { ...(await sampleOf('stray.wav', Uint8Array.of(9))) };
  const [first] = samplesOfBeat(beat);
  const bytes = new Map([
    [first!.id, all[0]!],
    [more.id, Uint8Array.of(9)],
  ]);
  const read = await readBeatsWithSounds(
    writeBeatsWithSounds(writeBeat(beat), [...samplesOfBeat(beat), more], bytes),
    nameOf,
  );
  if (!read.ok) throw new Error(read.error);
  expect([...read.value.samples.keys()]).toEqual([first!.id]);
  expect(read.value.missing).toEqual(['tarp.wav']);
});

test('what is no beat with its sounds is said in a sentence; a kit says where it belongs, and so does a beat among kits', async () => {
  const why = async (bytes: Uint8Array) => {
    const read = await readBeatsWithSounds(bytes, nameOf);
    return read.ok ? read.value.faults.join() || 'fine' : read.error;
  };
  expect(await why(Uint8Array.of(1, 2))).toMatch(/no ZIP/);
  expect(await why(Uint8Array.of(0x50, 0x4b, 1))).toMatch(/damaged/);
  expect(await why(zipSync({ 'notes.txt': strToU8('x') }))).toMatch(/beats\.ruddik\.json is missing/);
  expect(await why(zipSync({ 'beats.ruddik.json': strToU8('{}') }))).toMatch(/not a beat/);
  const kit = writeKit({ kit: 'quay', own: { name: 'Crates', voices: {} } }, new Map());
  expect(await why(kit)).toMatch(/It is a kit/);
  const beat = await beatWith([Uint8Array.of(1)], 'x.wav');
  const whole = writeBeatsWithSounds(writeBeat(beat), samplesOfBeat(beat), new Map());
  expect(await readKit(whole, nameOf)).toMatchObject({
    ok: false,
    error: expect.stringMatching(/open it under Beats/) as string,
  });
  await fc.assert(
    fc.asyncProperty(fc.nat(whole.length - 1), fc.nat(255), async (at, value) => {
      const bytes = whole.slice();
      bytes[at] = value;
      expect(typeof (await why(bytes))).toBe('string');
    }),
    { numRuns: 200 },
  );
});
