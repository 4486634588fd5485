import { newBeat } from '../../core/document/defaults';
import type { Beat } from '../../core/document/schema';
import { keepKit } from './keptKits';
import { roomUsed } from './room';
import { memory } from './storage.mock';

const sample = (letter: string) => ({ id: letter.repeat(64), file: `${letter}.wav`, seconds: 1 });
const voiceOf = (letter: string) => ({
  choose: 'velocity' as const,
  layers: [{ source: { sample: sample(letter) }, low: 1, high: 127 }],
});
const plain = newBeat('b', 'Ferry', 7);
const played: Beat = {
  ...plain,
  lanes: [{ ...plain.lanes[0]!, voice: voiceOf('a') }, ...plain.lanes.slice(1)],
};
const sizes: Record<string, number> = { a: 100, b: 20, c: 7 };
const bytes = {
  names: () => Promise.resolve(['a', 'b', 'c'].map((letter) => letter.repeat(64))),
  sizes: (names: string[]) => Promise.resolve(names.map((name) => sizes[name[0]!]!)),
};

test('what takes room is told by its kind, and only what nothing plays is called unused', async () => {
  const storage = memory();
  await storage.setMany({
    'beat/b': JSON.stringify({ a: 'a'.repeat(64) }).padEnd(92),
    'groove/1': 'y'.repeat(12),
    settings: '{}',
    'log/b/1': 'z',
  });
  await keepKit(storage, { id: 'k', kit: 'quay', own: { name: 'Tarps', voices: { kick: voiceOf('b') } } });
  const room = await roomUsed({ storage, bytes, inReach: () => Promise.resolve(new Set<string>()) });
  expect(room.samples).toEqual({ count: 3, bytes: 127 });
  expect(room.unused).toEqual({ names: ['c'.repeat(64)], bytes: 7 });
  const of = (kind: string) => room.texts.find((one) => one.kind === kind)!;
  expect(of('beats')).toEqual({ kind: 'beats', count: 2, bytes: 'beat/b'.length + 92 + 'log/b/1z'.length });
  expect(of('grooves')).toEqual({ kind: 'grooves', count: 1, bytes: 20 });
  expect(of('kits').count).toBe(1);
  expect(of('other').count).toBe(1);
});

test('what any text names is in use, readable or not: edits not in it yet, what is set aside, newer beats', async () => {
  const name = (letter: string) => letter.repeat(64);
  const all: [string, Record<string, string>][] = [
    ['a', { 'beat/b': JSON.stringify(played) }],
    ['b', { 'aside/x/1': `{"text":"{\\"kind\\": cut ${name('b')}"}` }],
    ['c', { 'state/b': '{"seq":9,"base":4,"first":1,"seen":{}}', 'log/b/000000005': `{"x":"${name('c')}"}` }],
    ['a', { 'log/gone/000000001': `"${name('a')}"` }],
    ['b', { 'beat/newer': `{"kind":"ruddik.beat","version":99,"x":"${name('b')}"}` }],
  ];
  for (const [letter, texts] of all) {
    const storage = memory();
    await storage.setMany(texts);
    const { unused } = await roomUsed({ storage, bytes, inReach: () => Promise.resolve(new Set<string>()) });
    expect([texts, unused!.names]).toEqual([
      texts,
      ['a', 'b', 'c'].filter((one) => one !== letter).map(name),
    ]);
  }
  // An edit that is in the beat's text already says no more than that does.
  const storage = memory();
  await storage.setMany({ 'state/b': '{"seq":9,"base":5}', 'log/b/000000005': `"${name('c')}"` });
  const room = await roomUsed({ storage, bytes, inReach: () => Promise.resolve(new Set([name('a')])) });
  expect(room.unused!.names).toEqual([name('b'), name('c')]);
});

test('where a window does not answer, nothing is called unused; where the storage cannot be read, it throws', async () => {
  const room = await roomUsed({ storage: memory(), bytes, inReach: () => Promise.resolve(null) });
  expect(room.unused).toBeNull();
  const broken = { ...memory(), getAllKeys: () => Promise.reject(new Error('gone')) };
  await expect(
    roomUsed({ storage: broken, bytes, inReach: () => Promise.resolve(new Set<string>()) }),
  ).rejects.toThrow('gone');
});
