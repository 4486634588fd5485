import type { Spot } from '../../core/edit/spots';
import type { Passed, LinePoint } from './line';

export type Doing = 'nothing' | 'paint' | 'velocity' | 'nudge' | 'move' | 'length' | 'line' | 'box' | 'done';

/** What a finger or the mouse has hold of. */
export interface Grip {
  id: number;
  lane: HTMLElement;
  laneId: string;
  step: number;
  /** Which hit of the step it is nearest to, and how many there are. */
  place: number;
  count: number;
  /** It was selected when it was pressed. */
  selected: boolean;
  /** It has been dragged off its string: let go, it is taken off. */
  leaving: boolean;
  /** By how much it has been moved. */
  moved: { steps: number; down: number } | null;
  x: number;
  y: number;
  on: boolean;
  open: boolean;
  touch: boolean;
  /** On a bead, and not only on its step. */
  onBead: boolean;
  doing: Doing;
  last: number;
  /** Where a line that is drawn has come to: the finger, and the bead that it was nearest to. */
  line: { at: LinePoint; last: Passed | null } | null;
  velocity: number;
  /** In semitones against its lane. */
  pitch: number;
  nudge: number;
  length: number | null;
  fine: boolean;
  gesture: string;
  hold: ReturnType<typeof setTimeout> | null;
}

/** The step that something lies in. */
export const cellOf = (target: EventTarget | null): HTMLElement | null =>
  target instanceof Element ? target.closest<HTMLElement>('[data-step]') : null;

/** The lane that a step lies in. */
export const laneOf = (cell: Element): HTMLElement => cell.closest<HTMLElement>('[data-lane]')!;

/** The place of a step. */
export const spotOf = (cell: HTMLElement): Spot => ({
  laneId: laneOf(cell).dataset['lane']!,
  step: Number(cell.dataset['step']),
});

/** The step of the lane in hand that stands at a place across. */
export const stepUnder = (grip: Grip, x: number): number | null => {
  const string = grip.lane.querySelector('.string')!.getBoundingClientRect();
  const cell = cellOf(document.elementFromPoint(x, string.top + 6) ?? null);
  return cell && laneOf(cell) === grip.lane ? Number(cell.dataset['step']) : null;
};

/** The steps from one to another, the first left out. */
export const betweenPoints = (from: number, to: number): number[] => {
  const way = Math.sign(to - from);
  return Array.from({ length: Math.abs(to - from) }, (_, at) => from + way * (at + 1));
};
