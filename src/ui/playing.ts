import { createContext } from 'react';

/** Plays, or stops: for what is tried by ear where the transport cannot be reached. */
export const PlayContext = createContext<() => void>(() => undefined);
