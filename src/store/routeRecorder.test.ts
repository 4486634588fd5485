import { looked, lookedAt } from './looked.mock';
import { newBeat } from '../../core/document/defaults';
import type { Switched } from '../../core/play/moves/detours';
import { beatOpened } from './doc';
import { loadEdits } from './deferredEdits';
import { recordRoutes } from './routeRecorder';
import { createStore } from './store';

const BAR = 3840;
const SWAPPED = [5, 6, 7, 8, 1, 2, 3, 4];

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const begin = async () => {
  await loadEdits();
  const store = createStore();
  store.dispatch(beatOpened({ beat: newBeat('b', 'Quay', 1) }));
  const clock: { tick: number | null } = { tick: null };
  const to = (tick: number | null) => {
    clock.tick = tick;
    jest.advanceTimersByTime(100);
  };
  const done: Switched[] = [{ at: 0, detour: null }];
  /** The player did it at a tick. */
  const turn = (at: number, route: number[] | null) =>
    void done.push({ at, detour: route && { over: 'bar', route, chance: 1, lanes: null } });
  const routes = () => [...done];
  const play = (playing: boolean) => store.dispatch(looked({ playing }));
  const view = () => lookedAt(store.getState());
  const takes = () => store.getState().doc.beat!.patterns[0]!.takes ?? [];
  return { store, to, turn, routes, play, view, takes, clock, played: () => clock.tick };
};

test('what is switched while it plays becomes takes when play stops, switches falling on slots', async () => {
  const { store, to, turn, routes, play, view, takes, played } = await begin();
  recordRoutes(store, played, routes);
  expect(view().recordingRoutes).toBe(true);
  play(true);
  to(0);
  to(BAR - 50);
  turn(BAR, SWAPPED);
  to(2 * BAR + 1800);
  turn(2 * BAR + 1920, null);
  to(3 * BAR + 10);
  // Asked for and never heard.
  turn(4 * BAR, SWAPPED);
  play(false);
  expect(view().recordingRoutes).toBe(false);
  expect(view().routesPlayed).toMatchObject({ patternId: 'a', from: 0, to: 3 });
  expect(takes().map(({ detour }) => detour?.route ?? null)).toEqual([null, SWAPPED, [3, 4, 3, 4]]);
  expect(takes()).toHaveLength(3);
  expect(takes()[0]!.how).toBe('Routes as they were switched');
});

test('ended before it played it keeps nothing; ended while it plays it keeps what was heard', async () => {
  const one = await begin();
  recordRoutes(one.store, one.played, one.routes)();
  expect(one.takes()).toEqual([]);
  expect(one.view().recordingRoutes).toBe(false);
  const end = recordRoutes(one.store, one.played, one.routes);
  one.play(true);
  one.to(5 * BAR + 100);
  one.to(5 * BAR + 700);
  end();
  expect(one.takes()).toHaveLength(1);
  end();
  expect(one.takes()).toHaveLength(1);
});

test.each([
  [0, 2.4, [0, 2]],
  [0, 2.6, [0, 3]],
  [1.4, 3.1, [1, 3]],
  [1.6, 3.1, [2, 3]],
  [1.6, 1.9, [1, 2]],
])('from pass %d to %d the passes that were heard by half are kept', async (from, to, [first, after]) => {
  const one = await begin();
  recordRoutes(one.store, one.played, one.routes);
  one.play(true);
  one.to(from * BAR);
  one.to(to * BAR);
  one.play(false);
  expect(one.view().routesPlayed).toMatchObject({ from: first, to: after });
});

test('another beat ends it and gets no takes', async () => {
  const { store, to, routes, play, view, takes, played } = await begin();
  recordRoutes(store, played, routes);
  play(true);
  to(0);
  to(3000);
  store.dispatch(beatOpened({ beat: newBeat('other', 'Pier', 2) }));
  expect(view().recordingRoutes).toBe(false);
  expect(view().routesPlayed).toBeNull();
  expect(takes()).toEqual([]);
});
