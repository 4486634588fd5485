import fc from 'fast-check';
import { newBeat, newHit, lanePatternOf } from '../document/defaults';
import {
  browse,
  countsOf,
  catalogueOf,
  FIELDS,
  foldersIn,
  isWithin,
  SORTS,
  wordsOf,
  type Filters,
} from './catalogue';
import { patternGroove } from './fromPattern';
import type { GrooveRow } from './groove';
import {
  joinedFavourites,
  favouritesText,
  keepsFolder,
  keepsGroove,
  NO_FAVOURITES,
  toggleFolder,
  toggleGroove,
} from './favourites';
import { readFavourites } from './favouritesFile';
import { builtInGrooves } from './library';
import { alike, feelAgrees, goesWith, likenessOf } from './likeness';

const grooves = builtInGrooves();
const catalogue = catalogueOf(grooves);
const named = (name: string) => grooves.find((groove) => groove.name === name)!;

const filters: fc.Arbitrary<Filters> = fc
  .dictionary(fc.constantFrom(...FIELDS), fc.nat(), { maxKeys: 3 })
  .map((picked) =>
    Object.fromEntries(
      Object.entries(picked).map(([field, at]) => {
        const words = catalogue.fields[field as (typeof FIELDS)[number]].words;
        return [field, words[at % words.length]!];
      }),
    ),
  );

const passes = (row: GrooveRow, wanted: Filters): boolean =>
  FIELDS.every((field) => wanted[field] === undefined || wordsOf(row, field).includes(wanted[field]!));

describe('a list', () => {
  test('is what passes every filter, and each count is what a further choice would give', () => {
    fc.assert(
      fc.property(filters, fc.constantFrom(...SORTS), fc.boolean(), (wanted, sort, down) => {
        const shown = browse(catalogue, { among: null, filters: wanted, sort, down });
        const { order } = shown;
        const expected = grooves.flatMap((row, at) => (passes(row, wanted) ? [at] : []));
        expect([...order].sort((a, b) => a - b)).toEqual(expected);
        for (const field of FIELDS) {
          const counts = countsOf(catalogue, shown, field);
          catalogue.fields[field].words.forEach((word, code) => {
            const with1 = grooves.filter((row) => passes(row, { ...wanted, [field]: word })).length;
            expect(counts[code]).toBe(with1);
          });
        }
      }),
      { numRuns: 12 },
    );
  });

  test('is sorted both ways, among the rows that were found', () => {
    const all = { filters: {}, down: false, among: null };
    const bpm = browse(catalogue, { ...all, sort: 'bpm' }).order.map((at) => grooves[at]!.bpm);
    expect(bpm).toEqual([...bpm].sort((a, b) => a - b));
    const down = browse(catalogue, { ...all, sort: 'bpm', down: true }).order.map((at) => grooves[at]!.bpm);
    expect(down).toEqual([...bpm].reverse());
    const among = new Uint8Array(grooves.length);
    among[7] = 1;
    expect(browse(catalogue, { ...all, sort: 'name', among }).order).toEqual([7]);
  });

  test('folders count all that lies in them, however deep', () => {
    const rows = [['A'], ['A', 'B'], ['A', 'B'], ['C']].map((path) => ({ ...grooves[0]!, path }));
    expect(foldersIn(rows, []).map(({ name, grooves: count }) => [name, count])).toEqual([
      ['A', 3],
      ['C', 1],
    ]);
    expect(foldersIn(rows, ['A'])).toEqual([{ name: 'B', path: ['A', 'B'], grooves: 2 }]);
    expect([isWithin(['A', 'B'], ['A']), isWithin(['A'], ['A', 'B'])]).toEqual([true, false]);
  });
});

describe('keepers', () => {
  test('are marked and unmarked, written and read, and joined without doubles', () => {
    const kept = toggleFolder(toggleGroove(NO_FAVOURITES, { id: 'a', name: 'A' }), ['Pier', 'Night']);
    expect([
      keepsGroove(kept, 'a'),
      keepsFolder(kept, ['Pier', 'Night']),
      keepsFolder(kept, ['Pier']),
    ]).toEqual([true, true, false]);
    expect(readFavourites(favouritesText(kept))).toEqual({ ok: true, value: kept });
    expect(joinedFavourites(kept, kept)).toEqual(kept);
    expect(toggleFolder(toggleGroove(kept, { id: 'a', name: 'A' }), ['Pier', 'Night'])).toEqual(
      NO_FAVOURITES,
    );
    expect(readFavourites('no').ok || readFavourites('{"kind":"other"}').ok).toBe(false);
  });
});

describe('likeness', () => {
  test('a groove is wholly like itself, and likeness goes both ways', () => {
    fc.assert(
      fc.property(fc.constantFrom(...grooves), fc.constantFrom(...grooves), (a, b) => {
        const [x, y] = [likenessOf(a), likenessOf(b)];
        expect(alike(x, x)).toBeCloseTo(1, 6);
        expect(alike(x, y)).toBeCloseTo(alike(y, x), 9);
        expect(alike(x, y)).toBeGreaterThanOrEqual(0);
        expect(alike(x, y)).toBeLessThanOrEqual(1 + 1e-9);
      }),
    );
  });

  test.each(['Noodle queue', 'Ferry deck', 'Tin stage', 'Harbour steps', 'Paddle wheel'])(
    'what is most like %s comes from its own family',
    (name) => {
      const own = named(name);
      const ranked = grooves
        .filter(({ id }) => id !== own.id)
        .map((other) => ({ style: other.style, score: alike(likenessOf(own), likenessOf(other)) }))
        .sort((a, b) => b.score - a.score);
      expect(ranked.slice(0, 3).filter(({ style }) => style === own.style).length).toBeGreaterThanOrEqual(2);
    },
  );

  test('a swung fill goes better with a swung groove than a straight one does', () => {
    const swung = likenessOf(named('Noodle queue'));
    const [own, other] = [likenessOf(named('Noodle queue, fill 1')), likenessOf(named('Ferry deck, fill 1'))];
    expect(goesWith(swung, own)).toBeGreaterThan(goesWith(swung, other));
    expect(feelAgrees(swung, swung)).toBeCloseTo(1, 6);
    expect(goesWith(swung, likenessOf(named('Seven gulls, fill 1')))).toBeLessThan(0.6);
  });

  test('the pattern of a beat can be compared', () => {
    const beat = newBeat('b', 'B', 1);
    const on = (id: string, steps: number[]) => ({
      ...lanePatternOf(beat.patterns[0]!, id),
      hits: steps.map((step) => newHit(step)),
    });
    const pattern = {
      ...beat.patterns[0]!,
      parts: { kick: on('kick', [0, 4, 8, 12]), 'hat.open': on('hat.open', [2, 6, 10, 14]) },
    };
    const own = likenessOf(patternGroove({ ...beat, patterns: [pattern] }, pattern));
    expect(alike(own, likenessOf(named('Ferry deck')))).toBeGreaterThan(
      alike(own, likenessOf(named('Slack rope'))),
    );
  });
});
