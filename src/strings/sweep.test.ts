/** @jest-environment jsdom */
import type { Board } from './board';
import { startSweep } from './sweep';

/** What is heard, as the test says. */
const mockHeard: {
  tick: number | null;
  pattern: string;
  notes: { lane: number; step: number }[];
  next: number | null;
} = {
  tick: null,
  pattern: 'a',
  notes: [],
  next: null,
};
jest.mock('../audio/player', () => ({
  playedTick: () => mockHeard.tick,
  playedPattern: () => mockHeard.pattern,
  takeHeard: () => mockHeard.notes.splice(0),
  msToNextHeard: () => mockHeard.next,
}));

const moves: string[] = [];
const lit: string[] = [];
const stands: string[] = [];
let painted = 0;
let breaks = false;

const board = {
  light: (lane: number, step: number, on: boolean) => {
    lit.push(`${lane} ${step} ${on ? 'on' : 'off'}`);
  },
  stand: (lane: number, step: number | null) => stands.push(`${lane} ${step}`),
  paint: () => {
    painted += 1;
    if (breaks) throw new Error('the canvas is gone');
  },
} as unknown as Board;

const parts = (more: Partial<Parameters<typeof startSweep>[0]> = {}) => {
  const line = document.createElement('div');
  line.dataset['points'] = '0.1';
  line.hidden = true;
  line.animate = ((frames: { transform: string }[]) => {
    moves.push(frames[0]!.transform);
    return { cancel: () => undefined };
  }) as never;
  const scroller = document.createElement('div');
  const turned: number[] = [];
  scroller.scrollTo = (({ left }: { left: number }) => turned.push(left)) as never;
  return {
    given: {
      line,
      scroller,
      board,
      patternId: 'a',
      length: 7680,
      page: 3840,
      tempo: () => 120,
      places: () => null,
      ...more,
    },
    turned,
  };
};

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(mockHeard, { tick: null, pattern: 'a', notes: [], next: null });
  for (const list of [moves, lit, stands]) list.length = 0;
  painted = 0;
  breaks = false;
});
afterEach(() => jest.useRealTimers());

const run = (ms: number) => jest.advanceTimersByTime(ms);

test('the line waits until something is heard, then glides, and is hidden when it is stopped', () => {
  const { given } = parts();
  const stop = startSweep(given);
  run(50);
  expect([given.line.hidden, moves]).toEqual([true, []]);
  mockHeard.tick = 960;
  run(40);
  expect(given.line.hidden).toBe(false);
  expect(moves.length).toBeGreaterThan(0);
  stop();
  expect(given.line.hidden).toBe(true);
  const before = moves.length;
  run(1000);
  expect(moves.length).toBe(before);
});

test('what is heard is lit for a moment, and all is put out at the end', () => {
  const stop = startSweep(parts().given);
  mockHeard.tick = 0;
  mockHeard.notes = [{ lane: 1, step: 4 }];
  run(70);
  expect(lit).toEqual(['1 4 on']);
  run(200);
  expect(lit).toEqual(['1 4 on', '1 4 off']);
  mockHeard.notes = [{ lane: 0, step: 0 }];
  run(70);
  stop();
  expect(lit.slice(2)).toEqual(['0 0 on', '0 0 off']);
});

test('another pattern that is still heard moves nothing and lights nothing here', () => {
  const { given } = parts();
  const stop = startSweep(given);
  Object.assign(mockHeard, { tick: 960, pattern: 'b', notes: [{ lane: 1, step: 4 }] });
  run(100);
  expect([moves, lit, given.line.hidden]).toEqual([[], [], true]);
  mockHeard.pattern = 'a';
  run(100);
  expect(moves.length).toBeGreaterThan(0);
  stop();
});

test('the page is turned with the sound until a hand scrolls it', () => {
  const { given, turned } = parts();
  const stop = startSweep(given);
  mockHeard.tick = 100;
  run(100);
  mockHeard.tick = 4000;
  run(100);
  expect(turned).toEqual([0, 384]);
  given.scroller.dispatchEvent(new Event('touchmove'));
  mockHeard.tick = 7700;
  run(100);
  expect(turned).toEqual([0, 384]);
  stop();
});

test('lanes with a time of their own have their place shown, and taken away at the end', () => {
  const stop = startSweep(parts({ places: (tick) => [{ lane: 2, step: Math.floor(tick / 240) }] }).given);
  mockHeard.tick = 480;
  run(70);
  expect(stands).toContain('2 2');
  stop();
  expect(stands.at(-1)).toBe('2 null');
});

test('no frame is woken for without need: with nothing to come it looks some sixteen times a second', () => {
  const stop = startSweep(parts().given);
  mockHeard.tick = 0;
  run(100);
  painted = 0;
  run(1000);
  expect(painted).toBeLessThan(25);
  expect(painted).toBeGreaterThan(5);
  stop();
});

test('a canvas that breaks is no reason to go on for ever after it was stopped', () => {
  const { given } = parts();
  const stop = startSweep(given);
  breaks = true;
  expect(() => run(100)).toThrow('the canvas is gone');
  breaks = false;
  stop();
  painted = 0;
  run(500);
  expect(painted).toBe(0);
});
