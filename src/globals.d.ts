declare namespace NodeJS {
  interface Require {
    /** What Metro adds: the address of a module bundled for a worker or an audio worklet. */
    unstable_resolveWorker(path: string): string;
  }
}
declare module '*.css';
