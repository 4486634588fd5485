/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { NumberField } from './NumberField';
import { SayContext } from './say';

const said: string[] = [];

const asked: [number, string | undefined][] = [];

const Field = () => {
  const [value, setValue] = useState(92);
  return (
    <NumberField
      label="Tempo"
      value={value}
      least={20}
      most={300}
      under="BPM"
      width={70}
      onChange={(next, gesture) => {
        asked.push([next, gesture]);
        setValue(Math.min(300, Math.max(20, next)));
      }}
    />
  );
};

const field = () => screen.getByRole('spinbutton', { name: 'Tempo' }) as HTMLInputElement;
const type = (text: string) => {
  fireEvent.change(field(), { target: { value: text } });
  fireEvent.keyDown(field(), { key: 'Enter' });
};

beforeEach(() => {
  asked.length = 0;
  HTMLElement.prototype.setPointerCapture = () => undefined;
  said.length = 0;
  render(
    <SayContext value={(text) => said.push(text)}>
      <Field />
    </SayContext>,
  );
});

test('takes what is typed, with a comma or a unit, and asks for no more than was typed', () => {
  type('104,5');
  expect(field().value).toBe('104.5');
  type('88 BPM');
  expect(field().value).toBe('88');
  type('500');
  expect(asked.at(-1)).toEqual([300, undefined]);
  expect(field().value).toBe('300');
  expect(said).toEqual(['Tempo runs from 20 to 300: 500 became 300.']);
});

test('what is no number changes nothing', () => {
  type('fast');
  expect(asked).toEqual([]);
  expect(field().value).toBe('92');
});

test('Escape leaves it as it was', () => {
  fireEvent.change(field(), { target: { value: '120' } });
  fireEvent.keyDown(field(), { key: 'Escape' });
  expect(field().value).toBe('92');
  fireEvent.blur(field());
  expect([asked, said]).toEqual([[], []]);
});

test('arrows and page keys step', () => {
  for (const key of ['ArrowUp', 'ArrowUp', 'ArrowDown', 'PageUp']) fireEvent.keyDown(field(), { key });
  expect(field().value).toBe('103');
  expect(field().getAttribute('aria-valuenow')).toBe('103');
});

test('a drag up and down is one gesture, held to the range', () => {
  const at = (clientY: number) => ({ clientY, pointerId: 1, button: 0 });
  fireEvent.pointerDown(field(), at(400));
  fireEvent.pointerMove(field(), at(398));
  expect(asked).toEqual([]);
  fireEvent.pointerMove(field(), at(320));
  fireEvent.pointerMove(field(), at(-4000));
  fireEvent.pointerUp(field(), at(-4000));
  expect(asked.map(([value]) => value)).toEqual([102, 300]);
  expect(new Set(asked.map(([, gesture]) => gesture)).size).toBe(1);
  expect(asked[0]![1]).toBeDefined();
});
