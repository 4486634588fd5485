/** @jest-environment jsdom */
import { GENERAL_MIDI } from '../../../core/midi/drumMap/drumMap';
import { WorkerGone } from '../../workers/caller';
import type { FromImport, GivenFile, Importer } from '../../workers/importer';
import { runImport, type ImportHearer } from './importRun';

jest.mock('comlink', () => ({ ...jest.requireActual<object>('comlink'), proxy: (of: unknown) => of }));

interface Way {
  /** Ends at this file, each time or only the first time. */
  endsAt?: string;
  once?: boolean;
  /** So often it does not come at all. */
  misses?: number;
  /** It does no more once it is told to stop, and does not say so. */
  deaf?: boolean;
}

/** A worker that keeps files one by one, a word for every third. */
const room = (way: Way) => {
  const kept: string[] = [];
  const heard: Parameters<ImportHearer>[0][] = [];
  let [hired, ended] = [0, 0];
  let misses = way.misses ?? 0;
  let broke = false;
  const hire = () => {
    hired += 1;
    let fail: (fault: Error) => void = () => undefined;
    const failed = new Promise<never>((_, reject) => (fail = reject));
    let say: (message: FromImport) => void = () => undefined;
    let [given, unsaid, total, dead] = [0, [] as string[], 0, false];
    const far: Importer = {
      begin: (many, _, hear) => {
        if (misses > 0) {
          misses -= 1;
          return fail(new WorkerGone('failed'));
        }
        [total, say] = [many, hear];
        say({ type: 'more' });
      },
      files: (files, last) => {
        for (const { path } of files) {
          if (dead) return;
          if (path === way.endsAt && !(way.once && broke)) {
            [broke, dead] = [true, true];
            return fail(new WorkerGone('ended'));
          }
          unsaid.push(path);
          given += 1;
          if (given % 3 === 0 || given === total) {
            kept.push(...unsaid);
            unsaid = [];
            say({ type: 'progress', done: given, total, given, taken: [], left: [] });
          }
        }
        if (dead) return;
        if (last) say({ type: 'done', cancelled: false, full: false });
        else say({ type: 'more' });
      },
      cancel: () => {
        if (way.deaf) dead = true;
        if (!dead) say({ type: 'done', cancelled: true, full: false });
      },
    };
    const remote = Object.fromEntries(
      Object.entries(far).map(([name, of]) => [
        name,
        (...all: unknown[]) => Promise.resolve().then(() => (of as (...given: unknown[]) => void)(...all)),
      ]),
    );
    return { far: remote, failed, end: () => (ended += 1) } as never;
  };
  const chosen = (many: number): GivenFile[] =>
    Array.from({ length: many }, (_, at) => ({ path: `${at}.mid`, file: {} as File }));
  const run = (many: number) =>
    runImport({ chosen: chosen(many), map: GENERAL_MIDI, hire, hear: (message) => heard.push(message) });
  const settle = () => jest.advanceTimersByTimeAsync(1500);
  return { run, settle, kept, heard, last: () => heard.at(-1), counts: () => ({ hired, ended }) };
};
const left = (heard: Parameters<ImportHearer>[0][]) =>
  heard.flatMap((message) => (message.type === 'progress' ? message.left : []));
const names = (many: number) => Array.from({ length: many }, (_, at) => `${at}.mid`);

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('all goes well: one worker, and it is ended', async () => {
  const one = room({});
  one.run(20);
  await one.settle();
  expect(one.kept).toEqual(names(20));
  expect(one.last()).toEqual({ type: 'done', cancelled: false, full: false });
  expect(one.counts()).toEqual({ hired: 1, ended: 2 });
});

test('a worker that ends once is replaced, from what was kept on; every file is read', async () => {
  const one = room({ endsAt: '13.mid', once: true });
  one.run(20);
  await one.settle();
  expect(new Set(one.kept)).toEqual(new Set(names(20)));
  expect(left(one.heard)).toEqual([]);
  expect(one.last()).toEqual({ type: 'done', cancelled: false, full: false });
  expect(one.counts().hired).toBe(2);
});

test('the file at which it ends each time is left out and named, all others are read', async () => {
  const one = room({ endsAt: '13.mid' });
  one.run(20);
  await one.settle();
  expect(new Set(one.kept)).toEqual(new Set(names(20).filter((name) => name !== '13.mid')));
  expect(left(one.heard)).toEqual([{ path: '13.mid', why: 'The browser stopped while reading it.' }]);
  expect(one.last()).toEqual({ type: 'done', cancelled: false, full: false });
  const progress = one.heard.flatMap((message) => (message.type === 'progress' ? [message] : [])).at(-1)!;
  expect([progress.done, progress.total]).toEqual([20, 20]);
});

test('a worker that does not come is asked for again; where it never comes that is told', async () => {
  const late = room({ misses: 2 });
  late.run(5);
  await late.settle();
  expect(late.kept).toEqual(names(5));
  const never = room({ misses: 99 });
  never.run(5);
  await never.settle();
  expect(never.last()).toEqual({ type: 'done', cancelled: false, full: false, broken: true });
  expect(never.counts().hired).toBe(3);
});

test('cancel ends it, whether the worker hears it or not', async () => {
  for (const way of [{}, { deaf: true }, { endsAt: '5.mid' }]) {
    const one = room(way);
    const { cancel } = one.run(2000);
    await Promise.resolve();
    cancel();
    await one.settle();
    expect([way, one.last()]).toEqual([way, { type: 'done', cancelled: true, full: false }]);
    expect(one.heard.filter(({ type }) => type === 'done')).toHaveLength(1);
  }
});
