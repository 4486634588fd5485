import fc from 'fast-check';
import {
  bandAt,
  bandHits,
  BAND_SHAPES,
  flatBand,
  shapedBand,
  type HitBand,
  type BandSettings,
} from './bands';
import { nearestNote, notesInScale, scaleNames, scaleOf } from './scales';

const bandOf = (least: number, most: number): fc.Arbitrary<HitBand> =>
  fc
    .array(
      fc.tuple(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: least, max: most, noNaN: true }),
        fc.double({ min: least, max: most, noNaN: true }),
      ),
      { minLength: 1, maxLength: 5 },
    )
    .map((points) =>
      points
        .map(([at, a, b]) => ({ at, low: Math.min(a, b), high: Math.max(a, b) }))
        .sort((a, b) => a.at - b.at),
    );

const settings: fc.Arbitrary<BandSettings> = fc
  .record({
    fullness: bandOf(0, 1),
    velocity: bandOf(1, 127),
    pitch: fc.option(bandOf(40, 80), { nil: undefined }),
    length: fc.option(bandOf(0.1, 3), { nil: undefined }),
    slots: fc.integer({ min: 1, max: 32 }),
    voices: fc.integer({ min: 1, max: 4 }),
    heldOver: fc.constantFrom(0, 0, 0.4),
    onBeat: fc.double({ min: -1, max: 1, noNaN: true }),
    seed: fc.nat(),
  })
  .map(({ fullness, velocity, pitch, length, ...rest }) => ({
    ...rest,
    bands: { fullness, velocity, ...(pitch && { pitch }), ...(length && { length }) },
    strength: (slot: number) => (slot % 4 === 0 ? 1 : 0.2),
    notes: notesInScale([0, 3, 5, 7, 10], 36, 84),
    key: 5,
  }));

const ids = (s: BandSettings) => bandHits(s).map(({ slot, voice }) => slot * 4 + voice);

test('a fuller set holds all of a sparser one, with the same values, and turning it back gives the same hits', () => {
  fc.assert(
    fc.property(settings, fc.double({ min: 0, max: 1, noNaN: true }), (s, share) => {
      // Notes that are taken depend on who else is there.
      const { pitch: _, ...bands } = s.bands;
      const full: BandSettings = { ...s, bands, voices: 1, heldOver: 0 };
      const sparse: BandSettings = {
        ...full,
        bands: {
          ...bands,
          fullness: bands.fullness.map(({ at, low, high }) => ({ at, low: low * share, high: high * share })),
        },
      };
      const more = new Map(bandHits(full).map((hit) => [hit.slot, hit]));
      for (const hit of bandHits(sparse)) expect(more.get(hit.slot)).toEqual(hit);
      expect(bandHits(full)).toEqual(bandHits(full));
    }),
  );
});

test('as many are struck as the fullness says: (r + 0.5) / N below it', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 64 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.nat(),
      (slots, full, seed) => {
        const s: BandSettings = {
          bands: { fullness: flatBand(full, full), velocity: flatBand(90, 90) },
          slots,
          voices: 1,
          heldOver: 0,
          onBeat: 0,
          notes: [],
          seed,
          key: 0,
        };
        const wanted = Array.from({ length: slots }, (_, r) => (r + 0.5) / slots < full).filter(
          Boolean,
        ).length;
        expect(bandHits(s)).toHaveLength(wanted);
      },
    ),
  );
});

test('every value lies within its band at the start of its slot, pitches in the scale, none twice at once', () => {
  fc.assert(
    fc.property(settings, (s) => {
      const bySlot = new Map<number, (number | null)[]>();
      for (const hit of bandHits(s)) {
        const { low, high } = bandAt(s.bands.velocity, hit.slot / s.slots);
        expect(hit.velocity).toBeGreaterThanOrEqual(Math.round(low) - 1e-9);
        expect(hit.velocity).toBeLessThanOrEqual(Math.round(high) + 1e-9);
        if (s.bands.pitch) expect(s.notes).toContain(hit.note);
        bySlot.set(hit.slot, [...(bySlot.get(hit.slot) ?? []), hit.note]);
      }
      for (const notes of bySlot.values()) expect(new Set(notes).size).toBe(notes.length);
      expect([...ids(s)].sort((a, b) => a - b)).toEqual(ids(s));
    }),
  );
});

test('what is held over goes on through the next slot, where its voice is not struck', () => {
  const s: BandSettings = {
    bands: { fullness: flatBand(1, 1), velocity: flatBand(90, 90) },
    slots: 400,
    voices: 1,
    heldOver: 0.5,
    onBeat: 0,
    notes: [],
    seed: 3,
    key: 0,
  };
  const hits = bandHits(s);
  hits.forEach(({ slot, length }, at) => {
    const next = hits[at + 1]?.slot ?? s.slots;
    expect(next - slot).toBe(length ?? 1);
  });
  const longer = hits.filter(({ length }) => length !== null).length / hits.length;
  expect(longer).toBeGreaterThan(0.4);
  expect(longer).toBeLessThan(0.6);
});

test.each(BAND_SHAPES)('the shape %s keeps within its range, and without width it is a curve', (shape) => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.integer({ min: 1, max: 6 }),
      fc.nat(),
      (width, count, seed) => {
        for (let i = 0; i <= 20; i++) {
          const { low, high } = bandAt(shapedBand(shape, 10, 90, width, count, seed), i / 20);
          expect(low).toBeGreaterThanOrEqual(10 - 1e-6);
          expect(high).toBeLessThanOrEqual(90 + 1e-6);
          expect(high - low).toBeCloseTo(width * 80, 6);
        }
      },
    ),
    { numRuns: 30 },
  );
});

test('beats are struck before off-beats where that is wanted', () => {
  const struck = (onBeat: number) =>
    bandHits({
      bands: { fullness: flatBand(0.25, 0.25), velocity: flatBand(90, 90) },
      slots: 16,
      voices: 1,
      heldOver: 0,
      onBeat,
      strength: (slot) => (slot % 4 === 0 ? 1 : 0),
      notes: [],
      seed: 11,
      key: 2,
    }).map(({ slot }) => slot);
  expect(struck(1)).toEqual([0, 4, 8, 12]);
  expect(struck(-1).some((slot) => slot % 4 === 0)).toBe(false);
});

test('scales are those of the trade; one that does not exist is told', () => {
  expect(scaleOf('C minor')).toEqual({ ok: true, value: [0, 2, 3, 5, 7, 8, 10] });
  expect(scaleOf('F# major pentatonic')).toEqual({ ok: true, value: [1, 3, 6, 8, 10] });
  for (const wrong of ['C wet', 'H minor', 'minor', '']) expect(scaleOf(wrong)).toMatchObject({ ok: false });
  expect(scaleNames().length).toBeGreaterThan(60);
  for (const name of scaleNames()) expect(scaleOf(`C ${name}`).ok).toBe(true);
  expect(nearestNote([60, 64], 61, new Set([60, 64]))).toBeUndefined();
});
