import type { Beat } from '../core/document/schema';
import { byFormula, type Played } from './formulas';
import { golden, names, PASSES, written } from './read';

/** What is drawn at random, follows players or hands, or is a song: held to figures of another kind elsewhere. */
const DRAWN = /random|walk|chance|loose-hands|drift|humanized|players|weaker|left-handed|everything|song/;

const read = (name: string): Played[] =>
  written('notes', name)
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => {
      const [tick, note, velocity, channel, length, , lane] = line.split('\t');
      return {
        tick: Number(tick),
        note: Number(note),
        force: Number(velocity),
        channel: Number(channel),
        length: Number(length),
        lane: lane!,
      };
    });

/** In one order, whatever rounds otherwise: a millionth of a tick is no other time. */
const ordered = (notes: Played[]): Played[] =>
  [...notes].sort(
    (a, b) =>
      (Math.abs(a.tick - b.tick) < 1e-6 ? 0 : a.tick - b.tick) ||
      a.lane.localeCompare(b.lane) ||
      a.note - b.note ||
      a.force - b.force,
  );

describe('the notes that were written down are those of the formulas', () => {
  test.each(names().filter((name) => !DRAWN.test(name)))('%s', (name) => {
    const beat = golden(name);
    const worked = ordered(byFormula(beat, PASSES));
    const there = ordered(read(name));
    const told = (notes: Played[]) =>
      notes.map(({ tick, note, channel, lane, length }) =>
        [tick.toFixed(5), note, channel, lane, length.toFixed(5)].join(' '),
      );
    expect(there.length).toBeGreaterThan(12);
    expect(told(there)).toEqual(told(worked));
    there.forEach((one, at) =>
      expect(Math.abs(one.force - worked[at]!.force)).toBeLessThanOrEqual(0.5 + 1e-6),
    );
  });
});

const HUMANIZED = names().filter((name) => /loose-hands|drift|humanized/.test(name));

describe('what is humanized stays within what it is drawn from', () => {
  test.each(HUMANIZED)('%s', (name) => {
    const beat = golden(name);
    const { timing, velocity, drift, soft = 0 } = beat.feel.humanize;
    const rate = (960 * beat.tempo) / 60000;
    const [worked, there] = [byFormula(beat, PASSES + 1), read(name)];
    const late: number[] = [];
    for (const { id } of beat.lanes) {
      const of = (notes: Played[]) => notes.filter(({ lane }) => lane === id);
      const own = beat.feel.lanes[id] ?? {};
      const most =
        (own.timing ?? 1) * timing * (1 + soft) * (3 * (Math.sqrt(1 - drift) + Math.sqrt(2 * drift)) + 0.75);
      of(there).forEach((one, at) => {
        const straight = of(worked)[at]!;
        expect(Math.abs(one.tick - straight.tick)).toBeLessThanOrEqual(most * rate);
        expect(Math.abs(one.force - straight.force)).toBeLessThanOrEqual(
          3 * velocity * (own.velocity ?? 1) + 0.5,
        );
        // What is held at the start says nothing.
        if (one.tick > 0) late.push((one.tick - straight.tick) / rate);
      });
    }
    const mean = late.reduce((sum, one) => sum + one, 0) / late.length;
    const spread = Math.sqrt(late.reduce((sum, one) => sum + (one - mean) ** 2, 0) / late.length);
    expect(Math.abs(mean)).toBeLessThan(timing / 2);
    expect(spread).toBeGreaterThan(timing / 2);
    expect(spread).toBeLessThan(timing * 1.5);
  });
});

test('what chance lets sound is of what is written, about as often as it says', () => {
  const beat = golden('20-chance');
  const sure = (hits: Beat['patterns'][0]['parts'][string]['hits']) =>
    hits.map((hit) => ({ ...hit, chance: 1 }));
  const [pattern] = beat.patterns;
  const parts = Object.fromEntries(
    Object.entries(pattern!.parts).map(([id, part]) => [id, { ...part, hits: sure(part.hits) }]),
  );
  const all = byFormula({ ...beat, patterns: [{ ...pattern!, parts }] }, PASSES);
  const there = read('20-chance');
  const key = ({ tick, note }: Played) => `${tick.toFixed(4)} ${note}`;
  const known = new Set(all.map(key));
  expect(there.filter((one) => !known.has(key(one)))).toEqual([]);
  // 8 hats at 0.9, 8 at 0.6, four times: 48 of 64 on the whole, with a standard deviation of 3.3.
  const hats = there.filter(({ lane }) => lane === 'hat.closed').length;
  expect(Math.abs(hats - 48)).toBeLessThanOrEqual(10);
});
