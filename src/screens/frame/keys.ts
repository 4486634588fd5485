import { listen } from '../../web/listen';
import { useEffect } from 'react';
import { redone, undone } from '../../store/doc';
import { store } from '../../keeping/session';
import { undoLatest } from '../../store/offers';
import { patternShown } from '../../store/focus';
import { playedTick, turnRoute } from '../../audio/player';
import { createPatternKeys } from './patternKeys';
import { keyOf } from '../../ui/keys';
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
const isFigure = (target: Element | null): boolean => target?.matches('[role=spinbutton]') ?? false;

/** What a press of the space bar works by itself. */
const isButton = (target: Element | null): boolean =>
  target?.closest(
    'button, a, select, summary, [role=button], [role=switch], [type=checkbox], [type=radio]',
  ) != null;

/** What was last taken away comes back where nothing was edited since; else the last edit is taken back. */
const undo = (): void => {
  if (!undoLatest(store.getState().doc.beat)) store.dispatch(undone());
};

const EVERYWHERE = ['undo', 'redo', 'play', 'showPattern', 'recallRoute', 'help'] as const;
type Everywhere = (typeof EVERYWHERE)[number];

/** The figure of a key, by its place on the keyboard. */
const figureOf = ({ code }: KeyboardEvent): number => Number(code.slice('Digit'.length));

/** @returns whether there was anything to do */
const DOES: Record<Everywhere, (event: KeyboardEvent, help: () => void) => boolean | void> = {
  undo,
  redo: () => void store.dispatch(redone()),
  play: (event) => void (event.repeat || togglePlay()),
  showPattern: (event) => {
    const pattern = store.getState().doc.beat?.patterns[figureOf(event) - 1];
    if (pattern) store.dispatch(patternShown(pattern.id));
    return !!pattern;
  },
  recallRoute: (event) => {
    const number = figureOf(event);
    if (number && !store.getState().doc.beat?.routes?.[number - 1]) return false;
    const played = playedTick();
    // Where it cannot be fetched now, the next press asks again.
    const late = import('../later').then((all) => all.recallRoute(store, number, played, turnRoute));
    late.catch(() => undefined);
    return true;
  },
  help: (_, help) => help(),
};

const onKey = (event: KeyboardEvent, help: () => void, find: () => void): void => {
  const target = event.target instanceof Element ? event.target : null;
  // From everywhere, fields of text too.
  if (keyOf(event, ['find'])) {
    event.preventDefault();
    return find();
  }
  const id = keyOf(event, EVERYWHERE);
  const plays = id === 'play';
  if (event.defaultPrevented || (isText(target) && !(plays && isFigure(target)))) return;
  if (plays && isButton(target)) return;
  const done = id ? DOES[id](event, help) !== false : begins(event) && patternKeys.down(event.code);
  if (done) event.preventDefault();
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
