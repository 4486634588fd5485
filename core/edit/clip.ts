import { inOrder } from '../document/position';
import { withLanePattern } from '../document/defaults';
import { lanePatternOf, patternTicks, stepsOf } from '../document/defaults';
import { gridTicks, type Grid } from '../document/grid';
import { barTicks } from '../document/meter';
import type { Hit, LanePattern, Pattern } from '../document/schema';
import { count } from '../document/text';
import { clamp, type Ticks } from '../units';
import { RANGES } from '../document/ranges';
import { hitsOn, removeHits, type Spot } from './spots';

/** Copying, pasting and moving hits: by time, so that lanes of other grids keep in step. */

/** A box on the strings: some lanes, from a time to a time of the pattern. */
export interface Box {
  laneIds: string[];
  from: Ticks;
  to: Ticks;
}

/** Hits that were copied, apart from where they came from. */
export interface Clip {
  /** How long it is, its empty edges too. */
  length: Ticks;
  /** One for each lane, from the topmost; `down` is how many lanes below the topmost one. Steps count from its start. */
  rows: { down: number; grid: Grid; hits: Hit[] }[];
}

const stepAt = (pattern: Pattern, { laneId, step }: Spot): Ticks =>
  step * gridTicks(lanePatternOf(pattern, laneId).grid);

const endOf = (pattern: Pattern, spot: Spot): Ticks =>
  stepAt(pattern, spot) + gridTicks(lanePatternOf(pattern, spot.laneId).grid);

/**
 * The box around steps, as tight as can be.
 *
 * @param lanes the ids of the beat's lanes in order
 * @example boxAround(pattern, spots, ['kick'])!.from // 0
 */
export const boxAround = (pattern: Pattern, spots: Spot[], lanes: string[]): Box | null =>
  spots.length
    ? {
        laneIds: lanes.filter((id) => spots.some(({ laneId }) => laneId === id)),
        from: Math.min(...spots.map((spot) => stepAt(pattern, spot))),
        to: Math.max(...spots.map((spot) => endOf(pattern, spot))),
      }
    : null;

/** A hit so much later: its step is the nearest, and the rest is nudge. */
const later = (hit: Hit, from: Grid, by: Ticks, to: Grid = from): Hit => {
  const [g, own] = [gridTicks(to), gridTicks(from)];
  const place = ((hit.step + hit.nudge) * own + by) / g;
  // What stands on its step to begin with keeps its very nudge where whole steps are gone.
  const whole = by / g;
  if (from === to && Math.abs(whole - Math.round(whole)) < 1e-9)
    return { ...hit, step: hit.step + Math.round(whole) };
  const step = Math.floor(place + 0.5);
  const length = hit.length === null ? null : clamp((hit.length * own) / g, 0.05, 64);
  return { ...hit, step, nudge: clamp(place - step, -0.5, 0.5) + 0, length };
};

/**
 * Copies what is selected, with the empty edges of its box.
 *
 * @param lanes the ids of the beat's lanes in order
 * @param box that was drawn around it; left out, it is as tight as can be
 * @returns null where no hit is selected
 */
export const copyHits = (pattern: Pattern, spots: Spot[], lanes: string[], box?: Box | null): Clip | null => {
  const chosen = hitsOn(pattern, spots);
  const around = box ?? boxAround(pattern, spots, lanes);
  if (!chosen.length || !around) return null;
  const top = Math.min(
    ...around.laneIds.map((id) => lanes.indexOf(id)).filter((at) => at >= 0),
    ...chosen.map(({ laneId }) => lanes.indexOf(laneId)),
  );
  const rows = new Map<string, Clip['rows'][number]>();
  for (const { laneId, hit } of chosen) {
    const { grid } = lanePatternOf(pattern, laneId);
    const row = rows.get(laneId) ?? { down: lanes.indexOf(laneId) - top, grid, hits: [] };
    row.hits.push(later(hit, grid, -around.from));
    rows.set(laneId, row);
  }
  return { length: around.to - around.from, rows: [...rows.values()] };
};

export type Pasted =
  { ok: true; pattern: Pattern; spots: Spot[]; told: string[] } | { ok: false; error: string };

interface Landing {
  laneId: string;
  hits: Hit[];
}

/** Where the rows of a clip come to lie. */
const landings = (pattern: Pattern, clip: Clip, at: Ticks, top: number, lanes: string[]): Landing[] =>
  clip.rows.flatMap(({ down, grid, hits }) => {
    const laneId = lanes[top + down];
    if (top < 0 || laneId === undefined) return [];
    const to = lanePatternOf(pattern, laneId).grid;
    return [{ laneId, hits: hits.map((hit) => later(hit, grid, at, to)) }];
  });

/** A pattern long enough for what is pasted, as far as lanes follow it. */
const grown = (pattern: Pattern, landed: Landing[]): Pattern => {
  const bar = barTicks(pattern.meter);
  let end = patternTicks(pattern);
  for (const { laneId, hits } of landed) {
    const part = lanePatternOf(pattern, laneId);
    if (part.steps !== null) continue;
    for (const { step } of hits) end = Math.max(end, (step + 1) * gridTicks(part.grid));
  }
  const bars = Math.min(RANGES.bars.most, Math.ceil(end / bar - 1e-9));
  return bars > pattern.bars ? { ...pattern, bars } : pattern;
};

const put = (
  pattern: Pattern,
  landed: Landing[],
  join: (part: LanePattern, hits: Hit[]) => Hit[],
): { pattern: Pattern; spots: Spot[]; cut: number } => {
  let out = pattern;
  let cut = 0;
  const spots: Spot[] = [];
  for (const { laneId, hits } of landed) {
    const part = lanePatternOf(out, laneId);
    const end = stepsOf(part, out);
    const fit = hits.filter(({ step }) => step >= 0 && step < end);
    cut += hits.length - fit.length;
    if (!fit.length) continue;
    out = withLanePattern(out, laneId, { ...part, hits: inOrder(join(part, fit)) });
    for (const step of new Set(fit.map((hit) => hit.step))) spots.push({ laneId, step });
  }
  return { pattern: out, spots, cut };
};

/**
 * Puts copied hits from a step on, the topmost row onto the lane given; nudge, rolls and the rest come along. What stands
 * on the steps pasted onto gives way. The pattern grows by bars where it has to; what would come after a lane's own end is
 * left out, which is told.
 *
 * @param grows false leaves out what is beyond the pattern's end
 * @returns the pattern and where the hits are now, or why nothing fits
 * @example
 * pasteHits(pattern, copyHits(pattern, [spots[0]!], ['kick'])!, { laneId: 'kick', step: 2 }, ['kick']).pattern.parts['kick']!.hits.length
 * // 5
 */
export const pasteHits = (pattern: Pattern, clip: Clip, at: Spot, lanes: string[], grows = true): Pasted => {
  const landed = landings(pattern, clip, stepAt(pattern, at), lanes.indexOf(at.laneId), lanes);
  const room = grows ? grown(pattern, landed) : pattern;
  const done = put(room, landed, (part, fit) => {
    const taken = new Set(fit.map(({ step }) => step));
    return [...part.hits.filter(({ step }) => !taken.has(step)), ...fit];
  });
  if (!done.spots.length)
    return {
      ok: false,
      error: 'Nothing was pasted: no copied hit would come before the end of its lane there.',
    };
  const told: string[] = [];
  const missing = clip.rows.length - landed.length;
  if (room.bars > pattern.bars) told.push(`The pattern is ${count(room.bars, 'bar')} long now.`);
  if (done.cut)
    told.push(
      `${count(done.cut, 'hit')} beyond the end of a lane ${done.cut === 1 ? 'was' : 'were'} left out.`,
    );
  if (missing > 0) told.push(`${count(missing, 'lane')} of the copy found no lane below.`);
  return { ok: true, pattern: done.pattern, spots: done.spots, told };
};

/**
 * Moves hits by time and lanes; where one would leave the lane or the beat all stay where they are. Hits that they come upon
 * stay too: both are kept.
 *
 * @param by in ticks; lanes of other grids keep in step
 * @example moveHits(pattern, [spots[0]!], 240, 0, ['kick']).pattern.parts['kick']!.hits[0]!.step // 1
 */
export const moveHits = (
  pattern: Pattern,
  spots: Spot[],
  by: Ticks,
  byLanes: number,
  lanes: string[],
): Pasted => {
  const clip = copyHits(pattern, spots, lanes);
  const around = boxAround(pattern, spots, lanes);
  if (!clip || !around) return { ok: false, error: 'Nothing was moved: no hit is selected.' };
  const top = Math.min(...hitsOn(pattern, spots).map(({ laneId }) => lanes.indexOf(laneId)));
  const landed = landings(removeHits(pattern, spots), clip, around.from + by, top + byLanes, lanes);
  const base = removeHits(pattern, spots);
  let shared = 0;
  const done = put(base, landed, (part, fit) => {
    for (const hit of fit)
      if (part.hits.some((one) => one.step === hit.step && Math.abs(one.nudge - hit.nudge) < 1e-3))
        shared += 1;
    return [...part.hits, ...fit];
  });
  const all = clip.rows.reduce((sum, row) => sum + row.hits.length, 0);
  const here = landed.reduce((sum, { hits }) => sum + hits.length, 0);
  if (done.cut || here < all)
    return { ok: false, error: 'Nothing was moved: some hit would leave the pattern.' };
  const told = shared
    ? [`${count(shared, 'hit')} came onto the very place of another: both are kept, and sound as one.`]
    : [];
  return { ok: true, pattern: done.pattern, spots: done.spots, told };
};
