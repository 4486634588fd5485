import { newBeat } from '../../core/document/defaults';
import { tellAlongside } from './alongside';
import { beatEdited, beatOpened, laneChanged, redone, undone } from '../store/doc';
import { loadEdits } from '../store/deferredEdits';
import { createStore } from '../store/store';

let store: ReturnType<typeof createStore>;
let end: () => void;
const notices = () => store.getState().notices.map(({ text }) => text);
const rest = () => jest.advanceTimersByTime(400);
const note = (to: number, gesture?: string) =>
  store.dispatch(laneChanged({ laneId: 'snare', change: { note: to }, ...(gesture && { gesture }) }));
const ALIKE =
  'Kick and Snare are both note 36 on channel 10 now: in files and at your devices they are one drum.';

beforeAll(() => loadEdits());
beforeEach(() => {
  jest.useFakeTimers();
  store = createStore();
  store.dispatch(beatOpened({ beat: newBeat('b', 'Ferry', 1) }));
  end = tellAlongside(store);
});
afterEach(() => {
  end();
  jest.useRealTimers();
});

test('a second lane on one note is told once the hand rests', () => {
  note(36);
  expect(notices()).toEqual([]);
  rest();
  expect(notices()).toEqual([ALIKE]);
});

test('what a drag only passes over is not told', () => {
  for (const to of [37, 36, 35]) note(to, 'drag');
  rest();
  expect(notices()).toEqual([]);
});

test('undo, redo and another beat tell nothing', () => {
  note(36);
  store.dispatch(undone());
  rest();
  store.dispatch(redone());
  rest();
  const other = newBeat('c', 'Other', 1);
  const lanes = other.lanes.map((lane) => ({ ...lane, note: 40 }));
  store.dispatch(beatOpened({ beat: { ...other, lanes } }));
  rest();
  expect(notices()).toEqual([]);
});

test('a key that changes hands', () => {
  const key = { code: 'KeyQ', at: 'beat' as const, held: false };
  store.dispatch(beatEdited({ edit: { edit: 'duplicatePattern', args: { id: 'z', from: 'a' } } }));
  for (const id of ['a', store.getState().doc.beat!.patterns[1]!.id]) {
    store.dispatch(beatEdited({ edit: { edit: 'setKey', args: { id, key } } }));
    rest();
  }
  const [first, second] = store.getState().doc.beat!.patterns;
  expect(notices()).toEqual([`Key Q begins “${second!.name}” now, and no longer “${first!.name}”.`]);
});
