import { INSTRUMENTS, instrument, INSTRUMENT_IDS, type Pigment } from './instruments';
import type { Lane } from './schema';

/** Drum families go by their dye: what is alike in a kit is drawn in one. */
export type Family = Pigment;

export const FAMILY_NAMES: Record<Family, string> = {
  walnut: 'kick and low drums',
  weld: 'snares and claps',
  lichen: 'cymbals and hats',
  madder: 'toms and hand drums',
  heather: 'shaken, wooden and tuned things',
};

/** A lane's family, whatever it has been recoloured to. @example familyOf(newLane('a', 'hat.open')) // "lichen" */
export const familyOf = ({ instrument: id }: Pick<Lane, 'instrument'>): Family => INSTRUMENTS[id].pigment;

/** The family of a General MIDI percussion note; null outside 35 to 81. @example familyOfNote(38) // "weld" */
export const familyOfNote = (note: number): Family | null =>
  INSTRUMENT_IDS.map(instrument).find((one) => one.note === note)?.pigment ?? null;

/**
 * The lanes of one family, in their order.
 *
 * @example lanesOfFamily(beat.lanes, 'walnut').map(({ id }) => id) // ["kick"]
 */
export const lanesOfFamily = (lanes: Lane[], family: Family): Lane[] =>
  lanes.filter((lane) => familyOf(lane) === family);
