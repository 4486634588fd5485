import { voiceOfDrum } from '../../core/samples/newVoice';
import { forgetKit, keepKit, keptKits } from './keptKits';
import { memory } from './storage.mock';

const kit = (id: string, name: string) => ({
  id,
  kit: 'quay',
  own: { name, voices: { kick: voiceOfDrum('attic', 'kick') } },
});

test('kits are kept each by itself, listed by name, forgotten one by one', async () => {
  const storage = memory();
  await Promise.all([keepKit(storage, kit('a', 'Tarps')), keepKit(storage, kit('b', 'Crates'))]);
  expect(await keptKits(storage)).toEqual([kit('b', 'Crates'), kit('a', 'Tarps')]);
  const bringBack = await forgetKit(storage, kit('b', 'Crates'));
  expect((await keptKits(storage)).map(({ own }) => own.name)).toEqual(['Tarps']);
  await bringBack();
  expect(await keptKits(storage)).toEqual([kit('b', 'Crates'), kit('a', 'Tarps')]);
});

test('what cannot be read stays where it is, and does not keep the others out', async () => {
  const storage = memory();
  await storage.setMany({ 'kit/x': '{', 'kit/y': JSON.stringify({ kit: 'quay', own: { name: '' } }) });
  await keepKit(storage, kit('a', 'Tarps'));
  expect(await keptKits(storage)).toHaveLength(1);
  expect(await storage.getItem('kit/x')).toBe('{');
});
