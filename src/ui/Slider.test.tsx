/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { SayContext } from './say';
import { Slider } from './Slider';

const said: string[] = [];
const given: number[] = [];

const Field = ({ typed }: { typed?: [number, number] }) => {
  const [value, setValue] = useState(10);
  return (
    <SayContext value={(text) => void said.push(text)}>
      <Slider
        label="Snare ahead or behind"
        value={value}
        least={-50}
        most={50}
        step={0.5}
        shown={`${value} ms`}
        {...(typed && { typed })}
        onChange={(next) => {
          given.push(next);
          setValue(next);
        }}
      />
    </SayContext>
  );
};

const type = (text: string) => {
  fireEvent.click(screen.getByRole('slider'), { detail: 2 });
  const field = screen.getByRole('textbox', { name: 'Snare ahead or behind' });
  fireEvent.change(field, { target: { value: text } });
  fireEvent.keyDown(field, { key: 'Enter' });
};

beforeEach(() => {
  said.length = 0;
  given.length = 0;
});

test('a figure that is typed is held to the range, and that is said', () => {
  render(<Field />);
  type('70');
  expect(given).toEqual([50]);
  expect(said).toEqual(['Snare ahead or behind runs from -50 to 50: 70 became 50.']);
  expect(document.activeElement).toBe(screen.getByRole('slider'));
});

test('more may be typed than the track shows', () => {
  render(<Field typed={[-100, 100]} />);
  type('70,3');
  expect([given, said]).toEqual([[70.5], []]);
  type('-300');
  expect(given.at(-1)).toBe(-100);
  expect(said).toEqual(['Snare ahead or behind runs from -100 to 100: -300 became -100.']);
});

test('what is no number changes nothing; keys go by steps and stop at the ends', () => {
  render(<Field />);
  type('late');
  expect(given).toEqual([]);
  const slider = screen.getByRole('slider');
  for (const key of ['ArrowRight', 'ArrowDown', 'ArrowDown', 'End', 'ArrowUp', 'Home'])
    fireEvent.keyDown(slider, { key });
  expect(given).toEqual([10.5, 10, 9.5, 50, -50]);
});
