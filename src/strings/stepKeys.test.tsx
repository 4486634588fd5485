/** @jest-environment jsdom */
import { looked, lookedAt } from '../store/looked.mock';
import { fireEvent, render, screen } from '@testing-library/react';
import { newBeat, lanePatternOf, patternOf } from '../../core/document/defaults';
import { setStep } from '../../core/edit/hits';
import { beatOpened, undone } from '../store/doc';
import { createStore } from '../store/store';
import { stepKeys } from './stepKeys';
import { loadEdits } from '../store/deferredEdits';

beforeAll(loadEdits);

const mockStruck: string[] = [];
jest.mock('../audio/player', () => ({
  strikeLane: (lane: string) => {
    mockStruck.push(lane);
    return Promise.resolve();
  },
}));

const store = createStore();
const LANES = ['kick', 'snare', 'clap'];
const STEPS = 8;

/** Lanes and steps as the strings have them, and a heading between. */
const Board = () => (
  <div onKeyDown={stepKeys(store)}>
    {LANES.map((lane, at) => [
      at === 1 ? <h2 key="heading">Group</h2> : null,
      <div key={lane} data-lane={lane}>
        <button type="button">{lane}</button>
        {Array.from({ length: STEPS }, (_, step) => (
          <button key={step} type="button" data-step={step} aria-label={`${lane} ${step}`} />
        ))}
      </div>,
    ])}
  </div>
);

const view = () => lookedAt(store.getState());
const part = (lane: string) => lanePatternOf(patternOf(store.getState().doc.beat!, null), lane);
const steps = (lane: string) => part(lane).hits.map(({ step }) => step);
const cell = (name: string) => screen.getByRole('button', { name });
const at = () => document.activeElement?.getAttribute('aria-label');
const key = (name: string, init: KeyboardEventInit = {}) =>
  fireEvent.keyDown(document.activeElement!, { key: name, ...init });
const said = () => store.getState().notices.at(-1)?.text;

beforeEach(() => {
  mockStruck.length = 0;
  Element.prototype.scrollIntoView = jest.fn();
  const made = newBeat('b', 'Quay', 1);
  const pattern = ['0', '4'].reduce(
    (one, step) => setStep(one, 'kick', Number(step), true),
    made.patterns[0]!,
  );
  store.dispatch(beatOpened({ beat: { ...made, patterns: [pattern] } }));
  store.dispatch(looked({ patternId: 'a', selection: [], clip: null, cursor: null, openLane: null }));
  render(<Board />);
  cell('kick 0').focus();
});

test('arrows walk among the steps and over the lanes, and stay at the edges', () => {
  key('ArrowRight');
  expect(at()).toBe('kick 1');
  key('ArrowDown');
  expect(at()).toBe('snare 1');
  key('ArrowDown');
  key('ArrowDown');
  expect(at()).toBe('clap 1');
  key('End');
  expect(at()).toBe('clap 7');
  key('ArrowRight');
  expect(at()).toBe('clap 7');
  key('Home');
  key('ArrowLeft');
  expect(at()).toBe('clap 0');
  key('ArrowUp');
  expect(at()).toBe('snare 0');
});

test('Enter puts a hit and takes it off; a digit is its velocity, the same for all that is chosen', () => {
  key('Enter');
  expect(steps('kick')).toEqual([4]);
  key('Enter');
  expect(steps('kick')).toEqual([0, 4]);
  key('9');
  key('ArrowRight');
  key('3');
  const [first, second] = part('kick').hits;
  expect(first!.velocity).toBeGreaterThan(second!.velocity);
  key('a', { ctrlKey: true });
  key('5');
  expect(new Set(part('kick').hits.map(({ velocity }) => velocity)).size).toBe(1);
});

test('letters work the lane, wherever in it the focus is', () => {
  screen.getByRole('button', { name: 'snare' }).focus();
  key('h');
  expect(mockStruck).toEqual(['snare']);
  key('m');
  key('s');
  const lane = store.getState().doc.beat!.lanes.find(({ id }) => id === 'snare')!;
  expect(lane).toMatchObject({ mute: true, solo: true });
  key('o');
  expect(view().openLane).toBe('snare');
  key('o');
  expect(view().openLane).toBeNull();
});

test('Shift and arrows choose; a copy is pasted where the line is, on another lane too', () => {
  for (let i = 0; i < 4; i++) key('ArrowRight', { shiftKey: true });
  expect(view().selection.map(({ step }) => step)).toEqual([0, 1, 2, 3, 4]);
  key('c', { metaKey: true });
  // Behind what was copied, until one walks elsewhere.
  expect(view().pasteAt).toEqual({ laneId: 'kick', step: 5 });
  key('v', { ctrlKey: true });
  expect(steps('kick')).toEqual([0, 4, 5, 9]);
  store.dispatch(undone());
  key('Escape');
  expect(view().selection).toEqual([]);
  cell('snare 2').focus();
  store.dispatch(looked({ pasteAt: { laneId: 'snare', step: 2 } }));
  key('v', { ctrlKey: true });
  expect(steps('snare')).toEqual([2, 6]);
  expect(view().selection.every(({ laneId }) => laneId === 'snare')).toBe(true);
});

test('cut takes off what it copies; what is empty is not copied, and that is said', () => {
  key('a', { ctrlKey: true });
  key('x', { ctrlKey: true });
  expect(steps('kick')).toEqual([]);
  store.dispatch(undone());
  expect(steps('kick')).toEqual([0, 4]);
  store.dispatch(looked({ selection: [] }));
  cell('clap 3').focus();
  key('c', { ctrlKey: true });
  expect(said()).toMatch(/^Nothing was copied: there is no hit/);
});

test('without a copy there is nothing to paste, which is said', () => {
  key('v', { ctrlKey: true });
  expect(said()).toMatch(/^Nothing was copied yet/);
  expect(steps('kick')).toEqual([0, 4]);
});

test('a duplicate lies right after what is chosen', () => {
  key('ArrowRight', { shiftKey: true });
  key('d', { ctrlKey: true });
  expect(steps('kick')).toEqual([0, 2, 4]);
});

test('Alt and arrows move hits along their lane and to the next, and no further than fits', () => {
  key('ArrowRight', { altKey: true });
  expect(steps('kick')).toEqual([1, 4]);
  expect(view().selection).toEqual([{ laneId: 'kick', step: 1 }]);
  key('ArrowDown', { altKey: true });
  expect([steps('kick'), steps('snare')]).toEqual([[4], [1]]);
  key('ArrowLeft', { altKey: true });
  key('ArrowLeft', { altKey: true });
  expect(steps('snare')).toEqual([0]);
});

test('commas and points nudge by a millisecond, with Shift by ten; Delete takes off', () => {
  const nudged = () => part('kick').hits[0]!.nudge;
  key('.');
  const one = nudged();
  expect(one).toBeGreaterThan(0);
  // As keyboards send it: another sign, in the same place.
  key(':', { shiftKey: true, code: 'Period' });
  expect(nudged()).toBeCloseTo(one * 11, 6);
  key('<', { shiftKey: true, code: 'Comma' });
  expect(nudged()).toBeCloseTo(one, 6);
  key('>', { shiftKey: true, code: 'Period' });
  key(',');
  expect(nudged()).toBeCloseTo(one * 10, 6);
  key('Delete');
  expect(steps('kick')).toEqual([4]);
});

test('other keys are left to the page', () => {
  for (const name of ['Tab', 'F5', 'q']) expect(key(name)).toBe(true);
  expect(key('Enter')).toBe(false);
});

test('Page Up and Down go along the notes of a tuned lane, several hits together; elsewhere they are left alone', () => {
  const pitches = () =>
    lanePatternOf(patternOf(store.getState().doc.beat!, 'a'), 'kick').hits.map(({ pitch = 0 }) => pitch);
  key('PageUp');
  expect(pitches()).toEqual([0, 0]);
  store.dispatch(looked({ heights: { laneId: 'kick', note: 60, notes: [58, 60, 63, 65] } }));
  key('PageUp');
  expect(pitches()).toEqual([3, 0]);
  key('a', { ctrlKey: true });
  key('PageUp');
  expect(pitches()).toEqual([5, 2]);
  key('PageUp');
  expect(pitches()).toEqual([5, 2]);
  key('PageDown');
  expect(pitches()).toEqual([3, 0]);
});
