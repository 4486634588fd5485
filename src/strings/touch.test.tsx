/** @jest-environment jsdom */
import { hitsSelected } from '../store/focus';
import { looked, lookedAt } from '../store/looked.mock';
import { newBeat, lanePatternOf, patternOf } from '../../core/document/defaults';
import { setStep } from '../../core/edit/hits';
import { beatOpened, stepSet, undone } from '../store/doc';
import { createStore } from '../store/store';
import { AROUND, INSET, OPEN_HEIGHT } from './geometry';
import { createTouch, type Touch } from './touch';
import { loadEdits } from '../store/deferredEdits';

beforeAll(loadEdits);

const mockStrikes: [string, number][] = [];
jest.mock('../audio/player', () => ({
  strikeLane: (lane: string, velocity: number) => {
    mockStrikes.push([lane, velocity]);
    return Promise.resolve();
  },
}));

const store = createStore();
const LANES = ['kick', 'snare', 'clap'];
const STEPS = 16;
const STEP_TICKS = 240;
/** A point for four ticks, so that a step is sixty points wide. */
const POINTS = 0.25;
const LEFT = 100;
const WIDTH = (3840 + AROUND) * POINTS;
const SPACE = 200;

const part = (lane: string) => lanePatternOf(patternOf(store.getState().doc.beat!, null), lane);
const steps = (lane: string) => part(lane).hits.map(({ step }) => step);
const view = () => lookedAt(store.getState());
/** The middle of a step, in points of the page. */
const x = (step: number): number => LEFT + (INSET + step * STEP_TICKS) * POINTS;
const y = (lane: string, down = 24): number => LANES.indexOf(lane) * SPACE + down;

const boxOf = (left: number, top: number, width: number, height: number) =>
  ({ left, top, width, height, right: left + width, bottom: top + height }) as DOMRect;

const cell = (lane: string, step: number): HTMLElement =>
  document.querySelector(`[data-lane="${lane}"] [data-step="${step}"]`)!;

const build = (open: string | null): void => {
  document.body.innerHTML = LANES.map(
    (lane) =>
      `<div data-lane="${lane}" class="${lane === open ? 'open' : ''}"><span class="reading"></span><div class="string">${Array.from(
        { length: STEPS },
        (_, step) => `<button data-step="${step}"></button>`,
      ).join('')}</div></div>`,
  ).join('');
  for (const lane of LANES) {
    const string = document.querySelector<HTMLElement>(`[data-lane="${lane}"] .string`)!;
    string.getBoundingClientRect = () => boxOf(LEFT, y(lane, 0), WIDTH, lane === open ? OPEN_HEIGHT : 48);
  }
  document.elementFromPoint = (px, py) => {
    const lane = LANES[Math.floor(py / SPACE)];
    const step = Math.round(((px - LEFT) / POINTS - INSET) / STEP_TICKS);
    return lane && step >= 0 && step < STEPS ? cell(lane, step) : null;
  };
};

let touch: Touch;
let target: HTMLElement;
const event = (px: number, py: number, change: Partial<PointerEvent> = {}): PointerEvent =>
  ({
    target,
    pointerId: 1,
    pointerType: 'mouse',
    button: 0,
    clientX: px,
    clientY: py,
    timeStamp: 1,
    shiftKey: false,
    ctrlKey: false,
    ...change,
  }) as PointerEvent;
const down = (lane: string, step: number, change: Partial<PointerEvent> = {}, low = 24) => {
  target = cell(lane, step);
  touch.down(event(x(step), y(lane, low), change));
};

const open = (lane: string | null, on: [string, number][]): void => {
  const made = newBeat('b', 'Quay', 1);
  const pattern = on.reduce((one, [id, step]) => setStep(one, id, step, true), made.patterns[0]!);
  store.dispatch(beatOpened({ beat: { ...made, tempo: 120, patterns: [pattern] } }));
  store.dispatch(looked({ patternId: 'a', selection: [], cursor: null, openLane: lane, glass: 1 }));
  build(lane);
  touch = createTouch(store);
};
const FINGER = { pointerType: 'touch' } as const;

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

describe('on closed strings', () => {
  test('a mouse sets a step at once, and takes it off; a finger when it lifts', () => {
    open(null, [['kick', 0]]);
    down('kick', 4);
    expect(steps('kick')).toEqual([0, 4]);
    touch.up(event(x(4), y('kick')));
    down('kick', 0);
    touch.up(event(x(0), y('kick')));
    expect(steps('kick')).toEqual([4]);
    down('snare', 2, FINGER);
    expect(steps('snare')).toEqual([]);
    touch.up(event(x(2), y('snare'), FINGER));
    expect(steps('snare')).toEqual([2]);
    expect(view().cursor).toEqual({ laneId: 'snare', step: 2 });
  });

  test('a drag paints every step that it passes, however fast, or erases where it began on a hit', () => {
    open(null, [['snare', 3]]);
    down('kick', 2);
    touch.move(event(x(7), y('kick')));
    touch.move(event(x(5), y('kick')));
    touch.up(event(x(5), y('kick')));
    expect(steps('kick')).toEqual([2, 3, 4, 5, 6, 7]);
    down('kick', 3);
    touch.move(event(x(5), y('kick')));
    touch.up(event(x(5), y('kick')));
    expect(steps('kick')).toEqual([2, 6, 7]);
    expect(steps('snare')).toEqual([3]);
  });

  test('all that one drag paints is one step of the history', () => {
    open(null, []);
    const { length } = store.getState().doc.past;
    down('kick', 0);
    touch.move(event(x(9), y('kick')));
    touch.up(event(x(9), y('kick')));
    expect(steps('kick')).toHaveLength(10);
    expect(store.getState().doc.past).toHaveLength(length + 1);
  });

  test('a finger that goes up or down scrolls the page and sets nothing; its trembling is no drag', () => {
    open(null, []);
    down('kick', 2, FINGER);
    touch.move(event(x(2) + 2, y('kick') + 3, FINGER));
    expect(touch.holds()).toBe(false);
    touch.move(event(x(2), y('kick') + 40, FINGER));
    touch.cancel();
    expect(steps('kick')).toEqual([]);
    expect(touch.holds()).toBe(false);
  });

  test('a finger held chooses, and dragged on chooses what its box holds, over several lanes', () => {
    open(null, [
      ['kick', 0],
      ['kick', 8],
      ['snare', 4],
      ['clap', 12],
    ]);
    down('kick', 0, FINGER);
    jest.advanceTimersByTime(500);
    expect(view().selection).toEqual([{ laneId: 'kick', step: 0 }]);
    expect(touch.holds()).toBe(true);
    touch.move(event(x(8), y('snare'), FINGER));
    touch.up(event(x(8), y('snare'), FINGER));
    expect(view().selection.map(({ laneId, step }) => `${laneId} ${step}`)).toEqual([
      'kick 0',
      'kick 8',
      'snare 4',
    ]);
    // From the first sixteenth to the end of the ninth, so that what is duplicated begins on the tenth.
    expect(view().box).toEqual({ laneIds: ['kick', 'snare'], from: 0, to: 9 * 240 });
    expect(steps('kick')).toEqual([0, 8]);
  });

  test('with Shift a mouse adds to what is chosen, and takes from it', () => {
    open(null, [
      ['kick', 0],
      ['kick', 4],
    ]);
    for (const step of [0, 4]) {
      down('kick', step, { shiftKey: true });
      touch.up(event(x(step), y('kick'), { shiftKey: true }));
    }
    expect(view().selection.map(({ step }) => step)).toEqual([0, 4]);
    down('kick', 0, { shiftKey: true });
    touch.up(event(x(0), y('kick'), { shiftKey: true }));
    expect(view().selection.map(({ step }) => step)).toEqual([4]);
    expect(steps('kick')).toEqual([0, 4]);
  });

  test('a click without a pointer, as screen readers give it, sets a step; the click after a press does not', () => {
    open(null, []);
    target = cell('clap', 6);
    touch.click({ target, detail: 0 } as unknown as MouseEvent);
    expect(steps('clap')).toEqual([6]);
    touch.click({ target, detail: 1 } as unknown as MouseEvent);
    expect(steps('clap')).toEqual([6]);
  });

  test('other buttons and other fingers set nothing', () => {
    open(null, []);
    down('kick', 2, { button: 2 });
    touch.up(event(x(2), y('kick'), { button: 2 }));
    expect(steps('kick')).toEqual([]);
    down('kick', 2);
    down('snare', 5, { pointerId: 2 });
    touch.up(event(x(5), y('snare'), { pointerId: 2 }));
    touch.up(event(x(2), y('kick')));
    expect([steps('kick'), steps('snare')]).toEqual([[2], []]);
  });
});

describe('on an open string', () => {
  /** Where the bead of a hit of velocity 100 stands. */
  const BEAD = 14 + 27 * 0.86;
  const hit = () => part('kick').hits[0]!;
  const reading = () => document.querySelector('[data-lane="kick"] .reading')!.textContent;
  beforeEach(() => {
    open('kick', [['kick', 4]]);
    down('kick', 4, {}, BEAD);
  });

  test('up and down is velocity, held to 1 and 127, and said while it goes', () => {
    const before = hit().velocity;
    touch.move(event(x(4), y('kick', BEAD + 10 * 0.86)));
    expect(hit().velocity).toBe(before - 10);
    expect(reading()).toBe(`velocity ${before - 10}`);
    touch.move(event(x(4), y('kick', 0)));
    expect(hit().velocity).toBe(127);
    touch.move(event(x(4), y('kick', OPEN_HEIGHT + 10)));
    expect(hit().velocity).toBe(1);
    touch.up(event(x(4), y('kick', OPEN_HEIGHT + 10)));
    expect(reading()).toBe('');
    expect(mockStrikes.length).toBeGreaterThan(0);
  });

  test('dragged off its string it is taken off where it is let go, and put back by one undo', () => {
    const before = hit();
    touch.move(event(x(4), y('kick', 30)));
    touch.move(event(x(4), y('kick', -4000)));
    expect(reading()).toBe('let go to take it off');
    expect(steps('kick')).toEqual([4]);
    store.dispatch(hitsSelected({ spots: [{ laneId: 'kick', step: 4 }] }));
    touch.up(event(x(4), y('kick', -4000)));
    expect(steps('kick')).toEqual([]);
    expect(view().selection).toEqual([]);
    store.dispatch(undone());
    expect(hit()).toEqual(before);
  });

  test('dragged off and tapped back it has what it had before it was dragged', () => {
    const before = hit();
    touch.move(event(x(4), y('kick', 30)));
    touch.move(event(x(4), y('kick', -4000)));
    touch.up(event(x(4), y('kick', -4000)));
    expect(steps('kick')).toEqual([]);
    store.dispatch(stepSet({ patternId: 'a', laneId: 'kick', step: 4, on: true }));
    expect(hit()).toEqual(before);
  });

  test('sideways is nudge, by half a step at the most, said in ms and in percent', () => {
    touch.move(event(x(4) + 15, y('kick', BEAD)));
    expect(hit().nudge).toBeCloseTo(15 / (STEP_TICKS * POINTS), 5);
    // A sixteenth at 120 BPM is 125 ms.
    expect(reading()).toBe('+31.3 ms, 25 % of a step');
    touch.move(event(x(4) - 30, y('kick', BEAD)));
    expect(hit().nudge).toBe(-0.5);
    expect(hit().step).toBe(4);
  });

  test('farther than that it goes from step to step', () => {
    const { velocity } = hit();
    touch.move(event(x(4) + 15, y('kick', BEAD)));
    touch.move(event(x(7), y('kick', BEAD)));
    expect(hit()).toMatchObject({ step: 7, nudge: 0, velocity });
    touch.up(event(x(7), y('kick', BEAD)));
    expect(steps('kick')).toEqual([7]);
  });

  test('with a key or a second finger it goes ten times finer', () => {
    touch.move(event(x(4) + 4, y('kick', BEAD)));
    down('kick', 4, { pointerId: 2 });
    touch.move(event(x(4) + 30, y('kick', BEAD)));
    expect(hit().nudge).toBeCloseTo(3 / (STEP_TICKS * POINTS), 5);
  });

  test('a tap selects the hit, a second one on the heels of it takes it off', () => {
    touch.up(event(x(4), y('kick', BEAD)));
    expect(steps('kick')).toEqual([4]);
    expect(view().selection).toMatchObject([{ laneId: 'kick', step: 4 }]);
    down('kick', 4, { timeStamp: 900 }, BEAD);
    touch.up(event(x(4), y('kick', BEAD), { timeStamp: 960 }));
    expect(steps('kick')).toEqual([4]);
    down('kick', 4, { timeStamp: 1100 }, BEAD);
    touch.up(event(x(4), y('kick', BEAD), { timeStamp: 1150 }));
    expect(steps('kick')).toEqual([]);
    expect(view().selection).toEqual([]);
  });

  test('a tap on an empty step puts a hit there and selects it', () => {
    touch.up(event(x(4), y('kick', BEAD)));
    down('kick', 9, { timeStamp: 3000 });
    touch.up(event(x(9), y('kick'), { timeStamp: 3050 }));
    expect(steps('kick')).toEqual([4, 9]);
    expect(view().selection).toMatchObject([{ laneId: 'kick', step: 9 }]);
  });
});

test('drawn across an open string, the velocities of the hits that it passes follow the hand', () => {
  open('kick', [
    ['kick', 4],
    ['kick', 6],
    ['kick', 8],
  ]);
  down('kick', 2, {}, 20);
  for (const step of [4, 6, 8]) touch.move(event(x(step), y('kick', 14 + step * 8)));
  touch.up(event(x(8), y('kick', 78)));
  const drawn = part('kick').hits.map(({ velocity }) => velocity);
  expect(drawn).toEqual([4, 6, 8].map((step) => Math.round(127 - (step * 8) / 0.86)));
  expect(steps('kick')).toEqual([4, 6, 8]);
});

test('the chosen hits are nudged together with the one that is dragged', () => {
  open('kick', [
    ['kick', 4],
    ['kick', 8],
    ['kick', 12],
  ]);
  store.dispatch(
    looked({
      selection: [
        { laneId: 'kick', step: 4 },
        { laneId: 'kick', step: 8 },
      ],
    }),
  );
  down('kick', 8, {}, 14 + 27 * 0.86);
  touch.move(event(x(8) + 6, y('kick', 14 + 27 * 0.86)));
  const nudges = part('kick').hits.map(({ nudge }) => nudge);
  expect(nudges[0]).toBeGreaterThan(0);
  expect(nudges[1]).toBe(nudges[0]);
  expect(nudges[2]).toBe(0);
});

describe('where height is pitch', () => {
  const NOTES = [48, 51, 53, 55, 58, 60, 63, 65, 67, 70, 72];
  const heights = { laneId: 'kick', note: 60, notes: NOTES };
  /** Where a note stands in the open string, in points from its top. */
  const at = (note: number) => 14 + (1 - (note - 48) / 24) * 127 * 0.86;
  const reading = () => document.querySelector('[data-lane="kick"] .reading')!.textContent;
  const pitches = () =>
    lanePatternOf(patternOf(store.getState().doc.beat!, 'a'), 'kick').hits.map(({ step, pitch = 0 }) => [
      step,
      pitch,
    ]);

  beforeEach(() => {
    open('kick', [['kick', 4]]);
    store.dispatch(looked({ heights }));
  });

  test('a bead is dragged along the notes of its lane, and said by name; undo takes it back at once', () => {
    down('kick', 4, {}, at(60));
    touch.move(event(x(4), y('kick', at(64))));
    expect(pitches()).toEqual([[4, 3]]);
    expect(reading()).toBe('D♯3');
    touch.move(event(x(4), y('kick', at(67))));
    expect(pitches()).toEqual([[4, 7]]);
    touch.up(event(x(4), y('kick', at(67))));
    store.dispatch(undone());
    expect(pitches()).toEqual([[4, 0]]);
  });

  test('a tap on an empty step puts the note that is tapped', () => {
    down('kick', 8, {}, at(55));
    touch.up(event(x(8), y('kick', at(55))));
    expect(pitches()).toEqual([
      [4, 0],
      [8, -5],
    ]);
    store.dispatch(undone());
    expect(pitches()).toEqual([[4, 0]]);
  });

  test('dragged off the string the bead is taken off all the same', () => {
    down('kick', 4, {}, at(60));
    touch.move(event(x(4), y('kick', at(64))));
    touch.move(event(x(4), y('kick', -4000)));
    touch.up(event(x(4), y('kick', -4000)));
    expect(pitches()).toEqual([]);
  });
});
