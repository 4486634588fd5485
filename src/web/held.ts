import { keyOf, type KeyId } from '../ui/keys';

/** Whether what is worked in takes letters itself. */
const takesLetters = (target: EventTarget | null): boolean =>
  target instanceof Element && target.matches('input[type=text], textarea, select');

/**
 * Tells when a key is held and when it is let go; leaving the page lets go of it too.
 *
 * @param which the key, without others held
 * @returns what ends it
 */
export const whileHeld = (which: KeyId, onHeld: (held: boolean) => void): (() => void) => {
  const key = (event: KeyboardEvent) => {
    if (event.repeat || !keyOf(event, [which])) return;
    if (!takesLetters(event.target)) onHeld(event.type === 'keydown');
  };
  const end = () => onHeld(false);
  window.addEventListener('keydown', key);
  window.addEventListener('keyup', key);
  window.addEventListener('blur', end);
  return () => {
    window.removeEventListener('keydown', key);
    window.removeEventListener('keyup', key);
    window.removeEventListener('blur', end);
  };
};
