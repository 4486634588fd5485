import { wrap, type Remote } from 'comlink';

/** What came of a call of a worker: what it answered, or that it took too long or broke down. */
export type Answer<T> = { ok: true; value: T } | { ok: false; why: 'late' | 'failed' };

/** A worker that is there, and what it can be asked. */
export interface Hired<Far> {
  far: Remote<Far>;
  end(): void;
  /** Never kept where all goes well; refused where the worker cannot be fetched or breaks down. */
  failed: Promise<never>;
}

/** Makes a worker whose functions can be called. */
export const hire = <Far extends object>(make: () => Worker): Hired<Far> => {
  const worker = make();
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error('failed'));
  });
  failed.catch(() => undefined);
  return { far: wrap<Far>(worker), end: () => worker.terminate(), failed };
};

/**
 * Calls the functions of a worker that is made at the first call. One that takes longer than it may, or breaks down, is ended;
 * the next call gets a new one.
 *
 * @param mostMs how long a call may take
 */
export const createCaller = <Far extends object>(make: () => Worker, mostMs: number) => {
  let there: Hired<Far> | null = null;

  const end = (): void => {
    there?.end();
    there = null;
  };

  return async <T>(call: (far: Remote<Far>) => Promise<T>): Promise<Answer<T>> => {
    const { far, failed } = (there ??= hire<Far>(make));
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<'late'>((resolve) => {
      timer = setTimeout(() => resolve('late'), mostMs);
    });
    try {
      const value = await Promise.race([call(far), late, failed]);
      if (value !== 'late') return { ok: true, value: value as T };
      end();
      return { ok: false, why: 'late' };
    } catch {
      end();
      return { ok: false, why: 'failed' };
    } finally {
      clearTimeout(timer);
    }
  };
};
