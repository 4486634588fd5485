import { feelOf, lanePatternOf, patternTicks } from '../../core/document/defaults';
import type { Beat, Feel, Hit, Lane, Pattern } from '../../core/document/schema';
import { planLane, type LanePlan } from '../../core/play/plan';
import { bendOf, drawnStrokes, type Drawn } from '../../core/play/notes';
import { DETOUR_HITS } from '../../core/play/moves/detours';
import { sparksTo } from '../../core/play/moves/sparks';
import { clamp, QUARTER, type Semitones, type Ticks } from '../../core/units';

/** A bead: where a stroke sounds and how hard. Positions are in ticks from the pattern's start. */
export interface Bead {
  x: Ticks;
  /** The straight grid's position that it belongs to. */
  rule: Ticks;
  velocity: number;
  /** The step that it is a stroke of, from 0. */
  step: number;
  place: number;
  stroke: number;
  chance: number;
  /** Semitones against its lane's note. */
  pitch: Semitones;
  /** Heard elsewhere than it is written, and painted in full there. */
  routed?: true;
  /** One of several strokes of a hit: grace strokes and rolls. */
  small: boolean;
  /** How long the hit lasts, in ticks; null where it rings out. */
  length: Ticks | null;
}

/** A step as it is drawn and touched: its cell bends with the base feel as its bead does. */
export interface Cell {
  step: number;
  left: Ticks;
  right: Ticks;
  /** Where an empty step's pip stands. */
  pip: Ticks;
  /** The strongest hit's velocity; 0 where there is none. */
  velocity: number;
  beads: Bead[];
}

export interface LaneDrawing {
  cells: Cell[];
  /** The same cells for the hand: another list only where a step, its place or its velocity is another. */
  hands: Cell[];
  /** What the lane's own loop repeats beyond its end. */
  repeats: Bead[];
  /** Where the lane's own loop ends, if before the pattern does. */
  knot: Ticks | null;
  /** Only what is in sight is as it is now. */
  partly?: true;
}

/** What is left after the base feel is drawn `glass` times as wide, to at most 0.45 of a step. */
export const magnified = (stroke: Drawn, base: Ticks, step: Ticks, glass: number): Ticks => {
  const left = stroke.tick - base;
  const most = Math.max(Math.abs(left), 0.45 * step);
  return base + clamp(left * glass, -most, most);
};

const beadOf = (stroke: Drawn, hit: Hit | undefined, base: Ticks, step: Ticks, glass: number): Bead => ({
  x: magnified(stroke, base, step, glass),
  rule: stroke.gridTick,
  velocity: stroke.velocity,
  pitch: stroke.pitch,
  step: stroke.step,
  place: stroke.hitIndex,
  stroke: stroke.stroke,
  chance: (hit?.chance ?? 1) * (hit?.passes ? new Set(hit.passes.on).size / hit.passes.of : 1),
  small: stroke.kind !== 'main' || hit?.roll !== undefined,
  length: hit?.length == null ? null : hit.length * step,
});

/**
 * The steps from left to right. A lane read backward has its first step at the right end, so that a cell stands where its
 * bead sounds; the other orders come to a step at changing times, and their cells stand in the written order.
 */
const readOnce = (lane: LanePlan, shown: number): number[] =>
  Array.from({ length: shown }, (_, at) => (lane.direction === 'backward' ? lane.steps - 1 - at : at));

const emptyCells = (lane: LanePlan, order: number[]): Cell[] => {
  const bend = bendOf(lane);
  const centre = (step: number) => bend(step * lane.step);
  return order.map((step, at) => {
    const pip = centre(at);
    const before = at ? centre(at - 1) : pip - lane.step;
    const after = centre(at + 1);
    return { step, pip, left: (before + pip) / 2, right: (pip + after) / 2, velocity: 0, beads: [] };
  });
};

/** Lanes whose order is drawn by chance: their hits are outlined where they are written, and paler where they sound. */
const wanders = ({ direction }: LanePlan): boolean => direction === 'random' || direction === 'walk';

const writtenBead = (cell: Cell, pitch: Semitones): Bead => ({
  x: cell.pip,
  rule: cell.pip,
  velocity: cell.velocity,
  pitch,
  step: cell.step,
  place: 0,
  stroke: 0,
  chance: 0,
  small: false,
  length: null,
});

/** A part of a pattern, from where to where. */
export interface Part {
  from: Ticks;
  to: Ticks;
}

const WHOLE: Part = { from: 0, to: Infinity };

/**
 * What there is to draw of one lane in one pattern.
 *
 * @param tried its hits are only tried: their beads are open
 * @param within only strokes of steps within it are drawn
 */
export const drawLane = (
  beat: Beat,
  pattern: Pattern,
  lane: Lane,
  glass: number,
  tried = false,
  within: Part = WHOLE,
): LaneDrawing => {
  const part = lanePatternOf(pattern, lane.id);
  const lanePlan = planLane(beat, pattern, lane);
  const length = patternTicks(pattern);
  const turned = lanePlan.detour !== null;
  const bend = bendOf(lanePlan);
  const loop = lanePlan.cycleTicks;
  const shown = Math.min(lanePlan.steps, Math.ceil(length / lanePlan.step - 1e-9));
  const order = readOnce(lanePlan, shown);
  const cells = emptyCells(lanePlan, order);
  const bySpot = new Map(cells.map((cell, at) => [at, cell]));
  const repeats: Bead[] = [];
  for (const stroke of drawnStrokes(lanePlan, length, within)) {
    const added = stroke.kind === 'echo' || stroke.kind === 'spark';
    const hit =
      stroke.kind === 'spark' ? undefined : lanePlan.byStep[stroke.step]?.[stroke.hitIndex % DETOUR_HITS];
    // What moves add stands where it sounds, and has no rule of its own.
    const rule = added ? stroke.tick : bend(stroke.gridTick);
    const bead = beadOf(stroke, hit, rule, lanePlan.step, glass);
    if (added) bead.rule = stroke.tick;
    const silent = stroke.kind === 'main' && lanePlan.echoes?.withoutHit;
    if (tried || silent) bead.chance = 0;
    const cell =
      stroke.gridTick < loop - 1e-6 ? bySpot.get(Math.round(stroke.gridTick / lanePlan.step)) : undefined;
    if (cell?.step === stroke.step && !added && !wanders(lanePlan)) cell.beads.push(bead);
    else {
      // By a detour it sounds here: what is written is but outlined, and this is what counts.
      if (turned && !added && stroke.gridTick < loop - 1e-6) bead.routed = true;
      repeats.push(bead);
    }
  }
  for (const cell of cells) {
    const hits = lanePlan.byStep[cell.step] ?? [];
    cell.velocity = hits.reduce((most, hit) => Math.max(most, hit.velocity), 0);
    if (cell.velocity && (wanders(lanePlan) || (turned && !cell.beads.length)))
      cell.beads = [writtenBead(cell, hits[0]?.pitch ?? 0)];
  }
  return { cells, hands: cells, repeats, knot: part.steps !== null && loop < length ? loop : null };
};

const sameBead = (a: Bead, b: Bead | undefined): boolean =>
  !!b &&
  a.x === b.x &&
  a.rule === b.rule &&
  a.velocity === b.velocity &&
  a.pitch === b.pitch &&
  a.chance === b.chance &&
  a.place === b.place &&
  a.small === b.small &&
  a.length === b.length &&
  a.step === b.step &&
  a.stroke === b.stroke;

const sameHand = (a: Cell, b: Cell | undefined): boolean =>
  !!b && a.step === b.step && a.left === b.left && a.right === b.right && a.velocity === b.velocity;

const sameCell = (a: Cell, b: Cell | undefined): boolean =>
  !!b &&
  sameHand(a, b) &&
  a.pip === b.pip &&
  a.beads.length === b.beads.length &&
  a.beads.every((bead, at) => sameBead(bead, b.beads[at]));

const sameHands = (a: Cell[], b: Cell[]): boolean =>
  a.length === b.length && a.every((cell, at) => sameHand(cell, b[at]));

/** Whether cells differ only in where they stand. @example onlyMoved(cells, cells) // true */
export const onlyMoved = (a: Cell[], b: Cell[]): boolean =>
  a.length === b.length &&
  a.every((cell, at) => cell.step === b[at]!.step && cell.velocity === b[at]!.velocity);

/** Cells that are as they were stay the same objects, so that only what changed is painted anew. */
const reusing = (drawing: LaneDrawing, before: LaneDrawing | undefined): LaneDrawing =>
  before
    ? {
        ...drawing,
        hands: sameHands(drawing.cells, before.hands) ? before.hands : drawing.cells,
        cells: drawing.cells.map((cell, at) => (sameCell(cell, before.cells[at]) ? before.cells[at]! : cell)),
      }
    : drawing;

/** A cell at the edge may be told by a step beyond it. */
const withAround = ({ from, to }: Part): Part => ({ from: from - QUARTER, to: to + QUARTER });

/** What is in sight as it is now, the rest as it was drawn before. */
const partOf = (fresh: LaneDrawing, before: LaneDrawing, { from, to }: Part): LaneDrawing => {
  const cells = before.cells.map((cell, at) => {
    const { left, right } = fresh.cells[at]!;
    return right > from && left < to ? fresh.cells[at]! : cell;
  });
  return { ...before, cells, hands: cells, partly: true };
};

interface Kept {
  /** All that it was drawn of: as long as none of it has changed there is nothing to look up. */
  of: unknown[];
  key: unknown[];
  feel: Feel;
  drawing: LaneDrawing;
}

/** Remembers each lane's last drawing: the same object as long as nothing that it shows has changed. */
export const createDrawings = (): ((
  beat: Beat,
  pattern: Pattern,
  lane: Lane,
  glass: number,
  tried?: boolean,
  /** While a feel is turned only what is in sight need be drawn; null draws all. */
  sight?: Part | null,
) => LaneDrawing) => {
  const kept = new Map<string, Kept>();
  return (beat, pattern, lane, glass, tried = false, sight = null) => {
    const before = kept.get(lane.id);
    const serves = before && (!before.drawing.partly || sight);
    const of = [beat, pattern, glass, tried];
    if (serves && before.of.every((one, at) => one === of[at])) return before.drawing;
    const part = lanePatternOf(pattern, lane.id);
    const feel = feelOf(beat, pattern);
    // Others decide what it plays where they set it off, or where strokes of all are counted.
    const others = (feel.stagger ?? sparksTo(beat, pattern, lane.id).length) ? pattern.parts : null;
    const { meter, bars, detour } = pattern;
    const key = [beat.id, part, meter, bars, detour, others, tried, beat.tempo, glass];
    const same = before?.key.every((one, at) => one === key[at]);
    if (serves && same && before.feel === feel) {
      before.of = of;
      return before.drawing;
    }
    // What stands elsewhere than in its own cell is drawn with all.
    const inPart =
      same && sight && !detour && !before!.drawing.repeats.length && part.direction === 'forward';
    const fresh = drawLane(beat, pattern, lane, glass, tried, inPart ? withAround(sight) : WHOLE);
    const drawing = reusing(inPart ? partOf(fresh, before!.drawing, sight) : fresh, before?.drawing);
    kept.set(lane.id, { of, key, feel, drawing });
    return drawing;
  };
};
