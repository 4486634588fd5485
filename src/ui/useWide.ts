import { useMemo, useSyncExternalStore } from 'react';

/** From so many points there is room for a rail on the left and a panel on the right. */
const WIDE = 1024;

/** Whether the page is at least so many points wide; while it is not drawn yet, it is not. */
export const useWider = (points: number): boolean => {
  const { subscribe, read } = useMemo(() => {
    const query = `(min-width: ${points}px)`;
    return {
      subscribe: (changed: () => void): (() => void) => {
        const media = matchMedia(query);
        media.addEventListener('change', changed);
        return () => media.removeEventListener('change', changed);
      },
      read: () => matchMedia(query).matches,
    };
  }, [points]);
  return useSyncExternalStore(subscribe, read, () => false);
};

/** Whether there is room for a rail on the left and a panel on the right. */
export const useWide = (): boolean => useWider(WIDE);
