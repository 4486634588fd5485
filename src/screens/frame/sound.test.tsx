/** @jest-environment jsdom */
import { act, render } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/beat/defaults';
import { addPattern } from '../../../core/pattern/patterns';
import { beatOpened, tempoSet } from '../../state/doc';
import { store } from '../../state/session';
import { viewChanged } from '../../state/slices';
import { useClick, useSound } from './sound';

const mockTold: [string, ...unknown[]][] = [];
jest.mock('../../audio/player', () => ({
  setPlayed: (beat: { tempo: number }, patternId: string) => mockTold.push(['played', beat.tempo, patternId]),
  switchPattern: (_: unknown, patternId: string, at: string) => mockTold.push(['switch', patternId, at]),
  setMetronome: (metronome: { on: boolean }) => mockTold.push(['click', metronome.on]),
}));
jest.mock('../../state/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../state/store')>('../../state/store');
  return { store: createStore() };
});

const Sound = () => {
  useSound();
  useClick();
  return null;
};
const tempo = (bpm: number) => act(() => void store.dispatch(tempoSet({ tempo: bpm, gesture: 'drag' })));
const look = (change: Parameters<typeof viewChanged>[0]) =>
  act(() => void store.dispatch(viewChanged(change)));
const later = (ms: number) => act(() => void jest.advanceTimersByTime(ms));

beforeEach(() => {
  jest.useFakeTimers();
  const beat = newBeat('b', 'Quay', 1);
  store.dispatch(beatOpened({ beat: addPattern(beat, 'n', beat.patterns[0]!) }));
  store.dispatch(viewChanged({ patternId: 'a', playing: false }));
  render(
    <Provider store={store}>
      <Sound />
    </Provider>,
  );
  later(700);
  mockTold.length = 0;
});
afterEach(() => jest.useRealTimers());

test('an edit is handed over after a tap has had time to be painted', () => {
  tempo(120);
  expect(mockTold).toEqual([]);
  later(10);
  expect(mockTold).toEqual([['played', 120, 'a']]);
});

test('edits in one go are handed over once', () => {
  for (const bpm of [101, 102, 103]) tempo(bpm);
  later(10);
  expect(mockTold).toEqual([['played', 103, 'a']]);
});

test('while it plays, what follows closely is a drag and is handed over at once', () => {
  look({ playing: true });
  later(1000);
  const before = mockTold.length;
  tempo(111);
  expect(mockTold).toHaveLength(before);
  later(10);
  later(60);
  tempo(112);
  expect(mockTold.at(-1)).toEqual(['played', 112, 'a']);
  later(300);
  tempo(113);
  expect(mockTold.at(-1)).toEqual(['played', 112, 'a']);
  later(10);
  expect(mockTold.at(-1)).toEqual(['played', 113, 'a']);
});

test('while it plays another pattern is switched to; while it does not, it is only what is played next', () => {
  look({ patternId: 'n' });
  later(10);
  expect(mockTold.at(-1)).toEqual(['played', expect.any(Number), 'n']);
  look({ playing: true, switchAt: 'end' });
  later(10);
  look({ patternId: 'a' });
  later(10);
  expect(mockTold.at(-1)).toEqual(['switch', 'a', 'end']);
});

test('the click is told where it is wanted', () => {
  const { metronome } = store.getState().view;
  look({ playing: true, metronome: { ...metronome, on: true, onlyRecording: true } });
  expect(mockTold.at(-1)).toEqual(['click', false]);
  look({ metronome: { ...metronome, on: true, onlyRecording: false } });
  expect(mockTold.at(-1)).toEqual(['click', true]);
});
