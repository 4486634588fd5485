import { looked } from '../store/looked.mock';
import { newBeat } from '../../core/document/defaults';
import { plainLayout } from '../../core/ports/gridLayout';
import { loadEdits } from '../store/deferredEdits';
import { beatOpened } from '../store/doc';
import { createStore } from '../store/store';
import { createGrids } from './grids';

const LAYOUT = { ...plainLayout(16, 16), channel: 3 };
/** Twenty lanes: more than half of the surface has something to show. */
const beat = () => {
  const one = newBeat('b', 'Ferry', 1);
  const lanes = Array.from({ length: 15 }, (_, at) => ({ ...one.lanes[0]!, id: `l${at}`, name: `L${at}` }));
  return { ...one, lanes };
};

const grid = () => {
  const store = createStore();
  store.dispatch(beatOpened({ beat: beat() }));
  store.dispatch(looked({ patternId: 'a' }));
  const sent: [number, number, number][] = [];
  let tick: number | null = null;
  const grids = createGrids({ store, now: () => 0, playedTick: () => tick });
  const send = (bytes: readonly number[]) => void sent.push([(bytes[0]! & 15) + 1, bytes[1]!, bytes[2]!]);
  grids.set([{ name: 'pads', layout: LAYOUT, send }]);
  const hitsOf = (laneId: string) =>
    store
      .getState()
      .doc.beat!.patterns[0]!.parts[laneId]?.hits.map(({ step, velocity }) => [step, velocity]) ?? [];
  const at = (to: number) => {
    tick = to;
    store.dispatch(looked({ playing: true }));
    sent.length = 0;
    grids.draw();
  };
  return { store, grids, sent, hitsOf, at };
};

beforeAll(() => loadEdits());

test('all 256 pads are lit, on two channels; the upper half puts hits, as hard as it is struck', () => {
  const { grids, sent, hitsOf } = grid();
  expect(new Set(sent.map(([channel, note]) => `${channel} ${note}`)).size).toBe(256);
  expect(sent.filter(([channel]) => channel === 4)).toHaveLength(128);
  sent.length = 0;
  // The first row from the top is numbers 240 to 255: notes 112 to 127 of the second channel.
  expect(grids.take('pads', [0x93, 114, 37])).toBe(true);
  expect(hitsOf('l0')).toEqual([[2, 37]]);
  expect(sent).toEqual([[4, 114, LAYOUT.lights.soft]]);
  grids.take('pads', [0x93, 114, 99]);
  expect(hitsOf('l0')).toEqual([]);
  // The last lane stands over the buttons, on the first channel; what comes on a third one is nobody's.
  grids.take('pads', [0x92, 16, 120]);
  expect(hitsOf('l14')).toEqual([[0, 120]]);
  grids.take('pads', [0x94, 16, 120]);
  expect(hitsOf('l14')).toEqual([[0, 120]]);
});

test('the position goes along as a light of its own', () => {
  const { sent, at } = grid();
  at(240);
  expect(sent).toContainEqual([4, 113, LAYOUT.lights.passing]);
  at(480);
  expect(sent).toContainEqual([4, 113, LAYOUT.lights.off]);
  expect(sent).toContainEqual([4, 114, LAYOUT.lights.passing]);
});
