/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { useFocusKept } from '../../web/focusKept';

/** Places as if there were some: jsdom lays nothing out. */
const places = new Map<string, number>();
const boxOf = (element: Element): DOMRect => {
  const left = places.get(element.textContent ?? '') ?? 0;
  return { left, top: 0, width: 10, height: 10 } as DOMRect;
};
const frames: (() => void)[] = [];
/** What changed is noticed, and the next frame comes. */
const nextFrame = async () => {
  await act(() => Promise.resolve());
  act(() => frames.splice(0).forEach((frame) => frame()));
  // It is looked at when the frame has been laid out.
  await act(() => new Promise((resolve) => setTimeout(resolve)));
};

beforeEach(() => {
  frames.length = 0;
  Element.prototype.getBoundingClientRect = function () {
    return boxOf(this);
  };
  Element.prototype.getClientRects = function () {
    return [boxOf(this)] as unknown as DOMRectList;
  };
  window.requestAnimationFrame = (frame) => frames.push(() => frame(0));
});

const Screen = () => {
  useFocusKept('/');
  const [third, setThird] = useState<'there' | 'shut' | 'gone'>('there');
  const [page, setPage] = useState<'list' | 'loading' | 'next'>('list');
  return (
    <main>
      {page === 'next' ? <h1>The next screen</h1> : null}
      {page === 'list' ? (
        <section>
          <button type="button">Far</button>
          <button type="button">Near</button>
          {third === 'gone' ? null : (
            <button type="button" disabled={third === 'shut'}>
              Third
            </button>
          )}
        </section>
      ) : null}
      <span data-testid="shut" onClick={() => setThird('shut')} />
      <span data-testid="take" onClick={() => setThird('gone')} />
      <span data-testid="leave" onClick={() => setPage('loading')} />
      <span data-testid="come" onClick={() => setPage('next')} />
    </main>
  );
};

const focused = () => document.activeElement?.textContent;
const begin = () => {
  places.set('Far', 0).set('Near', 80).set('Third', 100);
  render(<Screen />);
  act(() => screen.getByRole('button', { name: 'Third' }).focus());
};

test('what is nearest to what went away takes the focus', async () => {
  begin();
  fireEvent.click(screen.getByTestId('take'));
  expect(document.activeElement).toBe(document.body);
  await nextFrame();
  expect(focused()).toBe('Near');
});

test('what can no longer be pressed gives it on too', async () => {
  begin();
  fireEvent.click(screen.getByTestId('shut'));
  await nextFrame();
  expect(focused()).toBe('Near');
});

test('with a whole screen gone, the heading of the next one takes it, however late that comes', async () => {
  begin();
  fireEvent.click(screen.getByTestId('leave'));
  await nextFrame();
  // Its place has it meanwhile.
  expect(document.activeElement).toBe(screen.getByRole('main'));
  fireEvent.click(screen.getByTestId('come'));
  await nextFrame();
  expect(document.activeElement).toBe(screen.getByRole('heading'));
});

test('who moves it on purpose has the first word', async () => {
  begin();
  act(() => screen.getByRole('button', { name: 'Far' }).focus());
  fireEvent.click(screen.getByTestId('take'));
  await nextFrame();
  expect(focused()).toBe('Far');
});

test('a row that is moved in its list keeps it', async () => {
  begin();
  const third = screen.getByRole('button', { name: 'Third' });
  const list = third.parentElement!;
  act(() => {
    third.remove();
    list.prepend(third);
  });
  expect(document.activeElement).toBe(document.body);
  await nextFrame();
  expect(focused()).toBe('Third');
});

test('who presses where nothing is gives it to the screen itself', async () => {
  begin();
  const third = screen.getByRole('button', { name: 'Third' });
  fireEvent.pointerDown(screen.getByTestId('take'));
  act(() => third.blur());
  fireEvent.click(screen.getByTestId('take'));
  await nextFrame();
  expect(document.activeElement).toBe(screen.getByRole('main'));
});

test('a press on what cannot be pressed leaves it where it was', async () => {
  begin();
  const third = screen.getByRole('button', { name: 'Third' });
  fireEvent.pointerDown(screen.getByRole('button', { name: 'Near' }));
  act(() => third.blur());
  await nextFrame();
  expect(focused()).toBe('Third');
});

test('what is hidden and not taken away gives it on too, though no event tells of it', async () => {
  begin();
  const third = screen.getByText('Third');
  third.getClientRects = () => [] as unknown as DOMRectList;
  third.after(document.createElement('i'));
  // As a browser does when the frame is laid out: without an event, after the change that hid it.
  await act(() => Promise.resolve());
  act(() => frames.splice(0).forEach((frame) => frame()));
  const lost = jest.spyOn(document, 'activeElement', 'get').mockReturnValue(document.body);
  const near = jest.spyOn(screen.getByText('Near'), 'focus');
  await act(() => new Promise((resolve) => setTimeout(resolve)));
  lost.mockRestore();
  expect(near).toHaveBeenCalled();
});
