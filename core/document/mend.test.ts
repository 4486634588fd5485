import fc from 'fast-check';
import { DEMO_BEATS } from '../../demo/beats';
import { readBeat } from './file';
import { mendBeat } from './mend';
import type { Beat } from './schema';
import { writeBeat } from './text';

type Junk = Record<string, never>;

const [demo] = DEMO_BEATS;
/** A demo beat as it is written, with something wrong put into it. */
const damaged = (spoil: (beat: Beat) => void): string => {
  const beat = JSON.parse(writeBeat(demo!)) as Beat;
  spoil(beat);
  return JSON.stringify(beat);
};
const mended = (text: string) => {
  const read = mendBeat(text);
  if (!read.ok) throw new Error(read.error);
  return read.value;
};

test('a whole beat is read as it is, with nothing left out', () => {
  for (const beat of DEMO_BEATS) expect(mended(writeBeat(beat))).toEqual({ beat, left: [] });
});

test('one hit that is wrong goes, and nothing else; it is told', () => {
  const laneId = Object.keys(demo!.patterns[0]!.parts)[0]!;
  const hits = demo!.patterns[0]!.parts[laneId]!.hits;
  const { beat, left } = mended(
    damaged((one) => {
      one.patterns[0]!.parts[laneId]!.hits[1]!.velocity = 900;
      one.patterns[0]!.parts[laneId]!.hits[2] = 7 as never;
    }),
  );
  expect(beat.patterns[0]!.parts[laneId]!.hits).toEqual(hits.filter((_, at) => at !== 1 && at !== 2));
  expect({
    ...beat,
    patterns: beat.patterns.slice(1),
  }).toEqual({ ...demo, patterns: demo!.patterns.slice(1) });
  expect(left).toHaveLength(2);
  expect(left.join(' ')).toContain('900');
});

test('what every beat has is as a new one has it; what tells things apart is never made up', () => {
  const { beat } = mended(
    damaged((one) => {
      one.tempo = -3;
      one.feel.swing.percent = 'much' as never;
      delete (one as Partial<Beat>).levels;
      one.lanes[1]!.instrument = 'no drum' as never;
      (one as unknown as Junk)['constructor'] = 1 as never;
    }),
  );
  expect(beat.tempo).toBe(100);
  expect(beat.feel).toEqual({ ...demo!.feel, swing: { ...demo!.feel.swing, percent: 50 } });
  expect(beat.lanes).toEqual(demo!.lanes.filter((_, at) => at !== 1));
});

test('a lane that is there twice is there once, and its hits stay', () => {
  const { beat } = mended(damaged((one) => one.lanes.push(structuredClone(one.lanes[0]!))));
  expect(beat).toEqual(demo);
});

test('a text that was cut anywhere after its lanes gives a beat with them', () => {
  const text = JSON.stringify(demo);
  const lanesEnd = text.indexOf('"patterns":');
  fc.assert(
    fc.property(fc.integer({ min: lanesEnd, max: text.length - 1 }), (cut) => {
      const { beat, left } = mended(text.slice(0, cut));
      expect(beat.lanes).toEqual(demo!.lanes);
      expect(left[0]).toContain('cut short');
      expect(readBeat(writeBeat(beat)).ok).toBe(true);
    }),
    { numRuns: 60 },
  );
});

test('whatever is put into any place, what is given back can be read again', () => {
  const places: (string | number)[][] = [];
  const walk = (value: unknown, path: (string | number)[]): void => {
    if (path.length) places.push(path);
    if (path.length > 8 || typeof value !== 'object' || value === null) return;
    for (const [key, one] of Object.entries(value))
      walk(one, [...path, Array.isArray(value) ? Number(key) : key]);
  };
  walk(demo, []);
  const junk = fc.oneof(
    fc.constantFrom(null, '', ' ', '__proto__', 'constructor', -1, 1e308, true, [], {}),
    fc.jsonValue(),
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom(...places), junk), { minLength: 1, maxLength: 4 }),
      (all) => {
        const raw = JSON.parse(JSON.stringify(demo)) as Record<string, unknown>;
        for (const [path, value] of all) {
          const within = path
            .slice(0, -1)
            .reduce<unknown>((now, key) => (now as Record<string, unknown> | null | undefined)?.[key], raw);
          if (typeof within === 'object' && within !== null)
            (within as Record<string, unknown>)[path.at(-1)!] = value;
        }
        const read = mendBeat(JSON.stringify(raw));
        if (raw['kind'] !== 'ruddik.beat') return;
        if (read.ok)
          expect(readBeat(writeBeat(read.value.beat))).toEqual({ ok: true, value: read.value.beat });
        // Only a version that is none, or a later one, is not read at all.
        else expect(all.some(([path]) => path[0] === 'version')).toBe(true);
      },
    ),
    { numRuns: 150 },
  );
});

test.each(['', '7', 'null', '[]', '{}', '{"kind":"ruddik.drumMap"}', 'rain on tarps'])(
  'nothing in %s',
  (text) => {
    expect(mendBeat(text)).toEqual({ ok: false, error: 'Nothing of a beat can be read in it.' });
  },
);
