/** @jest-environment jsdom */
import { looked } from '../../store/looked.mock';
import { act, render } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import { addPattern } from '../../../core/edit/patterns';
import { beatOpened, tempoSet } from '../../store/doc';
import { store } from '../../keeping/session';
import { giveSongClock } from '../../store/songClock';
import type { Beat } from '../../../core/document/schema';
import { accept } from '../../store/offers';
import { togglePlay, useClick, useSongEnd, useSound, useTrouble } from './sound';
import { type SongView, songTried } from '../../store/transport';

const mockTold: [string, ...unknown[]][] = [];
let mockTick: number | null = null;
let mockTrouble: (trouble: string) => void = () => undefined;
jest.mock('../../audio/player', () => ({
  setPlayed: (beat: { tempo: number }, patternId: string) => mockTold.push(['played', beat.tempo, patternId]),
  switchPattern: (_: unknown, patternId: string, at: string) => mockTold.push(['switch', patternId, at]),
  setSongPlayed: (beat: { name: string }, _: string, song: { from: number; loop: unknown }) =>
    mockTold.push(['song', beat.name, song.from, song.loop]),
  startPlaying: () => {
    mockTold.push(['start']);
    return Promise.resolve();
  },
  stopPlaying: () => mockTold.push(['stop']),
  playedSongTick: () => mockTick,
  hearTrouble: (hear: (trouble: string) => void) => {
    mockTrouble = hear;
    return () => undefined;
  },
  setMetronome: (metronome: { on: boolean }) => mockTold.push(['click', metronome.on]),
}));
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});

const Sound = () => {
  useSound();
  useClick();
  useSongEnd();
  useTrouble();
  return null;
};
const tempo = (bpm: number) => act(() => void store.dispatch(tempoSet({ tempo: bpm, gesture: 'drag' })));
const look = (change: Parameters<typeof looked>[0]) => act(() => void store.dispatch(looked(change)));
/** What the player was told, but of the click. */
const told = () => mockTold.filter(([what]) => what !== 'click');
const later = (ms: number) => act(() => void jest.advanceTimersByTime(ms));

beforeEach(() => {
  jest.useFakeTimers();
  const beat = newBeat('b', 'Quay', 1);
  store.dispatch(beatOpened({ beat: addPattern(beat, 'n', beat.patterns[0]!) }));
  store.dispatch(looked({ patternId: 'a', playing: false }));
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
  const { metronome } = store.getState().transport;
  look({ playing: true, metronome: { ...metronome, on: true, onlyRecording: true } });
  expect(mockTold.at(-1)).toEqual(['click', false]);
  look({ metronome: { ...metronome, on: true, onlyRecording: false } });
  expect(mockTold.at(-1)).toEqual(['click', true]);
});

test('where the sound is gone for good play ends, that is told, and one press begins again', () => {
  act(() => mockTrouble('code'));
  expect(store.getState().notices).toEqual([]);
  for (const [trouble, told] of [
    ['code', 'could not be fetched'],
    ['output', 'no longer takes sound'],
  ] as const) {
    act(() => togglePlay());
    act(() => mockTrouble(trouble));
    expect(store.getState().transport.playing).toBe(false);
    const notice = store.getState().notices.find(({ subject }) => subject === 'sound')!;
    expect(notice.text).toContain(told);
    act(() => accept((notice.action!.does as { id: string }).id));
    expect(store.getState().transport.playing).toBe(true);
    act(() => togglePlay());
  }
});

describe('the song', () => {
  const withSong = (beat: Beat): Beat => ({
    ...beat,
    name: 'With a song',
    song: {
      sections: [
        {
          id: 's',
          name: 'Verse',
          pigment: 'lichen',
          entries: [{ id: 'e', patternId: 'a', times: 1 }],
          silent: [],
        },
      ],
      order: [{ id: 'p', sectionId: 's', times: 1 }],
    },
  });
  const shown = (song: Partial<SongView>) => act(() => void store.dispatch(songTried(song as SongView)));
  const toggle = () => act(() => togglePlay());

  beforeEach(() => {
    act(() => void store.dispatch(beatOpened({ beat: withSong(newBeat('s', 'Quay', 1)) })));
    shown({ shown: true, playing: false, from: 960, loop: null, tried: null });
    look({ playing: false, audition: null });
    later(700);
    mockTold.length = 0;
    mockTick = null;
  });

  test('plays while its screen is open, from where it was left; elsewhere the pattern plays', () => {
    toggle();
    expect(told().slice(0, 2)).toEqual([['song', 'With a song', 960, null], ['start']]);
    expect(store.getState().transport.song.playing).toBe(true);
    toggle();
    later(20);
    expect(mockTold.some(([what]) => what === 'stop')).toBe(true);
    expect(mockTold.at(-1)![0]).toBe('played');
    shown({ shown: false });
    mockTold.length = 0;
    toggle();
    expect(told().map(([what]) => what)).toEqual(['start']);
    expect(store.getState().transport.song.playing).toBe(false);
    toggle();
  });

  test('an edit, and what is repeated, are handed over while it plays', () => {
    toggle();
    later(1000);
    mockTold.length = 0;
    tempo(133);
    later(20);
    expect(mockTold.at(-1)).toEqual(['song', 'With a song', 960, null]);
    shown({ loop: { from: 0, to: 3840 } });
    later(20);
    expect(mockTold.at(-1)).toEqual(['song', 'With a song', 960, { from: 0, to: 3840 }]);
    toggle();
  });

  test('what is tried in it is heard in its place, until it is stopped', () => {
    shown({ tried: { ...store.getState().doc.beat!, name: 'Tried' } });
    toggle();
    expect(told()[0]).toEqual(['song', 'Tried', 960, null]);
    toggle();
    expect(store.getState().transport.song.tried).toBeNull();
  });

  test('stops by itself when its end has rung out, and not while a part is repeated', () => {
    giveSongClock({ length: 3840, placeAt: () => ({ counted: '1.1.1', under: '' }) });
    toggle();
    mockTick = 3000;
    later(2000);
    expect(store.getState().transport.playing).toBe(true);
    mockTick = 3900;
    shown({ loop: { from: 0, to: 3840 } });
    later(2000);
    expect(store.getState().transport.playing).toBe(true);
    shown({ loop: null });
    later(500);
    expect(store.getState().transport.playing).toBe(true);
    later(1500);
    expect(store.getState().transport.playing).toBe(false);
  });

  test('a song without a section leaves play to the pattern', () => {
    act(() => void store.dispatch(beatOpened({ beat: newBeat('n', 'Quay', 1) })));
    toggle();
    expect(store.getState().transport.song.playing).toBe(false);
    toggle();
  });
});
