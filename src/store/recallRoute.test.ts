import { looked } from './looked.mock';
import { newBeat } from '../../core/document/defaults';
import type { Detour } from '../../core/document/schema';
import { beatEdited, beatOpened, undone } from './doc';
import { loadEdits } from './deferredEdits';
import { recallRoute } from './recallRoute';
import { createStore } from './store';
import { playBegan } from './transport';

const SWAPPED = [5, 6, 7, 8, 1, 2, 3, 4];
const BACKWARD = [8, 7, 6, 5, 4, 3, 2, 1];

const never = () => Promise.reject(new Error('The player is not asked.'));

const begin = async () => {
  await loadEdits();
  const store = createStore();
  store.dispatch(beatOpened({ beat: { ...newBeat('b', 'Quay', 1), tempo: 120 } }));
  for (const [id, route] of [
    ['x', SWAPPED],
    ['y', BACKWARD],
  ] as const)
    store.dispatch(
      beatEdited({ edit: { edit: 'keepRoute', args: { id, name: `Route ${id}`, route: [...route] } } }),
    );
  const detour = () => store.getState().doc.beat!.patterns[0]!.detour;
  return { store, detour };
};

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('a kept route is recalled at once while nothing plays, is one step of the history, and 0 is as written', async () => {
  const { store, detour } = await begin();
  expect(recallRoute(store, 2, null, never)).toBe(true);
  expect(detour()).toEqual({ over: 'bar', chance: 1, lanes: null, route: BACKWARD });
  store.dispatch(undone());
  expect(detour()).toBeUndefined();
  recallRoute(store, 1, null, never);
  recallRoute(store, 0, null, never);
  expect(detour()).toBeUndefined();
});

test('while a pattern plays the player is asked, and the page shows it once it is heard; the last one asked for counts', async () => {
  const { store, detour } = await begin();
  store.dispatch(looked({ playing: true }));
  const turn = jest.fn((_: Detour | null, __: number) => Promise.resolve<number | null>(200));
  recallRoute(store, 1, 2 * 480 + 100, turn);
  expect(turn).toHaveBeenCalledWith({ over: 'bar', chance: 1, lanes: null, route: SWAPPED }, 480);
  await jest.advanceTimersByTimeAsync(190);
  expect(detour()).toBeUndefined();
  await jest.advanceTimersByTimeAsync(20);
  expect(detour()!.route).toEqual(SWAPPED);
  store.dispatch(looked({ routesAt: 'bar' }));
  recallRoute(store, 0, 1920, turn);
  recallRoute(store, 2, 1920, turn);
  expect(turn).toHaveBeenLastCalledWith({ over: 'bar', chance: 1, lanes: null, route: BACKWARD }, 3840);
  await jest.advanceTimersByTimeAsync(210);
  expect(detour()!.route).toEqual(BACKWARD);
  // A player that plays no pattern any more: at once.
  turn.mockResolvedValue(null);
  recallRoute(store, 1, 1920, turn);
  await jest.advanceTimersByTimeAsync(0);
  expect(detour()!.route).toEqual(SWAPPED);
});

test('in a song it is handed to the sound a little ahead', async () => {
  const { store, detour } = await begin();
  store.dispatch(looked({ playing: true }));
  store.dispatch(playBegan(true));
  // 100 ticks into a slot of an eighth, which is 250 ms long at 120 BPM: 198 ms are left of it.
  recallRoute(store, 1, 2 * 480 + 100, never);
  await jest.advanceTimersByTimeAsync(150);
  expect(detour()).toBeUndefined();
  await jest.advanceTimersByTimeAsync(20);
  expect(detour()!.route).toEqual(SWAPPED);
});

test('what was asked for in one pattern is not done in another that is shown by then', async () => {
  const { store, detour } = await begin();
  store.dispatch(beatEdited({ edit: { edit: 'duplicatePattern', args: { id: 'n', from: 'a' } } }));
  store.dispatch(looked({ playing: true }));
  recallRoute(store, 1, 100, () => Promise.resolve(400));
  store.dispatch(looked({ patternId: 'n' }));
  await jest.advanceTimersByTimeAsync(2000);
  expect(store.getState().doc.beat!.patterns.map((one) => one.detour)).toEqual([undefined, undefined]);
  expect(detour()).toBeUndefined();
});

test('a route that is not there is none', async () => {
  const { store, detour } = await begin();
  expect(recallRoute(store, 3, null, never)).toBe(false);
  expect(detour()).toBeUndefined();
});
