import { positionOf } from '../document/position';
import { steadyBars } from '../feel/bars';
import type { Performance } from '../analysis/performance';
import { behaviours, type Example } from '../analysis/guessMap';
import { ticksPerMs } from '../units';
import { grooveTicks, type Groove } from './groove';

/**
 * A groove as a performance, to be measured or to take a template from. Lanes go by their place in the groove.
 *
 * @example groovePerformance(groove).notes.length === hitCount(groove) // true
 */
export const groovePerformance = (groove: Groove): Performance => {
  const rate = ticksPerMs(groove.bpm);
  return {
    notes: groove.lanes.flatMap(({ part }, lane) =>
      part.hits.map((hit) => ({
        at: positionOf(hit, part.grid),
        velocity: hit.velocity,
        lane: String(lane),
      })),
    ),
    bars: steadyBars(groove.meter),
    meter: groove.meter,
    ticksPerMs: () => rate,
    length: grooveTicks(groove),
  };
};

/** How the instruments of grooves behave, to guess others by. */
export const examplesFrom = (grooves: Groove[]): Example[] =>
  grooves.flatMap((groove) =>
    [...behaviours(groovePerformance(groove))].map(([lane, behaviour]) => ({
      instrument: groove.lanes[Number(lane)]!.instrument,
      behaviour,
    })),
  );
