import type { InstrumentId } from '../document/instruments';

/** The instruments that a groove is played with instead; the groove itself stays as it is. */
export interface Voicing {
  /** The articulation each instrument is played with. */
  voices: Partial<Record<InstrumentId, InstrumentId>>;
  /** How much of its velocity each has: 1 is as it was. */
  levels: Partial<Record<InstrumentId, number>>;
  /** Where the time is kept; null is where it was. */
  timekeeper: InstrumentId | null;
}

export const PLAIN_VOICING: Voicing = { voices: {}, levels: {}, timekeeper: null };
