import fc from 'fast-check';
import { createFinder, type Found } from './finder';
import type { GrooveRow } from './groove';
import { builtInGrooves } from './library';

const LIBRARY: GrooveRow[] = builtInGrooves();
const ROWS = LIBRARY.slice(0, 60);

const filled = (rows: readonly GrooveRow[]) => {
  const finder = createFinder();
  for (const _ of finder.steps(rows));
  return finder;
};
const names = (rows: readonly GrooveRow[], found: Found | null) =>
  rows.flatMap(({ name }, at) => (found?.scores[at] ? [name] : []));

test('every row is found by its own name, whatever the order they were taken in', () => {
  fc.assert(
    fc.property(fc.shuffledSubarray(ROWS, { minLength: 1 }), (rows) => {
      const finder = filled(rows);
      for (const { name } of rows) expect(names(rows, finder.find(rows, name))).toContain(name);
    }),
    { numRuns: 10 },
  );
});

test('a row under a new name is found by that alone; nothing is taken in twice', () => {
  const finder = filled(ROWS);
  expect([...finder.steps(ROWS)]).toHaveLength(0);
  const renamed = ROWS.map((row, at) => (at === 3 ? { ...row, name: 'Zephyrine 4711' } : row));
  expect([...finder.steps(renamed)]).toHaveLength(1);
  expect(names(renamed, finder.find(renamed, 'zephyrine'))).toEqual(['Zephyrine 4711']);
  expect(names(renamed, finder.find(renamed, '4711'))).toEqual(['Zephyrine 4711']);
  expect(names(renamed, finder.find(renamed, '5822'))).toEqual([]);
  expect(finder.find(renamed, '  ')).toBeNull();
});

test('a row that was not taken in yet matches nothing', () => {
  const finder = filled(ROWS.slice(0, 5));
  expect([...finder.find(ROWS, ROWS[9]!.name)!.scores].slice(5).some(Boolean)).toBe(false);
});

describe('what a producer types', () => {
  const finder = filled(LIBRARY);
  const found = (query: string) => {
    const { scores, near } = finder.find(LIBRARY, query)!;
    const rows = [...LIBRARY.keys()]
      .filter((at) => scores[at]! > 0)
      .sort((a, b) => scores[b]! - scores[a]!)
      .map((at) => LIBRARY[at]!);
    return { rows, near };
  };
  type Row = GrooveRow;
  const has = (drum: string) => (row: Row) => row.instruments!.some((one) => one.startsWith(drum));
  const style =
    (...names: string[]) =>
    (row: Row) =>
      names.includes(row.style);
  const kind = (one: Row['kind']) => (row: Row) => row.kind === one;
  const feel = (one: Row['feel']['kind']) => (row: Row) => row.feel.kind === one;

  test.each<[string, (row: Row) => boolean]>([
    ['fills', kind('fill')],
    ['fill', kind('fill')],
    ['endings', kind('ending')],
    ['percussion', kind('percussion')],
    ['straight', feel('straight')],
    ['swung', feel('swung')],
    ['triplet', feel('triplet')],
    [
      'swung fill 90',
      (row) => kind('fill')(row) && feel('swung')(row) && row.tempos[0] <= 90 && row.tempos[1] >= 90,
    ],
    ['7/8', (row) => row.meter.beats === 7 && row.meter.unit === 8],
    ['120-130 bpm', (row) => row.bpm >= 119.5 && row.bpm <= 130.5],
    ['120 to 130', (row) => row.bpm >= 119.5 && row.bpm <= 130.5],
    ['lofi', style('Boom-bap', 'Slow jam')],
    ['lo-fi', style('Boom-bap', 'Slow jam')],
    ['punk', style('Rock backbeat')],
    ['ska', style('One drop')],
    ['tresillo', style('Dembow', 'Son clave')],
    ['four on the floor', style('Four-on-the-floor')],
    ['rimshot', has('snare.')],
    ['cowbell', has('cowbell')],
  ])('“%s” finds all that is meant, and nothing else', (query, meant) => {
    const { rows, near } = found(query);
    expect(near).toBe(false);
    expect(rows.length).toBeGreaterThan(0);
    expect(new Set(rows.map(({ id }) => id))).toEqual(new Set(LIBRARY.filter(meant).map(({ id }) => id)));
  });

  test.each([
    ['rock', 'Rock backbeat'],
    ['reggae', 'One drop'],
    ['house', 'House'],
    ['funk', 'Funk'],
    ['train', 'Train beat'],
    ['son', 'Son clave'],
  ])('“%s” begins with %s', (query, wanted) => {
    expect(
      found(query)
        .rows.slice(0, 5)
        .map((row) => row.style),
    ).toEqual(Array(5).fill(wanted));
  });

  test('an intro is what can begin a song', () => {
    const { rows, near } = found('intro');
    expect(near).toBe(false);
    expect(rows.every(({ tags }) => tags.includes('without kick') || tags.includes('sparser'))).toBe(true);
  });

  test.each([
    ['bosa nova', (row: Row) => row.style === 'Bossa nova'],
    ['shufle', (row: Row) => row.style === 'Shuffle'],
    ['9/8', (row: Row) => row.meter.unit === 8],
    ['samba xylophone', (row: Row) => row.style === 'Samba'],
  ])('“%s” is not there: what is near it is given, and told to be', (query, meant) => {
    const { rows, near } = found(query);
    expect(near).toBe(true);
    expect(rows.length).toBeGreaterThan(0);
    expect(rows.slice(0, 3).every(meant)).toBe(true);
  });

  test('what is like nothing finds nothing', () => {
    expect(found('qqqqqqqq').rows).toEqual([]);
  });
});
