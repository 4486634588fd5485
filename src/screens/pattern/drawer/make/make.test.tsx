/** @jest-environment jsdom */
import { looked } from '../../../../store/looked.mock';
import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { Provider } from 'react-redux';
import { lanePatternOf, newBeat, patternOf } from '../../../../../core/document/defaults';
import { selectAudible } from '../../../../store/audible';
import { beatOpened, undone } from '../../../../store/doc';
import { store } from '../../../../keeping/session';
import { keep } from '../../../../ui/useKept';
import { slideTo as slide, typedOtherwise } from '../../../../ui/slide.mock';
import { RING_DEFAULTS } from '../../../../../core/make/makers';
import { BANDS_DEFAULTS } from '../../../../../core/make/bandParts';
import { MakePage } from './MakePage';
import { MovesPage } from '../moves/MovesPage';
import { TrialBar } from '../../TrialBar';
import { loadEdits } from '../../../../store/deferredEdits';

beforeAll(loadEdits);

jest.mock('../../../../audio/player', () => ({
  strikeLane: () => Promise.resolve(),
  playedTick: () => null,
}));
jest.mock('../../../../keeping/session', () => {
  const { createStore } =
    jest.requireActual<typeof import('../../../../store/store')>('../../../../store/store');
  return { store: createStore(), persistence: { takeIn: jest.fn() } };
});
const mockLibrary = { there: true };
jest.mock('./library', () => {
  const { builtInGrooves } = jest.requireActual<typeof import('../../../../../core/groove/library')>(
    '../../../../../core/groove/library',
  );
  return {
    GROOVES_FROM: ['library', 'kept', 'imported'],
    loadGrooves: (from: string) =>
      !mockLibrary.there
        ? Promise.reject(new Error('no network'))
        : Promise.resolve(
            from === 'library'
              ? builtInGrooves()
              : from === 'kept'
                ? builtInGrooves().filter(({ style }) => ['Samba', 'Drill'].includes(style))
                : [],
          ),
  };
});
const mockList = { answer: true };
jest.mock('../../../../workers/listAside', () => {
  const { arrangements } = jest.requireActual<typeof import('../../../../../core/make/ring')>(
    '../../../../../core/make/ring',
  );
  return {
    listAside: (slots: number, strikes: number) =>
      Promise.resolve(mockList.answer ? arrangements(slots, strikes) : null),
  };
});

const pattern = () => patternOf(store.getState().doc.beat!, null);
const steps = (lane = 'kick') => lanePatternOf(pattern(), lane).hits.map(({ step }) => step);
const heard = (lane = 'kick') => {
  const beat = selectAudible(store.getState())!;
  return lanePatternOf(patternOf(beat, null), lane).hits.map(({ step }) => step);
};
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const pick = (name: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name }), { target: { value } });
const slot = (n: number) => screen.getByRole('checkbox', { name: `Slot ${n}` });
const takes = () => within(screen.getByRole('listbox', { name: 'Takes' })).getAllByRole('option');
const past = () => store.getState().doc.past.length;

const show = (Page: typeof MakePage | typeof MovesPage) => {
  const Lane = () => <Page lane={store.getState().doc.beat!.lanes[0]!} />;
  render(
    <Provider store={store}>
      <Lane />
      <TrialBar />
    </Provider>,
  );
};

beforeEach(() => {
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
  store.dispatch(beatOpened({ beat: newBeat('b', 'Quay', 1) }));
  store.dispatch(looked({ patternId: 'a', openLane: 'kick', trial: null }));
  for (const [name, value] of Object.entries({
    maker: 'ring',
    'make live': true,
    'make ring': RING_DEFAULTS,
    'make bands': BANDS_DEFAULTS,
    'make band': 'fullness',
  }))
    keep(name, value);
  mockList.answer = true;
});

describe('the ring', () => {
  beforeEach(() => show(MakePage));

  test('each turn is heard at once, a take, and undone by one step; a slot is put on and taken off', () => {
    slide('Strikes of the ring', 3);
    expect(steps()).toEqual([0, 6, 11]);
    expect(takes()).toHaveLength(2);
    const before = past();
    fireEvent.click(slot(3));
    expect(steps()).toEqual([0, 2, 6, 11]);
    expect(slot(3).getAttribute('aria-checked')).toBe('true');
    expect(past()).toBe(before + 1);
    act(() => void store.dispatch(undone()));
    expect(steps()).toEqual([0, 6, 11]);
    fireEvent.click(slot(3));
    fireEvent.click(slot(3));
    expect(steps()).toEqual([0, 6, 11]);
  });

  test('from even to clustered, turned, accented, looping by itself, with the rest to another lane', () => {
    slide('Slots of the ring', 8);
    slide('Strikes of the ring', 3);
    expect(screen.getByText('even (of 7)')).toBeTruthy();
    slide('Arrangement, from even to clustered', 7);
    expect(steps().slice(0, 3)).toEqual([0, 6, 7]);
    slide('Turn of the ring', 2);
    expect(steps().slice(0, 3)).toEqual([0, 1, 2]);
    slide('Accent every how many hits', 2);
    press('Loops by itself');
    pick('Lane for the slots that are left', 'hat.closed');
    expect(lanePatternOf(pattern(), 'kick')).toMatchObject({ steps: 8 });
    expect(lanePatternOf(pattern(), 'kick').hits.map(({ velocity }) => velocity)).toEqual([116, 96, 116]);
    expect(steps('hat.closed')).toEqual([3, 4, 5, 6, 7]);
  });

  test('slots are walked by arrows, one stop for Tab', () => {
    const stops = () =>
      screen.getAllByRole('checkbox', { name: /^Slot/ }).filter(({ tabIndex }) => tabIndex === 0);
    expect(stops()).toHaveLength(1);
    act(() => slot(1).focus());
    fireEvent.keyDown(slot(1), { key: 'ArrowRight' });
    expect(document.activeElement).toBe(slot(2));
    fireEvent.keyDown(slot(2), { key: 'ArrowLeft' });
    fireEvent.keyDown(slot(1), { key: 'ArrowLeft' });
    expect(document.activeElement).toBe(slot(16));
  });

  test('a long ring is listed beside the page; where that fails it can still be worked', async () => {
    slide('Slots of the ring', 20);
    await waitFor(() => expect(screen.getByText(/^even \(of/)).toBeTruthy());
    mockList.answer = false;
    slide('Slots of the ring', 21);
    await act(() => Promise.resolve());
    expect(screen.getByText('The arrangements are being listed …')).toBeTruthy();
    fireEvent.click(slot(2));
    expect(steps()).toContain(1);
  });

  test('tried first nothing is changed until it is used; a take is opened again and thinned', () => {
    press('Try first');
    slide('Strikes of the ring', 4);
    expect([steps(), heard()]).toEqual([[], [0, 4, 8, 12]]);
    press('Discard');
    expect(heard()).toEqual([]);
    slide('Strikes of the ring', 5);
    press('Use it');
    expect(steps()).toHaveLength(5);
    slide('Strikes of the ring', 9);
    press('Use it');
    press('Take before');
    expect(screen.getByText('Made by: Ring')).toBeTruthy();
    press('Open again');
    expect(screen.getByText('5 of 16')).toBeTruthy();
    slide('Strikes of the ring', 3);
    press('Use it');
    expect(steps()).toEqual([0, 6, 11]);
  });

  test('a starting point by its name', () => {
    pick('Starting point', 'Tresillo on the rim');
    expect(steps()).toEqual([0, 3, 6, 8, 11, 14]);
    pick('Starting point', 'Hats that swell');
    expect(screen.getByRole('group', { name: 'Fullness over the pattern' })).toBeTruthy();
    expect(steps()).toHaveLength(16);
  });
});

describe('bands, chords and a whole beat', () => {
  beforeEach(() => show(MakePage));

  test('bands are drawn by keys, shaped, and turned down hold what was there', () => {
    press('Bands');
    pick('Shape of the band', 'rising');
    const full = steps();
    expect(full.length).toBeGreaterThan(0);
    pick('Shape of the band', 'flat');
    const half = steps();
    const place = screen.getByRole('slider', { name: 'Place 1' });
    for (let i = 0; i < 12; i++) fireEvent.keyDown(place, { key: 'ArrowDown' });
    expect(half).toEqual(expect.arrayContaining(steps()));
    press('Velocity');
    pick('Shape of the band', 'arch');
    const { hits } = lanePatternOf(pattern(), 'kick');
    expect(hits.length).toBe(steps().length);
    press('Pitch');
    pick('Shape of the band', 'waves');
    expect(lanePatternOf(pattern(), 'kick').hits.some(({ pitch }) => pitch)).toBe(true);
    press('No band of pitch');
    expect(lanePatternOf(pattern(), 'kick').hits.some(({ pitch }) => pitch)).toBe(false);
  });

  test('only shaping: chosen, it changes nothing; a band drawn then changes what it is over, and nothing else', () => {
    press('Bands');
    pick('Shape of the band', 'rising');
    const before = lanePatternOf(pattern(), 'kick').hits;
    fireEvent.click(screen.getByRole('checkbox', { name: 'Only shape the hits that are there' }));
    expect(lanePatternOf(pattern(), 'kick').hits).toBe(before);
    expect(screen.getByText('No band is drawn yet: draw one, and only that changes.')).toBeTruthy();
    expect(screen.queryByRole('slider', { name: 'Chance that a hit is held over' })).toBeNull();
    press('Nudge');
    pick('Shape of the band', 'falling');
    const after = lanePatternOf(pattern(), 'kick').hits;
    expect(after.map(({ step, velocity }) => [step, velocity])).toEqual(
      before.map(({ step, velocity }) => [step, velocity]),
    );
    expect(after.some(({ nudge }) => nudge)).toBe(true);
    press('Pitch');
    pick('Shape of the band', 'waves');
    expect(screen.getByText('Only pitch and nudge of the hits that are there change.')).toBeTruthy();
    expect(lanePatternOf(pattern(), 'kick').hits.map(({ nudge }) => nudge)).toEqual(
      after.map(({ nudge }) => nudge),
    );
    fireEvent.click(screen.getByRole('checkbox', { name: 'Only shape the hits that are there' }));
  });

  test('a finger draws a band over the open string itself, place by place, as one step of the history', () => {
    const row = document.createElement('div');
    row.dataset['lane'] = 'kick';
    const string = document.createElement('div');
    string.className = 'string';
    row.append(string);
    document.body.append(row);
    Element.prototype.setPointerCapture = () => undefined;
    press('Bands');
    press('Velocity');
    const over = string.querySelector('.band-over')!;
    over.querySelector('svg')!.getBoundingClientRect = () =>
      ({ left: 0, top: 0, width: 150, height: 100 }) as DOMRect;
    const at = (type: string, clientX: number, clientY: number) =>
      fireEvent(over, new MouseEvent(type, { bubbles: true, clientX, clientY }));
    at('pointerdown', 0, 90);
    at('pointermove', 150, 10);
    at('pointerup', 150, 10);
    const velocities = lanePatternOf(pattern(), 'kick').hits.map(({ velocity }) => velocity);
    expect(velocities.length).toBeGreaterThan(3);
    const mean = (some: number[]) => some.reduce((sum, one) => sum + one, 0) / some.length;
    const half = Math.floor(velocities.length / 2);
    expect(mean(velocities.slice(half))).toBeGreaterThan(mean(velocities.slice(0, half)) + 20);
    act(() => void store.dispatch(undone()));
    expect(steps()).toEqual([]);
    press('Draw over the string');
    expect(string.querySelector('.band-over')).toBeNull();
    row.remove();
  });

  test('chords by their names; what is none is told and nothing is changed', () => {
    press('Chords');
    const field = screen.getByLabelText('Chords in order');
    const write = (text: string) => {
      fireEvent.change(field, { target: { value: text } });
      fireEvent.blur(field);
    };
    write('Am F');
    expect(lanePatternOf(pattern(), 'kick').hits).toHaveLength(12);
    const before = steps();
    write('Am wet');
    expect(screen.getByText(/There is no chord “wet”/)).toBeTruthy();
    expect(steps()).toEqual(before);
  });

  test('a library that cannot be fetched is told', async () => {
    mockLibrary.there = false;
    press('Whole beat');
    expect(await screen.findByText(/The library could not be fetched/)).toBeTruthy();
    mockLibrary.there = true;
  });

  test('a whole beat at a tap; lanes that are held stay', async () => {
    press('Whole beat');
    const make = await screen.findByRole('button', { name: 'Make a beat' }, { timeout: 20000 });
    fireEvent.click(make);
    const first = steps('snare');
    expect(first).toEqual(expect.arrayContaining([4, 12]));
    press('Lanes that stay as they are');
    fireEvent.click(screen.getByRole('checkbox', { name: 'Hold Snare' }));
    const kept = lanePatternOf(pattern(), 'snare');
    for (let i = 0; i < 5; i++) fireEvent.click(make);
    expect(lanePatternOf(pattern(), 'snare')).toBe(kept);
    expect(takes().length).toBeGreaterThan(5);
  }, 30000);

  test('a whole beat after what the user marked; where nothing is there that is said', async () => {
    press('Whole beat');
    await screen.findByRole('button', { name: 'Make a beat' }, { timeout: 20000 });
    pick('Made after the grooves of', 'imported');
    expect(await screen.findByText(/No file was imported yet/)).toBeTruthy();
    pick('Made after the grooves of', 'kept');
    fireEvent.click(await screen.findByRole('button', { name: 'Make a beat' }));
    const styles = within(screen.getByRole('combobox', { name: 'Style of the beat' })).getAllByRole('option');
    expect(styles.map(({ textContent }) => textContent)).toEqual(['all of them', 'Drill', 'Samba']);
    expect(steps('kick').length).toBeGreaterThan(0);
    const before = pattern();
    pick('Style of the beat', 'Samba');
    expect(pattern()).not.toBe(before);
    pick('Made after the grooves of', 'library');
    await screen.findByRole('button', { name: 'Make a beat' });
  }, 30000);
});

describe('moves', () => {
  beforeEach(() => show(MovesPage));

  test('echoes: ready ones, their controls, without the hit, none again', () => {
    press('Dying eighths');
    const echoes = () => lanePatternOf(pattern(), 'kick').echoes;
    expect(echoes()).toMatchObject({ count: 5, rate: { grid: '1/8' } });
    expect(typedOtherwise()).toEqual([]);
    slide('How many echoes', 3);
    slide('Semitones from each echo to the next', 7);
    pick('How far apart the echoes are', 'ms');
    slide('Milliseconds between echoes', 200);
    fireEvent.click(screen.getByRole('checkbox', { name: 'Without the hit' }));
    expect(echoes()).toEqual({ count: 3, rate: { ms: 200 }, slope: 0.72, interval: 7, withoutHit: true });
    press('No echoes');
    expect(echoes()).toBeUndefined();
  });

  test('sparks to another lane, by the first of a run, and gone', () => {
    press('Add a spark');
    pick('Lane that is set off', 'clap');
    pick('Which strokes set it off', 'first');
    expect(typedOtherwise()).toEqual([]);
    slide('Chance of the spark to Clap', 50);
    slide('Delay of the spark to Clap', 30);
    expect(lanePatternOf(pattern(), 'kick').sparks).toEqual([
      { to: 'clap', of: 'first', gap: '1/8', chance: 0.5, factor: 0.8, delay: { ms: 30 }, pitch: 0 },
    ]);
    press('No spark to Clap');
    expect(lanePatternOf(pattern(), 'kick').sparks).toBeUndefined();
  });

  test('a detour by name, by keys, for some lanes, kept, and written in', async () => {
    press('Reversed');
    expect(pattern().detour).toMatchObject({ over: 'bar', route: [8, 7, 6, 5, 4, 3, 2, 1], chance: 1 });
    const slot1 = screen.getByRole('slider', { name: 'Slot 1' });
    fireEvent.keyDown(slot1, { key: 'Delete' });
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Slot 2' }), { key: 'ArrowUp' });
    expect(pattern().detour!.route.slice(0, 2)).toEqual([0, 8]);
    expect(slot1.getAttribute('aria-valuetext')).toBe('Slot 1 plays nothing');
    press('For all lanes');
    fireEvent.click(screen.getByRole('checkbox', { name: 'By the route: Crash' }));
    expect(pattern().detour!.lanes).not.toContain('crash');
    press('Keep the route');
    press('Halves swapped');
    press('Route 1, Alt 1');
    expect(pattern().detour!.route.slice(0, 2)).toEqual([0, 8]);
    press('Write the moves in');
    expect(await screen.findByText('There are no moves to write in.')).toBeTruthy();
    expect(pattern().detour).toBeUndefined();
  });
});
