import { createContext } from 'react';

/** Opens the search of commands, from which the list of keys is one press away. */
export const HelpContext = createContext<() => void>(() => undefined);
