/** Brings a stop of the strings to their left edge: so a bar, or a part of one, is turned to. */
export const showBar = (stop: number): void =>
  document.querySelectorAll('.strings .stop')[stop]?.scrollIntoView({ inline: 'start', block: 'nearest' });
