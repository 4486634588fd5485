import { useSyncExternalStore } from 'react';
import { sinceThen } from '../ui/sinceThen';
import type { Pigment } from '../../core/document/instruments';

const NAMES = [
  'ground',
  'raised',
  'line',
  'rule',
  'pip',
  'text',
  'quiet',
  'woad',
  'ruddle',
  'weld',
  'lichen',
  'madder',
  'walnut',
  'heather',
] as const;

/** The dyes of the theme, for what is painted rather than styled. */
export type Ink = Record<(typeof NAMES)[number] | Pigment, string>;

const read = (): Ink => {
  const style = getComputedStyle(document.documentElement);
  return Object.fromEntries(NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()])) as Ink;
};

let ink: Ink | null = null;

/** How many parts hear of another theme. */
let hearing = 0;

/** The theme may have been changed while nobody heard of it: the strings were put away. */
const renew = () => {
  if (hearing > 1) return;
  const now = read();
  if (ink && NAMES.some((name) => now[name] !== ink![name])) ink = now;
};

const subscribe = sinceThen((changed) => {
  const again = () => {
    ink = null;
    changed();
  };
  const media = window.matchMedia('(prefers-color-scheme: light)');
  const watcher = new MutationObserver(again);
  watcher.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  media.addEventListener('change', again);
  hearing += 1;
  return () => {
    hearing -= 1;
    watcher.disconnect();
    media.removeEventListener('change', again);
  };
}, renew);

/** The dyes as they are now; other ones when the theme changes. Null on the server, where nothing is painted. */
export const useInk = (): Ink | null =>
  useSyncExternalStore(
    subscribe,
    () => (ink ??= read()),
    () => null,
  );
