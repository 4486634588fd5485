/** @jest-environment jsdom */
import { fetchAgain, fetchCodeAgain } from './fetchedCode';

/** A loader whose answers go wrong in turn, as the bundler's own does: what has come it takes for good. */
const page = (answers: ('refused' | 'no code' | 'code')[]) => {
  const asked: string[] = [];
  const ears = new Set<(fault: ErrorEvent) => void>();
  const there = new Map<string, Promise<void>>();
  const load = (path: string): Promise<void> => {
    const known = there.get(path);
    if (known) return known;
    asked.push(path);
    const answer = answers.shift();
    if (answer === 'refused') return Promise.reject(new Error('refused'));
    if (answer === 'no code') {
      const fault = { filename: `http://localhost${path}` } as ErrorEvent;
      ears.forEach((told) => told(fault));
    }
    // A fault of something else is nobody's business here.
    ears.forEach((told) => told({ filename: 'http://localhost/other.js' } as ErrorEvent));
    ears.forEach((told) => told({ filename: '' } as ErrorEvent));
    const done = Promise.resolve();
    there.set(path, done);
    return done;
  };
  const hear = (told: (fault: ErrorEvent) => void) => {
    ears.add(told);
    return () => void ears.delete(told);
  };
  const renewed: string[] = [];
  const renew = (path: string) => Promise.resolve(renewed.push(path));
  return { fetch: fetchAgain(load, hear, { renew, pause: () => Promise.resolve() }), asked, renewed, ears };
};

test('what comes is asked for once', async () => {
  const { fetch, asked, ears } = page(['code']);
  await fetch('/later.js');
  expect(asked).toEqual(['/later.js']);
  expect(ears.size).toBe(0);
});

test.each(['refused', 'no code'] as const)(
  '%s once or twice, it is asked for again by another address',
  async (how) => {
    const once = page([how, 'code']);
    await once.fetch('/later.js');
    expect(once.asked).toEqual(['/later.js', '/later.js?again=1']);
    // The next page finds it as it is, too.
    expect(once.renewed).toEqual(['/later.js']);
    const twice = page([how, how, 'code']);
    await twice.fetch('/later.js?dev=1');
    expect(twice.asked).toEqual(['/later.js?dev=1', '/later.js?dev=1&again=1', '/later.js?dev=1&again=2']);
    expect(twice.ears.size).toBe(0);
  },
);

test.each(['refused', 'no code'] as const)('%s each time, that is told', async (how) => {
  const { fetch, asked, ears } = page([how, how, how, 'code']);
  await expect(fetch('/later.js')).rejects.toThrow();
  expect(asked).toHaveLength(3);
  expect(ears.size).toBe(0);
});

test.each(['before', 'after'])('the loader is worked by, set %s it is', async (when) => {
  globalThis.fetch = () => Promise.reject(new Error('no server'));
  const page: Record<string, (path: string) => Promise<void>> = {};
  const asked: string[] = [];
  const load = (path: string) => {
    asked.push(path);
    return asked.length === 1 ? Promise.reject(new Error('refused')) : Promise.resolve();
  };
  if (when === 'before') page['__loadBundleAsync'] = load;
  fetchCodeAgain(page);
  if (when === 'after') page['__loadBundleAsync'] = load;
  await page['__loadBundleAsync']!('/later.js');
  expect(asked).toEqual(['/later.js', '/later.js?again=1']);
});
