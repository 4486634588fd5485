import fc from 'fast-check';
import { catalogueOf, foldersIn } from '../../../core/groove/catalogue';
import { builtInGrooves } from '../../../core/groove/library';
import { linesOf } from './lines';

const catalogue = catalogueOf(builtInGrooves());
const folders = foldersIn(catalogue.rows, []);

test('folders stand first, then the grooves in their order; nothing lies beyond the last', () => {
  const order = fc.shuffledSubarray(catalogue.rows.map((_, at) => at));
  fc.assert(
    fc.property(order, fc.boolean(), (rows, withFolders) => {
      const first = withFolders ? folders : [];
      const lines = linesOf(first, rows, catalogue);
      expect(lines.count).toBe(first.length + rows.length);
      const all = Array.from({ length: lines.count }, (_, at) => lines.at(at)!);
      expect(all.slice(0, first.length)).toEqual(first.map((folder) => ({ kind: 'folder', folder })));
      all.slice(first.length).forEach((line, at) => {
        const row = catalogue.rows[rows[at]!]!;
        expect(line.kind === 'groove' && line.row).toBe(row);
        expect(lines.placeOf(row.id)).toBe(first.length + at);
      });
      expect(lines.at(lines.count)).toBeUndefined();
      expect(lines.at(-1)).toBeUndefined();
    }),
    { numRuns: 30 },
  );
});

test('a groove that is not among them has no place; the same row is the same line in another list', () => {
  const [one, other] = [linesOf([], [3, 5], catalogue), linesOf(folders, [5], catalogue)];
  expect(one.placeOf(catalogue.rows[4]!.id)).toBe(-1);
  expect(one.placeOf('nowhere')).toBe(-1);
  expect(one.placeOf(null)).toBe(-1);
  expect(one.at(1)).toBe(other.at(folders.length));
});
