/** Opens an address of the app beside it, in a window of its own where the browser lets it. */
export const openWindow = (href: string): void => {
  window.open(href, '_blank', 'popup,width=520,height=640');
};

/** What stands after the question mark of the address. */
export const addressPart = (name: string): string | null =>
  new URLSearchParams(window.location.search).get(name);
