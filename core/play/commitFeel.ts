import { inOrder } from '../document/position';
import { notesIn } from './driver';
import { planLive } from './timelinePlan';
import { straightenLane, straightFeel } from '../feel/straight';
import { setPattern, withLanePattern } from '../document/defaults';
import { STEPS } from '../document/choices';
import { feelOf, lanePatternOf, patternTicks } from '../document/defaults';
import type { Feel } from '../document/feelSchema';
import type { Beat, Hit, LanePattern, Pattern } from '../document/schema';
import { count } from '../document/text';
import { planLane, type LanePlan } from './plan';
import { feltCycles, type Note } from './notes';
import type { Stroke } from './strokes';
import { readingOrder } from './reading';
import { clamp, type Ticks } from '../units';

/** One time through a lane's loop, or through several where the feel comes round only after them. */
interface Cycle {
  /** Of which rounds the strokes are taken: the first of them, and how many. */
  first: number;
  rounds: number;
  /** Strokes by round of the cycle, then by hit. */
  strokes: Map<Hit, Stroke[]>[];
}

/** Strokes nearer than this to where they are in another round stand in the same place. */
const SAME_TICKS = 0.02;
const SAME_FORCE = 1e-6;

const keyOf = ({ readIndex, hitIndex, stroke }: Stroke): string => `${readIndex} ${hitIndex} ${stroke}`;

const byRound = (lane: LanePlan, rounds: number): Map<string, Stroke>[] => {
  const out = Array.from({ length: rounds }, () => new Map<string, Stroke>());
  for (const stroke of feltCycles(lane, rounds)) out[stroke.cycle]?.set(keyOf(stroke), stroke);
  return out;
};

const sameRound = (
  lane: LanePlan,
  a: Map<string, Stroke>,
  b: Map<string, Stroke>,
  apart: number,
): boolean => {
  if (a.size !== b.size) return false;
  for (const [key, stroke] of a) {
    const other = b.get(key);
    if (!other) return false;
    if (Math.abs(other.tick - stroke.tick - apart * lane.cycleTicks) > SAME_TICKS) return false;
    if (Math.abs(other.force - stroke.force) > SAME_FORCE) return false;
  }
  return true;
};

/** How far ahead it is looked whether the feel has come round. */
const AHEAD = 3;

/**
 * After how many rounds of a lane its feel comes round, as far as one loop can hold so many; null where it never does.
 * The first round is left out: nothing sounds before it that could hold its strokes off.
 */
const roundsOfFeel = (lane: LanePlan, places: number): number | null => {
  const most = Math.max(1, Math.floor(STEPS.most / places));
  const rounds = byRound(lane, 1 + most * (AHEAD + 1));
  for (let period = 1; period <= most; period++) {
    let same = true;
    for (let round = 1; same && round + period < rounds.length && round <= period * AHEAD; round++)
      same = sameRound(lane, rounds[round]!, rounds[round + period]!, period);
    if (same) return period;
  }
  return null;
};

const hitOf = (lane: LanePlan, { step, hitIndex }: Stroke): Hit => lane.byStep[step]![hitIndex]!;

const cycleOf = (lane: LanePlan, first: number, rounds: number): Cycle => {
  const strokes = Array.from({ length: rounds }, () => new Map<Hit, Stroke[]>());
  for (const stroke of feltCycles(lane, first + rounds)) {
    const round = strokes[stroke.cycle - first];
    if (!round) continue;
    const hit = hitOf(lane, stroke);
    const list = round.get(hit) ?? [];
    list.push(stroke);
    round.set(hit, list);
  }
  return { first, rounds, strokes };
};

/** How the hits of a lane are written: where they stand, and in which order the steps are read then. */
interface Writing {
  lane: LanePlan;
  /** The step at each place of the loop that is written. */
  order: number[];
  /** Where the loop begins that is written. */
  start: Ticks;
}

/** The step nearest to where a stroke sounds, and the rest as nudge; orders drawn by chance keep their step. */
const nearestStep = ({ lane, order, start }: Writing, stroke: Stroke): Pick<Hit, 'step' | 'nudge'> => {
  const place = (stroke.tick - start) / lane.step;
  const drawn = lane.direction === 'random' || lane.direction === 'walk';
  const nearest = drawn ? stroke.readIndex : Math.floor(place + 0.5);
  const at = ((nearest % order.length) + order.length) % order.length;
  return { step: order[at]!, nudge: clamp(place - nearest, -0.5, 0.5) };
};

const velocityOf = (force: number): number => clamp(Math.round(force), 1, 127);

/** A hit as its main stroke sounds; its other strokes keep their levels as they sound. */
const written = (writing: Writing, hit: Hit, strokes: Stroke[]): Hit => {
  const first = strokes.find(({ kind }) => kind === 'main')!;
  const velocity = velocityOf((hit.velocity * first.force) / Math.max(1e-9, first.velocity));
  const levelOf = (which: number, level: number): number => {
    const stroke = strokes.find((one) => one.stroke === which);
    return stroke ? clamp(stroke.force, 1, 127) / velocity : level;
  };
  const { roll, grace } = hit;
  return {
    ...hit,
    ...nearestStep(writing, first),
    velocity,
    ...(roll && { roll: { ...roll, levels: roll.levels.map((level, at) => levelOf(at, level)) } }),
    ...(grace && { grace: grace.map((one, at) => ({ ...one, level: levelOf(-1 - at, one.level) })) }),
  };
};

/** Every stroke a hit by itself, with its hit's chance and passes. The strokes of a roll ring into one another. */
const asSingles = (writing: Writing, hit: Hit, strokes: Stroke[]): Hit[] =>
  strokes
    .filter(({ into }) => !into)
    .map((stroke) => ({
      ...nearestStep(writing, stroke),
      velocity: velocityOf(stroke.force),
      length:
        stroke.length === null || stroke.kind === 'grace' || hit.roll
          ? null
          : stroke.length / writing.lane.step,
      chance: hit.chance,
      ...(hit.passes && { passes: hit.passes }),
    }));

/** A hit that another one always swallows is not heard, and is not written. */
const isSwallowed = (lane: LanePlan, strokes: Stroke[]): boolean =>
  strokes.every(({ into }) => {
    const by = into && hitOf(lane, into as Stroke);
    return !!by && by.chance >= 1 && !by.passes;
  });

const divisor = (a: number, b: number): number => (b ? divisor(b, a % b) : a);

/** The passes of a hit that comes once in so many rounds: null where it never sounds. */
const passesIn = (passes: Hit['passes'], round: number, rounds: number): Hit['passes'] | null => {
  if (!passes || rounds === 1) return passes;
  const of = passes.of / divisor(passes.of, rounds);
  const on = Array.from({ length: of }, (_, at) => at).filter((at) =>
    passes.on.includes((at * rounds + round) % passes.of),
  );
  if (!on.length) return null;
  return on.length === of ? undefined : { of, on };
};

const withPasses = ({ passes: _, ...hit }: Hit, passes: Hit['passes']): Hit =>
  passes ? { ...hit, passes } : hit;

/** The part that a lane's cycle becomes. @param singles which hits become single ones */
const partFrom = (
  part: LanePattern,
  lane: LanePlan,
  cycle: Cycle,
  unrolled: boolean,
  singles: (hit: Hit) => boolean,
): LanePattern => {
  const reading = readingOrder(lane.direction, lane.steps, 0, lane.seed, lane.key);
  const length = reading.length * cycle.rounds;
  const writing: Writing = {
    lane,
    order: unrolled ? Array.from({ length }, (_, at) => at) : reading,
    start: cycle.first * lane.cycleTicks,
  };
  const inside = new Set(lane.byStep.flatMap((hits) => hits ?? []));
  const hits = part.hits.filter((hit) => !inside.has(hit) && !unrolled);
  cycle.strokes.forEach((byHit, round) => {
    for (const [hit, all] of byHit) {
      // There and back comes to a step twice; written once, it is as it sounds first.
      const strokes = unrolled ? turnsOf(all) : turnsOf(all).slice(0, 1);
      const passes = unrolled ? passesIn(hit.passes, round, cycle.rounds) : hit.passes;
      if (passes === null) continue;
      for (const own of strokes) {
        if (isSwallowed(lane, own)) continue;
        const one = withPasses(hit, passes);
        if (singles(hit)) hits.push(...asSingles(writing, one, own));
        else hits.push(written(writing, one, own));
      }
    }
  });
  const { shift: _shift, offbeat: _offbeat, offbeatGrid: _grid, ...kept } = part;
  return {
    ...kept,
    ...(unrolled && { steps: length, direction: 'forward' as const }),
    hits: inOrder(hits),
  };
};

/** The strokes of one hit by when it is come to. */
const turnsOf = (strokes: Stroke[]): Stroke[][] => {
  const turns = new Map<number, Stroke[]>();
  for (const stroke of strokes) turns.set(stroke.readIndex, [...(turns.get(stroke.readIndex) ?? []), stroke]);
  return [...turns.values()];
};

/** Whether every time that a round comes to a step it sounds in the same place of the step. */
const visitsAlike = (lane: LanePlan, { strokes }: Cycle): boolean =>
  strokes.every((byHit) =>
    [...byHit.values()].every((all) => {
      const [first, ...others] = turnsOf(all);
      return others.every((other) =>
        other.every((stroke, at) => {
          const apart = (stroke.readIndex - first![at]!.readIndex) * lane.step;
          return (
            Math.abs(stroke.tick - first![at]!.tick - apart) < SAME_TICKS &&
            Math.abs(stroke.force - first![at]!.force) < SAME_FORCE
          );
        }),
      );
    }),
  );

/** Rolls that would not come out as they sound: the feel bends their strokes, and written they lie evenly again. */
const bentRolls = (lane: LanePlan, { strokes }: Cycle): Set<Hit> => {
  const bent = new Set<Hit>();
  for (const byHit of strokes)
    for (const [hit, all] of byHit) {
      if (!hit.roll || hit.chance < 1) continue;
      for (const own of turnsOf(all)) {
        const rolled = own.filter(({ kind }) => kind !== 'grace');
        const first = rolled[0]!;
        if (rolled.some((one) => Math.abs(one.tick - first.tick - (one.at - first.at)) > SAME_TICKS))
          bent.add(hit);
      }
    }
  return bent;
};

/** Moves are no hits: they go on from what is written. */
const withoutMoves = ({ detour: _, ...pattern }: Pattern): Pattern => ({
  ...pattern,
  parts: Object.fromEntries(
    Object.entries(pattern.parts).map(([id, { echoes: _echoes, sparks: _sparks, ...part }]) => [id, part]),
  ),
});

interface WrittenPart {
  part: LanePattern;
  /** Sentences to tell of it: how it was written, or what could not be kept. */
  told: string[];
}

const writePart = (beat: Beat, pattern: Pattern, laneId: string, single: boolean): WrittenPart => {
  const part = lanePatternOf(pattern, laneId);
  const lane = planLane(
    beat,
    withoutMoves(pattern),
    beat.lanes.find(({ id }) => id === laneId)!,
  );
  const reading = readingOrder(lane.direction, lane.steps, 0, lane.seed, lane.key);
  const drawn = lane.direction === 'random' || lane.direction === 'walk';
  const whole = Math.abs(reading.length * lane.step - lane.cycleTicks) < 1e-6;
  const rounds = drawn ? 1 : roundsOfFeel(lane, reading.length);
  const steady = rounds !== null && (rounds === 1 || whole);
  const cycle = steady ? cycleOf(lane, rounds, rounds) : cycleOf(lane, 0, 1);
  const twice = lane.direction === 'thereAndBack' && !visitsAlike(lane, cycle);
  const fits = whole && reading.length * cycle.rounds <= STEPS.most;
  const unrolled = steady && fits && (cycle.rounds > 1 || twice);
  const rolls = bentRolls(lane, cycle);
  const told: string[] = [];
  if (unrolled)
    told.push(
      `its loop is ${count(reading.length * cycle.rounds, 'step')} long now, since the feel meets it differently each time`,
    );
  if (!single && rolls.size)
    told.push(
      `${count(rolls.size, 'roll')} became single hits, since the feel bends ${rolls.size === 1 ? 'its' : 'their'} strokes`,
    );
  return { part: partFrom(part, lane, cycle, unrolled, (hit) => single || rolls.has(hit)), told };
};

/** Gives a feel to a pattern: to the beat where no other pattern follows the beat's. */
const giveFeel = (beat: Beat, pattern: Pattern, feel: Feel): Beat => {
  const alone = !pattern.feel && beat.patterns.every((one) => one.id === pattern.id || one.feel);
  return alone ? setPattern({ ...beat, feel }, pattern) : setPattern(beat, { ...pattern, feel });
};

/** A beat whose feel was written into hits, and what there is to tell of it, a sentence each. */
export interface CommittedFeel {
  beat: Beat;
  told: string[];
}

/** How many passes are compared to see whether all sounds as it did. */
const COMPARED = 4;

const notesOf = (beat: Beat, pattern: Pattern, laneId: string): Map<number, Note[]> => {
  const lane = beat.lanes.find(({ id }) => id === laneId)!;
  const plan = planLive({ ...beat, lanes: [lane] }, pattern, { includeMuted: true });
  const length = patternTicks(pattern);
  const passes = new Map<number, Note[]>();
  for (let pass = 0; pass < COMPARED; pass++)
    passes.set(pass, notesIn(plan, (pass + 1) * length, (pass + 2) * length));
  return passes;
};

/** Whether a lane sounds the same in both, to half a tick and to the velocity, pass by pass after the first. */
const soundsAlike = (before: Map<number, Note[]>, after: Map<number, Note[]>): boolean =>
  [...before].every(([pass, notes]) => {
    const others = after.get(pass)!;
    return (
      notes.length === others.length &&
      notes.every(
        ({ tick, velocity }, at) =>
          Math.abs(tick - others[at]!.tick) < 0.5 && velocity === others[at]!.velocity,
      )
    );
  });

/** Why a lane does not sound the same, as far as its settings tell. */
const reasonOf = (beat: Beat, pattern: Pattern, laneId: string): string => {
  const { humanize } = feelOf(beat, pattern);
  const part = lanePatternOf(pattern, laneId);
  if (
    humanize.anew &&
    !feelOf(beat, pattern).off.includes('humanize') &&
    (humanize.timing || humanize.velocity)
  )
    return 'humanize is drawn anew on each pass, and hits stand still: what the first pass has was written';
  if (part.direction === 'random' || part.direction === 'walk')
    return 'its order is drawn anew each round, and the feel meets its steps differently: what the first round has was written';
  if (part.hits.some(({ chance, passes }) => chance < 1 || passes))
    return 'which of its hits sound changes from pass to pass, and the feel with them: each was written as it sounds by itself';
  return 'its loop and the feel come together again only after more steps than a lane can hold: what the first round has was written';
};

/**
 * Puts the feel into the hits as nudge and velocity: each hit gets the step nearest to where it sounds. The feel is then
 * straight, for the lane or for all. What sounds is the same before and after; where it cannot be, that is told.
 *
 * @param laneId null for all lanes
 * @param single rolls and flams become single hits
 * @example committedFeel(beat, 'a', null, false).told // []
 */
export const committedFeel = (
  beat: Beat,
  patternId: string,
  laneId: string | null,
  single: boolean,
): CommittedFeel => {
  const pattern = beat.patterns.find(({ id }) => id === patternId);
  if (!pattern) return { beat, told: [] };
  const feel = feelOf(beat, pattern);
  const lanes = beat.lanes.filter(
    ({ id }) => (laneId === null || id === laneId) && lanePatternOf(pattern, id).hits.length,
  );
  const told: string[] = [];
  let done = pattern;
  for (const { id, name } of lanes) {
    const one = writePart(beat, pattern, id, single);
    done = withLanePattern(done, id, one.part);
    for (const text of one.told) told.push(`${name}: ${text}.`);
  }
  const straight = laneId === null ? straightFeel(feel) : straightenLane(beat, feel, laneId);
  const out = giveFeel(beat, done, straight);
  const after = out.patterns.find(({ id }) => id === patternId)!;
  for (const { id, name } of lanes)
    if (!soundsAlike(notesOf(beat, pattern, id), notesOf(out, after, id)))
      told.push(`${name} does not sound quite as before: ${reasonOf(beat, pattern, id)}.`);
  return { beat: out, told };
};

/**
 * The same, where nothing is told.
 *
 * @example
 * commitFeel({ ...beat, feel: newFeel({ percent: 60, grid: '1/8' }) }, 'a', null, false).patterns[0]!.parts['kick']!.hits.length
 * // 4
 */
export const commitFeel = (beat: Beat, patternId: string, laneId: string | null, single: boolean): Beat =>
  committedFeel(beat, patternId, laneId, single).beat;
