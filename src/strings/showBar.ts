import { allShown } from '../web/shown';

/** Brings a stop of the strings to their left edge: so a bar, or a part of one, is turned to. */
export const showBar = (stop: number): void =>
  allShown('.strings .stop')[stop]?.scrollIntoView({ inline: 'start', block: 'nearest' });
