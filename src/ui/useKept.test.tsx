/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { useKept } from './useKept';

const Box = ({ name }: { name: string }) => {
  const [on, setOn] = useKept(name, false);
  return <button onClick={() => setOn(!on)}>{on ? 'held' : 'free'}</button>;
};

test('a choice is there again when its page is, and each name has its own', () => {
  const first = render(<Box name="hold" />);
  fireEvent.click(screen.getByRole('button'));
  first.unmount();
  const second = render(<Box name="hold" />);
  expect(screen.getByRole('button').textContent).toBe('held');
  second.unmount();
  render(<Box name="other" />);
  expect(screen.getByRole('button').textContent).toBe('free');
});
