import { newBeat } from '../../core/document/defaults';
import type { PatternEdit } from '../../core/edit/edits';

const CLEAR: PatternEdit = { edit: 'clearLanes', args: { laneIds: ['kick'] } };

/** A page of its own whose code for edits comes when it is told to. */
const page = () => {
  jest.resetModules();
  const doc = jest.requireActual<typeof import('./doc')>('./doc');
  const { createDeferredEdits } = jest.requireActual<typeof import('./deferredEdits')>('./deferredEdits');
  const { configureStore } = jest.requireActual<typeof import('@reduxjs/toolkit')>('@reduxjs/toolkit');
  const { noticed, noticesReducer } = jest.requireActual<typeof import('./slices')>('./slices');
  let refused = 0;
  let come: (() => void) | null = null;
  const fetched = jest.fn(async () => {
    if (refused > 0) {
      refused -= 1;
      throw new Error('refused');
    }
    await new Promise<void>((resolve) => (come = resolve));
    doc.giveEdits(jest.requireActual<typeof import('../../core/edit/edits')>('../../core/edit/edits'));
  });
  const late = createDeferredEdits({ load: fetched, wait: () => Promise.resolve() });
  const store = configureStore({
    reducer: { doc: doc.docReducer, notices: noticesReducer },
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false }).concat(late.middleware),
  });
  const beat = newBeat('one', 'One', 1);
  store.dispatch(doc.beatOpened({ beat }));
  const tap = (step: number) =>
    store.dispatch(doc.stepSet({ patternId: 'a', laneId: 'kick', step, on: true }));
  const clear = () => store.dispatch(doc.patternsEdited({ patternIds: ['a'], edit: CLEAR }));
  const steps = (of = store.getState().doc.beat!) =>
    (of.patterns[0]!.parts['kick']?.hits ?? []).map(({ step }) => step);
  return {
    doc,
    store,
    late,
    fetched,
    noticed,
    tap,
    clear,
    steps,
    refuse: (times: number) => (refused = times),
    /** The code comes. */
    arrive: async () => {
      for (let turns = 0; !come && turns < 200; turns++) await Promise.resolve();
      come!();
      await late.settled();
    },
  };
};

test('what comes after an edit that waits for its code waits too: a tap is not overtaken', async () => {
  const { tap, clear, steps, arrive } = page();
  tap(1);
  clear();
  tap(5);
  expect(steps()).toEqual([1]);
  await arrive();
  expect(steps()).toEqual([5]);
});

test('a beat that is opened in between keeps what it has: the edit is done where it was meant', async () => {
  const { doc, store, tap, clear, steps, arrive } = page();
  tap(1);
  clear();
  const other = newBeat('two', 'Two', 2);
  store.dispatch(doc.beatOpened({ beat: other }));
  tap(3);
  await arrive();
  expect(store.getState().doc.beat!.id).toBe('two');
  expect(steps()).toEqual([3]);
});

test('code that is refused is asked for again; it is told, and every edit is done in the end', async () => {
  const { store, tap, clear, steps, arrive, refuse, fetched } = page();
  refuse(3);
  tap(1);
  clear();
  tap(7);
  clear();
  tap(9);
  for (let turns = 0; turns < 20; turns++) await Promise.resolve();
  expect(store.getState().notices.map(({ text }) => text)).toEqual([
    expect.stringContaining('could not be fetched'),
  ]);
  await arrive();
  expect(steps()).toEqual([9]);
  expect(fetched).toHaveBeenCalledTimes(4);
  expect(store.getState().notices).toEqual([]);
});

test('what is said of an edit is said when it is done', async () => {
  const { store, clear, noticed, arrive } = page();
  clear();
  store.dispatch(noticed({ text: 'The lane was cleared.' }));
  expect(store.getState().notices).toEqual([]);
  await arrive();
  expect(store.getState().notices.map(({ text }) => text)).toEqual(['The lane was cleared.']);
});
