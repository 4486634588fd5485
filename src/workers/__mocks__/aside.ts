import { read, type Readers } from '../readers';

/** Reads in the page: there are no workers in the tests of a screen. */
export const readAside = <K extends keyof Readers>(what: K, ...given: Parameters<Readers[K]>) =>
  Promise.resolve(read(what, given));
