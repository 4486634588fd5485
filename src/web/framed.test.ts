import { framed } from './framed';

afterEach(() => jest.useRealTimers());

test('work waits until a frame is painted, and is done once', () => {
  jest.useFakeTimers();
  const done: string[] = [];
  framed(() => done.push('work'));
  expect(done).toEqual([]);
  jest.advanceTimersByTime(1000);
  expect(done).toEqual(['work']);
});

test('where no frame comes, since the page is behind another one, it is done all the same', () => {
  jest.useFakeTimers();
  const frame = jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation(() => 0);
  const done: string[] = [];
  framed(() => done.push('work'));
  jest.advanceTimersByTime(99);
  expect(done).toEqual([]);
  jest.advanceTimersByTime(2);
  expect(done).toEqual(['work']);
  frame.mockRestore();
});
