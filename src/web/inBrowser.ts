/** Whether this runs in a browser, and not where the static page is made. */
export const inBrowser = typeof window !== 'undefined';
