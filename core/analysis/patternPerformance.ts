import { patternTicks } from '../document/defaults';
import { planLane } from '../play/plan';
import { allNotes } from '../play/driver';
import { planPasses } from '../play/timelinePlan';
import { lanePatternOf, soundingLanes } from '../document/defaults';
import type { Shape } from '../document/feelSchema';
import { gridTicks } from '../document/grid';
import type { Beat, Pattern } from '../document/schema';
import { meterOfShape } from '../feel/templateMeter';
import { steadyBars } from '../feel/bars';
import type { Performance } from './performance';
import { slotOffsets } from '../feel/templateBend';
import { ticksPerMs, type Ms, type Ticks, type Velocity } from '../units';
import { bendOf, passStrokes } from '../play/notes';

/**
 * A pattern as it sounds, as a performance to be measured or to take a template from. Lanes go by their ids.
 *
 * @example patternPerformance(beat, pattern).notes.length // 6
 */
export const patternPerformance = (beat: Beat, pattern: Pattern, passes = 1): Performance => {
  return {
    notes: allNotes(planPasses(beat, pattern, passes), 'wrap')
      .filter(({ kind }) => kind !== 'grace')
      .map(({ tick, velocity, lane }) => ({ at: tick, velocity, lane: beat.lanes[lane]!.id })),
    bars: steadyBars(pattern.meter),
    meter: pattern.meter,
    ticksPerMs: () => ticksPerMs(beat.tempo),
    length: patternTicks(pattern) * passes,
  };
};

/**
 * A template as a performance: one note a slot, at a tempo of 120.
 *
 * @example shapePerformance(shape).notes.map(({ at }) => at) // [0, 264]
 */
export const shapePerformance = (shape: Shape): Performance => {
  const g = gridTicks(shape.grid);
  const offsets = slotOffsets(shape);
  const meter = meterOfShape(shape);
  return {
    notes: shape.slots.flatMap((slot, at) =>
      slot
        ? [{ at: (at + offsets[at]!) * g, velocity: Math.max(1, slot.velocity * 127), lane: 'template' }]
        : [],
    ),
    bars: steadyBars(meter),
    meter,
    ticksPerMs: () => ticksPerMs(120),
    length: shape.slots.length * g,
  };
};

/** One hit on the timing chart. */
export interface TimingDot {
  laneId: string;
  /** Where its step stands in the bar. */
  at: Ticks;
  /** Its distance from its step before the feel and after it. */
  before: Ms;
  after: Ms;
  /** Its distance from where the base feel puts its step. */
  left: Ms;
  velocity: Velocity;
}

/**
 * Every hit of so many passes: how far it stands from its step, before the feel and after it.
 *
 * @example timingDots(beat, pattern, 1).length // 6
 */
export const timingDots = (beat: Beat, pattern: Pattern, passes: number): TimingDot[] => {
  const lanes = soundingLanes(beat).map((lane) => planLane(beat, pattern, lane));
  const end = patternTicks(pattern) * passes;
  const rate = ticksPerMs(beat.tempo);
  const { bar } = steadyBars(pattern.meter).at(0);
  return lanes.flatMap((lane) => {
    const bend = bendOf(lane);
    return passStrokes(lane, end)
      .filter(({ sounds, into, kind }) => sounds && !into && kind === 'main')
      .map(({ gridTick, at, tick, force }) => ({
        laneId: lane.id,
        at: gridTick % bar,
        before: (at - gridTick) / rate,
        after: (tick - gridTick) / rate,
        left: (tick - bend(gridTick)) / rate,
        velocity: Math.max(1, Math.min(127, Math.round(force))),
      }));
  });
};

/**
 * The lanes that sound and play something in a pattern.
 *
 * @example playedLanes(beat, pattern).map(({ id }) => id) // ["kick", "snare"]
 */
export const playedLanes = (beat: Beat, pattern: Pattern) =>
  soundingLanes(beat).filter(({ id }) => lanePatternOf(pattern, id).hits.length > 0);
