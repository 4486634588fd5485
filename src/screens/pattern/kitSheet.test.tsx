/** @jest-environment jsdom */
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import { beatOpened, giveEdits, undone } from '../../store/doc';
import * as edits from '../../../core/edit/edits';
import { store } from '../../keeping/session';
import { KitSheet } from './KitSheet';
import { pageFits } from '../../ui/width.mock';

const mockDone: string[] = [];
const mockSample = (file: string) => ({
  id: file.charCodeAt(0).toString(16).padEnd(64, '0'),
  file,
  seconds: 1,
});
const mockDesk = {
  takeIn: (files: { name: string }[]) =>
    Promise.resolve({
      samples: files.filter(({ name }) => !name.startsWith('bad')).map(({ name }) => mockSample(name)),
      said: files.filter(({ name }) => name.startsWith('bad')).map(({ name }) => `“${name}” is silent.`),
    }),
  openKit: (bytes: Uint8Array) =>
    Promise.resolve(
      bytes.length
        ? {
            ok: true,
            kit: 'attic',
            own: { name: 'From a friend', voices: {} },
            said: ['“x.wav” is missing.'],
          }
        : { ok: false, error: 'It is no ZIP, as kit files are.' },
    ),
};
const mockDrums = { fails: false };
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});
jest.mock('../../audio/player', () => ({
  hearLane: ({ kit }: { kit: string }, { instrument }: { instrument: string }) => {
    mockDone.push(`${kit} ${instrument}`);
    return Promise.resolve();
  },
  hearPeaks: () => () => undefined,
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
jest.mock('../../workers/askOwn', () => ({
  askDesk: (call: (far: unknown) => Promise<unknown>) => call(mockDesk),
}));
const mockStorage = new Map<string, string>();
jest.mock('../../keeping/storage', () => ({
  browserStorage: () => ({
    getAllKeys: () => Promise.resolve([...mockStorage.keys()]),
    getMany: (keys: string[]) =>
      Promise.resolve(Object.fromEntries(keys.map((key) => [key, mockStorage.get(key) ?? null]))),
    setMany: (entries: Record<string, string>) => {
      Object.entries(entries).forEach(([key, text]) => mockStorage.set(key, text));
      return Promise.resolve();
    },
    removeMany: (keys: string[]) => {
      keys.forEach((key) => mockStorage.delete(key));
      return Promise.resolve();
    },
  }),
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
  pageFits(false);
});

test('a kit is chosen by what is told of it, is what the drums are heard on, and is one step of the history', async () => {
  await show();
  const shutters = () => screen.getByRole('button', { name: /^Shutters Found on the night market/ });
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

const choose = async (label: string, files: File[]) => {
  fireEvent.change(screen.getByLabelText(label), { target: { files } });
  await act(() => new Promise((resolve) => setTimeout(resolve, 50)));
};
const file = (name: string, bytes = 4): File =>
  Object.assign(new File([], name), { arrayBuffer: () => Promise.resolve(new ArrayBuffer(bytes)) });
const own = () => store.getState().doc.beat!.own;
const notices = () => store.getState().notices.map(({ text }) => text);

describe('a kit of one’s own', () => {
  beforeEach(() => {
    mockStorage.clear();
    giveEdits(edits);
  });

  test('files go to the drums that their names speak of; what cannot be used or told is said', async () => {
    await show();
    await choose(
      'Files for the kit',
      ['kick.wav', 'clap a.wav', 'clap b.wav', 'hum.wav', 'bad.wav'].map((n) => file(n)),
    );
    expect(own()!.voices.kick!.layers).toHaveLength(1);
    expect(own()!.voices.clap).toMatchObject({ choose: 'shuffle', layers: [{}, {}] });
    expect(notices().some((text) => text.includes('“hum.wav”'))).toBe(true);
    expect(notices().some((text) => text.includes('“bad.wav” is silent'))).toBe(true);
    act(() => void store.dispatch(undone()));
    expect(own()).toBeUndefined();
  });

  test('it is named, kept for other beats and played there, forgotten; and given up', async () => {
    await show();
    await choose('Files for the kit', [file('kick.wav')]);
    fireEvent.change(screen.getByRole('textbox', { name: 'Name of your kit' }), {
      target: { value: 'Crates' },
    });
    fireEvent.blur(screen.getByRole('textbox', { name: 'Name of your kit' }));
    expect(own()!.name).toBe('Crates');
    await press('Keep it for other beats');
    expect(mockStorage.size).toBe(1);
    await press('Back to the kit alone');
    expect(own()).toBeUndefined();
    await screen.findByRole('button', { name: 'Play on Crates' });
    await press('Play on Crates');
    expect(own()!.voices.kick).toBeDefined();
    await press('Forget Crates');
    expect(mockStorage.size).toBe(0);
  });

  test('a kit file is opened, what it lacks is named; what is none is said, and nothing changes', async () => {
    await show();
    await choose('Kit file', [file('x.zip', 0)]);
    expect(own()).toBeUndefined();
    expect(notices()).toContain('It is no ZIP, as kit files are.');
    await choose('Kit file', [file('friend.zip')]);
    expect(own()!.name).toBe('From a friend');
    expect(kit()).toBe('attic');
    expect(notices()).toContain('“x.wav” is missing.');
  });

  test('a kit that was kept by a newer page, or is damaged, is left where it is and not shown', async () => {
    mockStorage.set('kit/a', '{');
    mockStorage.set('kit/b', JSON.stringify({ kit: 'quay', own: { name: 'Later', voices: {}, glow: 1 } }));
    await show();
    expect(screen.queryByRole('list', { name: 'Kits that you kept' })).toBeNull();
    expect(mockStorage.size).toBe(2);
  });
});
