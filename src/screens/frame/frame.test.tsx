/** @jest-environment jsdom */
import { looked } from '../../store/looked.mock';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import { addPattern } from '../../../core/edit/patterns';
import { beatOpened, tempoSet } from '../../store/doc';
import { offer } from '../../store/offers';
import { store } from '../../keeping/session';
import { libraryRead, noticed, noticeDismissed, type NoticeAction } from '../../store/slices';
import { Frame } from './Frame';
import { KEY_LIST } from './keyList';
import { pageFits } from '../../ui/width.mock';

const mockDone: string[] = [];
jest.mock('../../audio/player', () => ({
  startPlaying: () => {
    mockDone.push('play');
    return Promise.resolve();
  },
  stopPlaying: () => mockDone.push('stop'),
  setPlayed: () => undefined,
  setMetronome: () => undefined,
  playedTick: () => null,
  playedPattern: () => null,
  playedSongTick: () => null,
  hearTrouble: () => () => undefined,
}));
jest.mock('expo-router', () => ({
  usePathname: () => '/',
  Link: ({ children }: { children: unknown }) => children,
}));
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
// What is fetched later is there at once.
jest.mock('../../ui/Later', () => {
  const { KeysSheet } = jest.requireActual<typeof import('./KeysSheet')>('./KeysSheet');
  return { Later: ({ given }: { given: { onClose: () => void } }) => <KeysSheet {...given} /> };
});
jest.mock('../../ui/Sheet', () => ({
  Sheet: ({ title, children }: { title: string; children: unknown }) => (
    <section aria-label={title}>{children as never}</section>
  ),
}));
jest.mock('../saveBeats', () => ({
  saveBeat: ({ name }: { name: string }) => Promise.resolve(mockDone.push(`saved ${name}`)),
}));
jest.mock('../../ui/files', () => ({
  saveText: (text: string, name: string) => mockDone.push(`saved ${name}: ${text}`),
}));
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return {
    store: createStore(),
    tellScreenReady: () => undefined,
    persistence: {
      flush: () => Promise.resolve(true),
      taken: ({ name }: { name: string }) => mockDone.push(`taken ${name}`),
      isSafe: () => true,
      wake: () => undefined,
      restore: (id: string) => Promise.resolve(mockDone.push(`restored ${id}`)),
      asideText: (key: string) => Promise.resolve(`what lay at ${key}`),
    },
  };
});

const beat = () => store.getState().doc.beat!;
const notices = () => store.getState().notices;
const tempo = (bpm: number) => act(() => void store.dispatch(tempoSet({ tempo: bpm, gesture: String(bpm) })));
const tell = (does: NoticeAction, lasting = false) =>
  act(() => void store.dispatch(noticed({ text: 'It is done.', lasting, action: { label: 'Do it', does } })));
const press = async (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await act(() => Promise.resolve());
};
const key = (init: KeyboardEventInit, on: Element | Window = window) =>
  act(() => void fireEvent.keyDown(on, init));

beforeEach(() => {
  pageFits(false);
  const made = newBeat('b', 'Quay', 1);
  act(() => {
    store.dispatch(beatOpened({ beat: { ...addPattern(made, 'n', made.patterns[0]!), tempo: 100 } }));
    store.dispatch(looked({ patternId: 'a', playing: false }));
    for (const { id } of notices()) store.dispatch(noticeDismissed(id));
  });
  render(
    <Provider store={store}>
      <Frame>
        <h1>Pattern</h1>
        <input aria-label="A name" />
      </Frame>
    </Provider>,
  );
  mockDone.length = 0;
});

describe('files that are dropped where nothing takes them', () => {
  const dropped = (names: string[], types = ['Files'], taken = false) => {
    const event = new Event('drop', { bubbles: true, cancelable: true });
    Object.assign(event, { dataTransfer: { types, files: names.map((name) => new File([], name)) } });
    if (taken) event.preventDefault();
    act(() => void screen.getByRole('heading', { name: 'Pattern' }).dispatchEvent(event));
    return event;
  };

  test('the app is not left for them, and it is said where they belong', () => {
    expect(dropped(['rain.mid', 'tarp.zip']).defaultPrevented).toBe(true);
    const text = notices().at(-1)!.text;
    expect(text).toMatch(/^“rain.mid” and “tarp.zip” are not taken here\. Drop MIDI files on Grooves/);
    expect(text).toMatch(/ZIP archives of MIDI files on Grooves/);
    dropped(['a.mid', 'b.mid', 'c.mid', 'd.mid']);
    expect(notices().at(-1)!.text).toMatch(/^4 files are not taken here/);
  });

  test('what was taken elsewhere, and text that is dragged, are left alone', () => {
    const before = notices().length;
    dropped(['rain.mid'], ['Files'], true);
    expect(dropped([], ['text/plain']).defaultPrevented).toBe(false);
    expect(notices()).toHaveLength(before);
  });
});

describe('what a notice offers', () => {
  test('takes back the edit that it speaks of', async () => {
    tempo(120);
    tell({ kind: 'undo', at: store.getState().doc.past.length });
    await press('Do it');
    expect(beat().tempo).toBe(100);
  });

  test('takes nothing back where other edits came after, and says so', async () => {
    tempo(120);
    const at = store.getState().doc.past.length;
    tempo(140);
    tell({ kind: 'undo', at });
    await press('Do it');
    expect(beat().tempo).toBe(140);
    expect(notices().at(-1)!.text).toMatch(/^Other changes came after it/);
  });

  test('does what was handed to it', async () => {
    const does = jest.fn();
    tell(offer(does));
    await press('Do it');
    expect(does).toHaveBeenCalledTimes(1);
  });

  test('saves the beat, brings one back, and hands over what was put aside', async () => {
    tell({ kind: 'saveBeat' }, true);
    await press('Do it');
    await press('Dismiss');
    tell({ kind: 'restoreBeat', id: 'lost' }, true);
    await press('Do it');
    await press('Dismiss');
    tell({ kind: 'downloadAside', key: 'aside/1' }, true);
    await press('Do it');
    expect(mockDone).toEqual([
      'saved Quay',
      'taken Quay',
      'restored lost',
      'saved damaged-beat.ruddik.json.txt: what lay at aside/1',
    ]);
  });

  test('goes by itself after a while, unless it is to last', () => {
    jest.useFakeTimers();
    tell({ kind: 'saveBeat' });
    tell({ kind: 'saveBeat' }, true);
    expect(notices()).toHaveLength(2);
    act(() => void jest.advanceTimersByTime(7000));
    expect(notices().map(({ lasting }) => lasting)).toEqual([true]);
    jest.useRealTimers();
  });
});

describe('keys that work everywhere', () => {
  test('play and stop, but not while words are typed', () => {
    key({ key: ' ' });
    expect(mockDone).toEqual(['play']);
    key({ key: ' ', repeat: true });
    expect(mockDone).toEqual(['play']);
    key({ key: ' ' }, screen.getByRole('textbox', { name: 'A name' }));
    expect(mockDone).toEqual(['play']);
    key({ key: ' ' });
    expect(mockDone).toEqual(['play', 'stop']);
  });

  test('undo and redo', () => {
    tempo(120);
    key({ key: 'z', ctrlKey: true });
    expect(beat().tempo).toBe(100);
    key({ key: 'Z', metaKey: true, shiftKey: true });
    expect(beat().tempo).toBe(120);
    key({ key: 'z', ctrlKey: true });
    key({ key: 'y', ctrlKey: true });
    expect(beat().tempo).toBe(120);
  });

  test('a pattern by its number, where there is one', () => {
    key({ code: 'Digit2', key: '@', shiftKey: true });
    expect(store.getState().focus.patternId).toBe('n');
    key({ code: 'Digit9', key: '(', shiftKey: true });
    expect(store.getState().focus.patternId).toBe('n');
  });

  test('a question mark lists them all', async () => {
    key({ key: '?' });
    const sheet = await screen.findByRole('region', { name: 'Keys' });
    for (const { keys, does } of KEY_LIST) {
      expect(within(sheet).getAllByText(keys.replaceAll('\u00a0', ' '))[0]).toBeTruthy();
      expect(within(sheet).getByText(does)).toBeTruthy();
    }
  });
});

test('day or night is set on the page once the settings are read', () => {
  const { documentElement } = document;
  act(() => void store.dispatch(looked({ theme: 'day' })));
  expect(documentElement.hasAttribute('data-theme')).toBe(false);
  act(() => void store.dispatch(libraryRead({ beats: [], aside: [] })));
  expect(documentElement.getAttribute('data-theme')).toBe('day');
  expect(localStorage.getItem('ruddik-theme')).toBe('day');
  act(() => void store.dispatch(looked({ theme: 'system' })));
  expect(documentElement.hasAttribute('data-theme')).toBe(false);
  expect(localStorage.getItem('ruddik-theme')).toBeNull();
});
