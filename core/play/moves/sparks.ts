import { lanePatternOf } from '../../document/defaults';
import { gridTicks } from '../../document/grid';
import type { Beat, Pattern, Spark } from '../../document/schema';
import { draw, PURPOSE } from '../../random/draw';
import { ticksPerMs, type Bpm, type Ticks } from '../../units';
import { strokesAsMoved } from '../laneStrokes';
import type { LanePlan } from '../plan';
import { newStroke, type Stroke } from '../strokes';

/** A spark that sets a lane off: from which lane, and how. */
export interface SparkPlan {
  spark: Spark;
  /** The lane whose strokes do it, without what sets it off itself. */
  source: LanePlan;
  gap: Ticks;
  /** A number for all that this one sets off. */
  index: number;
}

/** Whether any lane of a pattern sets another off: looked at once, since it is asked for each of its lanes. */
const sparking = new WeakMap<Pattern, boolean>();

const hasSparks = (pattern: Pattern): boolean => {
  const known = sparking.get(pattern);
  if (known !== undefined) return known;
  const has = Object.values(pattern.parts).some(({ sparks }) => sparks?.length);
  sparking.set(pattern, has);
  return has;
};

/** The sparks that set off a lane in a pattern. @example sparksTo(beat, pattern, 'kick') // [] */
export const sparksTo = (beat: Beat, pattern: Pattern, laneId: string): { from: string; spark: Spark }[] =>
  hasSparks(pattern)
    ? beat.lanes.flatMap(({ id }) =>
        (lanePatternOf(pattern, id).sparks ?? []).flatMap((spark) =>
          spark.to === laneId && id !== laneId ? [{ from: id, spark }] : [],
        ),
      )
    : [];

/** How far after its stroke a spark may stand. */
export const sparkDelay = ({ delay }: Spark, perMs: number): Ticks => {
  if (!delay) return 0;
  return 'grid' in delay ? gridTicks(delay.grid) : delay.ms * perMs;
};

/** How far what is set off stands from the step that set it off, at the most. */
export const sparkReach = (plans: readonly SparkPlan[], fastest: Bpm): Ticks =>
  plans.reduce(
    (most, { spark, source }) =>
      Math.max(most, source.reach + Math.abs(sparkDelay(spark, ticksPerMs(fastest)))),
    0,
  );

/** Which of a lane's strokes, in order of time, set something off. */
const firing = (strokes: readonly Stroke[], of: Spark['of'], gap: Ticks): Stroke[] => {
  if (of === 'all') return [...strokes];
  const near = (a: Stroke | undefined, b: Stroke | undefined) => !!a && !!b && b.at - a.at < gap - 1e-6;
  return strokes.filter((stroke, at) =>
    of === 'first' ? !near(strokes[at - 1], stroke) : !near(stroke, strokes[at + 1]),
  );
};

/** Draw keys that tell set-off strokes apart from all other strokes of the lane. */
const HITS = 4096;
const STROKES = 200;

/**
 * The strokes that other lanes set off on a lane, by strokes whose steps begin within a stretch of time. Grace strokes set off nothing.
 */
export const sparkedStrokes = (
  lane: LanePlan,
  { spark, source, gap, index }: SparkPlan,
  from: Ticks,
  to: Ticks,
  take: (stroke: Stroke) => void,
): void => {
  const around = source.reach + gap;
  const strokes: Stroke[] = [];
  strokesAsMoved(source, from - around, to + around, (stroke) => {
    if (stroke.sounds && stroke.kind !== 'grace') strokes.push(stroke);
  });
  strokes.sort((a, b) => a.at - b.at);
  for (const stroke of firing(strokes, spark.of, gap)) {
    const { gridTick, cycle, step, hitIndex, stroke: number } = stroke;
    if (gridTick < from - 1e-6 || gridTick >= to - 1e-6) continue;
    const u = draw(source.seed, source.key, cycle, step, hitIndex, number, PURPOSE.spark + 64 * (index + 1));
    if (u >= spark.chance) continue;
    const at = stroke.at + sparkDelay(spark, lane.feel.a.ticksPerMs(stroke.at));
    take(
      newStroke(at, stroke.velocity * spark.factor, stroke.length, false, {
        gridTick,
        cycle,
        readIndex: stroke.readIndex,
        step,
        hitIndex: hitIndex + HITS * (index + 1),
        kind: 'spark',
        stroke: STROKES + number,
        sounds: stroke.sounds,
        pitch: stroke.pitch + spark.pitch,
      }),
    );
  }
};
