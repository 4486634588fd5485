import fc from 'fast-check';
import type { PointerEvent } from 'react';
import { partBandOf } from '../../core/make/bandParts';
import { createBandPointer, drawnBand, edgeNear, type BandStroke } from './bandDraw';

const band = [
  { at: 0, low: 20, high: 60 },
  { at: 1, low: 40, high: 100 },
];

test('near an edge the edge is taken, elsewhere the middle; a narrow band has but a middle', () => {
  expect(edgeNear(0.2, 0.8, 0.78)).toBe('high');
  expect(edgeNear(0.2, 0.8, 0.22)).toBe('low');
  expect(edgeNear(0.2, 0.8, 0.5)).toBe('middle');
  expect(edgeNear(0.5, 0.6, 0.6)).toBe('middle');
});

test('whatever is drawn, edges stay in order and in the range, and what was not drawn stays', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('low' as const, 'middle' as const, 'high' as const),
      fc.array(
        fc.record({ place: fc.integer({ min: 0, max: 15 }), value: fc.integer({ min: -50, max: 200 }) }),
      ),
      (edge, places) => {
        const before = drawnBand(band, { places: [], edge, gesture: '' }, 16, 1, 127);
        const after = partBandOf(drawnBand(band, { places, edge, gesture: '' }, 16, 1, 127));
        const touched = new Set(places.map(({ place }) => place));
        after.forEach(({ low, high }, place) => {
          expect(low).toBeLessThanOrEqual(high);
          expect(low).toBeGreaterThanOrEqual(1);
          expect(high).toBeLessThanOrEqual(127);
          if (!touched.has(place)) expect([low, high]).toEqual(before.slice(3 * place + 1, 3 * place + 3));
        });
      },
    ),
  );
});

test('a fast drag leaves no place out, and is one gesture', () => {
  const strokes: BandStroke[] = [];
  const surface = { band, places: 16, least: 0, most: 100, onDraw: (one: BandStroke) => strokes.push(one) };
  const target = {
    querySelector: () => null,
    getBoundingClientRect: () => ({ left: 0, top: 0, width: 150, height: 100 }),
    setPointerCapture: () => undefined,
  };
  const at = (clientX: number, clientY: number) =>
    ({ clientX, clientY, pointerId: 1, timeStamp: 7, currentTarget: target }) as unknown as PointerEvent;
  const pointer = createBandPointer();
  pointer.move(at(0, 0), surface);
  pointer.down(at(0, 60), surface);
  pointer.move(at(150, 0), surface);
  pointer.end();
  pointer.move(at(0, 0), surface);
  const places = strokes.flatMap((one) => one.places.map(({ place }) => place));
  expect(places).toEqual(Array.from({ length: 16 }, (_, place) => place));
  expect(strokes.at(-1)!.places.at(-1)).toEqual({ place: 15, value: 100 });
  expect(new Set(strokes.map(({ gesture }) => gesture)).size).toBe(1);
});
