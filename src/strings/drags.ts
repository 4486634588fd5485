import { allShown } from '../web/shown';
import { hintDone } from '../store/look';
import { gridTicks } from '../../core/document/grid';
import { hitsOn } from '../../core/edit/spots';
import { clamp, ticksPerMs } from '../../core/units';
import { editShown } from '../store/editing';
import { hitsSelected, selectionMoved, type Heights } from '../store/focus';
import { type Store } from '../store/store';
import { INSET, VELOCITY_POINTS, velocityAtHeight } from './geometry';
import { betweenPoints, stepUnder, type Grip } from './grip';
import { boxBetween } from './box';
import type { HandOnStrings } from './hand';
import { pitchAt, pitchScale, pitchTop } from './heights';
import { hearHit } from './hearHit';
import { passed } from './line';
import { words } from '../words/strings';

/** A bead is off its string this far above or below it. */
const OFF_POINTS = 36;
/** This share of a step a bead is nudged sideways; dragged further it moves from step to step. */
const NUDGE_SHARE = 0.75;
/** How much finer a drag is with a modifier key or a second finger. */
const FINE = 0.1;

/** What drags do to hits, each told from where it began. */
export const createDrags = (
  store: Store,
  { shown, part, scale, pitches, own, dragged, say, sayNote }: HandOnStrings,
) => {
  /** Whether a bead has left its string: let go there, it is taken off. */
  const hasLeft = (one: Grip, y: number): boolean => {
    const { box } = scale(one.lane, one.laneId);
    one.leaving = y < box.top - OFF_POINTS || y > box.bottom + OFF_POINTS;
    one.lane.classList.toggle('leaving', one.leaving);
    if (one.leaving) say(one, words.letGoToTakeIt);
    else store.dispatch(hintDone('drag'));
    return one.leaving;
  };

  const velocityNow = (one: Grip): number => hitsOn(shown(), [own(one)])[0]?.hit.velocity ?? one.velocity;

  const drawVelocity = (one: Grip, y: number) => {
    if (hasLeft(one, y)) return;
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
    if (hasLeft(one, y)) return;
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
    velocity: (one: Grip, y: number) => {
      const heights = pitches(one.laneId);
      if (heights) drawPitch(one, heights, y);
      else drawVelocity(one, y);
    },
    nudge: drawNudge,
    move: drawMove,
    length: drawLength,
    line: drawLine,
    box: drawBox,
    settle,
  };
};
