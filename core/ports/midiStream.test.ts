import fc from 'fast-check';
import { createMidiStream, isRealTime, MOST_SYSEX, type MidiBytes } from './midiStream';

const heardOf = (pieces: readonly (readonly number[])[]) => {
  const heard: MidiBytes[] = [];
  let lost = 0;
  const stream = createMidiStream({
    give: (message) => heard.push(message),
    onLost: (bytes) => (lost += bytes),
  });
  for (const piece of pieces) stream(piece, 0);
  return { heard, lost };
};

const data = fc.integer({ min: 0, max: 127 });
const message = fc.oneof(
  fc.tuple(fc.integer({ min: 0x80, max: 0xbf }), data, data),
  fc.tuple(fc.integer({ min: 0xe0, max: 0xef }), data, data),
  fc.tuple(fc.integer({ min: 0xc0, max: 0xdf }), data),
  fc.constant([0xf2, 16, 0]),
  fc.array(data, { maxLength: 20 }).map((inside) => [0xf0, ...inside, 0xf7]),
);
const realTime = fc.constantFrom(0xf8, 0xfa, 0xfb, 0xfc, 0xfe);

test('messages come out whole, with running status, wherever real-time bytes fall and however the bytes are parted', () => {
  fc.assert(
    fc.property(
      fc.array(message, { maxLength: 20 }),
      fc.array(fc.tuple(fc.nat(), realTime), { maxLength: 10 }),
      fc.array(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 20 }),
      (messages, between, cuts) => {
        let status = 0;
        const bytes = messages.flatMap((one) => {
          const same = one[0] === status && one[0]! < 0xf0;
          status = one[0]!;
          return same ? one.slice(1) : one;
        });
        for (const [at, byte] of between) bytes.splice(at % (bytes.length + 1), 0, byte);
        const pieces: number[][] = [];
        for (let at = 0, k = 0; at < bytes.length; k++) {
          const long = cuts[k % cuts.length]!;
          pieces.push(bytes.slice(at, at + long));
          at += long;
        }
        const { heard, lost } = heardOf(pieces);
        expect(heard.filter(([one]) => !isRealTime(one!))).toEqual(messages);
        expect(
          heard
            .filter(([one]) => isRealTime(one!))
            .map(([one]) => one)
            .sort(),
        ).toEqual(between.map(([, byte]) => byte).sort());
        expect(lost).toBe(0);
      },
    ),
    { seed: 19 },
  );
});

test('whatever bytes come, only whole messages are given, and nothing is thrown', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 255 }), { maxLength: 400 }), (bytes) => {
      for (const one of heardOf([bytes]).heard) {
        expect(one[0]! >= 0x80).toBe(true);
        const inside = one[0] === 0xf0 ? one.slice(1, -1) : one.slice(1);
        expect(inside.every((byte) => byte < 0x80)).toBe(true);
      }
    }),
    { seed: 19 },
  );
});

test('a system exclusive message of a megabyte is passed over and told; the note after it is heard', () => {
  const { heard, lost } = heardOf([[0xf0, ...Array<number>(1_000_000).fill(1), 0xf7, 0x90, 36, 100]]);
  expect(heard).toEqual([[0x90, 36, 100]]);
  expect(lost).toBeGreaterThan(MOST_SYSEX);
  expect(heardOf([[0xf0, 1, 2, 0x90, 36, 100]])).toEqual({ heard: [[0x90, 36, 100]], lost: 3 });
  expect(heardOf([[36, 100]]).lost).toBe(2);
});
