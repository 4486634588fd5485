/** Sound needs a browser's audio thread: elsewhere play does not begin, which the app says, and nothing is heard. */
import type * as Web from './player.web';

export * from './heard';
export type { Anchor } from './playerNow';
export { hearPeaks, hearTrouble, lookOn, type Onlooker, type SoundTrouble } from './hearers';
export { ownSoundsFrom } from './ownSounds';

const silent = (): void => undefined;
const refused = (): Promise<void> => Promise.reject(new Error('Sound needs a browser.'));

export const alignTo: typeof Web.alignTo = silent;
export const setPlayed: typeof Web.setPlayed = silent;
export const setSongPlayed: typeof Web.setSongPlayed = silent;
export const foreseeLeap: typeof Web.foreseeLeap = silent;
export const switchPattern: typeof Web.switchPattern = silent;
export const turnRoute: typeof Web.turnRoute = () => Promise.resolve(null);
export const playedRoutes: typeof Web.playedRoutes = () => [];
export const startPlaying: typeof Web.startPlaying = refused;
export const armPlaying: typeof Web.armPlaying = silent;
export const stopPlaying: typeof Web.stopPlaying = silent;
export const prepareSounds: typeof Web.prepareSounds = silent;
export const setMetronome: typeof Web.setMetronome = silent;
export const strikeLane: typeof Web.strikeLane = refused;
export const hearLane: typeof Web.hearLane = refused;
