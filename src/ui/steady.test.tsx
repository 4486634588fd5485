/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { steady } from './steady';

const drawn: string[] = [];

interface Props {
  name: string;
  onPress: () => void;
  onOther?: (() => void) | undefined;
}
const Button = steady(({ name, onPress, onOther }: Props) => {
  drawn.push(name);
  return (
    <button type="button" onClick={onPress} data-other={String(Boolean(onOther))}>
      {name}
    </button>
  );
});

beforeEach(() => drawn.splice(0));

test('it does what the newest function does, and is not drawn anew for that', () => {
  const done: number[] = [];
  let count = (_: number): void => undefined;
  const Page = () => {
    const [at, setAt] = useState(0);
    count = setAt;
    return <Button name="Turn" onPress={() => done.push(at)} />;
  };
  render(<Page />);
  act(() => count(5));
  fireEvent.click(screen.getByRole('button'));
  act(() => count(7));
  fireEvent.click(screen.getByRole('button'));
  expect(done).toEqual([5, 7]);
  expect(drawn).toEqual(['Turn']);
});

test('what it shows is drawn anew, and a function that is gone is gone', () => {
  const { rerender } = render(<Button name="One" onPress={() => undefined} onOther={() => undefined} />);
  rerender(<Button name="Two" onPress={() => undefined} onOther={() => undefined} />);
  expect(screen.getByRole('button').dataset['other']).toBe('true');
  rerender(<Button name="Two" onPress={() => undefined} />);
  expect(screen.getByRole('button').dataset['other']).toBe('false');
  expect(drawn).toEqual(['One', 'Two', 'Two']);
});
