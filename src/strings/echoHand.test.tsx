/** @jest-environment jsdom */
import { fireEvent, render } from '@testing-library/react';
import type { Echoes } from '../../core/document/movesSchema';
import { EchoHand } from './EchoHand';

const ECHOES: Echoes = { count: 3, rate: { grid: '1/8' }, slope: 0.8, interval: 0, withoutHit: false };
const given: Partial<Echoes>[] = [];

/** The picture is as wide and tall as it is drawn: a point is a point. */
const show = (echoes: Partial<Echoes> = {}) => {
  given.length = 0;
  const { container } = render(
    <EchoHand echoes={{ ...ECHOES, ...echoes }} tempo={120} onChange={(change) => given.push(change)} />,
  );
  const hand = container.querySelector<HTMLElement>('.echo-hand')!;
  hand.getBoundingClientRect = () => ({ left: 0, top: 0, width: 320, height: 132 }) as DOMRect;
  return hand;
};
/** Where a tick stands: one bar of four quarters over 292 points. */
const x = (tick: number) => 14 + (tick / 3840) * 292;
const drag = (hand: HTMLElement, from: [number, number], to: [number, number]) => {
  fireEvent.pointerDown(hand, { clientX: from[0], clientY: from[1] });
  fireEvent.pointerMove(hand, { clientX: to[0], clientY: to[1] });
  fireEvent.pointerUp(hand);
};

test('the first repeat is dragged for how far apart they are and how they fall', () => {
  const hand = show();
  drag(hand, [x(480), 60], [x(250), 120 - 0.5 * 76]);
  expect(given.at(-1)).toEqual({ rate: { grid: '1/16' }, slope: 0.5 });
  fireEvent.pointerMove(hand, { clientX: x(900), clientY: 40 });
  expect(given).toHaveLength(1);
});

test('in ms it goes by ms', () => {
  const hand = show({ rate: { ms: 125 } });
  drag(hand, [x(240), 60], [x(480), 120 - 76]);
  const { rate, slope } = given.at(-1) as Echoes;
  // A point of the picture is 6.6 ms.
  expect(Math.abs((rate as { ms: number }).ms - 250)).toBeLessThan(7);
  expect(slope).toBe(1);
});

test('the last is dragged for how many there are and how their pitch goes, and held to what there is', () => {
  const hand = show();
  drag(hand, [x(1440), 80], [x(2400), 80 - 21]);
  expect(given.at(-1)).toEqual({ count: 5, interval: 3 });
  drag(hand, [x(1440), 80], [x(-400), 80]);
  expect(given.at(-1)).toEqual({ count: 1, interval: 0 });
});
