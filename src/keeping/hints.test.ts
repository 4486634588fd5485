import { hintDone } from '../store/hints';
import { fittingSettings, settingsOf } from './settings';
import { createStore } from '../store/store';

test('a hint that was done stays done, once, and is kept among the settings', () => {
  const store = createStore();
  hintDone(store, 'drag');
  const { view } = store.getState();
  hintDone(store, 'drag');
  expect(store.getState().view).toBe(view);
  expect(settingsOf(view).hintsDone).toEqual(['drag']);
});

test('hints that are none are not read back', () => {
  expect(fittingSettings({ hintsDone: ['open', 'box'] })).toEqual({
    settings: { hintsDone: ['open', 'box'] },
    junk: false,
  });
  expect(fittingSettings({ hintsDone: ['open', 'somewhere'] })).toEqual({ settings: {}, junk: true });
  expect(fittingSettings({ hintsDone: 'open' }).junk).toBe(true);
});
