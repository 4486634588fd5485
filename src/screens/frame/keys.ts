import { listen } from '../../web/listen';
import { useEffect } from 'react';
import { redone, undone } from '../../state/doc';
import { store } from '../../state/session';
import { viewChanged } from '../../state/slices';
import { togglePlay } from './sound';

const isText = (target: Element | null): boolean =>
  target?.matches(
    'input:not([type=range]):not([type=checkbox]):not([type=radio]), textarea, [contenteditable]',
  ) ?? false;

/** In a figure a space means nothing: there the space bar plays. */
const playsIn = (event: KeyboardEvent, target: Element | null): boolean =>
  event.key === ' ' && (target?.matches('[role=spinbutton]') ?? false);

/** What a press of the space bar works by itself. */
const isButton = (target: Element | null): boolean =>
  target?.closest(
    'button, a, select, summary, [role=button], [role=switch], [type=checkbox], [type=radio]',
  ) != null;

const onKey = (event: KeyboardEvent, help: () => void, find: () => void): void => {
  const target = event.target instanceof Element ? event.target : null;
  // From everywhere, fields of text too.
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
    event.preventDefault();
    return find();
  }
  if (event.defaultPrevented || (isText(target) && !playsIn(event, target))) return;
  const command = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  if (command && key === 'z') {
    event.preventDefault();
    store.dispatch(event.shiftKey ? redone() : undone());
  } else if (command && key === 'y') {
    event.preventDefault();
    store.dispatch(redone());
  } else if (!command && event.key === ' ' && !isButton(target)) {
    event.preventDefault();
    if (!event.repeat) togglePlay();
  } else if (!command && event.shiftKey && /^Digit[1-9]$/.test(event.code)) {
    const pattern = store.getState().doc.beat?.patterns[Number(event.code.slice(5)) - 1];
    if (!pattern) return;
    event.preventDefault();
    store.dispatch(viewChanged({ patternId: pattern.id, spots: [], cursor: null }));
  } else if (!command && event.key === '?') {
    event.preventDefault();
    help();
  }
};

/** The keys that work everywhere. */
export const useKeys = (help: () => void, find: () => void): void => {
  useEffect(() => {
    return listen('keydown', (event) => onKey(event, help, find));
  }, [help, find]);
};

/** All keys, for the sheet that lists them. */
export const KEYS: { keys: string; does: string }[] = [
  { keys: 'Space', does: 'Play and stop; on a step, put a hit or take it off' },
  { keys: 'Arrows', does: 'Move among the steps and lanes; left of the first step is the lane’s name' },
  { keys: 'Home, End', does: 'First and last step of the lane' },
  { keys: 'Enter', does: 'Put a hit on the step, or take it off' },
  { keys: '1 to 9', does: 'Velocity of the step, 9 is the strongest' },
  { keys: 'O', does: 'Open the lane, or close it' },
  { keys: 'D', does: 'Into the drawer; Escape there leads back to the step' },
  { keys: 'H', does: 'Hear the lane' },
  { keys: 'M, S', does: 'Mute or solo the lane in focus' },
  { keys: 'Shift + arrows', does: 'Select more steps' },
  { keys: 'Ctrl or Cmd + A', does: 'Select the lane; with Shift the pattern' },
  { keys: 'Escape', does: 'Deselect' },
  { keys: 'Ctrl or Cmd + C, X, V', does: 'Copy, cut, paste at the line' },
  { keys: 'Ctrl or Cmd + D', does: 'Duplicate what is selected' },
  { keys: 'Alt + arrows', does: 'Move what is selected' },
  { keys: 'Delete', does: 'Take the selected hits off' },
  { keys: ', and .', does: 'Nudge by 1 ms; with Shift by 10 ms' },
  { keys: 'Shift + 1 to 9', does: 'Show one of the first nine patterns' },
  { keys: 'Ctrl or Cmd + Z', does: 'Undo' },
  { keys: 'Shift + Ctrl or Cmd + Z', does: 'Redo' },
  { keys: 'Up, Down', does: 'Through the list of grooves; K keeps one' },
  { keys: 'Left, Right', does: 'From bar to bar of the song; Page Up and Down by section, Enter plays' },
  { keys: 'Ctrl or Cmd + K', does: 'Find a command by its name' },
  { keys: '?', does: 'This list' },
];
