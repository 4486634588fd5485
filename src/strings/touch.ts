import { isOn } from '../../core/edit/hits';
import { sameSpot, type Spot } from '../../core/edit/spots';
import { editShown, setStepShown } from '../store/editing';
import { cursorMoved, hitsSelected, selectionEnded } from '../store/focus';
import { type Store } from '../store/store';
import { betweenPoints, cellOf, laneOf, stepUnder, type Grip } from './grip';
import { createDrags } from './drags';
import { createHand } from './hand';
import { pitchAt } from './heights';
import { hearHit } from './hearHit';

/**
 * What a hand does on the strings. Closed: a tap sets a step, a drag along paints or erases, a drag on a selected hit moves all
 * that are selected. Open: a tap on a hit selects it, on an empty step adds one; twice takes it off. A bead is dragged up and down
 * for velocity, off its string to take it off, sideways for nudge and beyond that from step to step, at its foot for length; a drag
 * over several beads draws their velocities. Held, or with Shift: what it touches is selected, and a drag selects a box.
 */

/** Movement, in points, before a press becomes a drag. */
const SLACK = { mouse: 3, touch: 8 };
/** After this long a press has been painted. */
const FOCUS_MS = 80;
/** A press that stays so long chooses. */
const HOLD_MS = 420;
/** Taps on one hit that follow one another faster than this take it off. */
const TWICE_MS = 350;

export interface Touch {
  down(event: PointerEvent): void;
  move(event: PointerEvent): void;
  up(event: PointerEvent): void;
  cancel(): void;
  /** Keeps the focus out of the way of the paint: it comes a moment later. */
  mouseDown(event: MouseEvent): void;
  /** A click without a pointer: assistive technology. */
  click(event: MouseEvent): void;
  /** Whether a finger is choosing or shaping, so that the page must not scroll under it. */
  holds(): boolean;
}

export const createTouch = (store: Store): Touch => {
  let grip: Grip | null = null;
  let tapped: (Spot & { at: number }) | null = null;

  const hand = createHand(store);
  const { part, scale, pitches, own, begin, dragged, say } = hand;
  const drags = createDrags(store, hand);

  const put = (laneId: string, step: number, on: boolean, gesture?: string) => {
    if (isOn(part(laneId), step) === on) return;
    setStepShown(store, { laneId, step, on }, gesture);
    const hit = part(laneId).hits.find((one) => one.step === step);
    if (on && hit) hearHit(store, laneId, hit.velocity);
  };

  const toggle = (laneId: string, step: number) => put(laneId, step, !isOn(part(laneId), step));

  const choose = (spot: Spot) => {
    const { selection: spots } = store.getState().focus;
    const same = (one: Spot) => one.laneId === spot.laneId && one.step === spot.step;
    const next = spots.some(same) ? spots.filter((one) => !same(one)) : [...spots, spot];
    store.dispatch(hitsSelected({ spots: next, cursor: spot }));
  };

  const selectOnly = (spot: Spot) =>
    store.dispatch(hitsSelected({ spots: [spot], cursor: spot, pasteAt: spot }));

  /** Puts a hit where the open string is tapped: as high as that is, where height is pitch. */
  const putAt = (one: Grip) => {
    const heights = pitches(one.laneId);
    if (!heights) return put(one.laneId, one.step, true);
    const { box } = scale(one.lane, one.laneId);
    const to = pitchAt(heights, one.y - box.top);
    const { laneId, step } = one;
    setStepShown(store, { laneId, step, on: true }, one.gesture);
    editShown(store, { edit: 'setPitches', args: { spots: [{ laneId, step }], to } }, one.gesture);
    const hit = part(laneId).hits.find((each) => each.step === step);
    if (hit) hearHit(store, laneId, hit.velocity, to);
  };

  /** A tap in the open string: on a hit it selects, twice it takes off; on an empty step it adds one. */
  const tapOpen = (one: Grip, time: number) => {
    const spot = own(one);
    if (!one.on) {
      putAt(one);
      selectOnly(spot);
      tapped = null;
      return;
    }
    const again = tapped && sameSpot(tapped, spot) && time - tapped.at < TWICE_MS;
    tapped = again ? null : { ...spot, at: time };
    if (!again) {
      selectOnly(spot);
      return;
    }
    if (one.count > 1) editShown(store, { edit: 'removeHits', args: { spots: [spot] } });
    else put(one.laneId, one.step, false);
    store.dispatch(selectionEnded());
  };

  const paint = (one: Grip, x: number) => {
    const step = stepUnder(one, x);
    if (step === null) return;
    for (const each of betweenPoints(one.last, step)) put(one.laneId, each, !one.on, one.gesture);
    one.last = step;
  };

  const decide = (one: Grip, dx: number, dy: number) => {
    const slack = one.touch ? SLACK.touch : SLACK.mouse;
    if (Math.max(Math.abs(dx), Math.abs(dy)) < slack) return;
    if (one.hold) clearTimeout(one.hold);
    const upright = Math.abs(dy) > Math.abs(dx);
    if (one.open && one.on && one.onBead) one.doing = upright ? 'velocity' : 'nudge';
    else if (!one.open && one.selected) one.doing = 'move';
    else if (one.open && (!one.touch || !upright)) one.doing = 'line';
    else if (!one.open && (!upright || !one.touch)) {
      one.doing = 'paint';
      put(one.laneId, one.step, !one.on, one.gesture);
    }
  };

  const startHold = (one: Grip) =>
    setTimeout(() => {
      if (grip !== one || one.doing !== 'nothing') return;
      one.doing = 'box';
      choose({ laneId: one.laneId, step: one.step });
      navigator.vibrate?.(10);
    }, HOLD_MS);

  const cursorTo = (one: Grip) => {
    const { cursor } = store.getState().focus;
    const at = { laneId: one.laneId, step: one.step };
    if (cursor?.laneId !== one.laneId || cursor.step !== one.step)
      store.dispatch(cursorMoved({ cursor: at, pasteAt: at }));
  };

  const finish = (one: Grip) => {
    if (one.hold) clearTimeout(one.hold);
    one.lane.classList.remove('leaving');
    say(one, '');
  };

  return {
    down: (event) => {
      const cell = cellOf(event.target);
      if (grip && event.pointerId !== grip.id) grip.fine = true;
      if (!cell || event.button !== 0 || grip) return;
      grip = begin(event, cell);
      if (event.shiftKey && !grip.touch) {
        grip.doing = 'box';
        choose({ laneId: grip.laneId, step: grip.step });
        return;
      }
      if (store.getState().input.eraser) {
        grip.on = true;
        grip.doing = 'paint';
        put(grip.laneId, grip.step, false, grip.gesture);
        return;
      }
      grip.hold = startHold(grip);
      if (grip.touch || grip.open || grip.selected) return;
      clearTimeout(grip.hold);
      grip.doing = 'paint';
      put(grip.laneId, grip.step, !grip.on, grip.gesture);
    },
    move: (event) => {
      const one = grip;
      if (!one || event.pointerId !== one.id) return;
      if (one.doing === 'nothing') decide(one, event.clientX - one.x, event.clientY - one.y);
      one.fine ||= event.shiftKey || event.ctrlKey;
      if (one.doing === 'paint') paint(one, event.clientX);
      if (one.doing === 'velocity') drags.velocity(one, event.clientY);
      if (one.doing === 'nudge') drags.nudge(one, event.clientX);
      if (one.doing === 'move') drags.move(one, event.clientX, event.clientY);
      if (one.doing === 'length') drags.length(one, event.clientX);
      if (one.doing === 'line') drags.line(one, event.clientX, event.clientY);
      const far = Math.hypot(event.clientX - one.x, event.clientY - one.y) > SLACK.touch;
      if (one.doing === 'box' && far) drags.box(one, event.clientX, event.clientY);
    },
    up: (event) => {
      if (!grip || event.pointerId !== grip.id) return;
      const one = grip;
      grip = null;
      if (one.doing === 'nothing' && one.open) tapOpen(one, event.timeStamp);
      else if (one.doing === 'nothing') toggle(one.laneId, one.step);
      if (one.leaving) {
        editShown(store, { edit: 'removeHits', args: { spots: dragged(one) } }, one.gesture, true);
        store.dispatch(selectionEnded());
      }
      drags.settle(one);
      if (one.doing !== 'box' && !one.moved) cursorTo(one);
      finish(one);
    },
    cancel: () => {
      if (grip) finish(grip);
      grip = null;
    },
    holds: () => grip !== null && grip.doing !== 'nothing',
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
