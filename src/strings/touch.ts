import { allShown } from '../web/shown';
import { hintDone } from '../store/look';
import { lanePatternOf, patternTicks } from '../../core/document/defaults';
import { rateOf } from '../../core/play/reading';
import { isOn } from '../../core/edit/hits';
import { gridTicks } from '../../core/document/grid';
import { hitsOn, sameSpot, type Spot } from '../../core/edit/spots';
import { noteName } from '../../core/document/noteName';
import { clamp, ticksPerMs, type MidiNote } from '../../core/units';
import { editShown, setStepShown } from '../store/editing';
import { cursorMoved, hitsSelected, selectionMoved, type Heights, selectionEnded } from '../store/focus';
import { selectPattern, type Store } from '../store/store';
import type { Bead } from './drawing';
import { laneDrawing } from './drawings';
import { AROUND, beadTop, INSET, OPEN_HEIGHT, VELOCITY_POINTS, velocityAtHeight } from './geometry';
import { betweenPoints, cellOf, laneOf, spotOf, stepUnder, type Grip } from './grip';
import { boxBetween } from './box';
import { heightsOf, pitchAt, pitchScale, pitchTop } from './heights';
import { hearHit } from './hearHit';
import { passed } from './line';
import { words } from '../words/strings';

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
/** A bead is met this far around its middle. */
const BEAD_POINTS = 18;
/** Taps on one hit that follow one another faster than this take it off. */
const TWICE_MS = 350;
/** A bead is off its string this far above or below it. */
const OFF_POINTS = 36;
/** So much of a step a bead is nudged sideways; dragged further it goes from step to step. */
const NUDGE_SHARE = 0.75;
/** How much finer a drag is with a modifier key or a second finger. */
const FINE = 0.1;

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

  const shown = () => selectPattern(store.getState())!;
  const part = (laneId: string) => lanePatternOf(shown(), laneId);

  const put = (laneId: string, step: number, on: boolean, gesture?: string) => {
    if (isOn(part(laneId), step) === on) return;
    setStepShown(store, { laneId, step, on }, gesture);
    const hit = part(laneId).hits.find((one) => one.step === step);
    if (on && hit) hearHit(store, laneId, hit.velocity);
  };

  const toggle = (laneId: string, step: number) => put(laneId, step, !isOn(part(laneId), step));

  const laneById = (laneId: string) => store.getState().doc.beat!.lanes.find(({ id }) => id === laneId)!;

  /** Points for a tick, and for a step of a lane. */
  const scale = (lane: HTMLElement, laneId: string) => {
    const box = lane.querySelector('.string')!.getBoundingClientRect();
    const points = box.width / (patternTicks(shown()) + AROUND);
    const beat = store.getState().doc.beat!;
    const { grid, rate } = part(laneId);
    return { box, points, step: gridTicks(grid) / rateOf(rate), beat };
  };

  /** The bead nearest to a point among those of a step, and how far away it is. */
  const beadUnder = (event: PointerEvent, lane: HTMLElement, laneId: string, step: number) => {
    const drawing = laneDrawing(store.getState(), laneById(laneId));
    const beads = drawing?.cells
      .find((cell) => cell.step === step)
      ?.beads.filter(({ stroke }) => stroke >= 0);
    if (!beads?.length) return null;
    const { box, points } = scale(lane, laneId);
    const open = lane.classList.contains('open');
    const heights = open ? pitches(laneId) : null;
    const pitched = heights && pitchScale(heights);
    const away = (bead: Bead) =>
      Math.hypot(
        (bead.x + INSET) * points - (event.clientX - box.left),
        (pitched ? pitchTop(bead.pitch, pitched) : beadTop(bead.velocity, open, box.height)) -
          (event.clientY - box.top),
      );
    const bead = beads.reduce((best, one) => (away(one) < away(best) ? one : best));
    return { bead, away: away(bead), foot: event.clientY - box.top > OPEN_HEIGHT - 20 };
  };

  const pitches = (laneId: string) => heightsOf(store.getState(), laneId);

  const choose = (spot: Spot) => {
    const { selection: spots } = store.getState().focus;
    const same = (one: Spot) => one.laneId === spot.laneId && one.step === spot.step;
    const next = spots.some(same) ? spots.filter((one) => !same(one)) : [...spots, spot];
    store.dispatch(hitsSelected({ spots: next, cursor: spot }));
  };

  /** The hit that is held: named by its place only where its step has several. */
  const own = ({ laneId, step, place, count }: Grip): Spot =>
    count > 1 ? { laneId, step, place } : { laneId, step };

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
    selectionEnded();
  };

  const begin = (event: PointerEvent, cell: HTMLElement): Grip => {
    const lane = laneOf(cell);
    const { laneId, step } = spotOf(cell);
    const open = lane.classList.contains('open');
    const under = beadUnder(event, lane, laneId, step);
    const place = under?.bead.place ?? 0;
    const hits = part(laneId).hits.filter((hit) => hit.step === step);
    const hit = [...hits].sort((a, b) => a.nudge - b.nudge)[place];
    const { selection: spots } = store.getState().focus;
    return {
      id: event.pointerId,
      lane,
      laneId,
      step,
      place,
      count: hits.length,
      selected:
        hits.length > 0 &&
        spots.some(
          (spot) =>
            spot.laneId === laneId &&
            spot.step === step &&
            (spot.place === undefined || spot.place === place),
        ),
      leaving: false,
      moved: null,
      x: event.clientX,
      y: event.clientY,
      on: hits.length > 0,
      open,
      touch: event.pointerType === 'touch',
      onBead: !!under && (under.away < BEAD_POINTS || !open),
      doing: open && under?.foot && hit?.length != null ? 'length' : 'nothing',
      last: step,
      line: null,
      velocity: hit?.velocity ?? 0,
      pitch: hit?.pitch ?? 0,
      nudge: hit?.nudge ?? 0,
      length: hit?.length ?? null,
      fine: event.shiftKey,
      gesture: `touch ${event.timeStamp}`,
      hold: null,
    };
  };

  const say = (one: Grip, text: string) => {
    const reading = one.lane.querySelector('.reading');
    if (reading) reading.textContent = text;
  };

  const sayNote = (one: Grip, note: MidiNote) =>
    say(one, noteName(note, store.getState().look.noteNames) || String(note));

  const paint = (one: Grip, x: number) => {
    const step = stepUnder(one, x);
    if (step === null) return;
    for (const each of betweenPoints(one.last, step)) put(one.laneId, each, !one.on, one.gesture);
    one.last = step;
  };

  /** The selected hits go together with the one that is dragged, each by the same amount. */
  const dragged = (one: Grip): Spot[] => (one.selected ? store.getState().focus.selection : [own(one)]);

  const velocityNow = (one: Grip): number => hitsOn(shown(), [own(one)])[0]?.hit.velocity ?? one.velocity;

  const drawVelocity = (one: Grip, y: number) => {
    const { box } = scale(one.lane, one.laneId);
    one.leaving = y < box.top - OFF_POINTS || y > box.bottom + OFF_POINTS;
    one.lane.classList.toggle('leaving', one.leaving);
    if (one.leaving) return say(one, words.letGoToTakeIt);
    store.dispatch(hintDone('drag'));
    const rate = one.fine ? FINE : 1;
    const by =
      Math.round(clamp(one.velocity + ((one.y - y) * rate) / VELOCITY_POINTS, 1, 127)) - one.velocity;
    editShown(store, { edit: 'shiftVelocities', args: { spots: dragged(one), by } }, one.gesture, true);
    const velocity = velocityNow(one);
    say(one, words.velocityVelocity(velocity));
    hearHit(store, one.laneId, velocity);
  };

  /** Higher and lower along the notes of the lane. */
  const drawPitch = (one: Grip, heights: Heights, y: number) => {
    const { box } = scale(one.lane, one.laneId);
    one.leaving = y < box.top - OFF_POINTS || y > box.bottom + OFF_POINTS;
    one.lane.classList.toggle('leaving', one.leaving);
    if (one.leaving) return say(one, words.letGoToTakeIt);
    store.dispatch(hintDone('drag'));
    const began = pitchTop(one.pitch, pitchScale(heights));
    const pitch = pitchAt(heights, began + (y - one.y) * (one.fine ? FINE : 1));
    const by = pitch - one.pitch;
    editShown(store, { edit: 'shiftPitches', args: { spots: dragged(one), by } }, one.gesture, true);
    sayNote(one, heights.note + pitch);
    hearHit(store, one.laneId, one.velocity, pitch);
  };

  const drawNudge = (one: Grip, x: number) => {
    const { points, step, beat } = scale(one.lane, one.laneId);
    const wide = one.fine ? FINE : 1;
    if (!one.fine && Math.abs(x - one.x) / points > NUDGE_SHARE * step) return drawMove(one, x, one.y);
    store.dispatch(hintDone('drag'));
    const glass = store.getState().look.glass;
    const ticks = (((x - one.x) / points) * wide) / glass;
    const asked = clamp(one.nudge + ticks / step, -0.5, 0.5) - one.nudge;
    const ms = (asked * step) / ticksPerMs(beat.tempo);
    editShown(store, { edit: 'nudgeByMs', args: { spots: dragged(one), ms } }, one.gesture, true);
    const nudge = hitsOn(shown(), [own(one)])[0]?.hit.nudge ?? one.nudge + asked;
    const off = (nudge * step) / ticksPerMs(beat.tempo);
    say(
      one,
      words.offMsNudgeOfAStep(off >= 0 ? '+' : '−', Math.abs(off).toFixed(1), Math.round(nudge * 100)),
    );
  };

  /** How many lanes below the one that was pressed the hand is. */
  const lanesDown = (one: Grip, y: number): number => {
    const lanes = allShown('[data-lane]');
    const under = lanes.findIndex((lane) => {
      const box = lane.getBoundingClientRect();
      return y >= box.top && y < box.bottom;
    });
    const from = lanes.indexOf(one.lane);
    return under < 0 || from < 0 ? 0 : under - from;
  };

  /** From step to step, and from lane to lane: told from where it began, so that nothing it passes over is touched. */
  const drawMove = (one: Grip, x: number, y: number) => {
    const { points, step } = scale(one.lane, one.laneId);
    const steps = Math.round((x - one.x) / points / step);
    const down = one.open ? 0 : lanesDown(one, y);
    const by = steps * gridTicks(part(one.laneId).grid);
    one.moved = { steps, down };
    editShown(store, { edit: 'moveHits', args: { spots: dragged(one), by, lanes: down } }, one.gesture, true);
    say(one, steps ? words.stepsStep(Math.abs(steps), steps) : '');
  };

  const drawLength = (one: Grip, x: number) => {
    const { points, step } = scale(one.lane, one.laneId);
    const length = clamp((one.length ?? 1) + (x - one.x) / points / step, 0.1, 64);
    editShown(store, { edit: 'setLengths', args: { spots: dragged(one), length } }, one.gesture);
    say(one, words.lengthStepsLong(length.toFixed(2)));
  };

  const drawLine = (one: Grip, x: number, y: number) => {
    const step = stepUnder(one, x);
    if (step === null) return;
    const { box, points, step: wide } = scale(one.lane, one.laneId);
    const { at, last } = one.line ?? { at: { x: one.x, y: one.y }, last: null };
    const steps = [one.last, ...betweenPoints(one.last, step)].map((each) => ({
      step: each,
      x: box.left + (each * wide + INSET) * points,
    }));
    const drawn = passed(steps, at, { x, y }, last);
    const heights = pitches(one.laneId);
    for (const each of drawn) {
      const spots = [{ laneId: one.laneId, step: each.step }];
      const to = heights
        ? pitchAt(heights, each.y - box.top)
        : Math.round(clamp(velocityAtHeight(each.y - box.top), 1, 127));
      editShown(
        store,
        heights
          ? { edit: 'setPitches', args: { spots, to } }
          : { edit: 'setVelocities', args: { spots, to } },
        one.gesture,
      );
      if (heights) sayNote(one, heights.note + to);
      else say(one, words.velocityVelocity(to));
    }
    one.line = { at: { x, y }, last: drawn.at(-1) ?? last };
    one.last = step;
  };

  const drawBox = (one: Grip, x: number, y: number) => {
    store.dispatch(hintDone('box'));
    const points = (lane: HTMLElement) => scale(lane, lane.dataset['lane']!).points;
    store.dispatch(hitsSelected(boxBetween(store.getState(), one, { x, y }, points)));
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

  /** What was moved stays selected where it is now. */
  const settle = (one: Grip) => {
    if (!one.moved || !one.selected) return;
    const { steps, down } = one.moved;
    const lanes = store.getState().doc.beat!.lanes.map(({ id }) => id);
    const by = steps * gridTicks(part(one.laneId).grid);
    const spots = store.getState().focus.selection.flatMap(({ laneId, step }) => {
      const target = lanes[lanes.indexOf(laneId) + down];
      if (target === undefined) return [];
      const tick = step * gridTicks(part(laneId).grid) + by;
      return [{ laneId: target, step: Math.round(tick / gridTicks(part(target).grid)) }];
    });
    if (hitsOn(shown(), spots).length) store.dispatch(selectionMoved(spots));
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
      const heights = pitches(one.laneId);
      if (one.doing === 'velocity' && heights) drawPitch(one, heights, event.clientY);
      else if (one.doing === 'velocity') drawVelocity(one, event.clientY);
      if (one.doing === 'nudge') drawNudge(one, event.clientX);
      if (one.doing === 'move') drawMove(one, event.clientX, event.clientY);
      if (one.doing === 'length') drawLength(one, event.clientX);
      if (one.doing === 'line') drawLine(one, event.clientX, event.clientY);
      const far = Math.hypot(event.clientX - one.x, event.clientY - one.y) > SLACK.touch;
      if (one.doing === 'box' && far) drawBox(one, event.clientX, event.clientY);
    },
    up: (event) => {
      if (!grip || event.pointerId !== grip.id) return;
      const one = grip;
      grip = null;
      if (one.doing === 'nothing' && one.open) tapOpen(one, event.timeStamp);
      else if (one.doing === 'nothing') toggle(one.laneId, one.step);
      if (one.leaving) {
        editShown(store, { edit: 'removeHits', args: { spots: dragged(one) } }, one.gesture, true);
        selectionEnded();
      }
      settle(one);
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
