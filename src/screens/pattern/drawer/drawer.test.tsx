/** @jest-environment jsdom */
import { act, fireEvent, screen, within } from '@testing-library/react';
import { selectAudible } from '../../../store/audible';
import { undone } from '../../../store/doc';
import { store } from '../../../keeping/session';
import { slideTo as slide, typedOtherwise } from '../../../ui/slide.mock';
import { choose, hit, look, openDrawer, page, part, pattern, press } from './drawer.mock';
import { loadEdits } from '../../../store/deferredEdits';

beforeAll(loadEdits);

jest.mock('../../../audio/player', () => jest.requireActual('./player.mock'));
jest.mock('../../../web/SortableLater', () => jest.requireActual('../../../web/SortableLater.mock'));
jest.mock('../../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../../store/store')>('../../../store/store');
  return { store: createStore(), persistence: { takeIn: jest.fn() } };
});

beforeEach(openDrawer);

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
    slide('Grace stroke 1, level', 30);
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
    slide('Chance of the hits', 40);
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
    expect(store.getState().focus.selection).toMatchObject([{ laneId: 'snare', step: 3 }]);
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
    expect(store.getState().notices.at(-1)!.text).toContain('99 became 64');
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
    // What comes to stand beyond the end is kept there: double time brings it back.
    ['Half time: twice as far apart', [0, 16]],
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
    press('Discard');
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
    expect(store.getState().notices.at(-1)!.text).toContain('Nothing changed: a note would leave');
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
  slide('Decay of Kick', 50);
  slide('Low-pass of Kick', 800);
  expect(store.getState().doc.beat!.lanes[0]).toMatchObject({ tune: -3, decay: 0.5, lowPass: 800 });
});

test('what is typed on any slider of the drawer is in the unit that it shows', () => {
  look({ cursor: { laneId: 'kick', step: 8 } });
  press('Open drag');
  press('3 strokes');
  press('1 ms later');
  slide('Chance of the hits', 40);
  expect(typedOtherwise()).toEqual([]);
  for (const name of ['Lane', 'Sound', 'Pads']) {
    page(name);
    expect(typedOtherwise()).toEqual([]);
  }
  page('Make');
  for (const maker of ['Ring', 'Bands', 'Chords', 'Rudiment']) {
    press(maker);
    expect(typedOtherwise()).toEqual([]);
  }
});

test('every roll of chance is a take that can be stepped back to, kept, named and dropped', () => {
  page('Make');
  press('Chance');
  press('Vary half');
  press('Randomize');
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
