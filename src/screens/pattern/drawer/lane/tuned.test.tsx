/** @jest-environment jsdom */
import { looked } from '../../../../store/looked.mock';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat, lanePatternOf, patternOf } from '../../../../../core/document/defaults';
import { setStep } from '../../../../../core/edit/hits';
import { beatOpened, laneChanged, patternsEdited, undone } from '../../../../store/doc';
import { store } from '../../../../keeping/session';
import { Drawer } from '../Drawer';
import { pageFits } from '../../../../ui/width.mock';
import { loadEdits } from '../../../../store/deferredEdits';

beforeAll(loadEdits);

const mockStrikes: string[] = [];
jest.mock('../../../../audio/player', () => ({
  strikeLane: (lane: string) => {
    mockStrikes.push(lane);
    return Promise.resolve();
  },
  playedTick: () => null,
  heardAt: () => null,
}));
jest.mock('../../../../web/SortableLater', () => jest.requireActual('../../../../web/SortableLater.mock'));
jest.mock('../../../../keeping/session', () => {
  const { createStore } =
    jest.requireActual<typeof import('../../../../store/store')>('../../../../store/store');
  return { store: createStore(), persistence: { takeIn: jest.fn() } };
});

const pattern = () => patternOf(store.getState().doc.beat!, null);
const part = () => lanePatternOf(pattern(), 'kick');
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const choose = (name: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name }), { target: { value } });
const page = (name: string) => fireEvent.click(screen.getByRole('tab', { name }));
const look = (change: Parameters<typeof looked>[0]) => act(() => void store.dispatch(looked(change)));

beforeEach(() => {
  mockStrikes.length = 0;
  // Wide enough for one panel.
  pageFits((query) => query.includes('1024'));
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
  const beat = newBeat('b', 'Quay', 1);
  const hits = [0, 8].reduce((one, step) => setStep(one, 'kick', step, true), beat.patterns[0]!);
  store.dispatch(beatOpened({ beat: { ...beat, patterns: [hits] } }));
  store.dispatch(looked({ patternId: 'a', openLane: 'kick', selection: [], cursor: null, drawer: 'hits' }));
  render(
    <Provider store={store}>
      <Drawer wide />
    </Provider>,
  );
});

test('once the open lane is closed its page has nothing that would take another one', () => {
  page('Lane');
  expect(screen.getByLabelText('Instrument of Kick')).toBeTruthy();
  look({ openLane: null });
  expect(screen.queryByLabelText('Instrument of Kick')).toBeNull();
  expect(screen.getByText(/Press a lane’s name/)).toBeTruthy();
});

describe('a lane that plays pitches', () => {
  const lane = () => store.getState().doc.beat!.lanes[0]!;
  const pitches = () => part().hits.map(({ pitch = 0 }) => pitch);

  test('gets root, scale and range; the strings are told its notes; undo goes step by step', () => {
    look({ openLane: 'kick' });
    page('Lane');
    choose('Instrument of Kick', 'marimba');
    expect(lane()).toMatchObject({
      instrument: 'marimba',
      note: 60,
      channel: 1,
      tuning: { low: 48, high: 72 },
    });
    expect(store.getState().focus.heights).toMatchObject({ laneId: 'kick', note: 60 });
    choose('Root of Kick', 'D');
    choose('Scale of Kick', 'minor');
    expect(lane().tuning).toMatchObject({ root: 'D', scale: 'minor' });
    expect(screen.getByText(/^Its notes: .*D3 E3 F3 G3 A3 B♭3/)).toBeTruthy();
    expect(store.getState().focus.heights!.notes).toContain(62);
    press('Height is pitch');
    expect(store.getState().focus.heights).toBeNull();
    press('Height is pitch');
    act(() => void store.dispatch(undone()));
    expect(lane().tuning).toMatchObject({ root: 'D', scale: 'minor pentatonic' });
    press('Plays pitches');
    expect(lane().tuning).toBeUndefined();
    expect(store.getState().focus.heights).toBeNull();
    press('Plays pitches');
    expect(lane().tuning).toEqual({ root: 'C', scale: 'minor pentatonic', low: 48, high: 72 });
  });

  test('a scale that there is not is told, and every semitone is left', () => {
    look({ openLane: 'kick' });
    const tuning = { root: 'C', scale: 'of the tide', low: 60, high: 62 };
    act(() => void store.dispatch(laneChanged({ laneId: 'kick', change: { tuning } })));
    page('Lane');
    expect(screen.getByText(/There is no scale “C of the tide”/)).toBeTruthy();
    expect(store.getState().focus.heights!.notes).toEqual([60, 61, 62]);
  });

  test('notes of hits are chosen by name and go up and down its scale; chords are called by theirs', () => {
    const tuning = { root: 'C', scale: 'minor', low: 36, high: 60 };
    act(() => void store.dispatch(laneChanged({ laneId: 'kick', change: { tuning, note: 48 } })));
    look({ openLane: 'kick', selection: [{ laneId: 'kick', step: 0 }] });
    page('Hits');
    press('A note higher');
    expect(pitches()).toEqual([2, 0]);
    choose('Note of the hits', '51');
    expect(pitches()).toEqual([3, 0]);
    press('A note lower');
    expect(pitches()).toEqual([2, 0]);
    expect(mockStrikes.at(-1)).toBe('kick');
    const chord = [0, 3, 7].map((pitch) => ({
      step: 0,
      nudge: 0,
      velocity: 90,
      length: null,
      chance: 1,
      pitch,
    }));
    const clip = { length: 240, rows: [{ down: 0, grid: '1/16' as const, hits: chord }] };
    const patternIds = [pattern().id];
    const edit = { edit: 'pasteHits' as const, args: { at: { laneId: 'kick', step: 4 }, clip } };
    act(() => void store.dispatch(patternsEdited({ patternIds, edit })));
    look({ selection: [{ laneId: 'kick', step: 4 }] });
    expect(screen.getByText('Together they are Cm.')).toBeTruthy();
  });

  test('is played in by its notes, step by step', () => {
    const tuning = { root: 'C', scale: 'major', low: 48, high: 60 };
    act(() => void store.dispatch(laneChanged({ laneId: 'kick', change: { tuning, note: 48 } })));
    look({ openLane: 'kick', cursor: { laneId: 'kick', step: 2 } });
    page('Pads');
    press('Step by step');
    const key = screen.getByRole('button', { name: 'Play Kick, E2' });
    fireEvent.pointerDown(key, { button: 0 });
    fireEvent.pointerUp(key);
    expect(part().hits.find(({ step }) => step === 2)).toMatchObject({ pitch: 4 });
    press('Step by step');
  });
});
