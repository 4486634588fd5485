import type { InstrumentId } from '../../document/instruments';
import type { KitId } from '../../document/schema';
import type { Seconds } from '../../units';
import type { Recipe } from '../voices';

/** The treatment of every drum of a kit after it has been struck. */
export interface Finish {
  /** The room that it stands in: how long it rings on, how much of it is heard, and how dark it is, in Hz. */
  room?: { seconds: Seconds; level: number; dark: number };
  /** In Hz: nothing above, nothing below. */
  lowPass?: number;
  highPass?: number;
  /** Driven softly. */
  drive?: number;
  /** Each sample is held for so many: grain, as of an old sampler. */
  hold?: number;
}

/** The sounds of a kit, made and not recorded. */
export interface Kit {
  id: KitId;
  /** How loud it is against its recipes, so that all kits are alike. */
  level: number;
  finish?: Finish;
  sounds: Partial<Record<InstrumentId, Recipe>>;
}
