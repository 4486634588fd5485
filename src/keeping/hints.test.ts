import { hintDone } from '../store/look';
import { fittingSettings, settingsOf } from './settings';
import { createStore } from '../store/store';

test('a hint that was done stays done, once, and is kept among the settings', () => {
  const store = createStore();
  store.dispatch(hintDone('drag'));
  const { look } = store.getState();
  store.dispatch(hintDone('drag'));
  expect(store.getState().look).toBe(look);
  expect(settingsOf(store.getState()).hintsDone).toEqual(['drag']);
});

test('hints that are none are not read back', () => {
  expect(fittingSettings({ hintsDone: ['open', 'box'] })).toEqual({
    settings: { hintsDone: ['open', 'box'] },
    junk: false,
  });
  expect(fittingSettings({ hintsDone: ['open', 'somewhere'] })).toEqual({ settings: {}, junk: true });
  expect(fittingSettings({ hintsDone: 'open' }).junk).toBe(true);
});
