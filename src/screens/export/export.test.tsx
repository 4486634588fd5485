/** @jest-environment jsdom */
import { looked } from '../../store/looked.mock';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import { readNotes } from '../../../core/midi/read/readBack.mock';
import { setStep } from '../../../core/edit/hits';
import { beatEdited, beatOpened, laneChanged } from '../../store/doc';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { SayContext } from '../../ui/say';
import { ExportScreen } from './ExportScreen';
import { loadEdits } from '../../store/deferredEdits';

beforeAll(loadEdits);

jest.mock('expo-router', () => ({ useRouter: () => ({ push: () => undefined }) }));

const mockSaved: { name: string; bytes: Uint8Array }[] = [];
jest.mock('../../ui/files', () => ({
  saveBytes: (bytes: Uint8Array, name: string) => mockSaved.push({ name, bytes }),
}));
jest.mock('../../keeping/storage', () => ({
  browserStorage: () => ({ getItem: () => Promise.resolve(null), setMany: () => Promise.resolve() }),
}));
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});

const notices = () => store.getState().notices.map(({ text }) => text);
const type = (label: string, value: string) => {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value } });
  fireEvent.keyDown(field, { key: 'Enter' });
};
const write = () => {
  fireEvent.click(screen.getByRole('button', { name: 'Export MIDI' }));
  const { name, bytes } = mockSaved.at(-1)!;
  return { name, ...readNotes(bytes) };
};
const change = (laneId: string, to: Parameters<typeof laneChanged>[0]['change']) =>
  act(() => void store.dispatch(laneChanged({ laneId, change: to })));

beforeEach(() => {
  mockSaved.length = 0;
  const blank = newBeat('b', 'Quay', 1);
  let pattern = blank.patterns[0]!;
  for (const step of [0, 4, 8]) pattern = setStep(pattern, 'kick', step, true);
  pattern = setStep(pattern, 'snare', 4, true);
  store.dispatch(beatOpened({ beat: { ...blank, patterns: [pattern] } }));
  store.dispatch(looked({ patternId: 'a', exportHow: null }));
  render(
    <Provider store={store}>
      <SayContext value={(text, subject) => void store.dispatch(noticed({ text, subject }))}>
        <ExportScreen />
      </SayContext>
    </Provider>,
  );
});

test('a file named after beat and pattern, told beforehand: bars, notes, tempo', () => {
  expect(screen.getByText(/^1 bar of 4\/4 at \d+ BPM, 4 notes, ending on the bar line\.$/)).toBeTruthy();
  const file = write();
  expect(file).toMatchObject({ name: 'Quay-A.mid', ppq: 960, end: 3840 });
  expect(file.notes).toHaveLength(4);
  expect(notices().at(-1)).toBe('Quay-A.mid was written: 4 notes.');
});

test('the pattern that is worked on is written, also one taken up since, until another one is chosen', () => {
  const { beat } = store.getState().doc;
  const other = { ...setStep(beat!.patterns[0]!, 'snare', 12, true), id: 'other', name: 'Rain' };
  act(() => {
    store.dispatch(beatOpened({ beat: { ...beat!, patterns: [...beat!.patterns, other] } }));
    store.dispatch(looked({ patternId: 'other' }));
  });
  expect(write()).toMatchObject({ name: 'Quay-Rain.mid' });
  fireEvent.change(screen.getByLabelText('Pattern'), { target: { value: 'other' } });
  act(() => void store.dispatch(looked({ patternId: 'a' })));
  const file = write();
  expect(file.name).toBe('Quay-Rain.mid');
  expect(file.notes).toHaveLength(5);
});

test('passes, division, channel and format are what the file has', () => {
  type('Passes', '3');
  type('Ticks a quarter', '480');
  type('Channel', '2');
  fireEvent.click(screen.getByRole('radio', { name: /Format 0/ }));
  const file = write();
  expect(file).toMatchObject({ ppq: 480, end: 3 * 1920 });
  expect(file.notes).toHaveLength(12);
  expect(new Set(file.notes.map(({ channel }) => channel))).toEqual(new Set([2]));
  expect(mockSaved[0]!.bytes[9]).toBe(0);
});

test('a lane with a channel of its own keeps it', () => {
  change('snare', { channel: 3 });
  type('Channel', '11');
  const channels = write().notes.map(({ note, channel }) => [note, channel]);
  expect(channels.filter(([note]) => note === 38)).toEqual([[38, 3]]);
  expect(channels.filter(([note]) => note === 36).every(([, channel]) => channel === 11)).toBe(true);
});

test.each([
  ['Passes', '900', 'Passes runs from 1 to 64: 900 became 64.'],
  ['Ticks a quarter', '7', 'Ticks a quarter runs from 96 to 1920: 7 became 96.'],
  ['Channel', '0', 'Channel runs from 1 to 16: 0 became 1.'],
])('%s out of range is held and said', (label, value, said) => {
  type(label, value);
  expect(notices()).toContain(said);
});

test('muted lanes are left out, which is said and can be switched', () => {
  change('snare', { mute: true });
  expect(screen.getByText('Left out as not heard: Snare.')).toBeTruthy();
  expect(write().notes).toHaveLength(3);
  expect(notices().at(-1)).toContain('Left out as muted: Snare.');
  fireEvent.click(screen.getByRole('checkbox', { name: 'Write muted lanes too' }));
  expect(screen.getByText('Snare will be written though not heard.')).toBeTruthy();
  expect(write().notes).toHaveLength(4);
});

test('strokes that become one, and notes carried over the loop’s edge, are said', () => {
  expect(screen.queryByText(/become one with it|becomes one with it/)).toBeNull();
  const doubled = store.getState().doc.beat!;
  const kick = doubled.patterns[0]!.parts['kick']!;
  act(
    () =>
      void store.dispatch(
        beatOpened({
          beat: {
            ...doubled,
            patterns: [
              {
                ...doubled.patterns[0]!,
                parts: {
                  ...doubled.patterns[0]!.parts,
                  kick: {
                    ...kick,
                    hits: [
                      { ...kick.hits[0]!, nudge: -0.2 },
                      kick.hits[1]!,
                      { ...kick.hits[1]!, velocity: 40 },
                    ],
                  },
                },
              },
            ],
          },
        }),
      ),
  );
  expect(
    screen.getByText('1 stroke less than 1 ms from another on the same lane becomes one with it.'),
  ).toBeTruthy();
  expect(
    screen.getByText('1 note that the feel moves over the loop’s edge comes in at its other end.'),
  ).toBeTruthy();
  expect(write().notes.filter(({ note }) => note === 36)).toHaveLength(2);
});

test('a pattern without hits says that there is nothing to hear; another one can be chosen', () => {
  act(
    () =>
      void store.dispatch(
        beatEdited({
          edit: { edit: 'addPattern', args: { id: 'n', like: store.getState().doc.beat!.patterns[0]! } },
        }),
      ),
  );
  fireEvent.change(screen.getByRole('combobox', { name: 'Pattern' }), { target: { value: 'n' } });
  expect(screen.getByText(/There is nothing to hear in this pattern yet/)).toBeTruthy();
  expect(write()).toMatchObject({ name: 'Quay-B.mid', notes: [] });
});
