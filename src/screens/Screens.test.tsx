/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState, useSyncExternalStore, type ReactNode } from 'react';
import { Provider } from 'react-redux';
import { newBeat } from '../../core/document/defaults';
import { beatOpened, beatRenamed } from '../store/doc';
import { libraryRead } from '../store/slices';
import { createStore, selectBeat, useApp } from '../store/store';
import { keep, useKept } from '../ui/useKept';
import { sinceThen } from '../ui/sinceThen';
import { allShown, firstShown } from '../web/shown';
import { Screens } from './Screens';

let mockPath = '/';
const mockRoutes = ['index', 'grooves', 'feel', 'song', 'export', 'beats', 'kit', 'ports'];
const mockContent = ({ children }: { children: ReactNode }) => children;
/** The router's tabs, on the route of the address. */
jest.mock('expo-router/ui', () => ({
  useTabsWithTriggers: () => ({
    state: {
      index: mockRoutes.indexOf(mockPath.slice(1) || 'index'),
      routes: mockRoutes.map((name) => ({ key: name, name })),
    },
    descriptors: Object.fromEntries(
      mockRoutes.map((name) => [
        name,
        { render: () => (name === 'index' ? <MockPage /> : <p>Another screen</p>) },
      ]),
    ),
    NavigationContent: mockContent,
  }),
}));

let outside = 1;
const told = new Set<() => void>();
const listen = sinceThen((one) => {
  told.add(one);
  return () => void told.delete(one);
});

const MockPage = () => {
  const name = useApp((state) => selectBeat(state)!.name);
  const [kept] = useKept('what is kept', 'nothing');
  const [count, setCount] = useState(0);
  const out = useSyncExternalStore(listen, () => outside);
  return (
    <button onClick={() => setCount(count + 1)}>{`${name}, ${kept}, ${out}, pressed ${count} times`}</button>
  );
};
let mockFetched = (): Promise<void> => Promise.resolve();
jest.mock('../ui/Later', () => ({
  Later: () => <p>Another screen</p>,
  ahead: () => mockFetched(),
}));
jest.mock('./frame/ErrorFallback', () => ({
  ErrorFallback: ({ children }: { children: unknown }) => children,
}));

test('a screen that was left is as it was, and knows what happened meanwhile', () => {
  const store = createStore();
  store.dispatch(beatOpened({ beat: newBeat('b', 'Quay', 1) }));
  const page = (
    <Provider store={store}>
      <Screens />
    </Provider>
  );
  const { rerender } = render(page);
  const go = (path: string) => {
    mockPath = path;
    rerender(
      <Provider store={store}>
        <Screens />
      </Provider>,
    );
  };
  fireEvent.click(screen.getByRole('button', { name: 'Quay, nothing, 1, pressed 0 times' }));
  go('/feel');
  expect(screen.getByText('Another screen')).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
  act(() => {
    store.dispatch(beatRenamed({ name: 'Wharf' }));
    keep('what is kept', 'something');
    outside = 2;
    told.forEach((one) => one());
  });
  // It is still there, and nothing looks for anything on it.
  expect(firstShown('button')).toBeNull();
  expect(allShown('p').map(({ textContent }) => textContent)).toEqual(['Another screen']);
  // It does nothing while it is put away.
  expect(document.querySelector('button')!.textContent).toBe('Quay, nothing, 1, pressed 1 times');
  expect(told.size).toBe(0);
  go('/');
  expect(screen.getByRole('button', { name: 'Wharf, something, 2, pressed 1 times' })).toBeTruthy();
  expect(firstShown('button')!.textContent).toContain('Wharf');
  expect(allShown('p')).toEqual([]);
});

describe('while nothing else is to be done', () => {
  beforeEach(() => {
    mockFetched = () => Promise.resolve();
    jest.useFakeTimers();
  });
  afterEach(() => jest.useRealTimers());

  const opened = async (path: string) => {
    mockPath = path;
    const store = createStore();
    store.dispatch(beatOpened({ beat: newBeat('b', 'Quay', 1) }));
    const view = render(
      <Provider store={store}>
        <Screens />
      </Provider>,
    );
    await act(() => jest.advanceTimersByTimeAsync(10_000));
    const made = () =>
      [...view.container.querySelectorAll<HTMLElement>('[data-screen]')].map((one) => one.dataset['screen']);
    return { store, made };
  };

  test('the other screens are made ready, put away, once the beats are there', async () => {
    const { store, made } = await opened('/');
    expect(made()).toEqual(['/']);
    act(() => void store.dispatch(libraryRead({ beats: [], aside: [] })));
    await act(() => jest.advanceTimersByTimeAsync(1900));
    expect(made()).toEqual(['/']);
    for (let more = 0; more < 4; more++) await act(() => jest.advanceTimersByTimeAsync(1100));
    expect(made()).toEqual(['/', '/grooves', '/feel', '/song', '/export']);
    expect(allShown('p')).toEqual([]);
    expect(screen.getByRole('button', { name: /^Quay/ })).toBeTruthy();
  });

  test('what cannot be fetched is left for when it is asked for', async () => {
    mockFetched = () => Promise.reject(new Error('gone'));
    const { store, made } = await opened('/');
    act(() => void store.dispatch(libraryRead({ beats: [], aside: [] })));
    await act(() => jest.advanceTimersByTimeAsync(10_000));
    expect(made()).toEqual(['/']);
  });

  test('a page of its own makes none', async () => {
    const { store, made } = await opened('/kit');
    act(() => void store.dispatch(libraryRead({ beats: [], aside: [] })));
    await act(() => jest.advanceTimersByTimeAsync(10_000));
    expect(made()).toEqual(['/kit']);
  });
});
