/** @jest-environment jsdom */
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import { beatOpened, undone } from '../../state/doc';
import { store } from '../../state/session';
import { KitSheet } from './KitSheet';

const mockDone: string[] = [];
const mockDrums = { fails: false };
jest.mock('../../state/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../state/store')>('../../state/store');
  return { store: createStore() };
});
jest.mock('../../audio/player', () => ({
  strikeDrum: (kit: string, drum: string) => {
    mockDone.push(`${kit} ${drum}`);
    return Promise.resolve();
  },
}));
jest.mock('../../workers/askDrum', () => ({
  askDrum: (_: string, instrument: string) =>
    Promise.resolve(
      mockDrums.fails
        ? null
        : {
            instrument,
            soundsAs: instrument === 'clap' ? 'snare' : instrument,
            wave: [0.5],
            bands: [0.5],
            seconds: 1,
            ring: 0.25,
            centroid: 3210,
            strikes: 3,
          },
    ),
}));
jest.mock('../../strings/DrumPicture', () => ({ DrumPicture: () => null }));
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../ui/Sheet', () => ({
  Sheet: ({ title, children }: { title: string; children: unknown }) => (
    <section aria-label={title}>{children as never}</section>
  ),
}));

const show = async () => {
  store.dispatch(beatOpened({ beat: newBeat('b', 'Quay', 1) }));
  render(
    <Provider store={store}>
      <KitSheet onClose={() => undefined} />
    </Provider>,
  );
  await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
};
const press = async (name: RegExp | string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
};
const kit = () => store.getState().doc.beat!.kit;

beforeEach(() => {
  mockDone.splice(0);
  mockDrums.fails = false;
  window.matchMedia = jest
    .fn()
    .mockReturnValue({ matches: false, addEventListener: jest.fn(), removeEventListener: jest.fn() });
});

test('a kit is chosen by what is told of it, is what the drums are heard on, and is one step of the history', async () => {
  await show();
  const shutters = () => screen.getByRole('button', { name: /^Shutters, Found on the night market/ });
  expect(shutters().getAttribute('aria-pressed')).toBe('false');
  await press(/^Shutters/);
  expect(shutters().getAttribute('aria-pressed')).toBe('true');
  expect(kit()).toBe('shutters');
  await press('Hear Snare');
  expect(mockDone).toEqual(['shutters snare']);
  act(() => void store.dispatch(undone()));
  expect(kit()).toBe('quay');
});

test('each drum says what it is like, and as what it sounds where the kit has none of its own', async () => {
  await show();
  const told = await screen.findByText('sounds as Snare, rings 0.25 s, bright at 3.2 kHz, 3 strikes');
  expect(told).toBeTruthy();
  await waitFor(() =>
    expect(screen.getAllByText('rings 0.25 s, bright at 3.2 kHz, 3 strikes').length).toBeGreaterThan(2),
  );
  expect(screen.queryByRole('button', { name: 'Hear Long guiro' })).toBeNull();
  await press('All drums');
  expect(screen.getByRole('button', { name: 'Hear Long guiro' })).toBeTruthy();
  await press('In the beat');
});

test('drums that could not be measured are said, heard all the same, and asked for again', async () => {
  mockDrums.fails = true;
  await show();
  expect(await screen.findByText('The drums could not be measured.')).toBeTruthy();
  await press('Hear Kick');
  expect(mockDone).toEqual(['quay kick']);
  mockDrums.fails = false;
  await press('Try again');
  await waitFor(() => expect(screen.queryByText('The drums could not be measured.')).toBeNull());
});
