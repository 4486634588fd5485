/** @jest-environment jsdom */
import { render, screen, within } from '@testing-library/react';
import { newBeat } from '../../../core/document/defaults';
import type { TimingDot } from '../../../core/analysis/patternPerformance';
import { shapeOf } from './lanePoint';
import { reachOf, TimingChart } from './TimingChart';

const beat = newBeat('pier', 'Pier', 1);
const [pattern, [first, second]] = [beat.patterns[0]!, beat.lanes];
const dot = (laneId: string, at: number, before: number, after: number): TimingDot => ({
  laneId,
  at,
  before,
  after,
  left: 0,
  velocity: 96,
});
const dots = [dot(first!.id, 0, 0, -6), dot(first!.id, 960, 0, 4), dot(second!.id, 960, 3, 12)];
const chart = () => screen.getByRole('img', { name: /Distance of each hit from the grid/ });
const draw = (chosen: string | null) =>
  render(<TimingChart pattern={pattern} lanes={beat.lanes} dots={dots} chosen={chosen} />);

test('each hit has two points, before the feel and after it, and both ways are written on the axis', () => {
  draw(null);
  expect(within(chart()).getAllByTestId('before')).toHaveLength(3);
  expect(within(chart()).getAllByTestId('after')).toHaveLength(3);
  expect(within(chart()).getByText('ahead, ms')).toBeTruthy();
  expect(within(chart()).getByText('behind, ms')).toBeTruthy();
});

test('a chosen lane is shown alone', () => {
  draw(second!.id);
  expect(within(chart()).getAllByTestId('after')).toHaveLength(1);
});

test('it reaches a little farther than the farthest hit, and shows how little where all are on time', () => {
  expect(reachOf(dots)).toBe(20);
  expect(reachOf([])).toBe(10);
});

test('neighbours differ in shape', () => {
  for (let at = 1; at < beat.lanes.length; at++)
    expect(shapeOf(beat.lanes, beat.lanes[at]!.id)).not.toBe(shapeOf(beat.lanes, beat.lanes[at - 1]!.id));
});
