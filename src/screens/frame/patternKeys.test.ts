import { looked, lookedAt } from '../../store/looked.mock';
import { newBeat, newPattern } from '../../../core/document/defaults';
import type { PatternKey } from '../../../core/document/schema';
import { beatOpened } from '../../store/doc';
import { createStore } from '../../store/store';
import { createPatternKeys } from './patternKeys';

const room = (key: Partial<PatternKey> = {}) => {
  const store = createStore();
  const beat = newBeat('b', 'Ferry', 1);
  const fill = {
    ...newPattern('fill', 'Fill'),
    key: { code: 'KeyZ', at: 'beat' as const, held: false, ...key },
  };
  store.dispatch(beatOpened({ beat: { ...beat, patterns: [...beat.patterns, fill] } }));
  store.dispatch(looked({ patternId: 'a' }));
  const toggle = () => store.dispatch(looked({ playing: !store.getState().transport.playing }));
  return { store, keys: createPatternKeys(store, toggle), view: () => lookedAt(store.getState()) };
};

test('a key begins its pattern when it says, and leads back when pressed again', () => {
  const { store, keys, view } = room({ at: 'end' });
  store.dispatch(looked({ playing: true }));
  expect(keys.down('KeyX')).toBe(false);
  expect(keys.down('KeyZ')).toBe(true);
  expect(view()).toMatchObject({ patternId: 'fill', beginsAt: 'end', playing: true });
  expect(keys.up('KeyZ')).toBe(false);
  keys.down('KeyZ');
  expect(view()).toMatchObject({ patternId: 'a', playing: true });
});

test('held, it plays until it is let go; where nothing played it begins and ends play', () => {
  const { keys, view } = room({ held: true, at: 'now' });
  keys.down('KeyZ');
  expect(view()).toMatchObject({ patternId: 'fill', playing: true });
  expect(keys.up('KeyZ')).toBe(true);
  expect(view()).toMatchObject({ patternId: 'a', playing: false });
});

test('another pattern that is shown by hand begins as the setting says again', () => {
  const { store, keys, view } = room({ at: 'now' });
  keys.down('KeyZ');
  store.dispatch(looked({ patternId: 'a' }));
  expect(view().beginsAt).toBeNull();
});
