/** Every call of the storage fails once, and all of them from some call on, in every flow: nothing is lost, and it is told. */
import { addSection } from '../../core/edit/song';
import { writeBeat } from '../../core/document/text';
import { beatEdited, kitSet, stepSet, tempoSet } from '../store/doc';
import { memoryJournal } from './journal';
import { channel, fromText, living, memory, open, second } from './persistence.mock';
import type { KeyValue } from './storage';

type Page = Awaited<ReturnType<typeof open>>;
type Way = 'once' | 'from then on' | 'slow' | 'closed';

/** A storage whose nth call goes wrong in some way. */
const faulty = () => {
  const inner = memory();
  const state = { calls: 0, at: Infinity, way: 'once' as Way };
  const meet = async (): Promise<void> => {
    state.calls += 1;
    const met =
      state.way === 'once' || state.way === 'slow' ? state.calls === state.at : state.calls >= state.at;
    if (!met) return;
    if (state.way === 'slow') await new Promise((resolve) => setTimeout(resolve, 5));
    else
      throw new Error(state.way === 'closed' ? 'The database connection is closing.' : 'QuotaExceededError');
  };
  const storage: KeyValue & { data: Map<string, string>; full: boolean } = {
    data: inner.data,
    full: false,
    getItem: async (key) => {
      await meet();
      return inner.getItem(key);
    },
    getMany: async (keys) => {
      await meet();
      return inner.getMany(keys);
    },
    setMany: async (entries) => {
      await meet();
      return inner.setMany(entries);
    },
    change: async (asked, work) => {
      await meet();
      return inner.change(asked, work);
    },
    removeMany: async (keys) => {
      await meet();
      return inner.removeMany(keys);
    },
    getAllKeys: async () => {
      await meet();
      return inner.getAllKeys();
    },
  };
  return { storage, state };
};

const FLOWS: Record<string, (page: Page) => Promise<unknown>> = {
  edit: async ({ store, persistence }) => {
    store.dispatch(stepSet({ patternId: 'a', laneId: 'kick', step: 3, on: true }));
    store.dispatch(tempoSet({ tempo: 133 }));
    await persistence.flush();
  },
  new: ({ persistence }) => persistence.create(),
  open: async ({ store, persistence }) => {
    store.dispatch(tempoSet({ tempo: 99 }));
    await persistence.open('second');
    store.dispatch(tempoSet({ tempo: 88 }));
  },
  delete: ({ persistence }) => persistence.remove('second'),
  'delete the open one': ({ persistence }) => persistence.remove('demo'),
  'undo delete': async ({ persistence }) => {
    await persistence.remove('second');
    await persistence.restore('second');
  },
  import: ({ persistence }) =>
    persistence.bringIn('x.json', fromText(writeBeat({ ...second, id: 'third', name: 'Third' }))),
  rename: ({ persistence }) => persistence.rename('second', 'Rain'),
  kit: async ({ store, persistence }) => {
    store.dispatch(kitSet({ kit: 'lantern' }));
    await persistence.flush();
  },
  song: async ({ store, persistence }) => {
    const section = {
      id: 's',
      name: 'Verse',
      pigment: 'weld',
      entries: [],
      silent: [],
    } as unknown as Parameters<typeof addSection>[1];
    store.dispatch(beatEdited({ edit: { edit: 'addSection', args: { section, placeId: 'p', at: null } } }));
    await persistence.flush();
  },
};

/** Flows after which one of the first two beats may be gone. */
const MAY_GO: Record<string, string> = {
  delete: 'second',
  'undo delete': 'second',
  'delete the open one': 'demo',
};

describe.each(Object.keys(FLOWS))('%s', (flow) => {
  test.each(['once', 'from then on', 'slow', 'closed'] as const)(
    'with a fault that comes %s',
    async (way) => {
      // How many calls there are is counted without a fault.
      living.clear();
      const clean = faulty();
      const first = await open(clean.storage, channel()());
      const begun = clean.state.calls;
      await FLOWS[flow]!(first);
      await first.persistence.flush();
      first.kill();
      const calls = clean.state.calls - begun;
      expect(calls).toBeGreaterThan(0);
      for (let at = 1; at <= calls; at++) {
        living.clear();
        const { storage, state } = faulty();
        const page = await open(storage, channel()());
        const before = storage.data.get('beat/second');
        Object.assign(state, { way, at: state.calls + at });
        await FLOWS[flow]!(page);
        await page.persistence.flush();
        const live = page.beat();
        const told = page.texts();
        const where = [flow, way, at];
        // Told wherever the storage did not take something: what was done is done, or a notice says that it is not.
        if (way === 'from then on') expect([...where, told.length > 0]).toEqual([...where, true]);
        state.at = Infinity;
        page.kill();
        const next = await open(memory(storage.data), channel()(), page.journal);
        const again = await next.persistence.beat(live.id);
        expect([...where, again]).toEqual([...where, live]);
        for (const id of ['demo', 'second'])
          if (MAY_GO[flow] !== id)
            expect([...where, id, storage.data.has(`beat/${id}`)]).toEqual([...where, id, true]);
        if (MAY_GO[flow] === 'second' && !storage.data.has('beat/second')) {
          // Gone only as it was asked for: the notice that brings it back is there, with all that it was.
          expect([
            ...where,
            page.state().notices.some(({ subject }) => subject === 'removed/second'),
          ]).toEqual([...where, true]);
          await page.persistence.restore('second');
          expect(JSON.parse(storage.data.get('beat/second')!)).toEqual(JSON.parse(before!));
        }
        next.kill();
      }
    },
  );
});

/** A first visit whose page ends at some call of the storage, after what is done in it. */
const cutShort = async (at: number, work: (page: Page) => Promise<unknown>) => {
  living.clear();
  const { storage, state } = faulty();
  Object.assign(state, { way: 'closed', at });
  const journal = memoryJournal();
  const page = await open(storage, channel()(), journal);
  await work(page);
  page.kill();
  // The page that ended writes no more, whatever it still had under way.
  const next = await open(memory(new Map(storage.data)), channel()(), journal);
  const seen = {
    open: next.beat().id,
    steps: next.beat().patterns[0]!.parts['kick']?.hits.map(({ step }) => step) ?? [],
    kept: ['demo', 'second'].filter((id) => next.storage.data.has(`beat/${id}`)),
    listed: next
      .state()
      .library.beats.map(({ id }) => id)
      .sort(),
  };
  next.kill();
  return { seen, calls: state.calls };
};

test('a first visit that ends at any call of the storage is finished by the next start', async () => {
  const tap = ({ store }: Page) => {
    store.dispatch(stepSet({ patternId: 'a', laneId: 'kick', step: 3, on: true }));
    return Promise.resolve();
  };
  const { calls } = await cutShort(Infinity, tap);
  expect(calls).toBeGreaterThan(8);
  for (let at = 1; at <= calls; at++) {
    const { seen } = await cutShort(at, tap);
    expect([at, seen]).toEqual([
      at,
      {
        open: 'demo',
        steps: expect.arrayContaining([3]),
        kept: ['demo', 'second'],
        listed: ['demo', 'second'],
      },
    ]);
  }
});

test('a demo beat that was deleted or renamed after a first visit stays so', async () => {
  living.clear();
  const page = await open(memory(), channel()());
  await page.persistence.remove('second');
  await page.persistence.rename('demo', 'Rain');
  await page.persistence.flush();
  page.kill();
  const next = await open(memory(page.storage.data), channel()(), page.journal);
  expect(next.state().library.beats.map(({ name }) => name)).toEqual(['Rain']);
  next.kill();
});
