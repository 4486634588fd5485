/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import { beatOpened } from '../../store/doc';
import { store } from '../../keeping/session';
import { ErrorFallback } from './ErrorFallback';

let mockPath = '/song';
const mockSaved: string[] = [];
jest.mock('expo-router', () => ({ usePathname: () => mockPath }));
jest.mock('../saveBeats', () => ({
  saveBeat: ({ name }: { name: string }) => void mockSaved.push(name),
}));
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});

let broken = false;
const Screen = () => {
  if (broken) throw new Error('a fault');
  return <h1>Song</h1>;
};
const shown = () => (
  <Provider store={store}>
    <ErrorFallback>
      <Screen />
    </ErrorFallback>
  </Provider>
);

beforeEach(() => {
  broken = true;
  mockPath = '/song';
  jest.spyOn(console, 'error').mockImplementation(() => undefined);
});
afterEach(() => jest.restoreAllMocks());

test('a fault of a screen is said in words, and the beat can be saved', () => {
  store.dispatch(beatOpened({ beat: newBeat('b', 'Quay', 1) }));
  render(shown());
  const said = screen.getByRole('alert').textContent!;
  expect(said).toContain('Your beat is kept');
  expect(said).not.toContain('a fault');
  fireEvent.click(screen.getByRole('button', { name: 'Save the beat as a file' }));
  expect(mockSaved).toEqual(['Quay']);
});

test('the screen is shown again when it is asked for, and another screen is there at once', () => {
  const { rerender } = render(shown());
  fireEvent.click(screen.getByRole('button', { name: 'Show it again' }));
  expect(screen.getByRole('alert')).toBeTruthy();
  broken = false;
  fireEvent.click(screen.getByRole('button', { name: 'Show it again' }));
  expect(screen.getByRole('heading', { name: 'Song' })).toBeTruthy();
  broken = true;
  rerender(shown());
  expect(screen.getByRole('alert')).toBeTruthy();
  broken = false;
  mockPath = '/feel';
  rerender(shown());
  expect(screen.queryByRole('alert')).toBeNull();
});
