import { isOn } from '../../../core/pattern/hits';
import { partOf, patternTicks } from '../../../core/beat/defaults';
import { held } from '../../../core/units';
import { stepSet, velocitySet } from '../../state/doc';
import type { Store } from '../../state/store';
import { selectPattern } from '../../state/store';

import type { Bead } from './drawing';
import { laneDrawing } from './drawings';
import { AROUND, beadTop, INSET } from './geometry';

/** What a hand does on the strings: taps, painting along a string, and velocity in the open one. */

interface Grip {
  id: number;
  lane: HTMLElement;
  laneId: string;
  step: number;
  place: number;
  x: number;
  y: number;
  on: boolean;
  touch: boolean;
  doing: 'nothing' | 'paint' | 'velocity' | 'done';
  last: number;
  velocity: number;
  gesture: string;
}

const cellOf = (target: EventTarget | null): HTMLElement | null =>
  target instanceof Element ? target.closest<HTMLElement>('[data-step]') : null;

const laneOf = (cell: Element): HTMLElement => cell.closest<HTMLElement>('[data-lane]')!;

/** Movement, in points, before a press becomes a drag. */
const SLACK = { mouse: 3, touch: 8 };
/** After this long a press has been painted. */
const FOCUS_MS = 80;
/** Points of height for the whole range of velocity in the open string. */
const VELOCITY_POINTS = 96;

const stepUnder = (grip: Grip, x: number): number | null => {
  const string = grip.lane.querySelector('.string')!.getBoundingClientRect();
  const cell = cellOf(document.elementFromPoint(x, string.top + 6) ?? null);
  return cell && laneOf(cell) === grip.lane ? Number(cell.dataset['step']) : null;
};

const between = (from: number, to: number): number[] => {
  const way = Math.sign(to - from);
  return Array.from({ length: Math.abs(to - from) }, (_, at) => from + way * (at + 1));
};

export interface Touch {
  down(event: PointerEvent): void;
  move(event: PointerEvent): void;
  up(event: PointerEvent): void;
  cancel(): void;
  /** Keeps the focus out of the way of the paint: it comes a moment later. */
  mouseDown(event: MouseEvent): void;
  /** A click without a pointer: assistive technology. */
  click(event: MouseEvent): void;
}

export const createTouch = (store: Store): Touch => {
  let grip: Grip | null = null;

  const part = (laneId: string) => partOf(selectPattern(store.getState())!, laneId);
  const patternId = () => selectPattern(store.getState())!.id;

  const put = (laneId: string, step: number, on: boolean, gesture?: string) =>
    store.dispatch(stepSet({ patternId: patternId(), laneId, step, on, ...(gesture && { gesture }) }));

  const toggle = (laneId: string, step: number) => put(laneId, step, !isOn(part(laneId), step));

  /** Which hit of a step is meant: the one whose bead is nearest. */
  const placeUnder = (event: PointerEvent, lane: HTMLElement, laneId: string, step: number): number => {
    const state = store.getState();
    const beads = laneDrawing(
      state,
      state.doc.beat!.lanes.find(({ id }) => id === laneId)!,
    )?.cells[step]?.beads;
    if (!beads || beads.length < 2) return 0;
    const string = lane.querySelector('.string')!;
    const box = string.getBoundingClientRect();
    const points = box.width / (patternTicks(selectPattern(state)!) + AROUND);
    const open = lane.classList.contains('open');
    const away = (bead: Bead) =>
      Math.hypot(
        (bead.x + INSET) * points - (event.clientX - box.left),
        beadTop(bead.velocity, open) - (event.clientY - box.top),
      );
    return beads.reduce((best, bead) => (away(bead) < away(best) ? bead : best)).place;
  };

  const begin = (event: PointerEvent, cell: HTMLElement): Grip => {
    const lane = laneOf(cell);
    const laneId = lane.dataset['lane']!;
    const step = Number(cell.dataset['step']);
    const place = placeUnder(event, lane, laneId, step);
    const hits = part(laneId).hits.filter((hit) => hit.step === step);
    return {
      id: event.pointerId,
      lane,
      laneId,
      step,
      place,
      x: event.clientX,
      y: event.clientY,
      on: hits.length > 0,
      touch: event.pointerType === 'touch',
      doing: 'nothing',
      last: step,
      velocity: hits.sort((a, b) => a.nudge - b.nudge)[place]?.velocity ?? 0,
      gesture: `touch ${event.timeStamp}`,
    };
  };

  const paint = (one: Grip, x: number) => {
    const step = stepUnder(one, x);
    if (step === null) return;
    for (const each of between(one.last, step)) put(one.laneId, each, !one.on, one.gesture);
    one.last = step;
  };

  const drawVelocity = (one: Grip, y: number) => {
    const velocity = Math.round(held(one.velocity + ((one.y - y) * 126) / VELOCITY_POINTS, 1, 127));
    const { laneId, step, place, gesture } = one;
    store.dispatch(velocitySet({ patternId: patternId(), laneId, step, velocity, place, gesture }));
    const reading = one.lane.querySelector('.reading');
    if (reading) reading.textContent = `velocity ${velocity}`;
  };

  const decide = (one: Grip, dx: number, dy: number) => {
    const slack = one.touch ? SLACK.touch : SLACK.mouse;
    if (Math.max(Math.abs(dx), Math.abs(dy)) < slack) return;
    const open = one.lane.classList.contains('open');
    if (open && one.on && Math.abs(dy) > Math.abs(dx)) one.doing = 'velocity';
    else if (Math.abs(dx) >= Math.abs(dy) || !one.touch) {
      one.doing = 'paint';
      put(one.laneId, one.step, !one.on, one.gesture);
    }
  };

  return {
    down: (event) => {
      const cell = cellOf(event.target);
      if (!cell || event.button !== 0 || grip) return;
      grip = begin(event, cell);
      const waits = grip.touch || (grip.on && grip.lane.classList.contains('open'));
      if (waits) return;
      grip.doing = 'paint';
      put(grip.laneId, grip.step, !grip.on, grip.gesture);
    },
    move: (event) => {
      if (!grip || event.pointerId !== grip.id) return;
      if (grip.doing === 'nothing') decide(grip, event.clientX - grip.x, event.clientY - grip.y);
      if (grip.doing === 'paint') paint(grip, event.clientX);
      if (grip.doing === 'velocity') drawVelocity(grip, event.clientY);
    },
    up: (event) => {
      if (!grip || event.pointerId !== grip.id) return;
      if (grip.doing === 'nothing') toggle(grip.laneId, grip.step);
      const reading = grip.lane.querySelector('.reading');
      if (reading) reading.textContent = '';
      grip = null;
    },
    cancel: () => {
      grip = null;
    },
    mouseDown: (event) => {
      const cell = cellOf(event.target);
      if (!cell) return;
      event.preventDefault();
      setTimeout(() => cell.focus({ preventScroll: true }), FOCUS_MS);
    },
    click: (event) => {
      const cell = cellOf(event.target);
      if (cell && event.detail === 0) toggle(laneOf(cell).dataset['lane']!, Number(cell.dataset['step']));
    },
  };
};
