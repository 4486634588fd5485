import type * as Mock from './persistence.mock';
import type * as Deferred from '../store/deferredEdits';
import type * as Doc from '../store/doc';
import { memoryJournal } from './journal';

/** A page whose code for edits has not come: what it knows of edits is its own. */
const fresh = () => {
  jest.resetModules();
  const doc = jest.requireActual<typeof Doc>('../store/doc');
  const mock = jest.requireActual<typeof Mock>('./persistence.mock');
  const { loadEdits } = jest.requireActual<typeof Deferred>('../store/deferredEdits');
  return { doc, mock, loadEdits };
};

const settle = (ms = 450) => new Promise((resolve) => setTimeout(resolve, ms));

const LANE = { edit: 'addLane', args: { id: 'bell', instrument: 'cowbell' } } as const;

/** One page that makes an edit, and another one, beside it, that has nothing to make it with. */
const two = async (hears: boolean) => {
  const first = fresh();
  await first.loadEdits();
  const storage = first.mock.memory();
  const tabs = first.mock.channel();
  const one = await first.mock.open(storage, tabs(), memoryJournal());
  const second = fresh();
  // Tabs are counted anew there: one more, so that the two have names of their own.
  await second.mock.open();
  // What another page wrote is there when this one writes; whether it is told before depends on the channel.
  const other = await second.mock.open(storage, hears ? tabs() : second.mock.channel()(), memoryJournal());
  expect(second.doc.hasEdits()).toBe(false);
  one.store.dispatch(first.doc.beatEdited({ edit: LANE }));
  await one.persistence.flush();
  return { one, other, second };
};

const lanes = ({ beat }: { beat: () => { lanes: { id: string }[] } }): string[] =>
  beat().lanes.map(({ id }) => id);

test('an edit of another tab is done here once the code for it has come', async () => {
  const { one, other, second } = await two(true);
  await settle();
  expect(second.doc.hasEdits()).toBe(true);
  expect(lanes(other)).toContain('bell');
  expect(other.beat()).toEqual(one.beat());
});

test('a tap that is written behind such an edit waits for its code too, and both are kept', async () => {
  const { one, other, second } = await two(false);
  other.store.dispatch(second.doc.stepSet({ patternId: 'a', laneId: 'kick', step: 9, on: true }));
  await other.persistence.flush();
  expect(lanes(other)).toContain('bell');
  expect(other.beat().patterns[0]!.parts['kick']!.hits.some(({ step }) => step === 9)).toBe(true);
  one.persistence.wake();
  await settle();
  expect(one.beat()).toEqual(other.beat());
});
