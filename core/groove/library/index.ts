import { atOnce } from '../../atOnce';
import { readGrooves } from '../text';
import type { Groove } from '../groove';
import { BELL_SIX, BOSSA, HIGHLIFE, ONE_DROP, SAMBA, STREET_PARADE } from './coast';
import { BROKEN, DEMBOW, FOUR_FLOOR, TWO_STEP } from './floor';
import { CASCARA, MARACATU, RUMBA, SON } from './clave';
import { HAND_GROOVES } from './hands';
import { DISCO, DRILL, HOUSE, METAL, TECHNO, TRAP } from './night';
import { FIVE, SEVEN, WALTZ } from './odd';
import { BACKBEAT, BRUSHES, SHUFFLE, SLOW_TWELVE, TRAIN } from './stage';
import { BOOM_BAP, FUNK, HALF_TIME, SLOW_JAM } from './street';

/** The texts of the library, a family each; how to write one stands in `../text.ts`. */
export const TEXTS = [
  BOOM_BAP,
  HALF_TIME,
  SLOW_JAM,
  FUNK,
  FOUR_FLOOR,
  TWO_STEP,
  BROKEN,
  DEMBOW,
  BACKBEAT,
  SHUFFLE,
  SLOW_TWELVE,
  BRUSHES,
  TRAIN,
  SAMBA,
  BOSSA,
  ONE_DROP,
  BELL_SIX,
  HIGHLIFE,
  STREET_PARADE,
  FIVE,
  SEVEN,
  WALTZ,
  HOUSE,
  TECHNO,
  TRAP,
  DRILL,
  DISCO,
  METAL,
  MARACATU,
  CASCARA,
  SON,
  RUMBA,
  ...HAND_GROOVES,
];

/** The built-in grooves, a family at each step: for whoever has something else to do in between. */
export function* builtInSteps(): Generator<void, Groove[], void> {
  const grooves: Groove[] = [];
  for (const text of TEXTS) {
    const read = readGrooves(text);
    if (!read.ok) throw new Error(read.error);
    grooves.push(...read.value);
    yield;
  }
  return grooves;
}

/** The built-in grooves. */
export const builtInGrooves = (): Groove[] => atOnce(builtInSteps());
