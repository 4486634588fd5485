/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import type { OutFile } from '../../../core/export/exporting';
import { PartPreview } from './PartPreview';
import { pageFits } from '../../ui/width.mock';

const mockDrawn: { xml: string; upTo: number; zoom: number }[] = [];
let mockFault: Error | null = null;
/** A program that draws, of which only what it was asked is kept. */
class mockReader {
  zoom = 1;
  xml = '';
  element: HTMLElement;
  options: { drawUpToMeasureNumber: number };
  constructor(...given: [HTMLElement, { drawUpToMeasureNumber: number }]) {
    [this.element, this.options] = given;
  }
  load(xml: string) {
    this.xml = xml;
    return mockFault ? Promise.reject(mockFault) : Promise.resolve();
  }
  render() {
    this.element.append(document.createElement('svg'));
    mockDrawn.push({ xml: this.xml, upTo: this.options.drawUpToMeasureNumber, zoom: this.zoom });
  }
}
jest.mock('./reader', () => ({ fetchReader: () => Promise.resolve(mockReader) }));

const file = (name: string, bars: number): OutFile =>
  ({ name, bars, notes: 4, tracks: 1, data: `<${name}/>` }) as OutFile;
const press = async (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
};

beforeEach(() => {
  mockDrawn.length = 0;
  mockFault = null;
  pageFits(false);
});

test('nothing is fetched or drawn before it is asked for; it can be put away again', async () => {
  render(<PartPreview files={[file('one', 4)]} />);
  expect(screen.queryByRole('img')).toBeNull();
  await press('Look at the part');
  expect(mockDrawn).toEqual([{ xml: '<one/>', upTo: 4, zoom: expect.any(Number) }]);
  expect(screen.getByRole('img', { name: 'Bars 1 to 4 of one' }).children).toHaveLength(1);
  expect(screen.queryByRole('button', { name: /^Draw more/ })).toBeNull();
  await press('Look at the part');
  expect(screen.queryByRole('img')).toBeNull();
});

test('a long part is drawn bit by bit, and never twice over itself', async () => {
  render(<PartPreview files={[file('song', 40)]} />);
  await press('Look at the part');
  await press('Draw more: 16 of 40 bars are here');
  await press('Draw more: 32 of 40 bars are here');
  expect(mockDrawn.map(({ upTo }) => upTo)).toEqual([16, 32, 40]);
  expect(screen.getByRole('img', { name: 'Bars 1 to 40 of song' }).children).toHaveLength(1);
  expect(screen.queryByRole('button', { name: /^Draw more/ })).toBeNull();
});

test('of several parts one is chosen', async () => {
  render(<PartPreview files={[file('intro', 4), file('verse', 8)]} />);
  await press('Look at the part');
  fireEvent.change(screen.getByRole('combobox', { name: 'Which part' }), { target: { value: '1' } });
  await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
  expect(mockDrawn.map(({ xml }) => xml)).toEqual(['<intro/>', '<verse/>']);
  expect(screen.getByRole('img', { name: 'Bars 1 to 8 of verse' })).toBeTruthy();
});

test('what cannot be drawn is said, in words that are no programmer’s', async () => {
  mockFault = new Error('undefined is not a measure');
  render(<PartPreview files={[file('one', 4)]} />);
  await press('Look at the part');
  const said = screen.getByRole('status').textContent!;
  expect(said).toContain('could not be drawn here');
  expect(said).not.toContain('measure');
});
