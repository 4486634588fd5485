import { gridTicks } from '../../document/grid';
import type { Echoes } from '../../document/schema';
import { ticksPerMs, type Bpm, type Ticks } from '../../units';
import { newStroke, type Stroke } from '../strokes';

/** Echoes made ready. */
export interface EchoPlan extends Omit<Echoes, 'rate'> {
  /** In ticks where they are told in notes, otherwise in ms. */
  ticks: Ticks | null;
  ms: number | null;
}

/**
 * A lane's echoes made ready; null where it has none.
 *
 * @example planEchoes(undefined) // null
 */
export const planEchoes = (echoes: Echoes | undefined): EchoPlan | null => {
  if (!echoes) return null;
  const { rate, ...rest } = echoes;
  return 'grid' in rate
    ? { ...rest, ticks: gridTicks(rate.grid), ms: null }
    : { ...rest, ticks: null, ms: rate.ms };
};

/** How far after their hit echoes reach. */
export const echoReach = (plan: EchoPlan | null, fastest: Bpm): Ticks =>
  plan ? plan.count * (plan.ticks ?? plan.ms! * ticksPerMs(fastest)) : 0;

/** Echoes are told apart from a hit's other strokes by numbers from here on. */
const FIRST = 100;

/**
 * Gives a hit's main stroke and its repeats; all other strokes as they are. Repeats in notes go through the stages by
 * themselves, as a roll's strokes do; repeats in ms keep their distance from the main stroke.
 */
export const withEchoes =
  (plan: EchoPlan, take: (stroke: Stroke) => void) =>
  (main: Stroke): void => {
    if (main.kind !== 'main') return take(main);
    for (let j = 1; j <= plan.count; j++) {
      const share = Math.pow(plan.slope, j);
      const at = main.at + j * (plan.ticks ?? 0);
      const echo = newStroke(at, main.velocity * share, main.length, main.cut, {
        gridTick: main.gridTick,
        cycle: main.cycle,
        readIndex: main.readIndex,
        step: main.step,
        hitIndex: main.hitIndex,
        kind: 'echo',
        stroke: FIRST + j,
        sounds: main.sounds,
        pitch: main.pitch + j * plan.interval,
      });
      if (plan.ms === null) echo.lead = main;
      else echo.tie = { main, apart: j * plan.ms, share };
      take(echo);
    }
    if (plan.withoutHit) main.sounds = false;
    take(main);
  };
