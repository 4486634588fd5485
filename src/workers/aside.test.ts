/** @jest-environment jsdom */
import { deserialize, serialize } from 'node:v8';
import { TEMPLATES } from '../../core/feel/templates';
import { templateMidi } from '../../core/midi/convert/templateMidi';
import { readAside, MOST_MS } from './aside';
import { read as readHere } from './readers';

/** A worker that answers as it is told to. */
const made: { ended: boolean }[] = [];
const ways = { answer: true, breaks: false };
class FakeWorker {
  ended = false;
  private broken: ((event: { filename: string }) => void)[] = [];
  private heard: ((event: MessageEvent) => void)[] = [];
  constructor() {
    made.push(this);
  }
  addEventListener(type: string, hear: (event: MessageEvent) => void) {
    if (type === 'message') this.heard.push(hear);
    else this.broken.push(hear as never);
  }
  removeEventListener() {}
  start() {}
  postMessage({ id, type, argumentList }: { id: string; type: string; argumentList: { value: string[] }[] }) {
    // Also told, whenever its owner is gone from memory, that nobody asks any more.
    if (type !== 'APPLY') return;
    if (ways.breaks) return void setTimeout(() => this.broken.forEach((hear) => hear({ filename: '' })));
    if (!ways.answer) return;
    const value = { ok: true, value: `read: ${argumentList[1]!.value[0]!}` };
    const data = { id, type: 'RAW', value };
    setTimeout(() => this.heard.forEach((hear) => hear({ data } as MessageEvent)));
  }
  terminate() {
    this.ended = true;
  }
}

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(ways, { answer: true, breaks: false });
  (globalThis as { Worker?: unknown }).Worker = FakeWorker;
});
afterEach(() => jest.useRealTimers());

const read = async (text: string) => {
  const reading = readAside('readFavourites', text);
  await jest.advanceTimersByTimeAsync(MOST_MS + 1);
  return reading;
};

test('what is read comes from the worker', async () => {
  expect(await read('a')).toEqual({ ok: true, value: 'read: a' });
  expect(await read('b')).toEqual({ ok: true, value: 'read: b' });
  expect(made).toHaveLength(1);
});

test('a file that takes too long is left, its worker ended, and the next one is read by a new one', async () => {
  ways.answer = false;
  const before = made.at(-1);
  expect(await read('endless')).toEqual({
    ok: false,
    error: 'It took too long to read and was left out.',
  });
  expect(before!.ended).toBe(true);
  ways.answer = true;
  expect(await read('c')).toEqual({ ok: true, value: 'read: c' });
  expect(made.at(-1)).not.toBe(before);
});

test('a worker that breaks, or cannot be fetched, is told and made anew', async () => {
  ways.breaks = true;
  expect(await read('d')).toMatchObject({ ok: false, error: expect.stringContaining('Try it again') });
  ways.breaks = false;
  expect(await read('e')).toEqual({ ok: true, value: 'read: e' });
});

test('what is read can be handed over: it is plain data, whichever kind of file it was', () => {
  const bytes = templateMidi(TEMPLATES[0]!);
  const given: [Parameters<typeof readHere>[0], unknown[]][] = [
    ['checkNotes', ['rain.mid', bytes]],
    ['openTemplate', ['rain.mid', bytes]],
    ['midiParts', [bytes]],
    ['beatFromMidi', [bytes, 'Rain', 'id', 1]],
    ['guess', [bytes, []]],
    ['readBeats', ['{}']],
    ['readMapCsv', ['36,Kick\n38,Snare']],
  ];
  for (const [what, values] of given) {
    const out = readHere(what, values as never);
    expect(deserialize(serialize(out))).toEqual(out);
    expect(out.ok).toBe(true);
  }
});
