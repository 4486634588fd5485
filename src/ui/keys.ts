/**
 * Every key of the app, described once. What hears keys asks here which one was pressed; the list of keys, the commands, the
 * guide's table and the test that presses them all are made from it.
 *
 * A press is written as modifiers and a key: `Shift+Mod+A`. `Mod` is Ctrl or Cmd; `Arrow` any of the four arrows; `1-9` a figure
 * as it is typed, `Digit1-9` its place on the keyboard, `Digit0-9` with 0.
 */
export const KEYS = {
  // Heard everywhere.
  find: ['Mod+K'],
  undo: ['Mod+Z'],
  redo: ['Shift+Mod+Z', 'Mod+Y'],
  play: ['Space'],
  showPattern: ['Shift+Digit1-9'],
  recallRoute: ['Alt+Digit0-9'],
  help: ['?'],
  // On the strings.
  walk: ['Arrow'],
  ends: ['Home', 'End'],
  put: ['Enter', 'Space'],
  velocity: ['1-9'],
  open: ['O'],
  drawer: ['D'],
  hear: ['H'],
  mute: ['M'],
  solo: ['S'],
  extend: ['Shift+Arrow'],
  selectLane: ['Mod+A'],
  selectAll: ['Shift+Mod+A'],
  deselect: ['Escape'],
  copy: ['Mod+C'],
  cut: ['Mod+X'],
  paste: ['Mod+V'],
  duplicate: ['Mod+D'],
  move: ['Alt+Arrow'],
  remove: ['Delete', 'Backspace'],
  nudge: ['Comma', 'Period'],
  nudgeFar: ['Shift+Comma', 'Shift+Period'],
  tune: ['PageUp', 'PageDown'],
  // On other screens.
  compare: ['C'],
  keepGroove: ['K'],
  playHere: ['Enter'],
} as const satisfies Record<string, readonly string[]>;

export type KeyId = keyof typeof KEYS;

/** What of a key's event tells which one it is: a page's and React's have it alike. */
export type Pressed = Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>;

/** Signs that are others with Shift: then they go by their place on the keyboard. */
const SIGNS: Record<string, string> = { Comma: ',', Period: '.' };
/** What Shift makes no other key of. */
const ANY_SHIFT = /^([A-Z?]|Space|Enter|Escape|Delete|Backspace|Home|End|PageUp|PageDown)$/;

const isKey = (name: string, { key, code, shiftKey }: Pressed): boolean => {
  if (name === 'Arrow') return key.startsWith('Arrow');
  if (name === 'Space') return key === ' ';
  if (name === '1-9') return /^[1-9]$/.test(key);
  if (name.startsWith('Digit')) return new RegExp(`^Digit[${name.slice(5)}]$`).test(code);
  return name in SIGNS
    ? key === SIGNS[name] || (shiftKey && code === name)
    : key.toLowerCase() === name.toLowerCase();
};

const isPress = (press: string, event: Pressed): boolean => {
  const held = press.split('+');
  const name = held.pop()!;
  const [mod, shift, alt] = ['Mod', 'Shift', 'Alt'].map((one) => held.includes(one)) as [
    boolean,
    boolean,
    boolean,
  ];
  if (mod !== (event.ctrlKey || event.metaKey) || alt !== event.altKey) return false;
  // Where the same with Shift is another key, or another sign, Shift tells.
  const told = shift || mod || !ANY_SHIFT.test(name);
  return (!told || shift === event.shiftKey) && isKey(name, event);
};

/**
 * Which of some keys was pressed.
 *
 * @param among those that are heard there, in this order
 * @example keyOf({ key: 'z', code: 'KeyZ', ctrlKey: true, ...none }, ['redo', 'undo']) // "undo"
 */
export const keyOf = <Id extends KeyId>(event: Pressed, among: readonly Id[]): Id | null =>
  among.find((id) => KEYS[id].some((press) => isPress(press, event))) ?? null;
