/** @jest-environment jsdom */
import { looked } from '../../store/looked.mock';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import { beatOpened, laneChanged, undone } from '../../store/doc';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { SayContext } from '../../ui/say';
import { giveSongClock } from '../../store/songClock';
import { placeText, Transport } from './Transport';
import { loadEdits } from '../../store/deferredEdits';
import { songShown, songTried } from '../../store/transport';

beforeAll(loadEdits);

const mockPlayed: string[] = [];
jest.mock('../../audio/player', () => ({
  startPlaying: (countIn: number) => {
    mockPlayed.push(`play ${countIn}`);
    return Promise.resolve();
  },
  stopPlaying: () => mockPlayed.push('stop'),
  playedTick: () => null,
  playedPattern: () => null,
  playedSongTick: () => null,
  setSongPlayed: () => mockPlayed.push('song'),
}));
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});

const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const type = (label: string, value: string) => {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value } });
  fireEvent.keyDown(field, { key: 'Enter' });
};

beforeEach(() => {
  mockPlayed.length = 0;
  store.dispatch(beatOpened({ beat: newBeat('b', 'Quay', 1) }));
  store.dispatch(looked({ playing: false, countIn: false, patternId: 'a', blind: false }));
  render(
    <Provider store={store}>
      <SayContext value={(text, subject) => void store.dispatch(noticed({ text, subject }))}>
        <Transport />
      </SayContext>
    </Provider>,
  );
});

test('plays and stops, after a bar of count-in where it is wanted', () => {
  press('Play');
  press('Stop');
  act(() => void store.dispatch(looked({ countIn: true })));
  press('Play');
  expect(mockPlayed).toEqual(['play 0', 'stop', 'play 3840']);
  press('Stop');
});

test('while one listens blindly, the swing cannot be changed here; the tempo can', () => {
  const swing = () => store.getState().doc.beat!.feel.swing;
  const before = swing();
  act(() => void store.dispatch(looked({ blind: true })));
  const field = screen.getByRole('spinbutton', { name: 'Swing' });
  fireEvent.keyDown(field, { key: 'ArrowUp' });
  fireEvent.change(field, { target: { value: '61' } });
  fireEvent.blur(field);
  fireEvent.click(screen.getByRole('button', { name: /are the swung notes/ }));
  expect(swing()).toEqual(before);
  expect(field).toHaveProperty('disabled', true);
  fireEvent.keyDown(screen.getByRole('spinbutton', { name: 'Tempo' }), { key: 'ArrowUp' });
  expect(store.getState().doc.beat!.tempo).not.toBe(100);
});

test('tempo and swing are held to their ranges, and it is said', () => {
  type('Tempo', '12');
  expect(store.getState().doc.beat!.tempo).toBe(20);
  expect(store.getState().notices.at(-1)!.text).toContain('12 became 20');
  type('Swing', '61,5');
  expect(store.getState().doc.beat!.feel.swing.percent).toBe(61.5);
  press('16ths are the swung notes');
  expect(store.getState().doc.beat!.feel.swing.grid).toBe('1/8');
});

test('what is muted or soloed is said, and one tap clears it, undoably', () => {
  expect(screen.queryByRole('button', { name: /clear/ })).toBeNull();
  act(() => void store.dispatch(laneChanged({ laneId: 'kick', change: { mute: true } })));
  act(() => void store.dispatch(laneChanged({ laneId: 'clap', change: { solo: true } })));
  press('1 muted, 1 soloed: clear');
  expect(store.getState().doc.beat!.lanes.some(({ mute, solo }) => mute || solo)).toBe(false);
  act(() => void store.dispatch(undone()));
  expect(store.getState().doc.beat!.lanes.filter(({ mute, solo }) => mute || solo)).toHaveLength(2);
});

test('the click is switched on and off', () => {
  press('Metronome');
  expect(store.getState().transport.metronome.on).toBe(true);
  press('Metronome');
  expect(store.getState().transport.metronome.on).toBe(false);
});

test.each([
  [0, '1.1.1'],
  [1200, '1.2.2'],
  [3840, '1.1.1'],
  [-240, '1.4.4'],
])('a place at tick %s of a pattern of one bar is %s', (tick, text) => {
  expect(placeText(newBeat('b', 'B', 1).patterns[0]!, tick)).toBe(text);
});

test('while the song’s screen is open, its place is shown, and play plays it', () => {
  const beat = newBeat('b', 'Quay', 1);
  const entries = [{ id: 'e', patternId: 'a', times: 1 }];
  const sections = [{ id: 's', name: 'Verse', pigment: 'weld' as const, entries, silent: [] }];
  const song = { sections, order: [{ id: 'p', sectionId: 's', times: 1 }] };
  giveSongClock({ length: 3840, placeAt: (tick) => ({ counted: `at ${tick}`, under: 'Verse 0:02' }) });
  act(() => void store.dispatch(beatOpened({ beat: { ...beat, song } })));
  act(() => void store.dispatch(songTried({ tried: null, shown: true, from: 960 })));
  expect(screen.getByText('at 960')).toBeTruthy();
  expect(screen.getByText('Verse 0:02')).toBeTruthy();
  act(() => void store.dispatch(looked({ countIn: false })));
  press('Play');
  expect(mockPlayed).toEqual(['song', 'play 0']);
  press('Stop');
  act(() => void store.dispatch(songShown(false)));
  expect(screen.queryByText('at 960')).toBeNull();
});
