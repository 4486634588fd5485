import type { Chosen } from './drawings';
import { pitchTop, type PitchScale } from './heights';
import type { HandLetters } from '../../core/play/handLetters';
import type { Material } from '../../core/document/instruments';
import type { Ticks } from '../../core/units';
import type { Bead, Cell } from './drawing';
import { beadSize, beadTop, heightOf, INSET, noteHeight, OPEN_HEIGHT } from './geometry';
import type { Ink } from './ink';

/** What is painted of one lane in one bar. */
export interface Painting {
  /** The bar's first tick, and how much is painted from half a sixteenth before it on. */
  from: Ticks;
  length: Ticks;
  cells: Cell[];
  /** Also those of the bars beside it that reach in. */
  beads: Bead[];
  /** What the lane's own loop repeats: paler. */
  repeats: Bead[];
  knot: Ticks | null;
  /** The length of a beat. */
  beat: Ticks;
}

/** How it is painted. */
export interface Look {
  ink: Ink;
  dye: string;
  material: Material;
  open: boolean;
  /** The height of a lane that is closed, in points. */
  tall: number;
  /** It does not sound: drawn faintly. */
  silent: boolean;
  /** Points for a tick. */
  points: number;
  /** Where height is pitch: the lane's note, and the lowest and highest that are shown. */
  heights?: PitchScale | null;
  /** What is chosen, and the steps that differ from the pattern that this one varies. */
  chosen: Chosen;
  marked: ReadonlySet<number>;
  /** Which hand plays each step, where that is shown. */
  letters?: HandLetters;
}

/** Partings smaller than this are not marked: less than a point on a phone. */
const PARTED_TICKS = 9;
const GUIDES = [127, 96, 64, 32];

type Brush = CanvasRenderingContext2D;

/** From ticks to points on a picture. */
export const across = (picture: Painting, look: Look, tick: Ticks): number =>
  (tick + INSET - picture.from) * look.points;

/** A part of a band from left to right, in points. */
export interface PaintedSpan {
  from: number;
  to: number;
}

/** Half of the widest bead with its ring, and of a letter under it. */
const AROUND_BEAD = 18;
/** Half of a pip, a marker at the foot, or a knot. */
const AROUND_PIP = 8;

const meets = ({ from, to }: PaintedSpan, left: number, right = left): boolean => right >= from && left <= to;

/** From where to where a bead is painted, with its parting; its length too where that is shown. */
const reachOf = (bead: Bead, picture: Painting, look: Look): PaintedSpan => {
  const x = across(picture, look, bead.x);
  const rule = across(picture, look, bead.rule);
  const end = look.open && bead.length !== null ? x + bead.length * look.points : x;
  return { from: Math.min(x, rule) - AROUND_BEAD, to: Math.max(x, rule, end) + AROUND_BEAD };
};

/**
 * The parts of a band that are painted otherwise when beads of some steps are lit or put out, or a lane with a loop of its own
 * stands at them: from left to right, none touching another.
 *
 * @param steps from 0
 */
export const spansOf = (picture: Painting, look: Look, steps: ReadonlySet<number>): PaintedSpan[] => {
  const beads = picture.beads.filter(({ step }) => steps.has(step));
  const cells = picture.cells.filter(({ step }) => steps.has(step));
  const pips = cells.map(({ pip }) => {
    const x = across(picture, look, pip);
    return { from: x - AROUND_PIP, to: x + AROUND_PIP };
  });
  // At whole points no half-covered pixel is left at an edge.
  const spans = [...beads.map((bead) => reachOf(bead, picture, look)), ...pips]
    .map(({ from, to }) => ({ from: Math.floor(from), to: Math.ceil(to) }))
    .sort((a, b) => a.from - b.from);
  const apart: PaintedSpan[] = [];
  for (const span of spans) {
    const last = apart.at(-1);
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else apart.push(span);
  }
  return apart;
};

const vertical = (brush: Brush, x: number, height: number, colour: string): void => {
  brush.fillStyle = colour;
  brush.fillRect(Math.round(x), 0, 1, height);
};

const paintRules = (brush: Brush, picture: Painting, look: Look, height: number, span: PaintedSpan): void => {
  const { from, length, beat } = picture;
  for (let tick = from; tick < from + length; tick += 240) {
    if (!meets(span, across(picture, look, tick) - 1, across(picture, look, tick) + 1)) continue;
    const inBar = tick - from;
    const colour = inBar === 0 ? look.ink.pip : inBar % beat === 0 ? look.ink.line : look.ink.rule;
    vertical(brush, across(picture, look, tick), height, colour);
  }
};

/** Dots of a guide in the open string are so far apart. */
const DOTS = 4;

const paintString = (brush: Brush, width: number, look: Look, span: PaintedSpan): void => {
  if (look.open) {
    brush.fillStyle = look.ink.pip;
    brush.globalAlpha = 0.5;
    const heights = look.heights?.guides.map((note) => noteHeight(note, look.heights!)) ?? GUIDES;
    const first = Math.max(0, DOTS * Math.floor(span.from / DOTS));
    for (const velocity of heights)
      for (let x = first; x < Math.min(width, span.to); x += DOTS)
        brush.fillRect(x, Math.round(beadTop(velocity, true)), 1, 1);
  } else {
    brush.globalAlpha = 0.6;
    brush.fillStyle = look.dye;
    brush.fillRect(0, look.tall / 2, width, 1);
  }
  brush.globalAlpha = 1;
};

const paintPip = (brush: Brush, x: number, y: number, ink: Ink): void => {
  brush.fillStyle = ink.pip;
  brush.beginPath();
  brush.arc(x, y, 2, 0, 2 * Math.PI);
  brush.fill();
};

/** The outline of a bead: skins are round, metal is a lens on its edge, wood a triangle. */
const outline = (brush: Brush, material: Material, x: number, y: number, size: number): void => {
  const half = size / 2;
  brush.beginPath();
  if (material === 'metal') brush.ellipse(x, y, size * 0.22, size * 0.62, 0, 0, 2 * Math.PI);
  else if (material === 'wood') {
    brush.moveTo(x, y - half);
    brush.lineTo(x + half, y + half * 0.8);
    brush.lineTo(x - half, y + half * 0.8);
    brush.closePath();
  } else brush.arc(x, y, half, 0, 2 * Math.PI);
};

/** Chance is how far a bead is filled, from below. */
const fillBead = (brush: Brush, bead: Bead, x: number, y: number, look: Look, colour: string): void => {
  const size = sizeOf(bead);
  const tall = look.material === 'metal' ? size * 1.24 : size;
  outline(brush, look.material, x, y, size);
  brush.fillStyle = colour;
  if (bead.chance >= 1) {
    brush.fill();
    return;
  }
  brush.save();
  brush.clip();
  brush.fillRect(x - size, y + tall / 2 - tall * bead.chance, 2 * size, tall * bead.chance);
  brush.restore();
  outline(brush, look.material, x, y, size - 1.5);
  brush.strokeStyle = colour;
  brush.lineWidth = 1.5;
  brush.stroke();
};

/** Where a bead stands: as high as its velocity, or its pitch; on its string where that is closed. */
const topOf = ({ velocity, pitch }: Bead, look: Look): number =>
  look.open && look.heights ? pitchTop(pitch, look.heights) : beadTop(velocity, look.open, look.tall);

/** Strokes beside the main one are smaller than a single hit of the same velocity. */
export const sizeOf = (bead: Bead): number => beadSize(bead.velocity) * (bead.small ? 0.7 : 1);

const paintBead = (brush: Brush, picture: Painting, bead: Bead, look: Look, lit: boolean): void => {
  const x = across(picture, look, bead.x);
  const y = topOf(bead, look);
  if (look.open) {
    brush.globalAlpha *= 0.5;
    brush.fillStyle = look.dye;
    brush.fillRect(Math.round(x), y, 1, OPEN_HEIGHT - 14 - y);
    brush.globalAlpha *= 2;
  }
  const away = bead.rule - bead.x;
  if (Math.abs(away) >= PARTED_TICKS && bead.stroke === 0) {
    const tall = sizeOf(bead) * (look.material === 'metal' ? 0.62 : 0.5);
    brush.fillStyle = look.ink.quiet;
    brush.fillRect(Math.min(x, x + away * look.points), y - tall - 4, Math.abs(away) * look.points, 1);
  }
  fillBead(brush, bead, x, y, look, lit ? look.ink.text : look.dye);
};

/** What is chosen wears a ring; what differs from the parent a dot above the string. */
const paintMarks = (brush: Brush, picture: Painting, look: Look): void => {
  if (!look.chosen.size && !look.marked.size) return;
  for (const cell of picture.cells) {
    if (look.marked.has(cell.step)) {
      brush.fillStyle = look.ink.woad;
      brush.fillRect(across(picture, look, cell.pip) - 3, 2, 6, 3);
    }
    const places = look.chosen.get(cell.step);
    if (places === undefined) continue;
    brush.strokeStyle = look.ink.woad;
    brush.lineWidth = 2;
    for (const bead of cell.beads) {
      if (bead.stroke !== 0 || (places && !places.has(bead.place))) continue;
      brush.beginPath();
      const radius = sizeOf(bead) * (look.material === 'metal' ? 0.62 : 0.5) + 3;
      brush.arc(across(picture, look, bead.x), topOf(bead, look), radius, 0, 2 * Math.PI);
      brush.stroke();
    }
    if (!cell.velocity) brush.strokeRect(across(picture, look, cell.pip) - 5, heightOf(look) / 2 - 5, 10, 10);
  }
};

/** How far under a bead's middle its hand is written, and at the most: so much above the string's foot. */
const LETTER_UNDER = 4;
const LETTER_FOOT = 3;

/** Which hand plays, under each step that is struck. */
const paintLetters = (brush: Brush, picture: Painting, look: Look, span: PaintedSpan): void => {
  if (!look.letters?.size) return;
  brush.font = '600 10px sans-serif';
  brush.textAlign = 'center';
  brush.textBaseline = 'top';
  brush.fillStyle = look.ink.text;
  const written = new Set<number>();
  for (const bead of picture.beads) {
    const text = look.letters.get(bead.step);
    if (!text || bead.stroke !== 0 || written.has(bead.step)) continue;
    written.add(bead.step);
    const { from, to } = reachOf(bead, picture, look);
    if (!meets(span, from, to)) continue;
    const under = topOf(bead, look) + sizeOf(bead) * (look.material === 'metal' ? 0.62 : 0.5) + LETTER_UNDER;
    brush.fillText(
      text,
      across(picture, look, bead.x),
      Math.min(under, heightOf(look) - 10 - LETTER_FOOT + 2),
    );
  }
};

/** How long a hit lasts, at the foot of the open string; a roll's span too. */
const paintLength = (brush: Brush, picture: Painting, bead: Bead, look: Look): void => {
  if (!look.open || bead.length === null || bead.stroke !== 0) return;
  const x = across(picture, look, bead.x);
  brush.fillStyle = look.dye;
  brush.globalAlpha *= 0.6;
  brush.fillRect(x, OPEN_HEIGHT - 8, Math.max(3, bead.length * look.points), 3);
  brush.globalAlpha /= 0.6;
  brush.fillRect(x + Math.max(3, bead.length * look.points) - 2, OPEN_HEIGHT - 12, 3, 11);
};

/** A lane that keeps a time of its own has its own small marker at the string's foot. */
const paintPlace = (brush: Brush, picture: Painting, look: Look, at: number, height: number): void => {
  const cell = picture.cells.find(({ step }) => step === at);
  if (!cell) return;
  const x = across(picture, look, cell.pip);
  brush.fillStyle = look.ink.text;
  brush.beginPath();
  brush.moveTo(x, height - 8);
  brush.lineTo(x + 5, height - 1);
  brush.lineTo(x - 5, height - 1);
  brush.fill();
};

const paintKnot = (brush: Brush, x: number, look: Look): void => {
  const y = heightOf(look) / 2;
  brush.beginPath();
  brush.arc(x, y, 5, 0, 2 * Math.PI);
  brush.fillStyle = look.open ? look.ink.raised : look.ink.ground;
  brush.fill();
  brush.strokeStyle = look.dye;
  brush.lineWidth = 2;
  brush.stroke();
};

const WHOLE: PaintedSpan = { from: -Infinity, to: Infinity };

/**
 * Paints one bar of a string, in points.
 *
 * @param lit the steps whose beads are sounding, from 0
 * @param at the step that a lane with a loop of its own stands at
 * @param span only what meets this part is painted; the caller holds the brush to it
 */
export const paintPicture = (
  brush: Brush,
  picture: Painting,
  look: Look,
  lit: ReadonlySet<number>,
  at: number | null = null,
  span: PaintedSpan = WHOLE,
): void => {
  const height = heightOf(look);
  const width = picture.length * look.points;
  const strength = look.silent ? 0.45 : 1;
  const inSpan = (bead: Bead) => {
    if (span === WHOLE) return true;
    const { from, to } = reachOf(bead, picture, look);
    return meets(span, from, to);
  };
  brush.clearRect(0, 0, width, height);
  paintRules(brush, picture, look, height, span);
  paintString(brush, width, look, span);
  brush.globalAlpha = strength;
  for (const cell of picture.cells) {
    const x = across(picture, look, cell.pip);
    if (!cell.velocity && meets(span, x - AROUND_PIP, x + AROUND_PIP))
      paintPip(brush, x, height / 2, look.ink);
  }
  for (const bead of picture.repeats) {
    if (!inSpan(bead)) continue;
    brush.globalAlpha = bead.routed ? strength : strength * 0.45;
    paintBead(brush, picture, bead, look, false);
  }
  brush.globalAlpha = strength;
  for (const bead of picture.beads) {
    if (!inSpan(bead)) continue;
    paintLength(brush, picture, bead, look);
    paintBead(brush, picture, bead, look, lit.has(bead.step));
  }
  paintMarks(brush, picture, look);
  paintLetters(brush, picture, look, span);
  if (at !== null) paintPlace(brush, picture, look, at, height);
  brush.globalAlpha = 1;
  if (picture.knot !== null) paintKnot(brush, across(picture, look, picture.knot), look);
};
