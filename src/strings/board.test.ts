/** @jest-environment jsdom */
import { createBoard, type Board } from './board';
import type { Look, Painting } from './paint';
import type { Bead, Cell } from './drawing';

const mockPainted: { from: number; lit: number[] }[] = [];
jest.mock('./paint', () => ({
  ...jest.requireActual<object>('./paint'),
  paintPicture: (_: unknown, picture: Painting, __: unknown, lit: ReadonlySet<number>) =>
    mockPainted.push({ from: picture.from, lit: [...lit] }),
}));

/** An eye that sees what the test says. */
class Eye {
  static all: Eye[] = [];
  seen = new Set<Element>();
  constructor(
    private readonly tell: (entries: { target: Element; isIntersecting: boolean }[]) => void,
    readonly options?: { rootMargin?: string },
  ) {
    Eye.all.push(this);
  }
  observe(element: Element) {
    this.seen.add(element);
  }
  unobserve(element: Element) {
    this.seen.delete(element);
  }
  look(target: Element, isIntersecting: boolean) {
    this.tell([{ target, isIntersecting }]);
  }
}

const near = () => Eye.all.find(({ options }) => options)!;
const page = () => Eye.all.find(({ options }) => !options)!;

const bead = (step: number): Bead => ({ step, x: step * 240, rule: step * 240 }) as Bead;
const picture = (from: number, steps: number[]): Painting => ({
  from,
  length: 3840,
  cells: steps.map((step) => ({ step, pip: step * 240 }) as Cell),
  beads: steps.map(bead),
  repeats: [],
  knot: null,
  beat: 960,
});
const look = { points: 0.1, open: false, tall: 48 } as Look;

let board: Board;
let canvases: HTMLCanvasElement[];
const microtask = () => Promise.resolve();

beforeEach(async () => {
  jest.useFakeTimers({ doNotFake: ['queueMicrotask'] });
  Eye.all = [];
  mockPainted.length = 0;
  globalThis.IntersectionObserver = Eye as never;
  HTMLCanvasElement.prototype.getContext = (() => ({
    setTransform() {},
    save() {},
    restore() {},
    translate() {},
    beginPath() {},
    rect() {},
    clip() {},
  })) as never;
  board = createBoard();
  canvases = [0, 1, 2].map(() => document.createElement('canvas'));
  canvases.forEach((canvas, bar) => board.attach(bar, 3840, canvas));
  board.setTops([0, 48], 96);
  board.setLane(0, [picture(0, [0, 4]), picture(3840, [16]), picture(7680, [32])], look);
  board.setLane(1, [picture(0, [2]), picture(3840, []), picture(7680, [])], look);
  await microtask();
});
afterEach(() => jest.useRealTimers());

test('the first bar is painted at once, all its lanes; the others only when they come near', () => {
  expect(mockPainted.map(({ from }) => from)).toEqual([0, 0]);
  near().look(canvases[1]!, true);
  expect(mockPainted.map(({ from }) => from)).toEqual([0, 0, 3840, 3840]);
});

test('what changes on the page is painted at once, beside it when nothing has changed for a while', async () => {
  near().look(canvases[1]!, true);
  mockPainted.length = 0;
  for (let round = 0; round < 3; round++) {
    board.setLane(0, [picture(0, [round]), picture(3840, [16 + round]), picture(7680, [])], look);
    await microtask();
    jest.advanceTimersByTime(60);
  }
  expect(mockPainted.map(({ from }) => from)).toEqual([0, 0, 0]);
  jest.advanceTimersByTime(200);
  expect(mockPainted.map(({ from }) => from)).toEqual([0, 0, 0, 3840]);
});

test('a bar that comes onto the page is painted without waiting', async () => {
  near().look(canvases[1]!, true);
  mockPainted.length = 0;
  board.setLane(0, [picture(0, [0, 4]), picture(3840, [17]), picture(7680, [32])], look);
  await microtask();
  page().look(canvases[1]!, true);
  expect(mockPainted.filter(({ from }) => from === 3840)).toHaveLength(1);
});

test('a lane of which nothing changed is not painted again', async () => {
  const same = picture(0, [0, 4]);
  board.setLane(0, [same, picture(3840, []), picture(7680, [])], look);
  await microtask();
  mockPainted.length = 0;
  board.setLane(0, [{ ...same }, picture(3840, []), picture(7680, [])], look);
  await microtask();
  expect(mockPainted).toEqual([]);
});

test('a hit that sounds lights its band alone, and goes out again', () => {
  mockPainted.length = 0;
  board.light(0, 4, true);
  board.paint();
  expect(mockPainted).toEqual([{ from: 0, lit: [4] }]);
  board.light(0, 4, false);
  board.paint();
  expect(mockPainted.at(-1)).toEqual({ from: 0, lit: [] });
  board.light(0, 9, false);
  board.paint();
  expect(mockPainted).toHaveLength(2);
});

test('a bar taken away is watched and painted no longer', () => {
  const gone = document.createElement('canvas');
  const take = board.attach(3, 3840, gone);
  expect(near().seen.has(gone)).toBe(true);
  take();
  expect(near().seen.has(gone)).toBe(false);
  expect(page().seen.has(gone)).toBe(false);
});
