import { partOf, patternTicks } from '../../../core/beat/defaults';
import type { Beat, Lane, Part, Pattern } from '../../../core/beat/schema';
import { planLane, type LanePlan, type PlayPlan } from '../../../core/play/plan';
import { bendOf, drawnStrokes, type Drawn } from '../../../core/play/play';
import { held, type Ticks } from '../../../core/units';

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
  /** What the lane's own loop repeats beyond its end. */
  repeats: Bead[];
  /** Where the lane's own loop ends, if before the pattern does. */
  knot: Ticks | null;
}

/** What is left after the base feel is drawn `glass` times as wide, to at most 0.45 of a step. */
const magnified = (stroke: Drawn, base: Ticks, step: Ticks, glass: number): Ticks => {
  const left = stroke.tick - base;
  const most = Math.max(Math.abs(left), 0.45 * step);
  return base + held(left * glass, -most, most);
};

const beadOf = (stroke: Drawn, part: Part, base: Ticks, step: Ticks, glass: number): Bead => ({
  x: magnified(stroke, base, step, glass),
  rule: stroke.rule,
  velocity: stroke.velocity,
  step: stroke.step,
  place: stroke.place,
  stroke: stroke.stroke,
  chance: part.hits.find((hit) => hit.step === stroke.step)?.chance ?? 1,
});

const emptyCells = (plan: PlayPlan, lane: LanePlan, shown: number): Cell[] => {
  const bend = bendOf(plan, lane);
  const centre = (step: number) => bend(step * lane.step);
  return Array.from({ length: shown }, (_, step) => {
    const pip = centre(step);
    const before = step ? centre(step - 1) : pip - lane.step;
    const after = centre(step + 1);
    return { step, pip, left: (before + pip) / 2, right: (pip + after) / 2, velocity: 0, beads: [] };
  });
};

/** What there is to draw of one lane in one pattern. */
export const drawLane = (beat: Beat, pattern: Pattern, lane: Lane, glass: number): LaneDrawing => {
  const part = partOf(pattern, lane.id);
  const lanePlan = planLane(beat, pattern, lane);
  const plan: PlayPlan = {
    tempo: beat.tempo,
    meter: pattern.meter,
    length: patternTicks(pattern),
    lanes: [lanePlan],
  };
  const bend = bendOf(plan, lanePlan);
  const loop = lanePlan.roundTicks;
  const shown = Math.min(lanePlan.steps, Math.ceil(plan.length / lanePlan.step - 1e-9));
  const cells = emptyCells(plan, lanePlan, shown);
  const repeats: Bead[] = [];
  for (const stroke of drawnStrokes(plan, lanePlan)) {
    const bead = beadOf(stroke, part, bend(stroke.rule), lanePlan.step, glass);
    const cell = stroke.rule < loop - 1e-6 ? cells[Math.round(stroke.rule / lanePlan.step)] : undefined;
    if (!cell) repeats.push(bead);
    else {
      cell.beads.push(bead);
      if (stroke.stroke >= 0) cell.velocity = Math.max(cell.velocity, stroke.velocity);
    }
  }
  return { cells, repeats, knot: part.steps !== null && loop < plan.length ? loop : null };
};

const sameBead = (a: Bead, b: Bead | undefined): boolean =>
  !!b &&
  a.x === b.x &&
  a.rule === b.rule &&
  a.velocity === b.velocity &&
  a.chance === b.chance &&
  a.place === b.place &&
  a.stroke === b.stroke;

const sameCell = (a: Cell, b: Cell | undefined): boolean =>
  !!b &&
  a.left === b.left &&
  a.right === b.right &&
  a.pip === b.pip &&
  a.beads.length === b.beads.length &&
  a.beads.every((bead, at) => sameBead(bead, b.beads[at]));

/** Cells that are as they were stay the same objects, so that only what changed is painted anew. */
const reusing = (drawing: LaneDrawing, before: LaneDrawing | undefined): LaneDrawing =>
  before
    ? {
        ...drawing,
        cells: drawing.cells.map((cell, at) => (sameCell(cell, before.cells[at]) ? before.cells[at]! : cell)),
      }
    : drawing;

interface Kept {
  key: unknown[];
  drawing: LaneDrawing;
}

/** Remembers each lane's last drawing: the same object as long as nothing that it shows has changed. */
export const createDrawings = (): ((
  beat: Beat,
  pattern: Pattern,
  lane: Lane,
  glass: number,
) => LaneDrawing) => {
  const kept = new Map<string, Kept>();
  return (beat, pattern, lane, glass) => {
    const part = partOf(pattern, lane.id);
    const key = [beat.id, part, beat.feel, pattern.meter, pattern.bars, beat.tempo, glass];
    const before = kept.get(lane.id);
    if (before?.key.every((one, at) => one === key[at])) return before.drawing;
    const drawing = reusing(drawLane(beat, pattern, lane, glass), before?.drawing);
    kept.set(lane.id, { key, drawing });
    return drawing;
  };
};
