/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { RANGES } from '../../core/document/ranges';
import { Figure } from './Figure';

const given: number[] = [];

const Field = ({ of, first }: { of: Parameters<typeof Figure>[0]['of']; first: number }) => {
  const [value, setValue] = useState(first);
  return (
    <Figure
      of={of}
      label="Of Kick"
      short="kick"
      value={value}
      onChange={(next) => {
        given.push(next);
        setValue(next);
      }}
    />
  );
};

const slider = () => screen.getByRole('slider', { name: 'Of Kick' });
const type = (text: string) => {
  fireEvent.click(slider(), { detail: 2 });
  const field = screen.getByRole('textbox', { name: 'Of Kick' });
  fireEvent.change(field, { target: { value: text } });
  fireEvent.keyDown(field, { key: 'Enter' });
};

beforeEach(() => (given.length = 0));

test.each([
  ['decay', 0.5, '50 %', '2', 0.02],
  ['chance', 0.5, '50 %', '70', 0.7],
  ['pan', 0, 'centre', '30 L', -0.3],
  ['tune', 0, '0', '-7,5', -7.5],
  ['velocity', 64, '64', '127', 127],
  ['level', 1, '100 %', '250', 2],
] as const)('%s: told, typed and held as the document has it', (of, first, told, typed, value) => {
  render(<Field of={of} first={first} />);
  expect(slider().getAttribute('aria-valuetext')).toBe(told);
  expect(Number(slider().getAttribute('aria-valuemin'))).toBe(RANGES[of].least);
  expect(Number(slider().getAttribute('aria-valuemax'))).toBe(RANGES[of].most);
  type(typed);
  expect(given.at(-1)).toBeCloseTo(value, 9);
});

test('one press of a key changes it by its step', () => {
  render(<Field of="tune" first={0} />);
  fireEvent.keyDown(slider(), { key: 'ArrowRight' });
  expect(given).toEqual([0.5]);
});
