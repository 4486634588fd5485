import { wrap, type Remote } from 'comlink';

/** What came of a call of a worker: what it answered, or that it took too long or broke down. */
export type Answer<T> = { ok: true; value: T } | { ok: false; why: 'late' | 'failed' };

/**
 * Calls the functions of a worker that is made at the first call. One that takes longer than it may, or breaks down, is ended;
 * the next call gets a new one.
 *
 * @param mostMs how long a call may take
 */
export const createCaller = <Far extends object>(make: () => Worker, mostMs: number) => {
  let there: { worker: Worker; remote: Remote<Far>; failed: Promise<never> } | null = null;

  const end = (): void => {
    there?.worker.terminate();
    there = null;
  };

  const ready = (): NonNullable<typeof there> => {
    if (there) return there;
    const worker = make();
    const failed = new Promise<never>((_, reject) => {
      worker.onerror = () => reject(new Error('failed'));
    });
    failed.catch(() => undefined);
    there = { worker, remote: wrap<Far>(worker), failed };
    return there;
  };

  return async <T>(call: (far: Remote<Far>) => Promise<T>): Promise<Answer<T>> => {
    const { remote, failed } = ready();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<'late'>((resolve) => {
      timer = setTimeout(() => resolve('late'), mostMs);
    });
    try {
      const value = await Promise.race([call(remote), late, failed]);
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
