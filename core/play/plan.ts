import { gridTicks, isStraight } from '../beat/grid';
import type { Meter } from '../beat/meter';
import { barTicks } from '../beat/meter';
import { partOf, patternTicks, soundingLanes, stepsOf } from '../beat/defaults';
import type { Beat, Direction, Hit, Lane, Part, Pattern, Swing } from '../beat/schema';
import type { Bpm, Channel, MidiNote, Ticks } from '../units';
import { ticksPerMs } from '../units';
import { hashText } from './draw';
import { placesInRound, rateOf } from './reading';

/** A lane made ready to be read for any window of time. */
export interface LanePlan {
  id: string;
  /** Its place among the beat's lanes, from 0. */
  index: number;
  note: MidiNote;
  channel: Channel;
  /** How many steps the loop has. */
  steps: number;
  /** The length of a step as it is read, rate included. */
  step: Ticks;
  roundTicks: Ticks;
  direction: Direction;
  byStep: (Hit[] | undefined)[];
  /** The farthest that a stroke can stand from the start of its step, before or after, feel included. */
  reach: Ticks;
  /** The longest note. */
  longest: Ticks;
  swing: Swing;
  /** Fractions of a step: all steps are nudged by the one, every second one by the other besides. */
  shift: number;
  offbeat: number;
  /** The lane's id as a number, for what is drawn at random. */
  key: number;
  seed: number;
}

/** A pattern made ready to be played. */
export interface PlayPlan {
  tempo: Bpm;
  meter: Meter;
  length: Ticks;
  lanes: LanePlan[];
}

const STRAIGHT: Swing = { percent: 50, grid: '1/16' };

const sortedBySteps = (part: Part, steps: number): (Hit[] | undefined)[] => {
  const byStep: (Hit[] | undefined)[] = new Array<Hit[] | undefined>(steps).fill(undefined);
  for (const hit of part.hits) {
    if (hit.step >= steps) continue;
    const hits = byStep[hit.step];
    if (hits) hits.push(hit);
    else byStep[hit.step] = [hit];
  }
  for (const hits of byStep) if (hits && hits.length > 1) hits.sort((a, b) => a.nudge - b.nudge);
  return byStep;
};

const farthest = (part: Part, step: Ticks, swing: Swing, tempo: Bpm): Ticks => {
  let roll = 0;
  let grace = 0;
  for (const hit of part.hits) {
    if (hit.roll) roll = Math.max(roll, (hit.length ?? 1) * step);
    for (const one of hit.grace ?? []) grace = Math.max(grace, one.before * ticksPerMs(tempo));
  }
  const bend = swing.percent === 50 ? 0 : gridTicks(swing.grid);
  const together = Math.abs(part.shift ?? 0) + Math.abs(part.offbeat ?? 0);
  return step * (0.5 + together) + bend + Math.max(roll, grace) + ticksPerMs(tempo);
};

const longestOf = (part: Part, step: Ticks): Ticks =>
  part.hits.reduce((most, hit) => Math.max(most, (hit.length ?? 1) * step), step);

/** Makes one lane ready, whether it is muted or not. */
export const planLane = (beat: Beat, pattern: Pattern, lane: Lane): LanePlan => {
  const part = partOf(pattern, lane.id);
  const steps = stepsOf(part, pattern);
  const step = gridTicks(part.grid) / rateOf(part.rate);
  const places = placesInRound(part.direction, steps);
  const follows = part.steps === null && part.direction !== 'thereAndBack';
  const swing = isStraight(part.grid) ? beat.feel.swing : STRAIGHT;
  return {
    id: lane.id,
    index: beat.lanes.indexOf(lane),
    note: lane.note,
    channel: lane.channel,
    steps,
    step,
    roundTicks: follows ? patternTicks(pattern) / rateOf(part.rate) : places * step,
    direction: part.direction,
    byStep: sortedBySteps(part, steps),
    reach: farthest(part, step, swing, beat.tempo),
    longest: longestOf(part, step),
    swing,
    shift: part.shift ?? 0,
    offbeat: part.offbeat ?? 0,
    key: hashText(lane.id),
    seed: beat.seed,
  };
};

export interface PlanOptions {
  /** Play the muted lanes too, and those that a solo silences. */
  includeMuted?: boolean;
}

/**
 * Makes a pattern ready to be played. The plan depends on the beat alone, so it can be made once an edit and used for
 * every window of time.
 */
export const planPattern = (beat: Beat, pattern: Pattern, options: PlanOptions = {}): PlayPlan => ({
  tempo: beat.tempo,
  meter: pattern.meter,
  length: patternTicks(pattern),
  lanes: (options.includeMuted ? beat.lanes : soundingLanes(beat)).map((lane) =>
    planLane(beat, pattern, lane),
  ),
});

/** The length of a bar of the plan. */
export const planBar = (plan: PlayPlan): Ticks => barTicks(plan.meter);
