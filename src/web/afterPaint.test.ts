import { afterPaint } from './afterPaint';

const at = (ms: number) => jest.spyOn(performance, 'now').mockReturnValue(ms);

beforeEach(() => jest.useFakeTimers({ doNotFake: ['performance', 'requestAnimationFrame'] }));
afterEach(() => {
  jest.useRealTimers();
  jest.restoreAllMocks();
});

test('while the page starts nothing waits', () => {
  at(2000);
  const work = jest.fn();
  afterPaint(work);
  expect(work).toHaveBeenCalledTimes(1);
});

test('later it waits for the frame, and for no longer than 30 ms where none comes', () => {
  at(20_000);
  jest.spyOn(window, 'requestAnimationFrame').mockReturnValue(1);
  const work = jest.fn();
  afterPaint(work);
  jest.advanceTimersByTime(29);
  expect(work).not.toHaveBeenCalled();
  jest.advanceTimersByTime(1);
  expect(work).toHaveBeenCalledTimes(1);
});

test('it is done once, whichever comes first', () => {
  at(20_000);
  let frame: FrameRequestCallback = () => undefined;
  jest.spyOn(window, 'requestAnimationFrame').mockImplementation((ask) => {
    frame = ask;
    return 1;
  });
  const ports = {
    port1: { onmessage: () => undefined as void },
    port2: { postMessage: () => ports.port1.onmessage() },
  };
  (globalThis as { MessageChannel?: unknown }).MessageChannel = function () {
    return ports;
  };
  const work = jest.fn();
  afterPaint(work);
  frame(0);
  expect(work).toHaveBeenCalledTimes(1);
  jest.advanceTimersByTime(100);
  expect(work).toHaveBeenCalledTimes(1);
});
