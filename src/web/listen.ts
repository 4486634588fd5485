/** Hears events of the whole window. @returns what ends it */
export const listen = <K extends keyof WindowEventMap>(
  type: K,
  hear: (event: WindowEventMap[K]) => void,
  options?: AddEventListenerOptions,
): (() => void) => {
  window.addEventListener(type, hear, options);
  return () => window.removeEventListener(type, hear, options);
};

/** Tells when the page is left or shown again. @returns what ends it */
export const onPage = (told: (shown: boolean) => void): (() => void) => {
  const tell = () => told(document.visibilityState === 'visible');
  window.addEventListener('pagehide', tell);
  document.addEventListener('visibilitychange', tell);
  return () => {
    window.removeEventListener('pagehide', tell);
    document.removeEventListener('visibilitychange', tell);
  };
};

/** The theme that the page is drawn in: its colours follow from it. */
export const drawPageBy = (theme: 'system' | 'day' | 'night'): void => {
  const root = document.documentElement;
  if (theme === 'system') root.removeAttribute('data-theme');
  else root.setAttribute('data-theme', theme);
};
