/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { Later } from './Later';

const Pier = () => <h1>Pier</h1>;
const settled = () => act(() => Promise.resolve());

test('a screen is fetched once, and is there at once from then on', async () => {
  const of = jest.fn(() => Promise.resolve(Pier));
  const first = render(<Later of={of} />);
  expect(screen.getByRole('status').textContent).toBe('One moment…');
  await settled();
  expect(screen.getByRole('heading', { name: 'Pier' })).toBeTruthy();
  first.unmount();
  render(<Later of={of} />);
  expect(screen.getByRole('heading', { name: 'Pier' })).toBeTruthy();
  expect(of).toHaveBeenCalledTimes(1);
});

test('what could not be fetched is said, and is fetched when it is asked for again', async () => {
  let there = false;
  const of = jest.fn(() => (there ? Promise.resolve(Pier) : Promise.reject(new Error('gone'))));
  render(<Later of={of} />);
  await settled();
  expect(screen.getByRole('alert').textContent).toContain('could not be fetched');
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  await settled();
  expect(screen.getByRole('alert')).toBeTruthy();
  there = true;
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  await settled();
  expect(screen.getByRole('heading', { name: 'Pier' })).toBeTruthy();
  expect(screen.queryByRole('alert')).toBeNull();
  expect(of).toHaveBeenCalledTimes(3);
});

test('a screen that was left before it came is kept for the next time', async () => {
  const of = jest.fn(() => Promise.resolve(Pier));
  render(<Later of={of} />).unmount();
  await settled();
  render(<Later of={of} />);
  expect(screen.getByRole('heading', { name: 'Pier' })).toBeTruthy();
});

test('a part keeps its place while it comes, says what it is when it does not, and follows what it is given', async () => {
  let there = false;
  const Stall = ({ name }: { name: string }) => <p>{`Stall ${name}`}</p>;
  const of = () => (there ? Promise.resolve(Stall) : Promise.reject(new Error('gone')));
  const part = (name: string) => (
    <Later of={of} what="The stall" waiting={<p>A place kept</p>} given={{ name }} />
  );
  const { rerender } = render(part('nineteen'));
  expect(screen.getByText('A place kept')).toBeTruthy();
  await settled();
  expect(screen.getByRole('alert').textContent).toContain('The stall could not be fetched');
  there = true;
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  await settled();
  rerender(part('twenty'));
  expect(screen.getByText('Stall twenty')).toBeTruthy();
});
