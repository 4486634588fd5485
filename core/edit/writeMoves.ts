import { EMPTY_LANE_PATTERN, feelOf, lanePatternOf, patternTicks } from '../document/defaults';
import { gridTicks } from '../document/grid';
import { inOrder } from '../document/position';
import { RANGES } from '../document/ranges';
import type { Beat, Hit, Lane, LanePattern, Pattern } from '../document/schema';
import { count, listed } from '../document/text';
import { straightenLane, straightFeel } from '../feel/straight';
import { notesIn } from '../play/driver';
import { type Note } from '../play/notes';
import { planLive } from '../play/timelinePlan';
import { clamp, type Ticks } from '../units';
import { passesThatFit, hasMoves } from './moves';
import { gridFor, landed, writtenPart, type Context } from './movesInHits';

/**
 * Moves written in: what is heard becomes hits. First each lane is tried with its feel left on it, then with its feel in the
 * hits, then all lanes so; the first that gives the same notes, pass by pass, is taken. What is drawn by chance on every pass has no
 * one pattern that gives it: then so many passes are written into a longer one, or one pass, and it is said.
 */

/** A pattern with its moves written in. */
export interface WrittenMoves {
  pattern: Pattern;
  /** Sentences to tell: how it was written, and what is not the same. */
  told: string[];
  /** Whether every pass gives the notes that it gave. */
  same: boolean;
}

/** How many passes are compared. */
const COMPARED = 8;
/** Half a tick: what a file can tell. */
const SAME: Ticks = 0.5;

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

/** A note that crosses the end of so many passes sounds from the second time through on. */
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
