/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { View } from 'react-native';
import { Button } from './Button';
import { Chips, Item, Items } from './Layout';
import { NumberField } from './NumberField';
import { buttonColumn } from './row';
import { Themed } from './Themed';
import { Words } from './Words';

const nothing = () => undefined;
const button = (name: string) => screen.getByRole('button', { name });
const key = (name: string, key: string, more: object = {}) =>
  fireEvent.keyDown(button(name), { key, ...more });
const here = () => document.activeElement?.textContent;

beforeEach(() => {
  jest.useFakeTimers();
  // Nothing is laid out here: all of it counts as seen.
  HTMLElement.prototype.getClientRects = () => [{}] as unknown as DOMRectList;
});
afterEach(() => jest.useRealTimers());

const Names = ({ names, shut = '' }: { names: string; shut?: string }) => (
  <>
    {names.split(' ').map((name) => (
      <Button key={name} label={name} disabled={name === shut} onPress={nothing}>
        {name}
      </Button>
    ))}
  </>
);

const show = (what: React.ReactNode) => render(<Themed>{what}</Themed>);

describe('a row of buttons', () => {
  beforeEach(() =>
    show(
      <Chips>
        <Names names="Copy Cut Delete Later" shut="Delete" />
        <NumberField label="Bars" value={4} least={1} most={8} width={70} under="bars" onChange={nothing} />
        <Chips>
          <Names names="Inside" />
        </Chips>
      </Chips>,
    ),
  );

  test('is walked by arrows, round and round, past what is off; Home and End go to its ends', () => {
    act(() => button('Copy').focus());
    const went = ['ArrowRight', 'ArrowRight', 'ArrowRight', 'ArrowLeft', 'Home', 'End'].map((one) => {
      key(here()!, one);
      return here();
    });
    expect(went).toEqual(['Cut', 'Later', 'Copy', 'Later', 'Copy', 'Later']);
  });

  test('is one stop of Tab, and as it was right after', () => {
    act(() => button('Cut').focus());
    const stops = () => ['Copy', 'Cut', 'Later', 'Inside'].map((name) => button(name).tabIndex);
    expect(stops()).toEqual([0, 0, 0, 0]);
    key('Cut', 'Tab');
    // A row within it is another stop, and so is a field.
    expect(stops()).toEqual([-1, 0, -1, 0]);
    expect(screen.getByLabelText('Bars').tabIndex).toBe(0);
    jest.runAllTimers();
    expect(stops()).toEqual([0, 0, 0, 0]);
  });

  test('leaves a field its arrows, and keys with others held to the app', () => {
    const field = screen.getByLabelText('Bars');
    act(() => field.focus());
    fireEvent.keyDown(field, { key: 'ArrowRight' });
    expect(document.activeElement).toBe(field);
    act(() => button('Copy').focus());
    for (const held of ['ctrlKey', 'altKey', 'metaKey', 'shiftKey'])
      key('Copy', 'ArrowRight', { [held]: true });
    key('Copy', 'ArrowDown');
    expect(here()).toBe('Copy');
  });
});

test('buttons one below the other are walked up and down', () => {
  show(
    <View {...buttonColumn}>
      <Names names="Grooves Pattern Feel" />
    </View>,
  );
  act(() => button('Grooves').focus());
  key('Grooves', 'ArrowDown');
  expect(here()).toBe('Pattern');
  key('Pattern', 'ArrowUp');
  key('Grooves', 'ArrowUp');
  expect(here()).toBe('Feel');
});

test('in a list Up and Down go to the same button of the next row that has any', () => {
  show(
    <Items label="Stalls">
      <Item>
        <Names names="Hear-1 Keep-1 Drop-1" />
      </Item>
      <Item>
        <Words>Only words</Words>
      </Item>
      <Item>
        <Names names="Hear-2 Keep-2" />
      </Item>
    </Items>,
  );
  act(() => button('Keep-1').focus());
  key('Keep-1', 'ArrowDown');
  expect(here()).toBe('Keep-2');
  key('Keep-2', 'ArrowDown');
  expect(here()).toBe('Keep-2');
  key('Keep-2', 'ArrowUp');
  expect(here()).toBe('Keep-1');
  act(() => button('Drop-1').focus());
  key('Drop-1', 'ArrowDown');
  expect(here()).toBe('Keep-2');
  act(() => button('Hear-1').focus());
  key('Hear-1', 'ArrowUp');
  expect(here()).toBe('Hear-1');
});
