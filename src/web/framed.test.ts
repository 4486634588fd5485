import { framed } from './framed';

/** The frames that were asked for, and what is posted after them. */
let frames: FrameRequestCallback[] = [];
let posts: (() => void)[] = [];

beforeEach(() => {
  [frames, posts] = [[], []];
  jest.useFakeTimers();
  jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((frame) => frames.push(frame));
  Object.assign(globalThis, {
    MessageChannel: class {
      port1: { onmessage: (() => void) | null } = { onmessage: null };
      port2 = { postMessage: () => void posts.push(() => this.port1.onmessage?.()) };
    },
  });
});
afterEach(() => {
  jest.useRealTimers();
  jest.restoreAllMocks();
});

test('work waits until a frame is painted, and is done once', () => {
  const done: string[] = [];
  framed(() => done.push('work'));
  frames.forEach((frame) => frame(0));
  expect(done).toEqual([]);
  posts.forEach((post) => post());
  expect(done).toEqual(['work']);
  jest.advanceTimersByTime(1000);
  expect(done).toEqual(['work']);
});

test('where no frame comes, since the page is behind another one, it is done all the same', () => {
  const done: string[] = [];
  framed(() => done.push('work'));
  jest.advanceTimersByTime(99);
  expect(done).toEqual([]);
  jest.advanceTimersByTime(2);
  expect(done).toEqual(['work']);
  // The frame that comes in the end does it no second time.
  frames.forEach((frame) => frame(0));
  posts.forEach((post) => post());
  expect(done).toEqual(['work']);
});
