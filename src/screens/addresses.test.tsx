/** @jest-environment jsdom */
import { looked } from '../store/looked.mock';
import { act, render } from '@testing-library/react';
import { useEffect, useState } from 'react';
import { Provider } from 'react-redux';
import { newBeat } from '../../core/document/defaults';
import { beatOpened } from '../store/doc';
import { createStore } from '../store/store';
import { keep } from '../ui/useKept';
import { ADDRESSED } from './addresses';

/** The parameters of an address, and one goes to another. */
let params: Record<string, string> = {};
let goTo: (params: Record<string, string>) => void = () => undefined;

const Route = ({ name, first }: { name: string; first: Record<string, string> }) => {
  const [now, set] = useState(first);
  useEffect(() => {
    params = now;
    goTo = set;
  }, [now]);
  const Addressed = ADDRESSED[name]!;
  return (
    <Addressed
      params={now}
      setParams={(change) =>
        set((before) =>
          Object.fromEntries(
            Object.entries({ ...before, ...change }).flatMap(([key, value]) =>
              value === undefined ? [] : [[key, value]],
            ),
          ),
        )
      }
    />
  );
};

const at = (name: string, first: Record<string, string> = {}) => {
  const store = createStore();
  store.dispatch(beatOpened({ beat: newBeat('b', 'Ferry', 1) }));
  const { unmount } = render(
    <Provider store={store}>
      <Route name={name} first={first} />
    </Provider>,
  );
  return { store, unmount };
};

test('an address opens the page that it tells, and the page that is opened stands in it', () => {
  const { store } = at('index', { drawer: 'pads' });
  expect(store.getState().look.drawer).toBe('pads');
  act(() => void store.dispatch(looked({ drawer: 'make', sheet: 'kits' })));
  expect(params).toEqual({ drawer: 'make', sheet: 'kits' });
  act(() => void store.dispatch(looked({ drawer: 'hits', sheet: null })));
  expect(params).toEqual({});
  act(() => goTo({ sheet: 'loop' }));
  expect(store.getState().look.sheet).toBe('loop');
});

test('an address that tells of nothing that there is becomes the plain one, and nothing is opened', () => {
  const { store } = at('index', { drawer: 'cellar', sheet: '__proto__' });
  expect(store.getState().look.drawer).toBe('hits');
  expect(store.getState().look.sheet).toBeNull();
  expect(params).toEqual({});
});

test('what was kept of a page is told again by an address that says nothing of it', () => {
  act(() => keep('feel page', 'charts'));
  const { unmount } = at('feel');
  expect(params).toEqual({ page: 'charts' });
  // A link to the screen leaves the page as it was.
  act(() => goTo({}));
  expect(params).toEqual({ page: 'charts' });
  act(() => goTo({ page: 'report' }));
  expect(params).toEqual({ page: 'report' });
  unmount();
});

test('a section and a groove stand in the address of their screens', () => {
  const song = at('song', { section: 'nobody' });
  expect(params).toEqual({});
  song.unmount();
  const { store } = at('grooves', { groove: 'a/b' });
  expect(store.getState().grooves.chosen).toBe('a/b');
});
