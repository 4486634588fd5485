/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { View } from 'react-native';
import { Action } from './Action';
import { Icon } from './Icon';
import { IconButton } from './IconButton';
import { Themed } from './Themed';

const nothing = () => undefined;

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const wait = (ms: number) => act(() => void jest.advanceTimersByTime(ms));
const tip = () => screen.queryByText('Rename Rain on Tarps');
const rest = () => fireEvent.pointerEnter(screen.getByRole('button'), { pointerType: 'mouse' });

test.each([
  ['an icon’s button', <IconButton key="" label="Rename Rain on Tarps" icon="rename" onPress={nothing} />],
  [
    'a button that shows only its icon',
    <Action key="" label="Rename Rain on Tarps" iconOnly icon={<Icon name="rename" />} onPress={nothing} />,
  ],
])('%s says what it does where a pointer rests on it, until it goes or presses', (_, what) => {
  render(
    <Themed>
      <View>{what}</View>
    </Themed>,
  );
  const button = screen.getByRole('button', { name: 'Rename Rain on Tarps' });
  rest();
  wait(400);
  expect(tip()).toBeNull();
  wait(200);
  // It is the button's name already: heard once.
  expect(tip()!.closest('[aria-hidden=true]')).toBeTruthy();
  fireEvent.pointerLeave(button, { pointerType: 'mouse' });
  expect(tip()).toBeNull();
  rest();
  fireEvent.pointerLeave(button, { pointerType: 'mouse' });
  wait(1000);
  expect(tip()).toBeNull();
  rest();
  wait(600);
  expect(tip()).not.toBeNull();
  fireEvent.keyDown(window, { key: 'Escape' });
  expect(tip()).toBeNull();
});
