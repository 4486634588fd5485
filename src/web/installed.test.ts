import { keepInstalled, type InstalledParts, type Registration, type Workers } from './installed';

const setUp = async (controlled: boolean) => {
  const heard: Record<string, () => void> = {};
  const sent: string[] = [];
  const registration: Registration = {
    waiting: null,
    installing: null,
    update: jest.fn(() => Promise.reject(new Error('offline'))),
    addEventListener: (kind, hear) => void (heard[kind] = hear),
  };
  const workers: Workers = {
    controller: controlled ? {} : null,
    register: () => Promise.resolve(registration),
    addEventListener: (kind, hear) => void (heard[kind] = hear),
  };
  const steps: string[] = [];
  const parts: InstalledParts = {
    workers,
    onReady: jest.fn(),
    onElsewhere: jest.fn(),
    flush: () => Promise.resolve().then(() => void steps.push('flushed')),
    reload: () => void steps.push('reloaded'),
  };
  const end = await keepInstalled(parts);
  /** A newer one has come and waits. */
  const arrive = () => {
    let told = () => undefined as void;
    registration.installing = { state: 'installing', addEventListener: (_, hear) => void (told = hear) };
    heard['updatefound']!();
    registration.waiting = { postMessage: (text) => void sent.push(text) };
    (registration.installing as { state: string }).state = 'installed';
    told();
  };
  return { heard, sent, registration, workers, steps, parts, end, arrive };
};
/** Does what was offered last. */
const callLast = (mock: unknown) => (mock as jest.Mock<void, [() => void]>).mock.calls.at(-1)![0]();
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

test('the first one of all is told to nobody', async () => {
  const { arrive, parts, heard, end, workers } = await setUp(false);
  arrive();
  workers.controller = {};
  heard['controllerchange']!();
  expect(parts.onReady).not.toHaveBeenCalled();
  expect(parts.onElsewhere).not.toHaveBeenCalled();
  end();
});

test('a newer one waits until it is asked for; all is written before the page opens anew', async () => {
  const { arrive, parts, heard, sent, steps, end } = await setUp(true);
  arrive();
  arrive();
  expect(parts.onReady).toHaveBeenCalledTimes(2);
  expect(sent).toEqual([]);
  expect(steps).toEqual([]);
  callLast(parts.onReady);
  expect(sent).toEqual(['take over']);
  heard['controllerchange']!();
  await settled();
  expect(steps).toEqual(['flushed', 'reloaded']);
  end();
});

test('another page that goes over to it forces nothing here', async () => {
  const { parts, heard, steps, end } = await setUp(true);
  heard['controllerchange']!();
  await settled();
  expect(steps).toEqual([]);
  expect(parts.onElsewhere).toHaveBeenCalledTimes(1);
  callLast(parts.onElsewhere);
  await settled();
  expect(steps).toEqual(['flushed', 'reloaded']);
  end();
});

test('where the server cannot be reached, looking for a newer one harms nothing', async () => {
  jest.useFakeTimers();
  const { registration, end } = await setUp(true);
  await jest.advanceTimersByTimeAsync(3 * 3_600_000);
  expect(registration.update).toHaveBeenCalledTimes(3);
  end();
  await jest.advanceTimersByTimeAsync(3_600_000);
  expect(registration.update).toHaveBeenCalledTimes(3);
  jest.useRealTimers();
});
