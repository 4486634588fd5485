/** @jest-environment jsdom */
import { newBeat, newHit } from '../../core/document/defaults';
import type { Beat, Hit, LanePattern } from '../../core/document/schema';
import { sloped } from '../../core/document/rolls';
import { createBoard } from './board';
import { drawLane } from './drawing';
import { beadSize, beadTop, INSET } from './geometry';
import type { Ink } from './ink';
import { paintPicture, type Look } from './paint';
import { picturesOf } from './pictures';

const ink = new Proxy({}, { get: (_, name) => String(name) }) as Ink;
const look: Look = {
  ink,
  dye: 'dye',
  material: 'skin',
  open: false,
  tall: 48,
  silent: false,
  points: 0.1,
  chosen: new Map(),
  marked: new Set(),
};
const bars = { bar: 3840, beat: 960, total: 3840 };

/** A brush that writes down what it is told, with its colour and strength at that moment. */
const createBrush = () => {
  const done: { what: string; args: number[]; colour: string; alpha: number }[] = [];
  const state: Record<string, unknown> = { fillStyle: '', strokeStyle: '', globalAlpha: 1, lineWidth: 1 };
  const brush = new Proxy(state, {
    get: (target, name: string) =>
      name in target
        ? target[name]
        : (...args: number[]) =>
            done.push({
              what: name,
              args,
              colour: String(name === 'stroke' ? target['strokeStyle'] : target['fillStyle']),
              alpha: Number(target['globalAlpha']),
            }),
  });
  return { brush: brush as unknown as CanvasRenderingContext2D, done };
};

const withKick = (hits: Hit[], part: Partial<LanePattern> = {}): Beat => {
  const beat = newBeat('b', 'B', 1);
  const kick: LanePattern = { grid: '1/16', steps: null, rate: '1', direction: 'forward', hits, ...part };
  return { ...beat, patterns: [{ ...beat.patterns[0]!, parts: { kick } }] };
};
const painted = (beat: Beat, how: Partial<Look> = {}, lit: number[] = [], at: number | null = null) => {
  const drawing = drawLane(beat, beat.patterns[0]!, beat.lanes[0]!, 1);
  const { brush, done } = createBrush();
  paintPicture(brush, picturesOf(drawing, bars)[0]!, { ...look, ...how }, new Set(lit), at);
  return done;
};
const circles = (done: ReturnType<typeof painted>) =>
  done.filter(({ what, args }) => what === 'arc' && args[2]! > 2.5).map(({ args }) => args.slice(0, 3));

test('a bead is painted where it sounds, as large as it is loud, and lights in the colour of text', () => {
  const beat = withKick([newHit(0, 127), { ...newHit(4, 30), nudge: 0.25 }]);
  expect(circles(painted(beat))).toEqual([
    [INSET * 0.1, 24, beadSize(127) / 2],
    [(960 + 60 + INSET) * 0.1, 24, beadSize(30) / 2],
  ]);
  const lit = painted(beat, {}, [4]).filter(({ what }) => what === 'fill');
  expect(lit.filter(({ colour }) => colour === 'text')).toHaveLength(1);
});

test('in the open string height is velocity, and a length is drawn at its foot', () => {
  const beat = withKick([{ ...newHit(2, 64), length: 3 }]);
  const done = painted(beat, { open: true });
  expect(circles(done)[0]![1]).toBeCloseTo(beadTop(64, true));
  expect(done.some(({ what, args }) => what === 'fillRect' && args[2] === 72 && args[3] === 3)).toBe(true);
});

test('a roll is a string of smaller beads, a grace stroke one more before it', () => {
  const hit = { ...newHit(4, 100), roll: sloped(4, 1), length: 2, grace: [{ before: 30, level: 0.5 }] };
  const beads = circles(painted(withKick([hit])));
  expect(beads).toHaveLength(5);
  const sizes = beads.slice(0, 4).map(([, , size]) => size!);
  expect(sizes).toEqual([...sizes].sort((a, b) => a - b));
  expect(sizes[3]).toBeLessThan(beadSize(100) / 2);
  expect(beads[4]![0]).toBeLessThan(beads[0]![0]!);
});

test('chance fills a bead from below; its outline stays whole', () => {
  const done = painted(withKick([{ ...newHit(0, 100), chance: 0.25 }]));
  expect(done.some(({ what }) => what === 'clip')).toBe(true);
  expect(done.some(({ what, colour }) => what === 'stroke' && colour === 'dye')).toBe(true);
});

test('what is chosen, differs, or is played now is marked, and a short loop repeats paler beyond its knot', () => {
  const beat = withKick([newHit(0)], { steps: 8 });
  const done = painted(beat, { chosen: new Map([[0, null]]), marked: new Set([3]) }, [], 5);
  expect(done.filter(({ what, colour }) => what === 'stroke' && colour === 'woad')).toHaveLength(1);
  expect(done.filter(({ what, colour }) => what === 'fillRect' && colour === 'woad')).toHaveLength(1);
  expect(done.some(({ what, colour }) => what === 'fill' && colour === 'text')).toBe(true);
  expect(done.filter(({ what, alpha }) => what === 'fill' && alpha === 0.45)).toHaveLength(1);
  expect(done.some(({ what, args }) => what === 'arc' && args[0] === (1920 + INSET) * 0.1)).toBe(true);
});

test('the board paints a lane anew only when what it shows has changed', async () => {
  const { brush, done } = createBrush();
  const canvas = document.createElement('canvas');
  canvas.getContext = (() => brush) as never;
  const board = createBoard();
  const beat = withKick([newHit(0)]);
  const pictures = (one: Beat, lane: number) =>
    picturesOf(drawLane(one, one.patterns[0]!, one.lanes[lane]!, 1), bars);
  const [kick, snare] = [pictures(beat, 0), pictures(beat, 1)];
  board.setLane(0, kick, look);
  board.setLane(1, snare, look);
  board.setTops([26, 74], 122);
  board.attach(0, 3840, canvas);
  const bands = async () => {
    done.length = 0;
    await Promise.resolve();
    board.paint();
    return done.filter(({ what }) => what === 'translate').map(({ args }) => args[1]);
  };
  expect(await bands()).toEqual([26, 74]);
  board.setLane(1, snare, look);
  expect(await bands()).toEqual([]);
  board.light(0, 0, true);
  expect(await bands()).toEqual([26]);
  board.stand(1, 3);
  expect(await bands()).toEqual([74]);
  board.setTops([null, 26], 74);
  expect(await bands()).toEqual([26]);
});

test('of several hits on a step only those that are chosen wear a ring', () => {
  const beat = withKick([
    newHit(0),
    { ...newHit(0), pitch: 4, nudge: 0.1 },
    { ...newHit(0), pitch: 7, nudge: 0.2 },
  ]);
  const rings = (places: Set<number> | null) =>
    painted(beat, { chosen: new Map([[0, places]]) }).filter(
      ({ what, colour }) => what === 'stroke' && colour === 'woad',
    ).length;
  expect([rings(null), rings(new Set([1])), rings(new Set([0, 2]))]).toEqual([3, 1, 2]);
});

test('where height is pitch beads stand by it, and what is the highest stands on top', () => {
  const beat = withKick([newHit(0), { ...newHit(4), pitch: 12 }, { ...newHit(8), pitch: -12 }]);
  const heights = { note: 60, low: 48, high: 72, guides: [48, 60, 72] };
  const tops = painted(beat, { open: true, heights })
    .filter(({ what, colour, args }) => what === 'arc' && colour !== 'pip' && args[2] !== 2)
    .map(({ args }) => Math.round(args[1] as number));
  expect([...new Set(tops)]).toEqual([Math.round(14 + 63.5 * 0.86), 14, Math.round(14 + 127 * 0.86)]);
});
