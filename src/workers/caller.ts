import { wrap, type Remote } from 'comlink';
import { watched } from './watched';

/** What came of a call of a worker: what it answered, or that it took too long or broke down. */
export type Answer<T> = { ok: true; value: T } | { ok: false; why: 'late' | 'failed' };

/** A worker that is there, and what it can be asked. */
export interface Hired<Far> {
  far: Remote<Far>;
  end(): void;
  /** Never kept where all goes well; refused where the worker cannot be fetched, breaks down or is ended by the browser. */
  failed: Promise<never>;
}

/** The worker is no longer there: what it was asked may be asked of another one. */
export class WorkerGone extends Error {}

/** Makes a worker whose functions can be called. */
export const hire = <Far extends object>(make: () => Worker): Hired<Far> => {
  let fail: (fault: Error) => void;
  const failed = new Promise<never>((_, reject) => (fail = reject));
  failed.catch(() => undefined);
  const { worker, end } = watched(make, (why) => fail(new WorkerGone(why)));
  return { far: wrap<Far>(worker), end, failed };
};

/**
 * Calls the functions of a worker that is made at the first call. One that takes longer than it may is ended, and the next call
 * gets a new one. Where it cannot be fetched, breaks down or is ended by the browser, a new one is asked once more.
 *
 * @param mostMs how long a call may take
 */
export const createCaller = <Far extends object>(make: () => Worker, mostMs: number) => {
  let there: Hired<Far> | null = null;

  const end = (): void => {
    there?.end();
    there = null;
  };

  const ask = async <T>(call: (far: Remote<Far>) => Promise<T>, isAgain: boolean): Promise<Answer<T>> => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<'late'>((resolve) => {
      timer = setTimeout(() => resolve('late'), mostMs);
    });
    try {
      const { far, failed } = (there ??= hire<Far>(make));
      const value = await Promise.race([call(far), late, failed]);
      if (value !== 'late') return { ok: true, value: value as T };
      end();
      return { ok: false, why: 'late' };
    } catch (fault) {
      end();
      if (!isAgain && fault instanceof WorkerGone) return ask(call, true);
      return { ok: false, why: 'failed' };
    } finally {
      clearTimeout(timer);
    }
  };

  return <T>(call: (far: Remote<Far>) => Promise<T>): Promise<Answer<T>> => ask(call, false);
};

/**
 * Calls workers of one kind, each with one call at a time; what comes while all are busy waits for the first that is free. One is
 * made only when all that there are have something to do.
 *
 * @param most how many workers there may be
 */
export const createPool = <Far extends object>(make: () => Worker, mostMs: number, most: number) => {
  type Caller = ReturnType<typeof createCaller<Far>>;
  const free: Caller[] = Array.from({ length: most }, () => createCaller<Far>(make, mostMs));
  const waiting: ((caller: Caller) => void)[] = [];
  const taken = (): Promise<Caller> | Caller =>
    free.pop() ?? new Promise<Caller>((resolve) => waiting.push(resolve));

  return async <T>(call: (far: Remote<Far>) => Promise<T>): Promise<Answer<T>> => {
    const caller = await taken();
    try {
      return await caller(call);
    } finally {
      const next = waiting.shift();
      if (next) next(caller);
      else free.push(caller);
    }
  };
};
