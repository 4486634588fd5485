/** @jest-environment jsdom */
import { looked } from '../store/looked.mock';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat, lanePatternOf, patternOf } from '../../core/document/defaults';
import { setStep, setVelocity } from '../../core/edit/hits';
import { beatOpened } from '../store/doc';
import { store } from '../keeping/session';
import { Strings } from './Strings';
import { selectBeat, selectPattern, useApp } from '../store/store';
import { pageFits } from '../ui/width.mock';
import { loadEdits } from '../store/deferredEdits';

beforeAll(loadEdits);

const strikes: string[] = [];
jest.mock('../audio/player', () => ({
  strikeLane: (lane: string) => {
    strikes.push(lane);
    return Promise.resolve();
  },
  playedTick: () => null,
  playedPattern: () => null,
  takeHeard: () => [],
  msToNextHeard: () => null,
  hearPeaks: () => () => undefined,
}));
jest.mock('../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../store/store')>('../store/store');
  return { store: createStore() };
});

const Screen = () => {
  const beat = useApp(selectBeat);
  const pattern = useApp(selectPattern);
  return beat && pattern ? (
    <Strings beat={beat} pattern={pattern} wide={false} onBar={() => undefined} foot={null} />
  ) : null;
};

const step = (lane: string, number: number) =>
  screen.getByRole('checkbox', { name: `${lane}, step ${number}` });
const kick = () => lanePatternOf(patternOf(store.getState().doc.beat!, null), 'kick').hits;
const on = (element: HTMLElement) => element.getAttribute('aria-checked') === 'true';

beforeEach(() => {
  pageFits(false);
  jest.useFakeTimers();
  strikes.length = 0;
  global.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  const beat = newBeat('b', 'Quay', 1);
  const withHit = setVelocity(setStep(beat.patterns[0]!, 'kick', 4, true), 'kick', 4, 70);
  store.dispatch(looked({ openLane: null, patternId: 'a', selection: [], cursor: null }));
  store.dispatch(beatOpened({ beat: { ...beat, patterns: [withHit] } }));
  render(
    <Provider store={store}>
      <Screen />
    </Provider>,
  );
  act(() => void jest.advanceTimersByTime(1000));
});
afterEach(() => jest.useRealTimers());

test('every step is a checkbox with its lane and number, and says its velocity', () => {
  expect(screen.getAllByRole('checkbox')).toHaveLength(10 * 16);
  expect(on(step('Kick', 5))).toBe(true);
  const velocity = document.getElementById(step('Kick', 5).getAttribute('aria-describedby')!);
  expect(velocity!.textContent).toBe('velocity 70');
  expect(on(step('Kick', 6))).toBe(false);
  expect(screen.getByRole('button', { name: 'Mute Kick' }).getAttribute('aria-pressed')).toBe('false');
});

test('a mouse presses a step on and off at once; a finger does when it is lifted', () => {
  const mouse = { pointerType: 'mouse', pointerId: 1, button: 0 };
  fireEvent.pointerDown(step('Kick', 1), mouse);
  expect(on(step('Kick', 1))).toBe(true);
  fireEvent.pointerUp(step('Kick', 1), mouse);
  expect(on(step('Kick', 1))).toBe(true);
  const finger = { pointerType: 'touch', pointerId: 2, button: 0 };
  fireEvent.pointerDown(step('Kick', 1), finger);
  expect(on(step('Kick', 1))).toBe(true);
  fireEvent.pointerUp(step('Kick', 1), finger);
  expect(on(step('Kick', 1))).toBe(false);
});

test('a finger that turns out to scroll changes nothing', () => {
  const finger = (clientY: number) => ({
    pointerType: 'touch',
    pointerId: 2,
    button: 0,
    clientX: 100,
    clientY,
  });
  fireEvent.pointerDown(step('Kick', 5), finger(100));
  fireEvent.pointerMove(step('Kick', 5), finger(130));
  fireEvent.pointerCancel(step('Kick', 5), finger(130));
  expect(on(step('Kick', 5))).toBe(true);
  expect(kick()).toHaveLength(1);
});

test('assistive technology clicks without a pointer', () => {
  fireEvent.click(step('Snare', 3), { detail: 0 });
  expect(on(step('Snare', 3))).toBe(true);
});

test('in the open string a bead is dragged up and down, one step of the history', () => {
  act(() => void store.dispatch(looked({ openLane: 'kick' })));
  const past = store.getState().doc.past.length;
  const mouse = (clientY: number) => ({
    pointerType: 'mouse',
    pointerId: 1,
    button: 0,
    clientX: 0,
    clientY,
  });
  fireEvent.pointerDown(step('Kick', 5), mouse(63));
  for (const y of [58, 40, 23]) fireEvent.pointerMove(step('Kick', 5), mouse(y));
  fireEvent.pointerUp(step('Kick', 5), mouse(23));
  expect(kick()[0]!.velocity).toBe(Math.round(70 + 40 / 0.86));
  expect(store.getState().doc.past).toHaveLength(past + 1);
});

test('hits are chosen by keys, copied, moved, nudged and taken off', () => {
  const press = (key: string, more: object = {}) =>
    fireEvent.keyDown(document.activeElement!, { key, ...more });
  step('Kick', 5).focus();
  press('a', { ctrlKey: true });
  expect(store.getState().focus.selection).toEqual([{ laneId: 'kick', step: 4 }]);
  press('c', { ctrlKey: true });
  press('ArrowRight', { altKey: true });
  expect(kick().map((hit) => hit.step)).toEqual([5]);
  press('.');
  // 1 ms of a sixteenth of 150 ms.
  expect(kick()[0]!.nudge).toBeCloseTo(1 / 150);
  step('Snare', 3).focus();
  press('v', { ctrlKey: true });
  // The empty steps before the hit were copied with it.
  expect(on(step('Snare', 7))).toBe(true);
  press('Delete');
  expect(on(step('Snare', 7))).toBe(false);
  press('Escape');
  expect(store.getState().focus.selection).toEqual([]);
  step('Snare', 16).focus();
  press('ArrowLeft', { shiftKey: true });
  expect(store.getState().focus.selection.map((spot) => spot.step)).toEqual([15, 14]);
});

test('keys walk, put hits, set velocities and work the lane', () => {
  const press = (key: string) => fireEvent.keyDown(document.activeElement!, { key });
  step('Kick', 1).focus();
  press('ArrowRight');
  expect(document.activeElement).toBe(step('Kick', 2));
  press('Enter');
  press('9');
  expect(kick()[0]).toMatchObject({ step: 1, velocity: 127 });
  press('ArrowDown');
  expect(document.activeElement).toBe(step('Snare', 2));
  press('End');
  press('4');
  expect(on(step('Snare', 16))).toBe(true);
  press('m');
  expect(screen.getByRole('button', { name: 'Mute Snare' }).getAttribute('aria-pressed')).toBe('true');
  press('h');
  expect(strikes).toEqual(['snare']);
  press('o');
  expect(screen.getByRole('button', { name: /^Snare/, expanded: true })).toBeTruthy();
});

test('a press of a name sounds the lane and opens it', () => {
  fireEvent.click(screen.getByRole('button', { name: 'Clap' }));
  expect(strikes).toEqual(['clap']);
  expect(store.getState().focus.openLane).toBe('clap');
});

test('there is one tab stop among the steps', () => {
  step('Clap', 7).focus();
  const stops = screen.getAllByRole('checkbox').filter((cell) => cell.getAttribute('tabindex') === '0');
  expect(stops).toEqual([step('Clap', 7)]);
});
