import { useMemo, useSyncExternalStore } from 'react';

/** From so many points there is room for a rail on the left and a panel on the right. */
const WIDE = 1024;

/** Asked once and then told: at each asking the browser may lay out the page before it answers. */
const widthOf = (query: string) => {
  let known: boolean | null = null;
  return {
    subscribe: (changed: () => void): (() => void) => {
      const media = matchMedia(query);
      const told = () => {
        known = media.matches;
        changed();
      };
      media.addEventListener('change', told);
      // A screen that was put away meanwhile did not hear of it.
      told();
      return () => media.removeEventListener('change', told);
    },
    read: (): boolean => (known ??= matchMedia(query).matches),
  };
};

/** Whether the page has a width; while it is not drawn yet, it has not. */
const useWidth = (query: string): boolean => {
  const { subscribe, read } = useMemo(() => widthOf(query), [query]);
  return useSyncExternalStore(subscribe, read, () => false);
};

/** Whether the page is at least so many points wide. */
export const useWider = (points: number): boolean => useWidth(`(min-width: ${points}px)`);

/** Whether there is room for a rail on the left and a panel on the right. */
export const useWide = (): boolean => useWider(WIDE);

/** Whether it is narrower than a phone: what stands in a line is said shorter, or goes into a second one. */
export const useNarrow = (): boolean => {
  const wide = useWide();
  return useWidth('(max-width: 359px)') && !wide;
};
