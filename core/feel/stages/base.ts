import type { LaneFeel, PlainFeel, Swing } from '../../document/feelSchema';
import { gridTicks, isStraight, type Grid } from '../../document/grid';
import { QUARTER, type Ticks } from '../../units';
import type { FeelStage, FeltLane, ReadyStage } from '../stage';
import { swingBend, swingPercentAt } from '../swing';
import { templateBend, templateForce, templateSlots } from '../templateBend';

/** The base feel of a lane: its own, or that of all lanes, which other grids than straight ones take no swing of. */
const baseOf = (feel: PlainFeel, own: LaneFeel, grid: Grid) => {
  const base = own.base ?? feel.base;
  const swing = own.swing ?? feel.swing;
  const mine = own.base === 'swing' && own.swing !== undefined;
  if (base === 'swing' && !mine && !isStraight(grid)) return { base: 'straight', swing } as const;
  return { base, swing } as const;
};

/** A swing that changes is for the lanes that follow the swing of all, or none. */
const turnedSwing = (feel: PlainFeel, own: LaneFeel, lane: FeltLane) =>
  lane.swingAt && feel.base !== 'template' && !own.base && !own.swing && isStraight(lane.grid)
    ? lane.swingAt
    : null;

/** The percent of a swing that follows the tempo, at each position; null where it does not. */
const withTempo = (swing: Swing, { ticksPerMs }: FeltLane): ((position: Ticks) => number) | null =>
  swing.withTempo === undefined
    ? null
    : (position) => swingPercentAt(swing, (ticksPerMs(position) * 60000) / QUARTER);

const swung = (
  swing: Swing,
  percentAt: ((position: Ticks) => number) | null,
  lane: FeltLane,
): ReadyStage | null => {
  if (swing.percent === 50 && !percentAt) return null;
  return { moves: swingBend(lane.bars, swing, percentAt), reach: gridTicks(swing.grid) };
};

/** The base feel: straight, swing, or a template with its velocities. */
export const baseStage: FeelStage = {
  id: 'base',
  prepare: (feel, own, lane) => {
    const turned = turnedSwing(feel, own, lane);
    if (turned) return swung(feel.swing, turned, lane);
    const { base, swing } = baseOf(feel, own, lane.grid);
    if (base === 'swing') return swung(swing, withTempo(swing, lane), lane);
    const { template, timing, velocity, runsOn = false } = own.template ?? feel.template;
    if (base === 'straight' || !template) return null;
    const count = { bars: lane.bars, pass: lane.pass, runsOn };
    const find = templateSlots(template, count, lane.group);
    const factor = velocity ? templateForce(template, velocity, count, lane.group, find) : null;
    return {
      ...(timing && { moves: templateBend(template, timing, count, lane.group, find) }),
      ...(factor && { strength: (force, position) => force * factor(position) }),
      reach: 0.48 * gridTicks(template.grid),
    };
  },
};
