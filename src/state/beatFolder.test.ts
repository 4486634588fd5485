import fc from 'fast-check';
import { newBeat } from '../../core/document/defaults';
import { readBeat } from '../../core/document/file';
import type { Beat } from '../../core/document/schema';
import { writeBeat } from '../../core/document/text';
import { stepFolder, type BeatFolder, type InStep, type Stepped } from './beatFolder';

const beatOf = (id: string, name: string, tempo = 100): Beat => ({ ...newBeat(id, name, 7), tempo });

/** A machine with its beats, which keeps in step with a folder. */
const machine = (files: Map<string, string>, prefix: string) => {
  let beats: Beat[] = [];
  let inStep: Record<string, InStep> = {};
  let count = 0;
  const folder: BeatFolder = {
    names: () => Promise.resolve([...files.keys()]),
    read: (name) => Promise.resolve(files.get(name)!),
    write: (name, text) => Promise.resolve(void files.set(name, text)),
  };
  const take = (beat: Beat) => {
    const id = beats.some((one) => one.id === beat.id) ? `${prefix}${(count += 1)}` : beat.id;
    beats.push({ ...beat, id });
    return Promise.resolve(id);
  };
  const step = async (change: Partial<BeatFolder> = {}): Promise<Stepped> => {
    const out = await stepFolder({
      folder: { ...folder, ...change },
      inStep,
      beats: () => Promise.resolve([...beats]),
      read: (text) => Promise.resolve(readBeat(text)),
      take,
      replace: async (was, beat) => {
        beats = beats.filter((one) => one.id !== was.id);
        return take({ ...beat, id: `${prefix}${(count += 1)}` });
      },
    });
    inStep = out.inStep;
    return out;
  };
  return {
    step,
    beats: () => beats,
    set: (next: Beat[]) => (beats = next),
    edit: (name: string, tempo: number) =>
      (beats = beats.map((one) => (one.name === name ? { ...one, tempo } : one))),
  };
};
const told = (beats: Beat[]) => beats.map(({ name, tempo }) => `${name} ${tempo}`).sort();

test('beats of one machine come to the other, and edits go both ways', async () => {
  const files = new Map<string, string>();
  const [a, b] = [machine(files, 'a'), machine(files, 'b')];
  a.set([beatOf('1', 'Ferry'), beatOf('2', 'Ferry'), beatOf('3', 'Tarps')]);
  expect((await a.step()).written).toHaveLength(3);
  expect([...files.keys()].sort()).toEqual(['Ferry 2.ruddik.json', 'Ferry.ruddik.json', 'Tarps.ruddik.json']);
  await b.step();
  expect(told(b.beats())).toEqual(told(a.beats()));
  b.edit('Tarps', 140);
  await b.step();
  await a.step();
  expect(told(a.beats())).toContain('Tarps 140');
  expect(a.beats()).toHaveLength(3);
  expect((await a.step()).written).toEqual([]);
  expect((await b.step()).taken).toEqual([]);
});

test('changed on both sides, both are kept side by side', async () => {
  const files = new Map<string, string>();
  const [a, b] = [machine(files, 'a'), machine(files, 'b')];
  a.set([beatOf('1', 'Ferry')]);
  await a.step();
  await b.step();
  a.edit('Ferry', 120);
  b.edit('Ferry', 90);
  await a.step();
  expect((await b.step()).beside).toEqual(['Ferry']);
  await a.step();
  for (const one of [a, b]) expect(told(one.beats())).toEqual(['Ferry 120', 'Ferry 90']);
});

test('what cannot be read is told and left as it is; a file that was taken away is written anew', async () => {
  const files = new Map([
    ['Junk.ruddik.json', '{'],
    ['notes.txt', 'rain'],
  ]);
  const a = machine(files, 'a');
  a.set([beatOf('1', 'Ferry')]);
  const out = await a.step();
  expect(out.refused.map(({ file }) => file)).toEqual(['Junk.ruddik.json']);
  files.delete('Ferry.ruddik.json');
  await a.step();
  expect(files.get('Ferry.ruddik.json')).toBe(writeBeat(a.beats()[0]!));
  files.set('Ferry.ruddik.json', '{ cut');
  a.edit('Ferry', 77);
  await a.step();
  expect(files.get('Ferry.ruddik.json')).toBe('{ cut');
  expect([...files.values()].some((text) => text.includes('"tempo": 77'))).toBe(true);
});

test('whatever two machines do, and whenever the folder fails, no state that was in step last is lost', async () => {
  const move = fc.record({
    who: fc.constantFrom(0, 1),
    beat: fc.constantFrom('Ferry', 'Tarps'),
    tempo: fc.integer({ min: 60, max: 180 }),
    fails: fc.boolean(),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(move, { maxLength: 12 }), async (moves) => {
      const files = new Map<string, string>();
      const all = [machine(files, 'a'), machine(files, 'b')];
      all[0]!.set([beatOf('1', 'Ferry'), beatOf('2', 'Tarps')]);
      await all[0]!.step();
      await all[1]!.step();
      for (const { who, beat, tempo, fails } of moves) {
        all[who]!.edit(beat, tempo);
        const before = told(all[who]!.beats());
        if (fails)
          await all[who]!.step({ write: () => Promise.reject(new Error('The folder is gone.')) }).catch(
            () => undefined,
          );
        else await all[who]!.step();
        // What was edited last is still there.
        expect(told(all[who]!.beats())).toEqual(
          expect.arrayContaining(before.filter((one) => one === `${beat} ${tempo}`)),
        );
      }
      for (let round = 0; round < 3; round++) for (const one of all) await one.step();
      expect(told(all[0]!.beats())).toEqual(told(all[1]!.beats()));
    }),
    { seed: 19, numRuns: 20 },
  );
});
