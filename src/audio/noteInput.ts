/** Notes of MIDI inputs are heard in a browser only. */
import type * as Web from './noteInput.web';

export type { HeldIn, NoteIn } from './noteInput.web';

const silent = (): void => undefined;

export const SIMULATED_NOTE = 'ruddik-note';
export const isHeard: typeof Web.isHeard = () => false;
export const playOutside: typeof Web.playOutside = silent;
export const holdOutside: typeof Web.holdOutside = silent;
export const heldOf: typeof Web.heldOf = () => null;
export const hearNotes: typeof Web.hearNotes = () => silent;
export const learnNote: typeof Web.learnNote = () => Promise.resolve(null);
export const cancelLearning: typeof Web.cancelLearning = silent;
export const simulateNote: typeof Web.simulateNote = silent;
