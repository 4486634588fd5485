import { lanePatternOf, patternTicks } from '../../core/document/defaults';
import { rateOf } from '../../core/play/reading';
import { gridTicks } from '../../core/document/grid';
import { type Spot } from '../../core/edit/spots';
import { noteName } from '../../core/document/noteName';
import { type MidiNote } from '../../core/units';
import { selectPattern, type Store } from '../store/store';
import type { Bead } from './drawing';
import { laneDrawing } from './drawings';
import { AROUND, beadTop, INSET, OPEN_HEIGHT } from './geometry';
import { laneOf, spotOf, type Grip } from './grip';
import { heightsOf, pitchScale, pitchTop } from './heights';

/** A bead is met this far around its middle. */
const BEAD_POINTS = 18;

/** Where a hand is on the strings, what it takes hold of, and what is read out under it. */
export const createHand = (store: Store) => {
  const shown = () => selectPattern(store.getState())!;
  const part = (laneId: string) => lanePatternOf(shown(), laneId);

  const laneById = (laneId: string) => store.getState().doc.beat!.lanes.find(({ id }) => id === laneId)!;

  /** Points for a tick, and for a step of a lane. */
  const scale = (lane: HTMLElement, laneId: string) => {
    const box = lane.querySelector('.string')!.getBoundingClientRect();
    const points = box.width / (patternTicks(shown()) + AROUND);
    const beat = store.getState().doc.beat!;
    const { grid, rate } = part(laneId);
    return { box, points, step: gridTicks(grid) / rateOf(rate), beat };
  };

  const pitches = (laneId: string) => heightsOf(store.getState(), laneId);

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

  /** The hit that is held: named by its place only where its step has several. */
  const own = ({ laneId, step, place, count }: Grip): Spot =>
    count > 1 ? { laneId, step, place } : { laneId, step };

  /** What a press takes hold of. */
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

  /** The selected hits go together with the one that is dragged, each by the same amount. */
  const dragged = (one: Grip): Spot[] => (one.selected ? store.getState().focus.selection : [own(one)]);

  /** Shows a reading on the lane. */
  const say = (one: Grip, text: string) => {
    const reading = one.lane.querySelector('.reading');
    if (reading) reading.textContent = text;
  };

  const sayNote = (one: Grip, note: MidiNote) =>
    say(one, noteName(note, store.getState().look.noteNames) || String(note));

  return { shown, part, scale, pitches, own, begin, dragged, say, sayNote };
};

export type HandOnStrings = ReturnType<typeof createHand>;
