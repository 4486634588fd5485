/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { HERTZ, PAN, PERCENT, percent, times, type FigureWritten } from './figures';
import { SayContext } from './say';
import { Slider } from './Slider';

/** The track asks for this value when it is touched, and for others as a finger goes along it. */
let asks: (to: number) => void;
jest.mock('@rneui/base/dist/Slider', () => ({
  Slider: ({ onValueChange, value, ...more }: { onValueChange: (to: number) => void; value: number }) => {
    asks = onValueChange;
    return (
      <div role="slider" aria-label={(more as { 'aria-label': string })['aria-label']} data-at={value} />
    );
  },
}));

const given: { to: number; gesture: string }[] = [];
const said: string[] = [];
const Field = ({ written = PERCENT, from = 1 }: { written?: FigureWritten; from?: number }) => {
  const [value, setValue] = useState(from);
  return (
    <SayContext value={(text) => void said.push(text)}>
      <Slider
        label="Level of Rain"
        value={value}
        least={0}
        most={2}
        step={0.01}
        written={written}
        shown={percent(value)}
        onChange={(to, gesture) => {
          given.push({ to, gesture });
          setValue(to);
        }}
      />
    </SayContext>
  );
};

let now = 1000;
/** A pointer event at this place and time; jsdom knows no pointers of its own. */
const point = (type: string, x: number, target: Element = screen.getByRole('slider')) => {
  const event = new MouseEvent(type, { bubbles: true, clientX: x });
  Object.defineProperty(event, 'timeStamp', { value: now });
  fireEvent(target, event);
};
const wait = (ms: number) => {
  now += ms;
  act(() => void jest.advanceTimersByTime(ms));
};
const tap = (to: number, detail = 1, x = 50) => {
  point('pointerdown', x);
  act(() => asks(to));
  wait(40);
  fireEvent.click(screen.getByRole('slider'), { detail });
};
const field = () => screen.getByRole('textbox', { name: 'Level of Rain' }) as HTMLInputElement;
const enter = (text: string) => {
  fireEvent.change(field(), { target: { value: text } });
  fireEvent.keyDown(field(), { key: 'Enter' });
};

beforeEach(() => {
  jest.useFakeTimers();
  given.length = said.length = 0;
});
afterEach(() => jest.useRealTimers());

test('a tap sets the value once it cannot be the first of two', () => {
  render(<Field />);
  tap(0.4);
  expect(given).toEqual([]);
  wait(300);
  expect(given.map(({ to }) => to)).toEqual([0.4]);
});

test('a double tap changes nothing, and Escape leaves all as it was', () => {
  render(<Field />);
  tap(0.4);
  wait(120);
  tap(0.42);
  expect(field().value).toBe('100');
  fireEvent.change(field(), { target: { value: '12' } });
  fireEvent.keyDown(field(), { key: 'Escape' });
  wait(1000);
  expect(given).toEqual([]);
  expect(screen.getByRole('slider').dataset['at']).toBe('1');
});

test('two slow taps that are told as a double click give back what the first one changed, as one gesture', () => {
  render(<Field />);
  tap(0.4);
  wait(400);
  tap(0.4, 2);
  expect(given.map(({ to }) => to)).toEqual([0.4, 1]);
  expect(field().value).toBe('100');
});

test('a drag is followed at once, in one gesture; two taps apart are two', () => {
  render(<Field />);
  point('pointerdown', 50);
  act(() => asks(0.4));
  point('pointermove', 58);
  act(() => asks(0.45));
  expect(given.map(({ to }) => to)).toEqual([0.4, 0.45]);
  expect(given[0]!.gesture).toBe(given[1]!.gesture);
  wait(100);
  tap(1.5, 1, 120);
  tap(1.2, 1, 20);
  expect(given.at(-1)!.to).toBe(1.5);
  wait(300);
  expect(given.at(-1)!.to).toBe(1.2);
  expect(new Set(given.map(({ gesture }) => gesture)).size).toBe(3);
});

test('what waits is done before a key, a press elsewhere, and when the slider goes', () => {
  const { rerender } = render(<Field key="a" />);
  tap(0.4);
  fireEvent.keyDown(screen.getByRole('slider'), { key: 'x' });
  wait(800);
  tap(0.5);
  point('pointerdown', 0, document.body);
  wait(800);
  tap(0.6);
  rerender(<p />);
  expect(given.map(({ to }) => to)).toEqual([0.4, 0.5, 0.6]);
  wait(1000);
  expect(given).toHaveLength(3);
});

test('a page that is scrolled by a finger on a track changes nothing', () => {
  render(<Field />);
  point('pointerdown', 50);
  act(() => asks(0.4));
  point('pointercancel', 50);
  act(() => asks(0.3));
  wait(1000);
  expect(given).toEqual([]);
});

test.each<[string, FigureWritten, number, string, number]>([
  ['per cent', PERCENT, 1, '40', 0.4],
  ['per cent with its sign', PERCENT, 1, '150 %', 1.5],
  ['milliseconds of a step', times(125, 0.1), 0, '40', 0.32],
  ['below zero is held', times(125, 0.1), 1, '−3', 0],
  ['a comma', PERCENT, 1, '33,4', 0.33],
  ['hertz', HERTZ, 1, '3', Math.log2(3)],
  [
    'to a side',
    { ...PAN, figure: (value) => 100 * (value - 1), value: (told) => 1 + told / 100 },
    1,
    '30 L',
    0.7,
  ],
])('what is typed is in the unit that is shown: %s', (_, written, from, text, to) => {
  render(<Field written={written} from={from} />);
  fireEvent.click(screen.getByRole('slider'), { detail: 2 });
  enter(text);
  expect(given).toHaveLength(1);
  expect(given[0]!.to).toBeCloseTo(to, 5);
});

test('the ends are told in the unit that is shown; what was only looked at stays to its last place', () => {
  render(<Field from={1.23456} />);
  fireEvent.click(screen.getByRole('slider'), { detail: 2 });
  expect(field().value).toBe('123.46');
  fireEvent.keyDown(field(), { key: 'Enter' });
  expect(given).toEqual([]);
  fireEvent.click(screen.getByRole('slider'), { detail: 2 });
  enter('300');
  expect(said).toEqual(['Level of Rain runs from 0 to 200: 300 became 200.']);
  expect(given.map(({ to }) => to)).toEqual([2]);
});

test('kHz are read', () => {
  for (const text of ['8k', '8 kHz', '8,0 kHz', '8000']) expect(HERTZ.read!(text)).toBe(8000);
});
