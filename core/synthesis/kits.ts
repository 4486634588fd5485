import { instrument, type InstrumentId } from '../document/instruments';
import type { KitId } from '../document/schema';
import { ARCHES } from './kits/arches';
import { ATTIC } from './kits/attic';
import { BELLOWS } from './kits/bellows';
import { BOTTLES } from './kits/bottles';
import { DRIZZLE } from './kits/drizzle';
import { HANDCART } from './kits/handcart';
import type { Kit } from './kits/kit';
import { LANTERN } from './kits/lantern';
import { QUAY } from './kits/quay';
import { SHUTTERS } from './kits/shutters';
import { UNDERTOW } from './kits/undertow';

/** The kits that ship, by their ids. */
export const KITS = {
  quay: QUAY,
  lantern: LANTERN,
  arches: ARCHES,
  drizzle: DRIZZLE,
  handcart: HANDCART,
  undertow: UNDERTOW,
  attic: ATTIC,
  bottles: BOTTLES,
  bellows: BELLOWS,
  shutters: SHUTTERS,
};

/** The kit of an id; where there is none, the one that plays in its place. @example kitOf('gone').id // "quay" */
export const kitOf = (id: KitId): Kit => Object.values(KITS).find((kit) => kit.id === id) ?? KITS.quay;

/**
 * The instrument whose sound a kit uses for another one: itself, or the nearest relative that the kit has.
 *
 * @example standIn(KITS.quay, 'china') // 'crash'
 */
export const standIn = (kit: Kit, id: InstrumentId): InstrumentId => {
  let at: InstrumentId | undefined = id;
  while (at && !kit.sounds[at]) at = instrument(at).like as InstrumentId | undefined;
  return at ?? 'kick';
};
