import { listen } from '../../web/listen';
import { useEffect } from 'react';
import { redone, undone } from '../../store/doc';
import { store } from '../../keeping/session';
import { undoLatest } from '../../store/offers';
import { patternShown } from '../../store/focus';
import { playedTick, turnRoute } from '../../audio/player';
import { recallRoute } from '../../store/recallRoute';
import { createPatternKeys } from './patternKeys';
import { togglePlay } from './sound';

const patternKeys = createPatternKeys(store, togglePlay);

/** Pads play the same keys while they are open: there they are drums. */
const begins = (event: KeyboardEvent): boolean =>
  !event.ctrlKey &&
  !event.metaKey &&
  !event.altKey &&
  !event.shiftKey &&
  !event.repeat &&
  store.getState().look.drawer !== 'pads' &&
  !(event.target instanceof Element && event.target.matches('select'));

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

/** What was last taken away comes back where nothing was edited since; else the last edit is taken back. */
const undo = (): void => {
  if (!undoLatest(store.getState().doc.beat)) store.dispatch(undone());
};

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
    if (event.shiftKey) store.dispatch(redone());
    else undo();
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
    store.dispatch(patternShown(pattern.id));
  } else if (!command && event.altKey && /^Digit[0-9]$/.test(event.code)) {
    if (recallRoute(store, Number(event.code.slice(5)), playedTick(), turnRoute)) event.preventDefault();
  } else if (!command && event.key === '?') {
    event.preventDefault();
    help();
  } else if (begins(event) && patternKeys.down(event.code)) event.preventDefault();
};

/** The keys that work everywhere. */
export const useKeys = (help: () => void, find: () => void): void => {
  useEffect(() => {
    const ends = [
      listen('keydown', (event) => onKey(event, help, find)),
      listen('keyup', (event) => void patternKeys.up(event.code)),
    ];
    return () => ends.forEach((end) => end());
  }, [help, find]);
};
