/** @jest-environment jsdom */
import { createCaller, createPool } from './caller';
import { watched } from './watched';

/** A worker that answers when it is let. */
const made: FakeWorker[] = [];
class FakeWorker {
  ended = false;
  asked: string[] = [];
  private heard: ((event: MessageEvent) => void)[] = [];
  private broken: ((event: ErrorEvent) => void)[] = [];
  constructor() {
    made.push(this);
  }
  addEventListener(type: string, hear: (event: MessageEvent) => void) {
    if (type === 'message') this.heard.push(hear);
    else this.broken.push(hear as never);
  }
  removeEventListener(_: string, hear: (event: MessageEvent) => void) {
    this.heard = this.heard.filter((one) => one !== hear);
  }
  start() {}
  postMessage({ id, type }: { id: string; type: string }) {
    if (type === 'APPLY') this.asked.push(id);
  }
  answer(value: unknown) {
    const id = this.asked.shift()!;
    this.heard.forEach((hear) => hear({ data: { id, type: 'RAW', value } } as MessageEvent));
  }
  /** It cannot be fetched, or throws. */
  breakDown() {
    this.broken.forEach((hear) => hear({ filename: '' } as never));
  }
  say(data: unknown) {
    this.heard.forEach((hear) => hear({ data } as MessageEvent));
  }
  terminate() {
    this.ended = true;
  }
}

interface Far {
  work: () => string;
}
const pool = (most: number, ms = 1000) =>
  createPool<Far>(() => new FakeWorker() as unknown as Worker, ms, most);
const work = (call: ReturnType<typeof pool>) => call((far) => far.work() as Promise<string>);
const settle = () => jest.advanceTimersByTimeAsync(1);

beforeEach(() => {
  made.length = 0;
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

test('each worker has one call at a time; what comes while all are busy goes to the first that is free, in order', async () => {
  const call = pool(2);
  const answers: string[] = [];
  const all = ['a', 'b', 'c', 'd'].map((name) =>
    work(call).then((answer) => answer.ok && answers.push(`${name}: ${answer.value}`)),
  );
  await settle();
  expect(made.map(({ asked }) => asked.length)).toEqual([1, 1]);
  made[1]!.answer('second');
  await settle();
  expect(made.map(({ asked }) => asked.length)).toEqual([1, 1]);
  made[0]!.answer('first');
  await settle();
  made[0]!.answer('first again');
  made[1]!.answer('second again');
  await Promise.all(all);
  expect(answers).toEqual(['b: second', 'a: first', 'd: first again', 'c: second again']);
  expect(made).toHaveLength(2);
});

test('one after the other all are answered by one worker: no other is made', async () => {
  const call = pool(4);
  for (let turn = 0; turn < 3; turn++) {
    const answer = work(call);
    await settle();
    made[0]!.answer(turn);
    expect(await answer).toEqual({ ok: true, value: turn });
  }
  expect(made).toHaveLength(1);
});

test('one that takes too long, or breaks down again and again, holds up none that wait for it', async () => {
  const call = pool(1, 50);
  const [broken, late, good] = [work(call), work(call), work(call)];
  await settle();
  made[0]!.breakDown();
  await settle();
  made[1]!.breakDown();
  expect(await broken).toEqual({ ok: false, why: 'failed' });
  await jest.advanceTimersByTimeAsync(60);
  expect(await late).toEqual({ ok: false, why: 'late' });
  await settle();
  made[3]!.answer('there');
  expect(await good).toEqual({ ok: true, value: 'there' });
  expect(made.map(({ ended }) => ended)).toEqual([true, true, true, false]);
});

describe('a worker that is gone', () => {
  /** Locks as the browser has them: held until their holder ends, then given to who waits. */
  const locks = () => {
    const waiting = new Map<string, () => void>();
    return {
      waiting,
      request: (name: string, { signal }: { signal: AbortSignal }, then: () => void) =>
        new Promise<void>((resolve, reject) => {
          signal.addEventListener('abort', () => {
            waiting.delete(name);
            reject(new Error('aborted'));
          });
          waiting.set(name, () => resolve(then()));
        }),
    };
  };
  let given: ReturnType<typeof locks>;
  beforeEach(() => {
    given = locks();
    Object.defineProperty(navigator, 'locks', { value: given, configurable: true });
  });

  test.each(['cannot be fetched', 'is ended by the browser'])(
    '%s: another one is asked at once',
    async (how) => {
      const call = createCaller<Far>(() => new FakeWorker() as unknown as Worker, 60_000);
      const answer = call((far) => far.work() as Promise<string>);
      await settle();
      made[0]!.say({ alive: 'ruddik/worker/a' });
      if (how === 'cannot be fetched') made[0]!.breakDown();
      else given.waiting.get('ruddik/worker/a')!();
      await settle();
      expect(made.map(({ ended }) => ended)).toEqual([true, false]);
      made[1]!.answer('there');
      expect(await answer).toEqual({ ok: true, value: 'there' });
    },
  );

  test('one that ended while nobody asked it is noticed by the next who does', async () => {
    const call = createCaller<Far>(() => new FakeWorker() as unknown as Worker, 60_000);
    const first = call((far) => far.work() as Promise<string>);
    await settle();
    made[0]!.say({ alive: 'ruddik/worker/a' });
    made[0]!.answer(1);
    await first;
    given.waiting.get('ruddik/worker/a')!();
    const second = call((far) => far.work() as Promise<string>);
    await settle();
    made[1]!.answer(2);
    expect(await second).toEqual({ ok: true, value: 2 });
  });

  test('one that is ended on purpose is not told, and nobody waits for it any more', async () => {
    const gone = jest.fn();
    const one = watched(() => new FakeWorker() as unknown as Worker, gone);
    made[0]!.say({ alive: 'ruddik/worker/a' });
    made[0]!.say({ alive: 7 });
    made[0]!.say(null);
    one.end();
    made[0]!.breakDown();
    await settle();
    expect(gone).not.toHaveBeenCalled();
    expect([...given.waiting.keys()]).toEqual([]);
  });

  test('one that ended before it could say that it lives is given up after some seconds', async () => {
    const call = createCaller<Far>(() => new FakeWorker() as unknown as Worker, 60_000);
    const answer = call((far) => far.work() as Promise<string>);
    await jest.advanceTimersByTimeAsync(6100);
    expect(made.map(({ ended }) => ended)).toEqual([true, false]);
    made[1]!.say({ alive: 'ruddik/worker/b' });
    await jest.advanceTimersByTimeAsync(20_000);
    made[1]!.answer('there');
    expect(await answer).toEqual({ ok: true, value: 'there' });
  });

  test('a worker that cannot even be made is an answer too', async () => {
    const call = createCaller<Far>(() => {
      throw new Error('barred');
    }, 1000);
    expect(await call((far) => far.work() as Promise<string>)).toEqual({ ok: false, why: 'failed' });
  });
});
