import fc from 'fast-check';
import { createRepeats } from './repeats';

const PER_MS = 960 / 500;
const lane = (laneId: string) => ({ laneId, pitch: 0 });

/** A page that looks every 10 ms or so; play stands at 0 when it begins. */
const open = (plays = true, ahead = 60) => {
  let now = 1000;
  let from: number | null = plays ? now : null;
  let grid = 240;
  const struck: { id: string; pitch: number; velocity: number; tick: number | null; now: number }[] = [];
  const repeats = createRepeats({
    now: () => now,
    tickAt: (time) => (from === null ? null : (time - from) * PER_MS),
    every: () => ({ ticks: grid, ms: grid / PER_MS }),
    ahead: () => (from === null ? 0 : ahead),
    strike: ({ laneId, pitch }, velocity, tick) =>
      void struck.push({ id: laneId, pitch, velocity, tick, now }),
  });
  return {
    repeats,
    struck,
    wait: (ms: number, look = 10) => {
      for (const end = now + ms; now < end;) {
        now = Math.min(end, now + look);
        repeats.look();
      }
    },
    setGrid: (ticks: number) => (grid = ticks),
    play: (at: number | null) => (from = at === null ? null : now - at / PER_MS),
  };
};

test('what is held comes on each place of the grid after it was struck, once, and before it is due', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 2000 }),
      fc.constantFrom(120, 160, 240, 320, 480),
      fc.integer({ min: 3, max: 25 }),
      (at, grid, look) => {
        const page = open();
        page.setGrid(grid);
        page.wait(at, look);
        page.repeats.hold(lane('hat'), 90);
        const first = Math.floor((at * PER_MS) / grid + 0.5) * grid;
        page.wait(2000, look);
        const ticks = page.struck.map(({ tick }) => tick!);
        expect(ticks.length).toBeGreaterThan(5);
        expect(ticks).toEqual(ticks.map((_, n) => first + (n + 1) * grid));
        for (const { tick, now } of page.struck) {
          const due = 1000 + tick! / PER_MS;
          expect(due - now).toBeLessThanOrEqual(60);
          // The first may be nearer than that already.
          expect(due - now).toBeGreaterThan(Math.min(60, due - 1000 - at) - look - 0.001);
        }
      },
    ),
    { seed: 19, numRuns: 60 },
  );
});

test('it is as hard as it is pressed by then, and ends when it is let go', () => {
  const page = open();
  page.repeats.hold(lane('hat'), 90);
  page.repeats.hold(lane('rim'), 70);
  page.wait(130);
  page.repeats.press(lane('hat'), 40.4);
  page.wait(125);
  page.repeats.press(null, 300);
  page.wait(125);
  page.repeats.free(lane('hat'));
  page.wait(125);
  page.repeats.free(null);
  page.wait(500);
  const of = (id: string) => page.struck.filter((one) => one.id === id).map(({ velocity }) => velocity);
  expect(of('hat')).toEqual([90, 40, 127]);
  expect(of('rim')).toEqual([70, 70, 127, 127]);
});

test('with nothing playing it goes by the tempo; when play begins, leaps or ends it goes on', () => {
  const page = open(false);
  page.repeats.hold(lane('hat'), 90);
  page.wait(510);
  expect(page.struck.map(({ tick, now }) => [tick, now])).toEqual([
    [null, 1130],
    [null, 1250],
    [null, 1380],
    [null, 1500],
  ]);
  page.play(100);
  page.struck.length = 0;
  page.wait(125);
  expect(page.struck.map(({ tick }) => tick)).toEqual([240]);
  page.play(0);
  page.wait(260);
  expect(page.struck.map(({ tick }) => tick)).toEqual([240, 240, 480]);
  page.play(null);
  page.struck.length = 0;
  page.wait(260);
  expect(page.struck).toHaveLength(2);
});

test('a page that stalled does not make up for all that it missed', () => {
  const page = open();
  page.repeats.hold(lane('hat'), 90);
  page.wait(130);
  page.struck.length = 0;
  page.wait(3000, 3000);
  expect(page.struck.length).toBeLessThanOrEqual(2);
  page.wait(125);
  expect(page.struck.length).toBeLessThanOrEqual(3);
});
