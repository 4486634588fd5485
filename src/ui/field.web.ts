/** What React Native has no words for: the text of a field as a whole, and what is focused within a part. */
import type { TextInput, View } from 'react-native';

const fieldOf = (input: TextInput | null) => input as unknown as HTMLInputElement | null;

/** Selects all that stands in a field; the focus stays where it is. */
export const selectAllText = (input: TextInput | null): void => fieldOf(input)?.select?.();

/** The same for the field that an event is of. */
export const selectAllOf = (target: EventTarget): void => (target as HTMLInputElement).select();

/** Writes into a field that keeps its own letters. */
export const write = (input: TextInput | null, text: string): void => {
  const field = fieldOf(input);
  if (field && field.value !== text) field.value = text;
};

/** Gives the focus to the slider in a part. */
export const focusSlider = (part: View | null): void =>
  (part as unknown as HTMLElement | null)?.querySelector<HTMLElement>('[role=slider]')?.focus();

/** Whether an event is of a slider, or of what is drawn in one. */
export const isOnSlider = (target: EventTarget | null): boolean =>
  !!(target as Element | null)?.closest?.('[role=slider]');
