import { EMPTY_LANE_PATTERN, feelOf, lanePatternOf, patternTicks } from '../document/defaults';
import { STEPS } from '../document/choices';
import { GRIDS, gridTicks, type Grid } from '../document/grid';
import { inOrder, placedWithin } from '../document/position';
import { RANGES } from '../document/ranges';
import type { Beat, Hit, Lane, LanePattern, Pattern } from '../document/schema';
import { count, listed } from '../document/text';
import { straightenLane, straightFeel } from '../feel/straight';
import { notesIn } from '../play/driver';
import { DETOUR_HITS } from '../play/moves/detours';
import { sparksTo } from '../play/moves/sparks';
import { feltWithin, forceOf, type Note } from '../play/notes';
import { planLane, type LanePlan } from '../play/plan';
import type { Stroke } from '../play/strokes';
import { planLive } from '../play/timelinePlan';
import { clamp, ticksPerMs, type Ticks } from '../units';
import { hasMoves } from './moves';

/**
 * Moves written in: what is heard becomes hits. First each lane is tried with its feel left on it, then with its feel in the
 * hits, then all lanes so; the first that gives the same notes, pass by pass, is taken. What is drawn by chance on every pass has no
 * one pattern that gives it: then so many passes are written into a longer one, or one pass, and it is said.
 */

/** A pattern with its moves written in. */
export interface WrittenMoves {
  pattern: Pattern;
  /** What there is to tell, a sentence each: how it was written, and what is not the same. */
  told: string[];
  /** Whether every pass gives the notes that it gave. */
  same: boolean;
}

/** How many passes are compared. */
const COMPARED = 8;
/** Half a tick: what a file can tell. */
const SAME: Ticks = 0.5;
/** Hits of sparks are told apart by this (see sparks.ts). */
const SPARK_HITS = 4096;

const withoutMoves = ({ detour: _, ...pattern }: Pattern): Pattern => ({
  ...pattern,
  parts: Object.fromEntries(
    Object.entries(pattern.parts).map(([id, { echoes: _echoes, sparks: _sparks, ...part }]) => [id, part]),
  ),
});

/** Every hit on every pass: which strokes there can be at all. */
const certain = (pattern: Pattern): Pattern => ({
  ...pattern,
  parts: Object.fromEntries(
    Object.entries(pattern.parts).map(([id, part]) => [
      id,
      {
        ...part,
        hits: part.hits.map(({ passes: _, follows: _f, ...hit }) => ({ ...hit, chance: 1 })),
      },
    ]),
  ),
});

const common = (a: number, b: number): number => (b ? common(b, a % b) : a);

/** Steps may be thirds and fifths of ticks. */
const PARTS = 60;

/** After how long both come round together; null beyond so long that nobody asks. */
const together = (a: Ticks, b: Ticks): Ticks | null => {
  const [x, y] = [Math.round(a * PARTS), Math.round(b * PARTS)];
  const out = (x / common(x, y)) * y;
  return out > 1e9 ? null : out / PARTS;
};

/** The grid of a loop of a length: one's own, or the coarsest that divides it, of at most 64 steps unless it is the pattern's. */
const gridFor = (own: Grid, length: Ticks, whole: boolean): Grid | null => {
  const goes = (grid: Grid) => {
    const steps = length / gridTicks(grid);
    return Math.abs(steps - Math.round(steps)) < 1e-6 && (whole || Math.round(steps) <= STEPS.most);
  };
  if (goes(own)) return own;
  const straight = GRIDS.filter((grid) => gridTicks(grid) >= gridTicks('1/64T'));
  return straight.sort((a, b) => gridTicks(a) - gridTicks(b)).find(goes) ?? null;
};

interface Context {
  beat: Beat;
  pattern: Pattern;
  /** With the strokes of all hits, whether chance lets them sound or not. */
  all: Pattern;
}

/** The hit that a stroke came of, and the lane that it is of. */
const sourceOf = ({ beat, pattern }: Context, lane: LanePlan, stroke: Stroke) => {
  const set = Math.floor(stroke.hitIndex / SPARK_HITS) - 1;
  const id = set < 0 ? lane.id : sparksTo(beat, pattern, lane.id)[set]!.from;
  const plan = planLane(
    beat,
    pattern,
    beat.lanes.find((one) => one.id === id)!,
    undefined,
    undefined,
    'own',
  );
  const place = (stroke.hitIndex % SPARK_HITS) % DETOUR_HITS;
  const hit = plan.byStep[stroke.step]?.[place];
  return hit ? { id, plan, place, hit } : null;
};

/** A place in a loop, and how many rounds later than its hit it is. */
interface Landed {
  place: Pick<Hit, 'step' | 'nudge'>;
  round: number;
}

const landed = (rel: Ticks, period: Ticks, grid: Grid): Landed => {
  const g = gridTicks(grid);
  const steps = Math.round(period / g);
  if (rel < 0 && rel >= -g / 2) return { place: { step: 0, nudge: rel / g }, round: 0 };
  const round = Math.floor(rel / period + 1e-9);
  const at = rel - round * period;
  // What even the last step does not reach is early for the next round's first.
  if (at > (steps - 0.5) * g + 1e-6)
    return { place: { step: 0, nudge: clamp((at - period) / g, -0.5, 0) }, round: round + 1 };
  return { place: placedWithin(Math.max(0, at), grid, steps), round };
};

/** How a lane is written: with the feel left on it, or with it in its hits. */
type How = 'felt later' | 'felt';

const follow = (
  source: NonNullable<ReturnType<typeof sourceOf>>,
  lane: LanePlan,
  stroke: Stroke,
  { from, period, round }: { from: Ticks; period: Ticks; round: number },
): Pick<Hit, 'chance' | 'passes' | 'follows'> | null => {
  const { hit, plan, id, place } = source;
  const every = period / plan.cycleTicks;
  const first = stroke.cycle - Math.round(from / plan.cycleTicks) - Math.round(round * every);
  const plain: Pick<Hit, 'chance' | 'passes'> = {
    chance: hit.chance,
    ...(hit.passes && { passes: hit.passes }),
  };
  if (first === 0 && every === 1 && hit.chance >= 1 && !hit.passes && !hit.follows) return plain;
  if (first >= 0 && hit.chance >= 1 && !hit.passes && !hit.follows) return plain;
  // What was written in before follows its own hit; a loop that is no whole number of rounds has no one to follow.
  if (hit.follows || Math.abs(every - Math.round(every)) > 1e-6)
    return hit.follows && first === 0 ? { ...plain, follows: hit.follows } : null;
  const follows = {
    ...(id !== lane.id && { lane: id }),
    step: stroke.step,
    place,
    every: Math.round(every),
    from: clamp(first, -4096, 4096),
  };
  return { ...plain, follows };
};

const writtenHit = (
  { beat }: Context,
  lane: LanePlan,
  stroke: Stroke,
  source: NonNullable<ReturnType<typeof sourceOf>>,
  how: How,
  { from, period, grid }: { from: Ticks; period: Ticks; grid: Grid },
): Hit | null => {
  const felt = how === 'felt';
  const before =
    stroke.tie && stroke.kind !== 'grace'
      ? stroke.tie.main.at + stroke.tie.apart * ticksPerMs(beat.tempo)
      : stroke.at;
  const { place, round } = landed((felt ? stroke.tick : before) - from, period, grid);
  const chance = follow(source, lane, stroke, { from, period, round });
  if (!chance) return null;
  const { roll, grace, hand } = source.hit;
  const whole = !felt && stroke.kind === 'main' && source.id === lane.id;
  const scale = gridTicks(grid);
  const own = whole
    ? source.hit.length
    : stroke.length === null || (felt && !stroke.cut)
      ? null
      : stroke.length / scale;
  const length = whole && own !== null ? (own * lane.step) / scale : own;
  return {
    ...place,
    velocity: felt
      ? forceOf(stroke)
      : clamp(Math.round(whole ? source.hit.velocity : stroke.velocity), 1, 127),
    length: length === null ? (whole && roll ? lane.step / scale : null) : clamp(length, 1e-3, 64),
    ...chance,
    ...(whole && roll && { roll }),
    ...(whole && grace && { grace }),
    ...(stroke.pitch !== 0 && { pitch: clamp(stroke.pitch, RANGES.pitch.least, RANGES.pitch.most) }),
    ...(whole && hand && { hand }),
  };
};

/** A lane's part with its moves in its hits; null where no loop of it can be written. */
const writtenPart = (context: Context, laneId: string, how: How): LanePattern | null => {
  const { beat, pattern, all } = context;
  const lane = beat.lanes.find(({ id }) => id === laneId)!;
  const plan = planLane(beat, all, lane);
  const part = lanePatternOf(pattern, laneId);
  const pass = patternTicks(pattern);
  const sources = sparksTo(beat, pattern, laneId).map(
    ({ from }) =>
      planLane(
        beat,
        pattern,
        beat.lanes.find(({ id }) => id === from)!,
        undefined,
        undefined,
        'own',
      ).cycleTicks,
  );
  const turned = pattern.detour && (!pattern.detour.lanes || pattern.detour.lanes.includes(laneId));
  const rounds = [
    ...(part.hits.length ? [plan.cycleTicks] : []),
    ...sources,
    ...(turned || how === 'felt' ? [pass] : []),
  ];
  const period = rounds.reduce<Ticks | null>(
    (now, one) => (now === null ? null : together(now, one)),
    rounds[0] ?? pass,
  );
  if (period === null) return null;
  const whole = Math.abs(period - pass) < 1e-6;
  const grid = gridFor(part.grid, period, whole);
  if (!grid) return null;
  // A round that others came before: what crosses the end is there at its start.
  const from = Math.ceil((plan.reach + 1) / period) * period;
  const strokes = feltWithin(plan, from, from + period);
  const isHit = ({ kind, sounds, into }: Stroke) => kind === 'main' && sounds && !into;
  const hits = strokes.flatMap((stroke): Hit[] => {
    if (!stroke.sounds || (how === 'felt' && stroke.into)) return [];
    const isGrace = stroke.kind === 'grace' && !!stroke.tie && isHit(stroke.tie.main as Stroke);
    if (how === 'felt' ? isGrace : stroke.kind === 'grace' || stroke.kind === 'roll') return [];
    const source = sourceOf(context, plan, stroke);
    const hit = source && writtenHit(context, plan, stroke, source, how, { from, period, grid });
    if (!hit || how !== 'felt' || !isHit(stroke)) return hit ? [hit] : [];
    // Grace strokes keep their distance in ms from the main one, which they are written with.
    const grace = strokes
      .filter((one) => one.kind === 'grace' && one.tie?.main === stroke && one.sounds && !one.into)
      .map((one) => ({
        before: -one.tie!.apart,
        level: clamp(forceOf(one) / hit.velocity, RANGES.strokeLevel.least, RANGES.strokeLevel.most),
      }));
    return [{ ...hit, ...(grace.length > 0 && { grace: grace.slice(0, 3) }) }];
  });
  return {
    ...EMPTY_LANE_PATTERN,
    grid,
    steps: whole ? null : Math.round(period / gridTicks(grid)),
    hits: inOrder(hits).slice(0, 8192),
  };
};

/** Notes by lane. */
type Heard = Map<string, Note[]>;

const notesOf = (beat: Beat, pattern: Pattern, passes: number, length: Ticks): Heard => {
  const plan = planLive({ ...beat, patterns: [pattern] }, pattern, { includeMuted: true });
  const out = new Map<string, Note[]>(beat.lanes.map(({ id }) => [id, []]));
  for (const note of notesIn(plan, 0, passes * length)) out.get(beat.lanes[note.lane]!.id)!.push(note);
  return out;
};

/** Lanes that do not give the same notes: tick, number and velocity. */
const changed = (lanes: Lane[], before: Heard, after: Heard): string[] => {
  const inTime = (notes: Note[]) =>
    [...notes].sort((a, b) => Math.round(a.tick) - Math.round(b.tick) || a.note - b.note);
  return lanes
    .map(({ id }) => id)
    .filter((id) => {
      const [a, b] = [inTime(before.get(id)!), inTime(after.get(id)!)];
      return (
        a.length !== b.length ||
        a.some(({ tick, note, velocity }, at) => {
          const other = b[at]!;
          return Math.abs(tick - other.tick) > SAME || note !== other.note || velocity !== other.velocity;
        })
      );
    });
};

/** What crosses the end of so many passes sounds from the second time through on. */
const sinceBefore = (rounds: number): Pick<Hit, 'follows'> => ({
  follows: { step: 0, place: 0, every: 1, from: -rounds },
});

/** So many passes as they are heard, as one longer pattern without feel. */
const writtenPasses = (beat: Beat, pattern: Pattern, passes: number): Pattern => {
  const pass = patternTicks(pattern);
  const length = passes * pass;
  const plan = planLive({ ...beat, patterns: [pattern] }, pattern, { includeMuted: true });
  // What belongs to these passes by its step, however early or late it sounds.
  const far = plan.reach(length) + pass;
  const heard = notesIn(plan, -far, length + far, { start: -2 * far, steps: { from: 0, to: length } });
  const parts = Object.fromEntries(
    beat.lanes.flatMap(({ id }, index): [string, LanePattern][] => {
      const own = heard.filter(({ lane }) => lane === index);
      if (!own.length) return [];
      const grid = gridFor(lanePatternOf(pattern, id).grid, length, true) ?? '1/16';
      const g = gridTicks(grid);
      const hits = own.map(({ tick, velocity, pitch, cut, length: long }): Hit => {
        const { place, round } = landed(tick, length, grid);
        return {
          ...place,
          velocity,
          length: cut ? clamp(long / g, 1e-3, 64) : null,
          chance: 1,
          ...(round > 0 && sinceBefore(round)),
          ...(pitch !== 0 && { pitch }),
        };
      });
      return [[id, { ...EMPTY_LANE_PATTERN, grid, hits: inOrder(hits).slice(0, 8192) }]];
    }),
  );
  return {
    ...withoutMoves(pattern),
    bars: pattern.bars * passes,
    parts,
    feel: straightFeel(feelOf(beat, pattern)),
  };
};

/** How many passes of a pattern fit into one. @example passesThatFit({ ...pattern, bars: 4 }) // [2, 3, 4] */
export const passesThatFit = ({ bars }: Pick<Pattern, 'bars'>): number[] =>
  [2, 3, 4, 6, 8, 16].filter((passes) => passes * bars <= RANGES.bars.most);

/** Why a pattern sounds otherwise on each pass, as far as its settings tell. */
const reasonsOf = (beat: Beat, pattern: Pattern, laneIds: string[]): string[] => {
  const { humanize, off, stagger } = feelOf(beat, pattern);
  const counts = !!stagger && !off.includes('stagger');
  const parts = laneIds.map((id) => lanePatternOf(pattern, id));
  const sparks = Object.values(pattern.parts).flatMap((part) => part.sparks ?? []);
  return [
    ...(humanize.anew && !off.includes('humanize') && (humanize.timing || humanize.velocity)
      ? ['humanize is new on each pass']
      : []),
    ...(pattern.detour && pattern.detour.chance < 1 ? ['the detour is taken by chance'] : []),
    ...(sparks.some(({ chance }) => chance < 1) ? ['sparks come by chance'] : []),
    ...(parts.some(({ direction }) => direction === 'random' || direction === 'walk')
      ? ['the order of steps is new on each round']
      : []),
    ...(parts.some(({ hits }) => hits.some(({ chance, passes }) => chance < 1 || passes))
      ? [
          counts
            ? 'which hits sound changes from pass to pass, and the stagger counts those that do'
            : 'which hits sound changes from pass to pass',
        ]
      : []),
    ...(parts.some(
      ({ steps, rate, direction }) => steps !== null || rate !== '1' || direction === 'thereAndBack',
    )
      ? ['a lane’s own loop takes longer than one pattern holds']
      : []),
  ];
};

/**
 * Writes the moves of a pattern into its hits.
 *
 * @param passes writes so many passes as they are heard into a pattern so many times as long; left out, one pattern that gives the
 *   same on every pass is looked for
 * @returns the pattern, and what there is to tell of it
 * @example writtenMoves(beat, pattern).told // []
 */
export const writtenMoves = (beat: Beat, pattern: Pattern, passes?: number): WrittenMoves => {
  const lanes = beat.lanes.filter(({ id }) => hasMoves(beat, pattern, id));
  if (!lanes.length) return { pattern: withoutMoves(pattern), told: [], same: true };
  const nameOf = (ids: string[]) => listed(ids.map((id) => beat.lanes.find((lane) => lane.id === id)!.name));
  const pass = patternTicks(pattern);
  if (passes !== undefined && passes > 1) {
    const held = Math.min(passes, Math.floor(RANGES.bars.most / pattern.bars));
    return {
      pattern: writtenPasses(beat, pattern, held),
      told: [`${count(held, 'pass').replace('passs', 'passes')} were written, with the feel in the hits.`],
      same: true,
    };
  }
  const context: Context = { beat, pattern, all: certain(pattern) };
  const heard = notesOf(beat, pattern, COMPARED, pass);
  const bare = withoutMoves(pattern);
  const differ = (written: Pattern) => changed(beat.lanes, heard, notesOf(beat, written, COMPARED, pass));
  const withPart = (now: Pattern, id: string, part: LanePattern): Pattern => ({
    ...now,
    parts: { ...now.parts, [id]: part },
  });
  const told: string[] = [];

  // With the feel left on the lanes.
  let now = bare;
  const left: string[] = [];
  for (const { id } of lanes) {
    const part = writtenPart(context, id, 'felt later');
    if (part) now = withPart(now, id, part);
    else left.push(id);
  }
  let wrong = [...new Set([...differ(now), ...left])];
  if (!wrong.length) return { pattern: now, told, same: true };

  // With it in the hits of those that need it.
  let straight = now;
  for (const id of wrong.filter((one) => lanes.some((lane) => lane.id === one))) {
    const part = writtenPart(context, id, 'felt');
    if (!part) continue;
    straight = { ...withPart(straight, id, part), feel: straightenLane(beat, feelOf(beat, straight), id) };
  }
  wrong = differ(straight);
  if (!wrong.length) {
    const baked = lanes.map(({ id }) => id).filter((id) => straight.parts[id] !== now.parts[id]);
    return {
      pattern: straight,
      told: [`${nameOf(baked)}: the feel is in the hits now, and the lane straight.`],
      same: true,
    };
  }

  // In the hits of all lanes.
  const playing = beat.lanes.filter(({ id }) => heard.get(id)!.length);
  const parts = playing.map(({ id }) => [id, writtenPart(context, id, 'felt')] as const);
  const whole: Pattern = {
    ...bare,
    parts: { ...bare.parts, ...(Object.fromEntries(parts.filter(([, part]) => part)) as Pattern['parts']) },
    feel: straightFeel(feelOf(beat, pattern)),
  };
  if (!differ(whole).length)
    return {
      pattern: whole,
      told: ['The feel of all lanes is in the hits now, and the pattern straight.'],
      same: true,
    };

  // In a pattern as long as it takes for all to come round, where it is drawn only once.
  for (const times of passesThatFit(pattern)) {
    const long = writtenPasses(beat, pattern, times);
    // Heard through twice: what is drawn anew the second time has no pattern that gives it.
    const twice = 2 * times;
    const [before, after] = [pattern, long].map((one) => notesOf(beat, one, twice, pass)) as [Heard, Heard];
    if (!changed(beat.lanes, before, after).length)
      return {
        pattern: long,
        told: [
          `It takes ${times} passes for all to come round: the pattern is ${long.bars} bars long now, with the feel in the hits.`,
        ],
        same: true,
      };
  }
  const reasons = reasonsOf(beat, pattern, wrong);
  told.push(
    `${nameOf(wrong)} cannot be the same on every pass in one pattern${reasons.length ? `: ${listed(reasons)}` : ''}. What the first pass has was written.`,
  );
  return { pattern: writtenPasses(beat, pattern, 1), told, same: false };
};

/**
 * The same, where nothing is told.
 *
 * @example writeMoves(pattern, beat).detour // undefined
 */
export const writeMoves = (pattern: Pattern, beat: Beat, passes?: number): Pattern =>
  writtenMoves(beat, pattern, passes).pattern;
