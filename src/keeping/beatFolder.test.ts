import fc from 'fast-check';
import { newBeat } from '../../core/document/defaults';
import { readBeat } from '../../core/document/file';
import type { Beat } from '../../core/document/schema';
import { writeBeat } from '../../core/document/text';
import { stepFolder, type BeatFolder, type InStep, type Stepped } from './beatFolder';

const beatOf = (id: string, name: string, tempo = 100): Beat => ({ ...newBeat(id, name, 7), tempo });

/** A machine with its beats, which keeps in step with a folder. */
const machine = (files: Map<string, string>, prefix: string, away = new Map<string, string>()) => {
  let beats: Beat[] = [];
  let inStep: Record<string, InStep> = {};
  let count = 0;
  const deleted: string[] = [];
  const folder: BeatFolder = {
    names: () => Promise.resolve([...files.keys()]),
    read: (name) => Promise.resolve(files.get(name)!),
    write: (name, text) => Promise.resolve(void files.set(name, text)),
    remove: (name) => Promise.resolve(void files.delete(name)),
    putAway: (name) => {
      away.set(`${away.size} ${name}`, files.get(name)!);
      files.delete(name);
      return Promise.resolve();
    },
    putAwayFiles: () => Promise.resolve([...away].map(([name, text]) => ({ name, text }))),
    removeAway: (name) => Promise.resolve(void away.delete(name)),
  };
  const take = (beat: Beat) => {
    const id = beats.some((one) => one.id === beat.id) ? `${prefix}${(count += 1)}` : beat.id;
    beats.push({ ...beat, id });
    return Promise.resolve(id);
  };
  /** Deletes a beat as a person does. @returns it, to be had back */
  const remove = (name: string): Beat => {
    const gone = beats.find((one) => one.name === name)!;
    beats = beats.filter((one) => one !== gone);
    deleted.push(gone.id);
    return gone;
  };
  const step = async (change: Partial<BeatFolder> = {}): Promise<Stepped> => {
    const out = await stepFolder({
      folder: { ...folder, ...change },
      inStep,
      beats: () => Promise.resolve([...beats]),
      deleted: () => Promise.resolve([...deleted]),
      nameBeside: (name) => `${name} (from the folder)`,
      remove: (beat) => Promise.resolve(void remove(beat.name)),
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
    remove,
    restore: (beat: Beat) => {
      deleted.splice(deleted.indexOf(beat.id), 1);
      beats.push(beat);
    },
    /** It is no longer here, though nobody deleted it: damaged, say. */
    lose: (name: string) => (beats = beats.filter((one) => one.name !== name)),
    rename: (from: string, to: string) =>
      (beats = beats.map((one) => (one.name === from ? { ...one, name: to } : one))),
    /** Nothing tells any more that it had been in step: the person wants it kept. */
    forget: (id: string) => delete inStep[id],
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
  expect(told(a.beats())).toEqual(['Ferry 120', 'Ferry 90']);
  // Here the other's stands beside one's own, and is called so; in the folder and there it has the name that it had.
  expect(told(b.beats())).toEqual(['Ferry (from the folder) 120', 'Ferry 90']);
  expect([...files.values()].join('')).not.toContain('from the folder');
  a.edit('Ferry', 77);
  await a.step();
  await b.step();
  expect(told(b.beats())).toContain('Ferry (from the folder) 77');
  // Edited here, it keeps its name there; renamed here, it is renamed there.
  b.edit('Ferry (from the folder)', 66);
  await b.step();
  await a.step();
  expect(told(a.beats())).toContain('Ferry 66');
  b.rename('Ferry (from the folder)', 'Ferry at night');
  await b.step();
  await a.step();
  expect(told(a.beats())).toContain('Ferry at night 66');
  expect([...files.keys()]).toContain('Ferry-at-night.ruddik.json');
});

test('a deletion goes to the other side, with a way back on both', async () => {
  const [files, away] = [new Map<string, string>(), new Map<string, string>()];
  const [a, b] = [machine(files, 'a', away), machine(files, 'b', away)];
  a.set([beatOf('1', 'Ferry'), beatOf('2', 'Tarps')]);
  await a.step();
  await b.step();
  const gone = a.remove('Ferry');
  expect((await a.step()).putAway).toEqual(['Ferry']);
  expect([...files.keys()]).toEqual(['Tarps.ruddik.json']);
  expect([...away.values()]).toEqual([writeBeat(gone)]);
  expect((await a.step()).taken).toEqual([]);
  expect((await b.step()).deleted).toEqual(['Ferry']);
  expect(told(b.beats())).toEqual(['Tarps 100']);
  a.restore(gone);
  await a.step();
  expect([...files.keys()].sort()).toEqual(['Ferry.ruddik.json', 'Tarps.ruddik.json']);
  // It is no deleted one any more: if its file goes, that is another matter.
  expect(away.size).toBe(0);
  await b.step();
  expect(told(b.beats())).toEqual(['Ferry 100', 'Tarps 100']);
});

test('deleted here, but changed there since: it comes back; deleted there, but changed here since: it is written again', async () => {
  const [files, away] = [new Map<string, string>(), new Map<string, string>()];
  const [a, b] = [machine(files, 'a', away), machine(files, 'b', away)];
  a.set([beatOf('1', 'Ferry'), beatOf('2', 'Tarps')]);
  await a.step();
  await b.step();
  b.edit('Ferry', 140);
  await b.step();
  a.remove('Ferry');
  expect((await a.step()).taken).toEqual(['Ferry']);
  expect(told(a.beats())).toContain('Ferry 140');
  b.remove('Tarps');
  await b.step();
  a.edit('Tarps', 70);
  expect((await a.step()).written).toEqual(['Tarps']);
  await b.step();
  expect(told(b.beats())).toContain('Tarps 70');
});

test('a file that is gone without a word is asked about and neither written nor deleted till then; wanted, it is written', async () => {
  const files = new Map<string, string>();
  const a = machine(files, 'a');
  a.set([beatOf('1', 'Ferry'), beatOf('2', 'Tarps')]);
  await a.step();
  files.clear();
  for (let round = 0; round < 2; round++) {
    const out = await a.step();
    expect(out.gone.map(({ name }) => name)).toEqual(['Ferry', 'Tarps']);
    expect(files.size).toBe(0);
    expect(a.beats()).toHaveLength(2);
  }
  a.forget('1');
  await a.step();
  expect([...files.keys()]).toEqual(['Ferry.ruddik.json']);
});

test('what is missing here though nobody deleted it is taken back from its file', async () => {
  const files = new Map<string, string>();
  const a = machine(files, 'a');
  a.set([beatOf('1', 'Ferry')]);
  await a.step();
  a.lose('Ferry');
  expect((await a.step()).taken).toEqual(['Ferry']);
  expect(files.size).toBe(1);
});

test('a beat that is renamed renames its file, and is the same beat on the other machine', async () => {
  const files = new Map<string, string>();
  const [a, b] = [machine(files, 'a'), machine(files, 'b')];
  a.set([beatOf('1', 'Ferry'), beatOf('2', 'tarps')]);
  await a.step();
  await b.step();
  a.rename('Ferry', 'Tarps');
  await a.step();
  // Some systems take capitals and small letters for the same.
  expect([...files.keys()].sort()).toEqual(['Tarps 2.ruddik.json', 'tarps.ruddik.json']);
  const out = await b.step();
  expect([out.gone, out.beside, out.deleted]).toEqual([[], [], []]);
  expect(told(b.beats())).toEqual(['Tarps 100', 'tarps 100']);
  // A person who moves the file moves nothing else.
  files.set('At the pier.ruddik.json', files.get('tarps.ruddik.json')!);
  files.delete('tarps.ruddik.json');
  for (const one of [a, b, a]) {
    const { written, taken, gone } = await one.step();
    expect([written, taken, gone]).toEqual([[], [], []]);
  }
  expect([...files.keys()]).toContain('At the pier.ruddik.json');
});

test('what cannot be read is told and left as it is', async () => {
  const files = new Map([
    ['Junk.ruddik.json', '{'],
    ['notes.txt', 'rain'],
  ]);
  const a = machine(files, 'a');
  a.set([beatOf('1', 'Ferry')]);
  const out = await a.step();
  expect(out.refused.map(({ file }) => file)).toEqual(['Junk.ruddik.json']);
  files.set('Ferry.ruddik.json', '{ cut');
  a.edit('Ferry', 77);
  await a.step();
  expect(files.get('Ferry.ruddik.json')).toBe('{ cut');
  expect([...files.values()].some((text) => text.includes('"tempo": 77'))).toBe(true);
});

test('whatever two machines do, and whenever the folder fails, nothing that was in step last is lost', async () => {
  const move = fc.record({
    who: fc.constantFrom(0, 1),
    beat: fc.nat(3),
    tempo: fc.integer({ min: 60, max: 180 }),
    does: fc.constantFrom('edit', 'edit', 'delete', 'rename' as const),
    fails: fc.constantFrom(null, null, 'write', 'remove', 'putAway', 'putAwayFiles', 'removeAway' as const),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(move, { maxLength: 10 }), async (moves) => {
      const [files, away] = [new Map<string, string>(), new Map<string, string>()];
      const all = [machine(files, 'a', away), machine(files, 'b', away)];
      all[0]!.set([beatOf('1', 'Ferry'), beatOf('2', 'Tarps')]);
      await all[0]!.step();
      await all[1]!.step();
      for (const { who, beat, tempo, does, fails } of moves) {
        const mine = all[who]!;
        const one = mine.beats()[beat % Math.max(1, mine.beats().length)];
        if (!one) continue;
        if (does === 'edit') mine.edit(one.name, tempo);
        if (does === 'rename') mine.rename(one.name, `${one.name.slice(0, 20)} ${tempo}`);
        // One that is older than its file is made up for by that.
        const isOld = ![...files.values()].some((text) => (JSON.parse(text) as Beat).tempo === one.tempo);
        const kept = does === 'delete' ? mine.remove(one.name).tempo : does === 'edit' ? tempo : one.tempo;
        const broken = () => Promise.reject(new Error('The folder is gone.'));
        await mine.step(fails ? { [fails]: broken } : {}).catch(() => undefined);
        // What was edited last, or was deleted, is still somewhere: here, there, or among what was put away.
        const everywhere = [
          ...all.flatMap((other) => other.beats().map((it) => it.tempo)),
          ...[...files.values(), ...away.values()].map((text) => (JSON.parse(text) as Beat).tempo),
        ];
        // Deleted here before the folder was told of it, it can be had back by hand alone.
        if (!(does === 'delete' && (fails || isOld))) expect(everywhere).toContain(kept);
      }
      for (let round = 0; round < 4; round++) for (const one of all) await one.step();
      const plain = (one: Beat) => `${one.name.replaceAll(' (from the folder)', '')} ${one.tempo}`;
      expect(all[0]!.beats().map(plain).sort()).toEqual(all[1]!.beats().map(plain).sort());
      expect(all[0]!.beats()).toHaveLength(files.size);
    }),
    { seed: 19, numRuns: 30 },
  );
});
