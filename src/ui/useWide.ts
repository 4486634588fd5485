import { useSyncExternalStore } from 'react';

const QUERY = '(min-width: 1024px)';

const subscribe = (changed: () => void): (() => void) => {
  const media = window.matchMedia(QUERY);
  media.addEventListener('change', changed);
  return () => media.removeEventListener('change', changed);
};

/** Whether there is room for a rail on the left and a panel on the right. */
export const useWide = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => window.matchMedia(QUERY).matches,
    () => false,
  );
