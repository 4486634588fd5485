/** @jest-environment node */
import { newBeat, newLane } from '../../core/document/defaults';
import { writeBeat } from '../../core/document/text';
import { voiceOfSamples } from '../../core/samples/newVoice';
import { soundShapeOf } from '../../core/samples/shape';
import { wavOf } from '../../core/files/wav';
import type { BytesStore } from '../keeping/indexedBytes';
import { createSamples } from './ownSounds';
import { createDesk, deskWaveOf } from './soundDesk';

/** A store in memory that can be told to fail. */
const memory = () => {
  const kept = new Map<string, Uint8Array>();
  const faults: { put?: Error; reads: number } = { reads: 0 };
  const nameOf = async (bytes: Uint8Array) =>
    Buffer.from(await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>)).toString('hex');
  const store: BytesStore = {
    put: async (all) => {
      if (faults.put) throw faults.put;
      const names = await Promise.all(all.map(nameOf));
      all.forEach((bytes, at) => kept.set(names[at]!, bytes));
      return names;
    },
    get: (name) => {
      faults.reads += 1;
      return Promise.resolve(kept.get(name) ?? null);
    },
    has: (names) => Promise.resolve(names.map((name) => kept.has(name))),
    sizes: (names) => Promise.resolve(names.map((name) => kept.get(name)?.byteLength ?? 0)),
    names: () => Promise.resolve([...kept.keys()]),
    remove: (names) => Promise.resolve(names.forEach((name) => kept.delete(name))),
  };
  return { store, kept, faults };
};

const tone = (hertz: number, seconds = 0.5) =>
  wavOf(
    [
      Float32Array.from(
        { length: seconds * 44100 },
        (_, at) => 0.5 * Math.sin((at * hertz * 2 * Math.PI) / 44100),
      ),
    ],
    44100,
    16,
  );
const full = () => Object.assign(new Error('no room'), { name: 'QuotaExceededError' });

test('files that can be used are kept before they are told; the others are said, and none is lost for it', async () => {
  const { store, kept } = memory();
  const taken = await createDesk(store).takeIn([
    { name: 'kick.wav', bytes: tone(60) },
    { name: 'diary.wav', bytes: new TextEncoder().encode('It rained.') },
    { name: 'cut.wav', bytes: tone(90).slice(0, 20000) },
    { name: ' \u00a0 ', bytes: tone(120) },
  ]);
  expect(taken.samples.map(({ file }) => file)).toEqual(['kick.wav', 'cut.wav', 'Sound']);
  expect(taken.said).toEqual([expect.stringMatching(/diary/), expect.stringMatching(/cut short/)]);
  for (const { id } of taken.samples) expect(kept.has(id)).toBe(true);
  expect(taken.samples[0]!.seconds).toBeCloseTo(0.5);
});

test('a storage that is full keeps nothing by halves, and says so; so does one that fails', async () => {
  const { store, kept, faults } = memory();
  const desk = createDesk(store);
  faults.put = full();
  const none = await desk.takeIn([{ name: 'kick.wav', bytes: tone(60) }]);
  expect(none).toMatchObject({ samples: [], said: [expect.stringMatching(/no room left/)] });
  expect(await desk.shippedLoop('tarps')).toMatchObject({ samples: [] });
  faults.put = new Error('broken');
  expect((await desk.takeIn([{ name: 'kick.wav', bytes: tone(60) }])).said[0]).toMatch(/could not keep/);
  expect(kept.size).toBe(0);
  delete faults.put;
  expect((await desk.takeIn([{ name: 'kick.wav', bytes: tone(60) }])).samples).toHaveLength(1);
});

test('a kit goes out as a file and comes back in another browser; a full one takes none of it', async () => {
  const [here, there] = [memory(), memory()];
  const [desk, other] = [createDesk(here.store), createDesk(there.store)];
  const { samples } = await desk.takeIn([
    { name: 'kick.wav', bytes: tone(60) },
    { name: 'kick 2.wav', bytes: tone(70) },
  ]);
  const own = { name: 'Crates', voices: { kick: voiceOfSamples(samples) } };
  const file = await desk.saveKit({ kit: 'quay', own });
  there.faults.put = full();
  expect(await other.openKit(file)).toMatchObject({
    ok: false,
    error: expect.stringMatching(/no room/) as string,
  });
  expect(there.kept.size).toBe(0);
  delete there.faults.put;
  expect(await other.openKit(file)).toEqual({ ok: true, kit: 'quay', own, said: [] });
  const voice = { voice: own.voices.kick };
  const [first, second] = await Promise.all(
    [desk, other].map((one) => one.ownSound(voice, soundShapeOf({}), 48000)),
  );
  expect(second!.buffers).toEqual(first!.buffers);
  // What is lost here is missing in the file, and named there.
  await here.store.remove([samples[1]!.id]);
  const less = await createDesk(here.store).saveKit({ kit: 'quay', own });
  const opened = await createDesk(memory().store).openKit(less);
  expect(opened).toMatchObject({ ok: true, said: [expect.stringMatching(/kick 2\.wav/)] });
  expect(await other.openKit(Uint8Array.of(1))).toMatchObject({ ok: false });
});

test('beats go out with their sounds and come back in another browser; a full one takes none of it', async () => {
  const [here, there] = [memory(), memory()];
  const [desk, other] = [createDesk(here.store), createDesk(there.store)];
  const { samples } = await desk.takeIn([{ name: 'kick.wav', bytes: tone(60) }]);
  const plain = newBeat('b', 'Ferry', 7);
  const beat = { ...plain, lanes: plain.lanes.map((lane) => ({ ...lane, voice: voiceOfSamples(samples) })) };
  const file = await desk.saveBeats(writeBeat(beat), samples);
  there.faults.put = full();
  expect(await other.openBeats(file)).toMatchObject({ ok: false });
  expect(there.kept.size).toBe(0);
  delete there.faults.put;
  expect(await other.openBeats(file)).toEqual({
    ok: true,
    value: { beats: [beat], faults: [] },
    missing: [],
  });
  expect([...there.kept.keys()]).toEqual([samples[0]!.id]);
  await here.store.remove([samples[0]!.id]);
  const less = await createDesk(here.store).saveBeats(writeBeat(beat), samples);
  expect(await createDesk(memory().store).openBeats(less)).toMatchObject({ ok: true, missing: ['kick.wav'] });
  expect(await other.openBeats(Uint8Array.of(1))).toMatchObject({ ok: false });
});

test('what is missing is told as missing, never thrown', async () => {
  const desk = createDesk(memory().store);
  const id = 'f'.repeat(64);
  const loop = { sample: { id, file: 'x.wav', seconds: 1 }, marks: [0], end: 1, bars: 1, tempo: 120 };
  expect(await desk.missing([id])).toEqual([id]);
  expect(await desk.wave(id)).toBeNull();
  expect(await desk.found(id, 50, 4)).toBeNull();
  expect(await desk.kinds(loop)).toBeNull();
  expect(await desk.slices(loop)).toBeNull();
  expect(await desk.ownSound({ loop }, soundShapeOf({}), 48000)).toBeNull();
  expect(await desk.shaped(voiceOfSamples([loop.sample]).layers[0]!)).toBeNull();
  expect(await desk.shippedLoop('gone')).toBeNull();
});

test('a sample is decoded once, however often it is asked for at once; one that is gone can be there later', async () => {
  const { store, faults } = memory();
  const load = createSamples(store);
  expect(await load('a'.repeat(64))).toBeNull();
  const [id] = await store.put([tone(60)]);
  faults.reads = 0;
  const [one, two] = await Promise.all([load(id!), load(id!)]);
  expect(two).toBe(one);
  expect(await load(id!)).toBe(one);
  expect(faults.reads).toBe(1);
});

test('what has not been asked for in a while gives its memory back, and is decoded anew when it is wanted', async () => {
  jest.useFakeTimers();
  try {
    const { store, faults } = memory();
    const load = createSamples(store);
    const [id] = await store.put([tone(60)]);
    const first = await load(id!);
    jest.advanceTimersByTime(15_000);
    expect(await load(id!)).toBe(first);
    jest.advanceTimersByTime(15_000);
    expect(await load(id!)).toBe(first);
    expect(faults.reads).toBe(1);
    jest.advanceTimersByTime(21_000);
    expect(await load(id!)).toEqual(first);
    expect(faults.reads).toBe(2);
  } finally {
    jest.useRealTimers();
  }
});

test('a wave is drawn by its lowest and highest, and says where its attack is', () => {
  const data = Float32Array.from({ length: 4800 }, (_, at) => (at < 480 ? 0 : at % 2 ? 0.5 : -0.25));
  const wave = deskWaveOf({ rate: 48000, channels: [data] }, 100);
  expect(wave.low[50]).toBe(-0.25);
  expect(wave.high[50]).toBe(0.5);
  expect(wave.high[5]).toBe(0);
  expect(wave.attack).toBeCloseTo(0.01, 2);
});

test('drums that fit come from every kit, one strike is a WAV, slices too', async () => {
  const { store } = memory();
  const desk = createDesk(store);
  const fits = desk.fitting('kick', 'quay', ['snare', 'kick']);
  expect(new Set(fits.map(({ kit }) => kit)).size).toBe(10);
  expect(fits.every(({ instrument }) => instrument === 'kick')).toBe(true);
  const strike = await desk.strike(
    { kit: 'quay', own: { name: '-', voices: {} } },
    newLane('k', 'kick'),
    110,
  );
  expect(String.fromCharCode(...strike.slice(0, 4))).toBe('RIFF');
  const { samples } = await desk.takeIn([{ name: 'loop.wav', bytes: tone(200, 1) }]);
  const slices = await desk.slices({ sample: samples[0]!, marks: [0, 0.5], end: 1, bars: 1, tempo: 240 });
  expect(slices).toHaveLength(2);
}, 60_000);
