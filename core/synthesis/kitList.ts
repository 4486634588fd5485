import type { KitId } from '../document/schema';

/** The description of a kit. */
export interface KitTold {
  id: KitId;
  name: string;
  /** How it sounds, in a few words. */
  about: string;
}

/** The kits that ship, in words: their recipes are where the sounds are made. */
export const KIT_LIST: readonly KitTold[] = [
  { id: 'quay', name: 'Quay', about: 'A dry wooden kit in a small boathouse' },
  { id: 'lantern', name: 'Lantern', about: 'Round and warm, from circuits rather than skins' },
  { id: 'arches', name: 'Arches', about: 'A large kit under the stone arches, with the room around it' },
  {
    id: 'drizzle',
    name: 'Drizzle',
    about: 'Brushes: sweeps and taps, a soft kick, cymbals that hardly ring',
  },
  { id: 'handcart', name: 'Handcart', about: 'Hand percussion: a box, slaps, palms on skins, seeds' },
  { id: 'undertow', name: 'Undertow', about: 'Deep circuits: a long low kick, hard claps, needles for hats' },
  { id: 'attic', name: 'Attic', about: 'Dusty, as off an old record: narrow, soft, with grain' },
  { id: 'bottles', name: 'Bottles', about: 'Metal and glass: bottles, lids, a sheet of tin' },
  {
    id: 'bellows',
    name: 'Bellows',
    about: 'Tuned percussion: drums that are notes, bars and bells above them',
  },
  {
    id: 'shutters',
    name: 'Shutters',
    about: 'Found on the night market: crates, shutters, coins, a tarp in the wind',
  },
];

/** The description of a kit; undefined where there is none of that id. @example kitNamed('gone') // undefined */
export const kitNamed = (id: KitId): KitTold | undefined => KIT_LIST.find((kit) => kit.id === id);

/**
 * The description of the kit that plays for an id: itself, or the first where it is not there.
 *
 * @example kitToldOf('gone').name // "Quay"
 */
export const kitToldOf = (id: KitId): KitTold => kitNamed(id) ?? KIT_LIST[0]!;
