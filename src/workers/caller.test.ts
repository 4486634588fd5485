/** @jest-environment jsdom */
import { createPool } from './caller';

/** A worker that answers when it is let. */
const made: FakeWorker[] = [];
class FakeWorker {
  ended = false;
  onerror: (() => void) | null = null;
  asked: string[] = [];
  private heard: ((event: MessageEvent) => void)[] = [];
  constructor() {
    made.push(this);
  }
  addEventListener(_: string, hear: (event: MessageEvent) => void) {
    this.heard.push(hear);
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

test('one that breaks down or takes too long holds up none that wait for it', async () => {
  const call = pool(1, 50);
  const [broken, late, good] = [work(call), work(call), work(call)];
  await settle();
  made[0]!.onerror!();
  expect(await broken).toEqual({ ok: false, why: 'failed' });
  await jest.advanceTimersByTimeAsync(60);
  expect(await late).toEqual({ ok: false, why: 'late' });
  await settle();
  made[2]!.answer('there');
  expect(await good).toEqual({ ok: true, value: 'there' });
  expect(made.map(({ ended }) => ended)).toEqual([true, true, false]);
});
