import { createContext } from 'react';

/** Tells a person something that a part of the interface did: given by the frame, since parts know nothing of notices. */
export const SayContext = createContext<(text: string, subject: string) => void>(() => undefined);
