import { useMemo, useSyncExternalStore } from 'react';

/** From so many points there is room for a rail on the left and a panel on the right. */
const WIDE = 1024;

/** Asked once and then told: at each asking the browser may lay out the page before it answers. */
const widthOf = (points: number) => {
  const query = `(min-width: ${points}px)`;
  let known: boolean | null = null;
  return {
    subscribe: (changed: () => void): (() => void) => {
      const media = matchMedia(query);
      const told = () => {
        known = media.matches;
        changed();
      };
      media.addEventListener('change', told);
      return () => media.removeEventListener('change', told);
    },
    read: (): boolean => (known ??= matchMedia(query).matches),
  };
};

/** Whether the page is at least so many points wide; while it is not drawn yet, it is not. */
export const useWider = (points: number): boolean => {
  const { subscribe, read } = useMemo(() => widthOf(points), [points]);
  return useSyncExternalStore(subscribe, read, () => false);
};

/** Whether there is room for a rail on the left and a panel on the right. */
export const useWide = (): boolean => useWider(WIDE);
