import { RANGES } from './ranges';
import type { Grace, Roll, Spacing } from './schema';
import { clamp, type Ms } from '../units';

export const STROKES = RANGES.strokes;

/**
 * A roll whose strokes rise or fall from the first to the last.
 *
 * @param strokes 2 to 16, held to it
 * @param slope -1 falls from full to a fifth, 0 is level, 1 rises from a fifth to full
 * @example sloped(3, 1).levels // [0.2, 0.6, 1]
 */
export const sloped = (strokes: number, slope: number, curve = 0, spacing: Spacing = 'even'): Roll => {
  const count = Math.round(clamp(strokes, STROKES.least, STROKES.most));
  const lean = clamp(slope, -1, 1) * 0.8;
  const level = (x: number) => 1 - Math.abs(lean) * (lean >= 0 ? 1 - x : x);
  const levels = Array.from({ length: count }, (_, at) => Math.round(level(at / (count - 1)) * 1000) / 1000);
  return { curve: clamp(curve, -1, 1), levels, ...(spacing !== 'even' && { spacing }) };
};

/** Many soft strokes that press into one: ten, swelling, closing up. */
export const PRESS_ROLL: Roll = sloped(10, 0.55, 0.25);

/** Whether a roll is such a press, by one hand. @example isPressed(PRESS_ROLL) // true */
export const isPressed = ({ curve, levels }: Roll): boolean =>
  curve === PRESS_ROLL.curve && levels.length === PRESS_ROLL.levels.length;

/**
 * The same roll with another number of strokes; its levels keep their shape.
 *
 * @example withStrokes(sloped(3, 0), 5).levels.length // 5
 */
export const withStrokes = (roll: Roll, strokes: number): Roll => {
  const count = Math.round(clamp(strokes, STROKES.least, STROKES.most));
  const last = roll.levels.length - 1;
  const levels = Array.from({ length: count }, (_, at) => {
    const x = (at / (count - 1)) * last;
    const below = Math.floor(x);
    const part = x - below;
    const level = roll.levels[below]! * (1 - part) + (roll.levels[Math.min(last, below + 1)] ?? 1) * part;
    return Math.round(level * 1000) / 1000;
  });
  return { ...roll, levels };
};

/** How close grace strokes stand before their main one, in ms each. */
const TIGHT: Ms = 14;
const OPEN: Ms = 32;

const graces = (count: number, apart: Ms, level: number): Grace[] =>
  Array.from({ length: count }, (_, at) => ({ before: apart * (at + 1), level }));

/** Grace strokes by name: one before the hit is a flam, two a drag, three a ruff. */
export const GRACES: { id: string; name: string; grace: Grace[] }[] = [
  { id: 'flam.tight', name: 'Tight flam', grace: graces(1, TIGHT, 0.5) },
  { id: 'flam.open', name: 'Open flam', grace: graces(1, OPEN, 0.6) },
  { id: 'drag.tight', name: 'Tight drag', grace: graces(2, TIGHT + 8, 0.45) },
  { id: 'drag.open', name: 'Open drag', grace: graces(2, OPEN + 6, 0.5) },
  { id: 'ruff.tight', name: 'Tight ruff', grace: graces(3, TIGHT + 8, 0.4) },
  { id: 'ruff.open', name: 'Open ruff', grace: graces(3, OPEN + 6, 0.45) },
];

/** The name of so many grace strokes. @example graceName(2) // "drag" */
export const graceName = (count: number): string => ['none', 'flam', 'drag', 'ruff'][count] ?? 'none';
