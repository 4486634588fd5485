/** @jest-environment jsdom */
import { looked } from '../../store/looked.mock';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { unzipSync } from 'fflate';
import { Provider } from 'react-redux';
import { DEMO_BEATS } from '../../../demo/beats';
import { HOW_DEFAULTS, WHAT_DEFAULTS, type ExportHow } from '../../../core/export/choice';
import { exported } from '../../../core/export/exporting';
import type { BounceAsked, BounceGiven } from '../../workers/bouncer';
import { beatOpened, tempoSet } from '../../store/doc';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { SayContext } from '../../ui/say';
import { ExportScreen } from './ExportScreen';
import { dragOut, mayDrag, mayShare, parcel, readyFiles, share } from './giving';
import { keepChoices, readKept, withChoice } from './kept';

jest.mock('expo-router', () => ({ useRouter: () => ({ push: () => undefined }) }));

const mockSaved: { name: string; size: number }[] = [];
const mockKept = new Map<string, string>();
jest.mock('../../ui/files', () => ({
  saveBytes: (bytes: Uint8Array, name: string) => mockSaved.push({ name, size: bytes.length }),
  saveBlob: (blob: Blob, name: string) => mockSaved.push({ name, size: blob.size }),
}));
jest.mock('../../keeping/storage', () => ({
  browserStorage: () => ({
    getItem: (key: string) => Promise.resolve(mockKept.get(key) ?? null),
    setMany: (entries: Record<string, string>) => {
      for (const [key, value] of Object.entries(entries)) mockKept.set(key, value);
      return Promise.resolve();
    },
  }),
}));
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});

const LANTERN = DEMO_BEATS[0]!;
const made = (how: Partial<ExportHow>) => {
  const all = { ...HOW_DEFAULTS, ...how };
  const out = exported(LANTERN, all, WHAT_DEFAULTS);
  if (!out.ok) throw new Error(out.error);
  return { out: out.value, how: all };
};

/** A worker that says what a test has it say. */
const mockBouncer: {
  asked: BounceAsked | null;
  ended: boolean;
  give: (given: BounceGiven) => void;
  breaks: () => void;
} = { asked: null, ended: false, give: () => undefined, breaks: () => undefined };
jest.mock('comlink', () => ({ proxy: (one: unknown) => one }));
jest.mock('../../workers/makers', () => ({
  hireBouncer: () => {
    mockBouncer.ended = false;
    return {
      far: {
        bounceAll: (asked: BounceAsked, give: (given: BounceGiven) => void) => {
          Object.assign(mockBouncer, { asked, give });
          return new Promise(() => undefined);
        },
      },
      end: () => {
        mockBouncer.ended = true;
      },
      failed: new Promise((_, reject) => {
        mockBouncer.breaks = () => reject(new Error('failed'));
      }),
    };
  },
}));
const say = (given: BounceGiven) => act(() => mockBouncer.give(given));

const open = async () => {
  store.dispatch(beatOpened({ beat: LANTERN }));
  store.dispatch(looked({ patternId: 'a', exportHow: null }));
  render(
    <Provider store={store}>
      <SayContext value={(text, subject) => void store.dispatch(noticed({ text, subject }))}>
        <ExportScreen />
      </SayContext>
    </Provider>,
  );
  await act(() => Promise.resolve());
};
const pick = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const notices = () => store.getState().notices.map(({ text }) => text);

beforeEach(() => {
  mockSaved.length = 0;
  mockKept.clear();
  URL.createObjectURL = () => 'blob:here';
  URL.revokeObjectURL = () => undefined;
});

describe('the ways out', () => {
  const bytesOf = (blob: Blob) =>
    new Promise<Uint8Array>((resolve) => {
      const reader = new FileReader();
      reader.onload = () => resolve(new Uint8Array(reader.result as ArrayBuffer));
      reader.readAsArrayBuffer(blob);
    });

  test('one file is given as it is, several as a ZIP with their list', async () => {
    const one = made({});
    expect(parcel(one.out, one.how, readyFiles(one.out, null)).name).toBe('Lantern-Walk-A-the-stalls.mid');
    const many = made({ scope: 'patterns', split: 'lanes', as: 'files' });
    const { name, blob } = parcel(many.out, many.how, readyFiles(many.out, null));
    expect(name).toBe('Lantern-Walk-patterns-midi.zip');
    const entries = unzipSync(await bytesOf(blob));
    expect(Object.keys(entries)).toHaveLength(many.out.files.length + 1);
    expect(entries['04-D-shutters-down/Lantern-Walk-D-shutters-down-Kick.mid']).toBeDefined();
    expect(new TextDecoder().decode(entries['list.txt'])).toContain('Every file ends on a bar line.');
  });

  test('what is dragged out says its type, its name and where it is', () => {
    const data = new Map<string, string>();
    const dataTransfer = {
      setData: (type: string, value: string) => data.set(type, value),
      effectAllowed: '',
    };
    dragOut({ dataTransfer } as never, 'a.mid', new Blob([''], { type: 'audio/midi' }));
    expect(data.get('DownloadURL')).toBe('audio/midi:a.mid:blob:here');
    expect(dataTransfer.effectAllowed).toBe('copy');
    expect(made({}).out.files.every(mayDrag)).toBe(true);
    expect(made({ kind: 'audio' }).out.files.some(mayDrag)).toBe(false);
  });

  test('is shared where the system can; closing its sheet is no fault', async () => {
    const what = { name: 'a.mid', blob: new Blob(['a']) };
    expect(mayShare()).toBe(false);
    Object.assign(navigator, { canShare: () => true, share: () => Promise.resolve() });
    expect(mayShare()).toBe(true);
    expect(await share(what)).toBe(true);
    Object.assign(navigator, { share: () => Promise.reject(new DOMException('closed', 'AbortError')) });
    expect(await share(what)).toBe(true);
    Object.assign(navigator, { share: () => Promise.reject(new Error('no')) });
    expect(await share(what)).toBe(false);
    Object.assign(navigator, { canShare: () => false });
    expect(await share(what)).toBe(false);
  });
});

describe('kept choices', () => {
  test('come back by name; one of the same name takes the place of the other', async () => {
    const stems = { name: 'Stems', how: { ...HOW_DEFAULTS, kind: 'audio' as const, stems: true } };
    expect(await keepChoices(withChoice([], stems))).toBe(true);
    expect(await readKept()).toEqual([stems]);
    const other = { ...stems, how: { ...stems.how, depth: '16' as const } };
    expect(withChoice([stems], other)).toEqual([stems, { ...other, name: 'Stems 2' }]);
  });

  test('what cannot be read is none', async () => {
    mockKept.set('export/kept', '{"not": "a list"}');
    expect(await readKept()).toEqual([]);
    mockKept.set('export/kept', 'torn');
    expect(await readKept()).toEqual([]);
  });

  test('are kept and used on the screen', async () => {
    await open();
    pick('What', 'song');
    press(/^Kept choices/);
    fireEvent.change(screen.getByLabelText('Name of this choice'), { target: { value: 'Whole' } });
    press('Keep it');
    pick('What', 'pattern');
    pick('Use a kept choice', 'Whole');
    expect((screen.getByLabelText('What') as HTMLSelectElement).value).toBe('song');
    press('Forget “Whole”');
    expect(screen.queryByLabelText('Use a kept choice')).toBeNull();
    await act(() => Promise.resolve());
  });
});

describe('the screen', () => {
  test('names are built, added to and shown as they will be', async () => {
    await open();
    const preview = () => document.getElementById('name-preview')!.textContent;
    expect(preview()).toBe('Lantern-Walk-A-the-stalls.mid');
    press('Add bpm to the names');
    expect(preview()).toBe('Lantern-Walk-A-the-stalls-92.mid');
    fireEvent.change(screen.getByLabelText('Names of the files'), { target: { value: '{meter} {bars}' } });
    expect(preview()).toBe('4_4-2.mid');
    const field = screen.getByLabelText('Names of the files');
    fireEvent.focus(field);
    fireEvent.change(field, { target: { value: 'x' } });
    fireEvent.keyDown(field, { key: 'Escape' });
    expect(preview()).toBe('4_4-2.mid');
  });

  test('files are listed with what is in them, and how many more there are', async () => {
    await open();
    pick('What', 'sections');
    pick('Drums', 'lanes');
    pick('Each becomes', 'files');
    const files = within(screen.getByRole('list', { name: 'Files' })).getAllByRole('listitem');
    expect(files).toHaveLength(12);
    expect(screen.getByText('and 52 more')).toBeTruthy();
    press('Export MIDI');
    expect(mockSaved[0]!.name).toBe('Lantern-Walk-sections-midi.zip');
    expect(notices().at(-1)).toContain('64 files, 2512 notes');
  });

  test('a bounce shows how far it is, can be stopped, and is forgotten when the beat changes', async () => {
    await open();
    pick('As', 'audio');
    press('Bounce to WAV');
    say({ type: 'progress', done: 0.4, name: 'a.wav' });
    expect(screen.getByText('40 %')).toBeTruthy();
    press('Stop the bounce');
    expect(mockBouncer.ended).toBe(true);
    press('Bounce to WAV');
    say({ type: 'file', path: 'a.wav', bytes: new Uint8Array(9) });
    say({ type: 'done' });
    press('Download WAV');
    expect(mockSaved).toEqual([{ name: 'a.wav', size: 9 }]);
    act(() => void store.dispatch(tempoSet({ tempo: 100 })));
    expect(screen.getByRole('button', { name: 'Bounce to WAV' })).toBeTruthy();
  });

  test('what goes wrong in a bounce is said', async () => {
    await open();
    pick('As', 'audio');
    press('Bounce to WAV');
    say({ type: 'fault', error: 'The browser has no room for a file this large.' });
    expect(screen.getByRole('alert').textContent).toContain('no room');
  });

  test('a renderer that breaks down is said too', async () => {
    await open();
    pick('As', 'audio');
    press('Bounce to WAV');
    await act(() => Promise.resolve(mockBouncer.breaks()));
    expect(screen.getByRole('alert').textContent).toContain('stopped');
  });

  test('an empty song says what it needs', async () => {
    store.dispatch(beatOpened({ beat: LANTERN }));
    await open();
    act(() => void store.dispatch(beatOpened({ beat: { ...LANTERN, song: { sections: [], order: [] } } })));
    pick('What', 'song');
    expect(screen.getByRole('alert').textContent).toContain('The song is empty: add a section');
  });
});
