import { newBeat, newLane } from '../document/defaults';
import { createSounds, soundKey, soundsOfBeat, type Layers } from './sounds';

const RATE = 8000;
const layers = (level: number): Layers => [Float32Array.from([level, level / 2])];

test('a drum is loaded once, however often and by however many lanes it is asked for', async () => {
  const load = jest.fn(() => Promise.resolve(layers(1)));
  const sounds = createSounds(RATE, load);
  const [kick, other] = [newLane('a', 'kick'), newLane('b', 'kick')];
  expect(sounds.ready({ kit: 'quay' }, kick)).toBeNull();
  const [one, two] = await Promise.all([
    sounds.soundsFor({ kit: 'quay' }, kick),
    sounds.soundsFor({ kit: 'quay' }, other),
  ]);
  expect(two).toBe(one);
  expect(await sounds.soundsFor({ kit: 'quay' }, kick)).toBe(one);
  expect(sounds.ready({ kit: 'quay' }, other)).toBe(one);
  expect(load).toHaveBeenCalledTimes(1);
  expect(load).toHaveBeenCalledWith('quay', 'kick', RATE);
});

test('a lane of a shape of its own has a sound of its own, made from the plain one', async () => {
  const load = jest.fn(() => Promise.resolve(layers(1)));
  const sounds = createSounds(RATE, load);
  const short = { ...newLane('a', 'kick'), decay: 0.1 };
  const shaped = await sounds.soundsFor({ kit: 'quay' }, short);
  expect(shaped).not.toBe(await sounds.soundsFor({ kit: 'quay' }, newLane('b', 'kick')));
  expect(shaped.buffers[0]![1]).toBeLessThan(0.5);
  expect(load).toHaveBeenCalledTimes(1);
  expect(soundKey({ kit: 'quay' }, short)).not.toBe(soundKey({ kit: 'quay' }, newLane('b', 'kick')));
  sounds.forget(new Set());
  expect(sounds.ready({ kit: 'quay' }, short)).toBeNull();
  expect(sounds.ready({ kit: 'quay' }, newLane('b', 'kick'))).not.toBeNull();
});

test('what could not be loaded is said, and can be asked for again', async () => {
  let refused = 1;
  const sounds = createSounds(RATE, () =>
    refused-- > 0 ? Promise.reject(new Error('gone')) : Promise.resolve(layers(0.5)),
  );
  const lane = newLane('a', 'snare');
  await expect(sounds.soundsFor({ kit: 'quay' }, lane)).rejects.toThrow('gone');
  expect((await sounds.soundsFor({ kit: 'quay' }, lane)).buffers).toEqual(layers(0.5));
});

test('the lanes of a beat come in their order, synthesized where nothing else is said', async () => {
  const beat = newBeat('b', 'Ferry', 1);
  const all = await soundsOfBeat(createSounds(RATE), beat);
  expect(all).toHaveLength(beat.lanes.length);
  for (const { buffers } of all)
    expect(buffers.every((layer) => layer.some((x) => Math.abs(x) > 0.05))).toBe(true);
});
