import { newBeat } from '../../core/document/defaults';
import { beatOpened, patternsEdited } from './doc';
import { loadEdits } from './deferredEdits';
import { recordRoutes } from './routeRecorder';
import { viewChanged } from './slices';
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
  const turn = (route: number[] | null) =>
    store.dispatch(
      patternsEdited({
        patternIds: ['a'],
        edit: {
          edit: 'setDetour',
          args: { detour: route && { over: 'bar', route, chance: 1, lanes: null } },
        },
      }),
    );
  const play = (playing: boolean) => store.dispatch(viewChanged({ playing }));
  const view = () => store.getState().view;
  const takes = () => store.getState().doc.beat!.patterns[0]!.takes ?? [];
  return { store, to, turn, play, view, takes, clock, played: () => clock.tick };
};

test('what is switched while it plays becomes takes when play stops, switches falling on slots', async () => {
  const { store, to, turn, play, view, takes, played } = await begin();
  recordRoutes(store, played);
  expect(view().recordingRoutes).toBe(true);
  play(true);
  to(0);
  to(BAR - 50);
  // A little before the bar line, as a change is handed to the sound.
  turn(SWAPPED);
  to(2 * BAR + 2000);
  turn(null);
  to(3 * BAR + 10);
  play(false);
  expect(view().recordingRoutes).toBe(false);
  expect(view().routesPlayed).toMatchObject({ patternId: 'a', from: 0, to: 3 });
  expect(takes().map(({ detour }) => detour?.route ?? null)).toEqual([null, SWAPPED, [3, 4, 3, 4]]);
  expect(takes()).toHaveLength(3);
  expect(takes()[0]!.how).toBe('Routes as they were switched');
});

test('ended before it played it keeps nothing; ended while it plays it keeps what was heard', async () => {
  const one = await begin();
  recordRoutes(one.store, one.played)();
  expect(one.takes()).toEqual([]);
  expect(one.view().recordingRoutes).toBe(false);
  const end = recordRoutes(one.store, one.played);
  one.play(true);
  one.to(5 * BAR + 100);
  one.to(5 * BAR + 700);
  end();
  expect(one.takes()).toHaveLength(1);
  end();
  expect(one.takes()).toHaveLength(1);
});

test('another beat ends it and gets no takes', async () => {
  const { store, to, play, view, takes, played } = await begin();
  recordRoutes(store, played);
  play(true);
  to(0);
  to(3000);
  store.dispatch(beatOpened({ beat: newBeat('other', 'Pier', 2) }));
  expect(view().recordingRoutes).toBe(false);
  expect(view().routesPlayed).toBeNull();
  expect(takes()).toEqual([]);
});
