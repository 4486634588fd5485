/**
 * Screens that were left are kept, hidden, and are there at once when one comes back. What looks for something on the page
 * looks on the screen that is shown.
 */

/** What a screen is marked by, among an element's data. */
export const SCREEN = 'screen';

/** Whether it lies on a screen that is hidden now. */
export const isPutAway = (element: Element): boolean =>
  element.closest<HTMLElement>(`[data-${SCREEN}]`)?.style.display === 'none';

/** All that a selector finds on the screen that is shown, sheets and what stands around it included. */
export const allShown = (selector: string): HTMLElement[] =>
  [...document.querySelectorAll<HTMLElement>(selector)].filter((element) => !isPutAway(element));

/** The first of them; null where there is none. */
export const firstShown = (selector: string): HTMLElement | null => allShown(selector)[0] ?? null;
