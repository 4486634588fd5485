/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState, useSyncExternalStore } from 'react';
import { Provider } from 'react-redux';
import { newBeat } from '../../core/document/defaults';
import { beatOpened, beatRenamed } from '../state/doc';
import { createStore, selectBeat, useApp } from '../state/store';
import { keep, useKept } from '../ui/useKept';
import { sinceThen } from '../ui/sinceThen';
import { allShown, firstShown } from '../web/shown';
import { Screens } from './Screens';

let mockPath = '/';
jest.mock('expo-router', () => ({ usePathname: () => mockPath }));

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
jest.mock('./pattern/PatternScreen', () => ({ PatternScreen: () => <MockPage /> }));
jest.mock('../ui/Later', () => ({ Later: () => <p>Another screen</p> }));
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

test('an address without a screen shows none of them', () => {
  mockPath = '/nowhere';
  const { container } = render(
    <Provider store={createStore()}>
      <Screens />
    </Provider>,
  );
  expect(container.textContent).toBe('');
});
