import type { KeyboardEvent } from 'react';

/**
 * A field of text keeps every key to itself, also those that mean nothing in it. Such a key is given on to what the field
 * lies in, as if it had been pressed there.
 */
export const passOn = (event: KeyboardEvent): void => {
  const { key, code, ctrlKey, metaKey, shiftKey, altKey } = event.nativeEvent;
  const given = new KeyboardEvent('keydown', {
    key,
    code,
    ctrlKey,
    metaKey,
    shiftKey,
    altKey,
    bubbles: true,
    cancelable: true,
  });
  event.currentTarget.parentElement?.dispatchEvent(given);
  if (given.defaultPrevented) event.preventDefault();
};
