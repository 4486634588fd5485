import { newFeel } from '../document/feelDefaults';
import type { Feel, LaneFeel, PlainFeel } from '../document/feelSchema';
import type { Beat } from '../document/schema';
import { clamp } from '../units';

/**
 * A straight feel in which the takes of the one before can still be had.
 *
 * @example straightFeel(newFeel({ percent: 60, grid: '1/16' })).base // "swing"
 */
export const straightFeel = (feel: Feel): Feel => ({
  ...newFeel(),
  humanize: { ...feel.humanize, timing: 0, velocity: 0 },
});

/** Under half of its level a kit cannot be made up for by a lane: its level goes into the lanes then. */
const levelInLanes = (beat: Beat, feel: PlainFeel): PlainFeel => {
  if (feel.level <= 0 || feel.level >= 0.5) return feel;
  const lanes = beat.lanes.map(({ id }): [string, LaneFeel] => {
    const own = feel.lanes[id];
    return [id, { ...own, level: (own?.level ?? 1) * feel.level }];
  });
  return { ...feel, level: 1, lanes: { ...feel.lanes, ...Object.fromEntries(lanes) } };
};

const plainLaneStraightened = (beat: Beat, given: PlainFeel, laneId: string): PlainFeel => {
  const feel = levelInLanes(beat, given);
  const straight: LaneFeel = {
    base: 'straight',
    timing: 0,
    velocity: 0,
    ...(feel.level > 0 && feel.level !== 1 && { level: clamp(1 / feel.level, 0, 2) }),
  };
  const quantized = feel.quantize.lanes ?? beat.lanes.map(({ id }) => id);
  return {
    ...feel,
    quantize: { ...feel.quantize, lanes: quantized.filter((id) => id !== laneId) },
    lanes: { ...feel.lanes, [laneId]: straight },
  };
};

/**
 * One lane straight, the others as they were.
 *
 * @example straightenLane(beat, beat.feel, 'kick').lanes['kick']!.base // "straight"
 */
export const straightenLane = (beat: Beat, { blend, ...feel }: Feel, laneId: string): Feel => ({
  ...plainLaneStraightened(beat, feel, laneId),
  ...(blend && { blend: { ...blend, with: plainLaneStraightened(beat, blend.with, laneId) } }),
});
