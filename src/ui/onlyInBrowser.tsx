import type { ReactNode } from 'react';
import { words } from '../words/native';
import { Para } from './Words';

/**
 * What stands where a part is drawn, or heard, by a browser only: a sentence that says what is missing.
 *
 * @param what the part's name
 */
export const onlyInBrowser = (what: string) => () => <Para quiet>{words.needsABrowser(what)}</Para>;

/** What only a browser can do with what it holds is left out: that is shown as it is. */
export const asItIs = ({ children }: { children?: ReactNode }) => <>{children}</>;
