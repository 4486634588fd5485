import { builtInSteps } from '../../core/groove/library';
import type { Groove } from '../../core/groove/groove';
import { unhurried } from './unhurried';

let reading: Promise<Groove[]> | null = null;

/** The built-in grooves: read once, while the page goes on. */
export const builtIn = (): Promise<Groove[]> =>
  (reading ??= unhurried(builtInSteps(), () => false).then((grooves) => grooves!));
