/** What one window clears is nothing that another one could still bring back. */
import { beatEdited, undone } from '../store/doc';
import { loadEdits } from '../store/deferredEdits';
import { forgetKit, keepKit } from './keptKits';
import { offer, offerUndo, undoLatest } from '../store/offers';
import { channel, living, memory, open } from './persistence.mock';
import { isTabWord } from './tabs';
import type { OwnKit } from '../../core/document/schema';

beforeEach(() => living.clear());

const idOf = (letter: string) => letter.repeat(64);
const ownOf = (letter: string): OwnKit => ({
  name: 'Own',
  voices: {
    kick: {
      choose: 'velocity',
      layers: [{ source: { sample: { id: idOf(letter), file: 'a.wav', seconds: 1 } }, low: 1, high: 127 }],
    },
  },
});
const kitOf = (own: OwnKit | null) => beatEdited({ edit: { edit: 'setKit', args: { kit: 'quay', own } } });

test('an undo, a deleted beat or a journal of any window keeps a sample in use', async () => {
  await loadEdits();
  const [storage, tabsOf] = [memory(), channel()];
  const [one, two] = [await open(storage, tabsOf()), await open(storage, tabsOf())];
  one.store.dispatch(kitOf(ownOf('a')));
  one.store.dispatch(kitOf(null));
  await one.persistence.flush();
  const seen = async () => [...((await two.persistence.samplesInReach()) ?? ['nobody knows'])];
  expect(await seen()).toContain(idOf('a'));
  one.store.dispatch(undone());
  one.store.dispatch(undone());
  // Done again it would play it.
  expect(await seen()).toContain(idOf('a'));
  await two.persistence.open('second');
  two.store.dispatch(kitOf(ownOf('b')));
  await two.persistence.flush();
  await two.persistence.remove('second');
  expect([...(await one.persistence.samplesInReach())!]).toContain(idOf('b'));
  two.journal.write('edits/gone/1', JSON.stringify({ id: 'x', item: { kit: ownOf('c') } }));
  expect([...(await one.persistence.samplesInReach())!]).toContain(idOf('c'));
});

test('a window that does not answer is not spoken for', async () => {
  const page = await open();
  living.add('an older build');
  expect(await page.persistence.samplesInReach()).toBeNull();
});

test('a kit that was forgotten keeps its samples in use, and undo brings it back unless something was edited since', async () => {
  const page = await open();
  const kit = { id: 'k', kit: 'quay', own: ownOf('d') };
  await keepKit(page.storage, kit);
  const bringBack = await forgetKit(page.storage, kit);
  expect([...(await page.persistence.samplesInReach())!]).toContain(idOf('d'));
  let back = 0;
  offerUndo(() => (back += 1), page.beat());
  offer(() => undefined);
  expect([undoLatest({}), back]).toEqual([false, 0]);
  offerUndo(() => (back += 1), page.beat());
  expect([undoLatest(page.beat()), back]).toEqual([true, 1]);
  expect([undoLatest(page.beat()), back]).toEqual([false, 1]);
  await bringBack();
  expect(await page.storage.getItem('kit/k')).toContain(idOf('d'));
});

test.each([
  null,
  7,
  'saved',
  {},
  { type: 'saved' },
  { type: 'constructor', id: 'a' },
  { type: '__proto__', id: 'a' },
  { type: 'edits', id: 'a', from: 1, items: [null] },
  { type: 'edits', id: 'a', from: 1, items: [{ tab: 'a', n: 1, entry: { type: 'doc/none' } }] },
  { type: 'reach', to: 'a', tab: 'b', ids: [1] },
])('%j is no word of a tab', (word) => expect(isTabWord(word)).toBe(false));

test('words of tabs are', () => {
  expect(isTabWord({ type: 'saved', id: 'a' })).toBe(true);
  expect(isTabWord({ type: 'reach', to: 'a', tab: 'b', ids: [idOf('a')] })).toBe(true);
});
