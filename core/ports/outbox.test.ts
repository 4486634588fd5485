import fc from 'fast-check';
import { createOutbox, type NoteOut } from './outbox';
import type { MidiBytes } from './midiStream';

/** A port that gives out what it got when its time comes. */
const port = (clears: boolean) => {
  let time = 0;
  let queue: { message: MidiBytes; time: number }[] = [];
  const left: { message: MidiBytes; time: number; at: number }[] = [];
  const out = {
    send: (message: MidiBytes, at: number) => void queue.push({ message, time: at }),
    ...(clears && { clear: () => void (queue = []) }),
  };
  const goTo = (to: number) => {
    const due = queue.filter((one) => one.time <= to).sort((a, b) => a.time - b.time);
    queue = queue.filter((one) => one.time > to);
    for (const one of due) left.push({ ...one, at: Math.max(time, one.time) });
    time = to;
  };
  return { out, goTo, left, now: () => time, queue: () => queue };
};
/** How many notes are on after all that has left. */
const soundingIn = (left: { message: MidiBytes; time: number }[]): number => {
  const on = new Map<string, number>();
  for (const { message } of left) {
    const [status, note, velocity] = message;
    const key = `${status! & 15} ${note}`;
    if ((status! & 0xf0) === 0x90 && velocity) on.set(key, (on.get(key) ?? 0) + 1);
    else if ((status! & 0xf0) === 0x80) on.set(key, Math.max(0, (on.get(key) ?? 0) - 1));
  }
  return [...on.values()].reduce((sum, one) => sum + one, 0);
};

const note = fc.record({
  time: fc.integer({ min: 0, max: 3000 }),
  length: fc.integer({ min: 0, max: 800 }),
  channel: fc.integer({ min: 1, max: 3 }),
  note: fc.integer({ min: 36, max: 40 }),
  velocity: fc.integer({ min: 1, max: 127 }),
});
const step = fc.oneof(
  fc.record({
    do: fc.constant('plan' as const),
    ahead: fc.integer({ min: 0, max: 200 }),
    notes: fc.array(note, { maxLength: 8 }),
  }),
  fc.record({ do: fc.constant('wait' as const), ms: fc.integer({ min: 1, max: 500 }) }),
);

test.each([true, false])(
  'planned over and over, then stopped: no note is left on (a port that can take back: %s)',
  (clears) => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
        const one = port(clears);
        const box = createOutbox(one.out, one.now);
        for (const now of steps) {
          if (now.do === 'wait') one.goTo(one.now() + now.ms);
          else {
            const from = one.now() + now.ahead;
            box.plan(
              from,
              now.notes.map((n): NoteOut => ({ ...n, time: n.time + from })),
            );
          }
        }
        box.stop();
        one.goTo(one.now() + 10_000);
        expect(soundingIn(one.left)).toBe(0);
      }),
      { seed: 19 },
    );
  },
);

test('what is planned anew takes the place of what was planned; each note leaves once, exactly when it is due', () => {
  const one = port(true);
  const box = createOutbox(one.out, one.now);
  const at = (time: number, pitch = 36): NoteOut => ({
    time,
    length: 50,
    channel: 10,
    note: pitch,
    velocity: 100,
  });
  box.plan(0, [at(100), at(600), at(1100)]);
  one.goTo(120);
  box.plan(400, [at(700, 38), at(1100)]);
  one.goTo(2000);
  expect(
    one.left.filter(({ message }) => message[0] === 0x99).map(({ message, time }) => [time, message[1]]),
  ).toEqual([
    [100, 36],
    [700, 38],
    [1100, 36],
  ]);
  expect(soundingIn(one.left)).toBe(0);
  expect(box.sounding()).toBe(0);
});

test('a page that stands still for half a second ten times loses nothing and is late with nothing', () => {
  const one = port(true);
  const box = createOutbox(one.out, one.now);
  const due: number[] = [];
  // Told 2.5 s ahead, by a page that wakes only now and then.
  let until = 0;
  for (let turn = 0; turn < 40; turn++) {
    const to = one.now() + 2500;
    const notes: NoteOut[] = [];
    for (let time = Math.ceil(until / 125) * 125; time < to; time += 125) {
      due.push(time);
      notes.push({ time, length: 60, channel: 10, note: 42, velocity: 90 });
    }
    box.plan(until, notes);
    until = to;
    one.goTo(one.now() + (turn % 4 ? 20 : 500));
  }
  const left = one.left.filter(({ message }) => message[0] === 0x99);
  expect(left.every(({ time, at }) => at === time)).toBe(true);
  expect(left.map(({ time }) => time)).toEqual(due.filter((time) => time <= one.now()));
});

test('panic silences every channel, whatever was planned', () => {
  const one = port(true);
  const box = createOutbox(one.out, one.now);
  box.plan(0, [{ time: 10, length: 5000, channel: 1, note: 60, velocity: 90 }]);
  one.goTo(50);
  box.panic();
  expect(one.queue()).toHaveLength(32);
});
