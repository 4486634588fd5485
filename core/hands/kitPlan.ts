import type { InstrumentId } from '../document/instruments';
import type { Ms } from '../units';

/** Where the drums stand, as a right-handed drummer sees them. */

/** One hand, or one foot, strikes no faster. */
export const SAME_LIMB_MS: Ms = 60;

/** Strokes so near together are played at once. */
export const AT_ONCE_MS: Ms = 12;

/** In cm: to the right, and away from the drummer. */
export interface PlanPlace {
  x: number;
  y: number;
}

/** By instrument, or by the first word of its id. */
const PLACES: Record<string, PlanPlace> = {
  snare: { x: 0, y: 0 },
  clap: { x: 0, y: 0 },
  hat: { x: -42, y: 12 },
  'tom.high': { x: -16, y: 38 },
  'tom.highMid': { x: -4, y: 40 },
  'tom.mid': { x: 16, y: 40 },
  'tom.low': { x: 34, y: 34 },
  'tom.floor': { x: 46, y: 4 },
  'tom.floorLow': { x: 58, y: -8 },
  ride: { x: 54, y: 40 },
  'ride.second': { x: 64, y: 28 },
  crash: { x: -40, y: 52 },
  'crash.second': { x: 40, y: 62 },
  china: { x: 70, y: 50 },
  splash: { x: 4, y: 58 },
  cowbell: { x: 8, y: 34 },
  woodblock: { x: -6, y: 46 },
  bongo: { x: -20, y: 20 },
  conga: { x: 14, y: 16 },
  timbale: { x: -8, y: 28 },
  agogo: { x: 12, y: 44 },
};
/** An instrument held in the hand is where the hand is. */
const HELD: PlanPlace = { x: 18, y: 10 };

/** Where an instrument is struck. @param leftHanded the kit stands the other way round @example placeOf('snare').x // 0 */
export const placeOf = (id: InstrumentId, leftHanded = false): PlanPlace => {
  const { x, y } = PLACES[id] ?? PLACES[id.split('.')[0]!] ?? HELD;
  return { x: leftHanded ? -x : x, y };
};

/** Which foot plays an instrument: the leading one, the other, or none. @example footOf('kick') // "lead" */
export const footOf = (id: InstrumentId): 'lead' | 'other' | null => {
  if (id === 'hat.pedal' || id === 'kick.second') return 'other';
  return id.startsWith('kick') ? 'lead' : null;
};

const KEEP_TIME = /^(hat|ride|cowbell|tambourine|shaker|maracas|cabasa|agogo|triangle|woodblock)/;

/** Whether an instrument keeps time: the leading hand stays on it. @example keepsTime('hat.closed') // true */
export const keepsTime = (id: InstrumentId): boolean => KEEP_TIME.test(id);
