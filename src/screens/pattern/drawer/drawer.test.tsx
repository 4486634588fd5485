/** @jest-environment jsdom */
import { slideTo } from '../../../ui/slide.mock';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat, lanePatternOf, patternOf } from '../../../../core/document/defaults';
import type { Hit, LanePattern } from '../../../../core/document/schema';
import { setStep, setVelocity } from '../../../../core/edit/hits';
import { beatEdited, beatOpened, undone } from '../../../state/doc';
import { selectAudible } from '../../../state/audible';
import { store } from '../../../state/session';
import { noticed, viewChanged } from '../../../state/slices';
import { PlayContext } from '../../../ui/playing';
import { SayContext } from '../../../ui/say';
import { Drawer } from './Drawer';

let mockHeard: number | null = null;
let mockPattern: string | null = null;
const mockStrikes: [string, number][] = [];
jest.mock('../../../audio/player', () => ({
  strikeLane: (lane: string, velocity: number) => {
    mockStrikes.push([lane, velocity]);
    return Promise.resolve();
  },
  playedTick: () => mockHeard,
  heardAt: () => (mockHeard === null ? null : { tick: mockHeard, patternId: mockPattern }),
}));
jest.mock('../../../web/SortableLater', () => jest.requireActual('../../../web/SortableLater.mock'));
jest.mock('../../../state/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../../state/store')>('../../../state/store');
  return { store: createStore(), persistence: { takeIn: jest.fn() } };
});

const mockToggled = jest.fn();
const pattern = () => patternOf(store.getState().doc.beat!, null);
const part = (laneId = 'kick'): LanePattern => lanePatternOf(pattern(), laneId);
const hit = (at = 0, laneId = 'kick'): Hit => part(laneId).hits[at]!;
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const slide = slideTo;
const choose = (name: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name }), { target: { value } });
const page = (name: string) => fireEvent.click(screen.getByRole('tab', { name }));
const look = (change: Parameters<typeof viewChanged>[0]) =>
  act(() => void store.dispatch(viewChanged(change)));

beforeEach(() => {
  mockHeard = null;
  mockStrikes.length = 0;
  mockToggled.mockClear();
  // Wide enough for one panel.
  window.matchMedia = jest.fn((query: string) => ({
    matches: query.includes('1024'),
    addEventListener: jest.fn(),
    removeEventListener: jest.fn(),
  })) as never;
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
  const beat = newBeat('b', 'Quay', 1);
  const first = setStep(setStep(beat.patterns[0]!, 'kick', 0, true), 'kick', 8, true);
  const patterns = [setVelocity(first, 'kick', 8, 60)];
  store.dispatch(beatOpened({ beat: { ...beat, patterns } }));
  store.dispatch(
    viewChanged({
      patternId: 'a',
      openLane: 'kick',
      selection: [],
      cursor: null,
      clip: null,
      drawer: 'hits',
      scope: 'hits',
      trial: null,
      pasteAt: null,
    }),
  );
  render(
    <Provider store={store}>
      <SayContext value={(text, subject) => void store.dispatch(noticed({ text, subject }))}>
        <PlayContext value={mockToggled}>
          <Drawer wide />
        </PlayContext>
      </SayContext>
    </Provider>,
  );
});

describe('hits', () => {
  test('nothing selected: no control of a hit, and it says what to tap; the lane is asked for', () => {
    expect(screen.queryByRole('button', { name: 'Accent 120' })).toBeNull();
    expect(screen.getByText(/Tap a bead in the open string to select its hit/)).toBeTruthy();
    press('Whole lane');
    expect(screen.getByText('All 2 hits of Kick')).toBeTruthy();
    press('Accent 120');
    expect(part().hits.map(({ velocity }) => velocity)).toEqual([120, 120]);
    look({ selection: [{ laneId: 'kick', step: 8 }], scope: 'hits' });
    expect(screen.getByText('Kick, step 9')).toBeTruthy();
    press('Ghost 36');
    expect(part().hits.map(({ velocity }) => velocity)).toEqual([120, 36]);
    press('Deselect');
    expect(screen.queryByRole('button', { name: 'Ghost 36' })).toBeNull();
    press('Select the lane');
    expect(screen.getByText('2 hits selected')).toBeTruthy();
    press('Ramp up');
    expect(part().hits.map(({ velocity }) => velocity)).toEqual([36, 120]);
  });

  test('one slider for many changes all by the same amount', () => {
    press('Select the lane');
    slide('Velocity of the hits', 106);
    expect(part().hits.map(({ velocity }) => velocity)).toEqual([106, 70]);
    press('1 ms later');
    const [first, second] = part().hits;
    expect(first!.nudge).toBeCloseTo(1 / 150);
    expect(second!.nudge).toBeCloseTo(1 / 150);
  });

  test('the levels of one tap are the beat’s own', () => {
    look({ selection: [{ laneId: 'kick', step: 0 }] });
    press('What ghost, normal and accent are');
    const field = screen.getByLabelText('Ghost level');
    fireEvent.change(field, { target: { value: '22' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(store.getState().doc.beat!.levels.ghost).toBe(22);
    press('Ghost 22');
    expect(hit().velocity).toBe(22);
  });

  test('a roll is made, drawn by hand stroke by stroke, shaped, and taken off', () => {
    look({ cursor: { laneId: 'kick', step: 0 } });
    expect(screen.getByText('Kick, step 1')).toBeTruthy();
    press('3 strokes');
    expect(hit().roll).toEqual({ curve: 0, levels: [1, 1, 1] });
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Stroke 2' }), { key: 'ArrowDown' });
    expect(hit().roll!.levels).toEqual([1, 0.95, 1]);
    slide('Strokes of the roll', 6);
    slide('Curve of the roll', 0.5);
    choose('Spacing of the roll', 'dotted');
    expect(hit().roll).toMatchObject({ curve: 0.5, spacing: 'dotted' });
    expect(hit().roll!.levels).toHaveLength(6);
    press('Falling');
    expect(hit().roll!.levels[5]).toBe(0.2);
    expect(hit(1).roll).toBeUndefined();
    press('No roll');
    expect(hit()).not.toHaveProperty('roll');
  });

  test('grace strokes have their own time and level', () => {
    look({ cursor: { laneId: 'kick', step: 8 } });
    press('Open drag');
    expect(hit(1).grace).toHaveLength(2);
    slide('Grace stroke 2, ms before', 90);
    slide('Grace stroke 1, level', 0.3);
    expect(hit(1).grace!.map(({ before }) => before)).toEqual([38, 90]);
    expect(hit(1).grace![0]!.level).toBe(0.3);
    press('No grace strokes');
    expect(hit(1)).not.toHaveProperty('grace');
  });

  test('time, length, chance and passes', () => {
    look({ cursor: { laneId: 'kick', step: 0 } });
    press('1 ms later');
    expect(hit().nudge).toBeCloseTo(1 / 150);
    press('On the grid');
    expect(hit().nudge).toBe(0);
    press('Up to the next hit');
    expect(hit().length).toBe(8);
    press('Rings out');
    expect(hit().length).toBeNull();
    slide('Chance of the hits', 0.4);
    choose('On which passes the hits sound', '4');
    expect(hit()).toMatchObject({ chance: 0.4, passes: { of: 4, on: [3] } });
    fireEvent.click(screen.getByRole('checkbox', { name: 'Pass 2' }));
    expect(hit().passes).toEqual({ of: 4, on: [1, 3] });
    choose('On which passes the hits sound', '1');
    expect(hit()).not.toHaveProperty('passes');
  });

  test('hits are copied, pasted where the hand was last, and deleted', () => {
    look({ selection: [{ laneId: 'kick', step: 8 }], cursor: { laneId: 'snare', step: 3 } });
    press('Copy');
    expect(screen.getByRole('button', { name: 'Paste at bar 1, step 10' })).toBeTruthy();
    look({ pasteAt: { laneId: 'snare', step: 3 } });
    press('Paste at bar 1, step 4');
    expect(hit(0, 'snare')).toMatchObject({ step: 3, velocity: 60 });
    expect(store.getState().view.selection).toMatchObject([{ laneId: 'snare', step: 3 }]);
    press('Delete');
    expect(part('snare').hits).toEqual([]);
    look({ selection: [{ laneId: 'kick', step: 8 }] });
    press('Duplicate');
    expect(part().hits.map(({ step }) => step)).toEqual([0, 8, 9]);
  });
});

describe('the lane', () => {
  beforeEach(() => page('Lane'));

  test('its length is held to 1 to 64, and it says when all lanes meet', () => {
    const steps = screen.getByLabelText('Steps of Kick');
    fireEvent.change(steps, { target: { value: '12' } });
    fireEvent.keyDown(steps, { key: 'Enter' });
    expect(screen.getByText('All lanes meet again after 3 bars.')).toBeTruthy();
    fireEvent.change(steps, { target: { value: '99' } });
    fireEvent.keyDown(steps, { key: 'Enter' });
    expect(part().steps).toBe(64);
    expect(store.getState().notices.at(-1)!.text).toContain('99 was held to 64');
    press('As long as the pattern');
    choose('Direction of Kick', 'backward');
    choose('Rate of Kick', '3/2');
    choose('Grid of Kick', '1/8T');
    expect(part()).toMatchObject({ steps: null, direction: 'backward', rate: '3/2', grid: '1/8T' });
  });

  test.each([
    ['Step right', [1, 9]],
    ['Rotate left', [7, 15]],
    ['Reverse', [7, 15]],
    ['Half time: twice as far apart', [0]],
    ['Double time: half as far apart, played twice', [0, 4, 8, 12]],
    ['Fill one step in 4', [0, 4, 8, 12]],
    ['Clear lane', []],
  ])('%s', (name, steps) => {
    press(name);
    expect(part().hits.map(({ step }) => step)).toEqual(steps);
    act(() => void store.dispatch(undone()));
    expect(part().hits.map(({ step }) => step)).toEqual([0, 8]);
  });

  test('presets are heard one after the other: used it is one edit, left nothing was changed', () => {
    const heard = () => selectAudible(store.getState())!.patterns[0]!.parts['kick']!.hits;
    const before = store.getState().doc.beat;
    choose('Preset for Kick', 'kick.four-on-the-floor');
    expect(heard()).toHaveLength(4);
    expect(store.getState().doc.beat).toBe(before);
    press('Leave it');
    expect(heard().map(({ velocity }) => velocity)).toEqual([96, 60]);
    choose('Preset for Kick', 'kick.four-on-the-floor');
    press('Use it');
    expect(part().hits).toHaveLength(4);
    act(() => void store.dispatch(undone()));
    expect(part().hits.map(({ velocity }) => velocity)).toEqual([96, 60]);
  });

  test('a note is learned from the simulated input', async () => {
    press('Learn note');
    await act(async () => {
      press('Simulate note 49');
      await Promise.resolve();
    });
    expect(store.getState().doc.beat!.lanes[0]!.note).toBe(49);
    expect(store.getState().notices.at(-1)!.text).toContain('Kick has note 49 now.');
    // Cancelled, no note is taken any more.
    press('Learn note');
    await act(async () => {
      press('Play a note… or cancel');
      await Promise.resolve();
    });
    expect(screen.queryByRole('button', { name: 'Simulate note 49' })).toBeNull();
    press('Shift all notes by 12 semitones');
    expect(store.getState().doc.beat!.lanes[0]!.note).toBe(61);
  });

  test('all lanes are numbered at once, by a row of notes or of a scale, all or none', () => {
    const notes = () => store.getState().doc.beat!.lanes.map(({ note }) => note);
    const count = notes().length;
    press('Number all lanes');
    press('From 60 upwards');
    expect(notes()).toEqual(Array.from({ length: count }, (_, at) => 60 + at));
    fireEvent.change(screen.getByLabelText('Scale of the lanes'), { target: { value: 'major' } });
    expect(notes().slice(0, 2)).toEqual([60, 62]);
    const before = notes();
    const first = screen.getByLabelText('Note of the first lane');
    fireEvent.change(first, { target: { value: '127' } });
    fireEvent.blur(first);
    expect(notes()).toEqual(before);
    expect(store.getState().notices.at(-1)!.text).toContain('No lane was numbered');
    press('As General MIDI has them');
    expect(notes().slice(0, 2)).toEqual([36, 38]);
  });

  test('lanes are ordered, grouped and removed', () => {
    const names = () => store.getState().doc.beat!.lanes.map(({ id }) => id);
    press('Put Snare first');
    expect(names().slice(0, 2)).toEqual(['snare', 'kick']);
    press('Group with the lane above');
    expect(store.getState().doc.beat!.groups[0]!.name).toBe('Snare group');
    press('Take Snare group apart');
    expect(store.getState().doc.beat!.groups).toEqual([]);
    press('Remove lane');
    expect(names()).not.toContain('kick');
    expect(pattern().parts).not.toHaveProperty('kick');
  });
});

test('the sound of a lane', () => {
  page('Sound');
  slide('Tune of Kick', -3);
  slide('Decay of Kick', 0.5);
  slide('Low-pass of Kick', Math.log2(800));
  expect(store.getState().doc.beat!.lanes[0]).toMatchObject({ tune: -3, decay: 0.5, lowPass: 800 });
});

test('every roll of chance is a take that can be stepped back to, kept, named and dropped', () => {
  page('Make');
  press('Chance');
  press('Vary half');
  press('Roll anew');
  const takes = () => within(screen.getByRole('listbox', { name: 'Takes' })).getAllByRole('option');
  expect(takes()).toHaveLength(3);
  const last = part().hits;
  press('Take before');
  press('Take before');
  expect(screen.getByText(/nothing is changed yet/)).toBeTruthy();
  expect(part().hits).toEqual(last);
  press('Use it');
  expect(part().hits.map(({ velocity }) => velocity)).toEqual([96, 60]);
  fireEvent.click(takes()[2]!);
  press('Use it');
  expect(part().hits).toEqual(last);
  press('Keep');
  const name = screen.getByLabelText('Name of the take');
  fireEvent.change(name, { target: { value: 'Gangway' } });
  fireEvent.blur(name);
  expect(pattern().takes!.at(-1)).toMatchObject({ name: 'Gangway', kept: true });
  press('Drop');
  expect(takes()).toHaveLength(2);
});

describe('the pads', () => {
  beforeEach(() => page('Pads'));
  const key = (code: string, more: object = {}) => fireEvent.keyDown(document.body, { code, ...more });

  test('pads and keys sound their lanes; with Shift a key is an accent', () => {
    fireEvent.click(screen.getByRole('button', { name: /^Play Snare, / }), { detail: 0 });
    key('KeyA');
    key('KeyS', { shiftKey: true });
    expect(mockStrikes).toEqual([
      ['snare', 100],
      ['kick', 96],
      ['snare', 120],
    ]);
  });

  test('what is played while it records is taken down with its exact time', () => {
    press('Record');
    look({ playing: true });
    mockHeard = 5 * 240 + 60;
    key('KeyS');
    expect(hit(0, 'snare')).toMatchObject({ step: 5, nudge: expect.closeTo(0.25) });
    slide('Quantize what is played in', 1);
    mockHeard = 10 * 240 + 60;
    key('KeyS');
    expect(hit(1, 'snare')).toMatchObject({ step: 10, nudge: 0 });
    act(() => void store.dispatch(undone()));
    expect(part('snare').hits).toEqual([]);
    look({ playing: false });
    press('Record');
  });

  test('a key that is held repeats on the grid: by hand, or taken down on the steps', () => {
    jest.useFakeTimers();
    const rests = () => act(() => void jest.advanceTimersByTime(350));
    fireEvent.change(screen.getByLabelText('Repeat what is held'), { target: { value: '1/16' } });
    key('KeyS');
    // Two sixteenths of the tempo and a little more.
    rests();
    fireEvent.keyUp(document.body, { code: 'KeyS' });
    rests();
    expect(mockStrikes.map(([lane]) => lane)).toEqual(['snare', 'snare', 'snare']);
    press('Record');
    look({ playing: true });
    mockHeard = 4 * 240;
    key('KeyS');
    mockHeard = 5 * 240 + 10;
    rests();
    mockHeard = 6 * 240 + 10;
    rests();
    fireEvent.keyUp(document.body, { code: 'KeyS' });
    rests();
    expect(part('snare').hits.map(({ step, nudge }) => [step, nudge])).toEqual([
      [4, expect.closeTo(0)],
      [5, 0],
      [6, 0],
    ]);
    fireEvent.change(screen.getByLabelText('Repeat what is held'), { target: { value: 'off' } });
    look({ playing: false });
    press('Record');
    jest.useRealTimers();
  });

  test('what is struck while another pattern is heard goes into that one', () => {
    act(
      () =>
        void store.dispatch(
          beatEdited({ edit: { edit: 'addPattern', args: { id: 'next', like: pattern() } } }),
        ),
    );
    press('Record');
    look({ playing: true, patternId: 'next' });
    mockHeard = 4 * 240;
    mockPattern = 'a';
    key('KeyS');
    const of = (id: string) => lanePatternOf(patternOf(store.getState().doc.beat!, id), 'snare').hits;
    expect(of('a').map(({ step }) => step)).toEqual([4]);
    expect(of('next')).toEqual([]);
    mockPattern = 'next';
    key('KeyS');
    expect(of('next').map(({ step }) => step)).toEqual([4]);
    mockPattern = null;
    look({ playing: false, patternId: 'a' });
    press('Record');
  });

  test('notes of a MIDI input strike the lanes that have them, with their velocity', () => {
    press('MIDI input');
    const note = (detail: unknown) =>
      act(() => void window.dispatchEvent(new CustomEvent('ruddik-note', { detail })));
    note({ note: 38, velocity: 71 });
    expect(mockStrikes).toEqual([['snare', 71]]);
    note(3);
    expect(store.getState().notices.at(-1)!.text).toBe('No lane has note 3.');
    press('MIDI input');
    note(38);
    expect(mockStrikes).toHaveLength(1);
  });

  test('Space while it records stops, and the recording stays armed', () => {
    press('Record');
    look({ playing: true });
    const chip = screen.getByRole('button', { name: 'Record' });
    chip.focus();
    expect(fireEvent.keyDown(chip, { code: 'Space', key: ' ' })).toBe(false);
    expect(mockToggled).toHaveBeenCalledTimes(1);
    expect(store.getState().view.playIn.recording).toBe(true);
    look({ playing: false });
    press('Record');
  });

  test('step by step a key puts a hit and goes on, Space is a rest', () => {
    press('Step by step');
    look({ cursor: { laneId: 'snare', step: 0 } });
    const up = (code: string) => fireEvent.keyUp(document.body, { code });
    key('KeyS');
    up('KeyS');
    key('Space');
    // Held together, two drums stand on one step.
    key('KeyA');
    key('KeyS');
    up('KeyA');
    up('KeyS');
    key('KeyS');
    up('KeyS');
    expect(part('snare').hits.map(({ step }) => step)).toEqual([0, 2, 3]);
    expect(part().hits.map(({ step }) => step)).toContain(2);
    press('Step by step');
  });

  test('the tempo of a tapping hand', () => {
    const tap = screen.getByRole('button', { name: 'Tap tempo' });
    for (const time of [1000, 1500, 2000, 2500]) {
      const event = new MouseEvent('pointerdown', { bubbles: true });
      Object.defineProperty(event, 'timeStamp', { value: time });
      fireEvent(tap, event);
    }
    expect(store.getState().doc.beat!.tempo).toBe(120);
  });
});
