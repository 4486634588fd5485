import type { PointerEvent } from 'react';
import { bandAt, type HitBand } from '../../core/make/bands';
import { clamp } from '../../core/units';

/** What of a band a hand moves. */
export type BandEdge = 'low' | 'middle' | 'high';

/** So much of a band is drawn anew: values by place, from 0. */
export interface BandStroke {
  places: { place: number; value: number }[];
  edge: BandEdge;
  /** Left out, it is a step of the history by itself. */
  gesture?: string;
}

/** Where a place stands over the pattern, from 0 to 1. @example placeAt(15, 16) // 1 */
export const placeAt = (place: number, places: number): number => place / (places - 1);

/** How near a finger must come to an edge to take it, as a share of the height. */
const NEAR = 0.09;

/** What is taken hold of at a height: an edge where it is near to one, else the middle. */
export const edgeNear = (low: number, high: number, at: number): BandEdge => {
  if (high - low < 2 * NEAR) return 'middle';
  if (Math.abs(high - at) < NEAR) return 'high';
  return Math.abs(low - at) < NEAR ? 'low' : 'middle';
};

/**
 * A band with some of its places drawn anew. An edge stops at the other one; the middle takes both along and stops at the ends
 * of the range.
 */
export const drawnBand = (
  band: HitBand,
  { places, edge }: BandStroke,
  count: number,
  least: number,
  most: number,
): number[] => {
  const anew = new Map(places.map(({ place, value }) => [place, clamp(value, least, most)]));
  return Array.from({ length: count }, (_, place) => {
    const at = placeAt(place, count);
    const { low, high } = bandAt(band, at);
    const value = anew.get(place);
    if (value === undefined) return [at, low, high];
    if (edge === 'low') return [at, Math.min(value, high), high];
    if (edge === 'high') return [at, low, Math.max(value, low)];
    const half = (high - low) / 2;
    const middle = clamp(value, least + half, most - half);
    return [at, middle - half, middle + half];
  }).flat();
};

/** What is drawn on. */
interface Surface {
  band: HitBand;
  places: number;
  least: number;
  most: number;
  onDraw: (stroke: BandStroke) => void;
}

interface Spot {
  place: number;
  value: number;
}

/** The picture's box is the pattern from left to right and the range from bottom to top. */
const spotOf = (event: PointerEvent, { places, least, most }: Surface): Spot => {
  const picture = event.currentTarget.querySelector('svg') ?? event.currentTarget;
  const { left, top, width, height } = picture.getBoundingClientRect();
  return {
    place: clamp(Math.round(((event.clientX - left) / width) * (places - 1)), 0, places - 1),
    value: least + clamp(1 - (event.clientY - top) / height, 0, 1) * (most - least),
  };
};

/** What a pointer does on a band: it takes an edge or the middle, and draws it place by place, none left out however fast. */
export const createBandPointer = () => {
  let held: { edge: BandEdge; gesture: string; last: Spot } | null = null;
  return {
    down: (event: PointerEvent, surface: Surface): void => {
      const { band, places, least, most, onDraw } = surface;
      const spot = spotOf(event, surface);
      const { low, high } = bandAt(band, placeAt(spot.place, places));
      const share = (value: number) => (value - least) / (most - least);
      const edge = edgeNear(share(low), share(high), share(spot.value));
      held = { edge, gesture: `band ${event.timeStamp}`, last: spot };
      event.currentTarget.setPointerCapture(event.pointerId);
      onDraw({ places: [spot], edge, gesture: held.gesture });
    },
    move: (event: PointerEvent, surface: Surface): void => {
      if (!held) return;
      const { edge, gesture, last } = held;
      const spot = spotOf(event, surface);
      const steps = Math.abs(spot.place - last.place);
      const places = Array.from({ length: Math.max(1, steps) }, (_, at) => {
        const share = steps ? (at + 1) / steps : 1;
        return {
          place: Math.round(last.place + (spot.place - last.place) * share),
          value: last.value + (spot.value - last.value) * share,
        };
      });
      held.last = spot;
      surface.onDraw({ places, edge, gesture });
    },
    end: (): void => {
      held = null;
    },
  };
};
