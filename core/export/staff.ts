import { instrument, type InstrumentId } from '../document/instruments';

/** Where a drum stands on the staff and with which head, as most printed drum parts have it. */
export interface StaffPlace {
  step: 'A' | 'B' | 'C' | 'D' | 'E' | 'F' | 'G';
  octave: number;
  head: 'normal' | 'x' | 'circle-x' | 'diamond' | 'triangle' | 'slash';
  /** The feet have a voice of their own, with their stems down. */
  foot: boolean;
}

const at = (
  place: `${StaffPlace['step']}${number}`,
  head: StaffPlace['head'] = 'normal',
  foot = false,
): StaffPlace => ({
  step: place[0] as StaffPlace['step'],
  octave: Number(place.slice(1)),
  head,
  foot,
});

const PLACES: Partial<Record<InstrumentId, StaffPlace>> = {
  'kick.second': at('E4', 'normal', true),
  kick: at('F4', 'normal', true),
  'hat.pedal': at('D4', 'x', true),
  snare: at('C5'),
  'snare.second': at('C5'),
  'snare.sideStick': at('C5', 'x'),
  'snare.rimshot': at('C5', 'slash'),
  clap: at('C5', 'circle-x'),
  'tom.floorLow': at('G4'),
  'tom.floor': at('A4'),
  'tom.low': at('B4'),
  'tom.mid': at('D5'),
  'tom.highMid': at('D5'),
  'tom.high': at('E5'),
  'hat.closed': at('G5', 'x'),
  'hat.half': at('G5', 'diamond'),
  'hat.open': at('G5', 'circle-x'),
  ride: at('F5', 'x'),
  'ride.second': at('F5', 'x'),
  'ride.bell': at('F5', 'diamond'),
  crash: at('A5', 'x'),
  'crash.second': at('B5', 'x'),
  splash: at('B5', 'diamond'),
  china: at('B5', 'circle-x'),
  cowbell: at('E5', 'triangle'),
  tambourine: at('B5', 'triangle'),
};

/** By family, where there is no custom: hand drums on the upper spaces, what is shaken or struck wood above the staff. */
const FAMILY = {
  walnut: at('F4', 'normal', true),
  weld: at('C5'),
  lichen: at('A5', 'x'),
  madder: at('E5', 'diamond'),
  heather: at('A5', 'triangle'),
} as const;

/**  @example staffPlace('hat.closed') // { step: "G", octave: 5, head: "x", foot: false } */
export const staffPlace = (id: InstrumentId): StaffPlace => {
  const known = PLACES[id];
  if (known) return known;
  if (id.endsWith('.low')) return { ...FAMILY[instrument(id).pigment], step: 'D', octave: 5 };
  return FAMILY[instrument(id).pigment];
};
