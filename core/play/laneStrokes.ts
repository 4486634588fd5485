import type { Ticks } from '../units';
import { detouredStrokes, switchedStrokes } from './moves/detours';
import { withEchoes } from './moves/echoes';
import type { LanePlan } from './plan';
import { writtenStrokes, type Stroke } from './strokes';

/** A lane's strokes with the moves that are its own: detours, then echoes. */
export const strokesAsMoved = (
  lane: LanePlan,
  from: Ticks,
  to: Ticks,
  take: (stroke: Stroke) => void,
): void => {
  const give = lane.echoes ? withEchoes(lane.echoes, take) : take;
  if (lane.switched) switchedStrokes(lane, lane.switched, from, to, give);
  else if (lane.detour) detouredStrokes(lane, lane.detour, from, to, give);
  else writtenStrokes(lane, from, to, give);
};

/**
 * Gives the strokes of the steps that begin within a stretch of time, with all moves and before their feel. A nudge may carry
 * a stroke out of the stretch by half a step, a roll and echoes by their span.
 *
 * @param from included, to excluded, both from where play began
 */
export const eachStroke = (lane: LanePlan, from: Ticks, to: Ticks, take: (stroke: Stroke) => void): void => {
  strokesAsMoved(lane, from, to, take);
  for (const give of lane.sparkedBy) give(from, to, take);
};
