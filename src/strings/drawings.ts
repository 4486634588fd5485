import { lanePatternOf, patternOf } from '../../core/document/defaults';
import type { Hit, Lane } from '../../core/document/schema';
import { differences } from '../../core/edit/seen';
import type { Spot } from '../../core/edit/spots';
import { selectAudible } from '../store/audible';
import { selectPattern, type RootState } from '../store/store';
import { createDrawings, type LaneDrawing, type Part } from './drawing';

const drawingOf = createDrawings();

/** Whether a maker's hits for a lane are only tried yet. */
const isTried = ({ focus }: RootState, { id }: Lane): boolean => {
  const edit = focus.trial?.edit.kind === 'pattern' ? focus.trial.edit.edit : null;
  return edit?.edit === 'make' && id in edit.args.parts;
};

/**
 * What is drawn of a lane in the pattern shown: the same object until something of it changes.
 *
 * @param sight while a feel is turned, what of the pattern is in sight: only that need be as it is now
 */
export const laneDrawing = (state: RootState, lane: Lane, sight: Part | null = null): LaneDrawing | null => {
  const beat = selectAudible(state);
  if (!beat || !selectPattern(state)) return null;
  const pattern = patternOf(beat, state.focus.patternId);
  return drawingOf(beat, pattern, lane, state.look.glass, isTried(state, lane), sight);
};

const NONE: ReadonlySet<number> = new Set();

let lastSpots: Spot[] = [];
/** What is chosen of a lane: its steps, each with the places of those of its hits that are; null is all of them. */
export type Chosen = ReadonlyMap<number, ReadonlySet<number> | null>;

const NOT_CHOSEN: Chosen = new Map();

let chosenByLane = new Map<string, Map<number, Set<number> | null>>();

const samePlaces = (a: ReadonlySet<number> | null, b: ReadonlySet<number> | null | undefined): boolean =>
  a === null || b == null ? a === b : a.size === b.size && [...a].every((place) => b.has(place));

/** What is chosen of a lane: the same map as long as the choice is the same. */
export const chosenSteps = ({ focus }: RootState, laneId: string): Chosen => {
  if (focus.selection !== lastSpots) {
    const before = chosenByLane;
    lastSpots = focus.selection;
    chosenByLane = new Map();
    for (const { laneId: lane, step, place } of focus.selection) {
      const steps = chosenByLane.get(lane) ?? new Map<number, Set<number> | null>();
      const places = steps.get(step);
      steps.set(step, place === undefined || places === null ? null : (places ?? new Set()).add(place));
      chosenByLane.set(lane, steps);
    }
    for (const [lane, steps] of chosenByLane) {
      const old = before.get(lane);
      if (old?.size === steps.size && [...steps].every(([step, places]) => samePlaces(places, old.get(step))))
        chosenByLane.set(lane, old);
    }
  }
  return chosenByLane.get(laneId) ?? NOT_CHOSEN;
};

const marks = new Map<string, { now: Hit[]; before: Hit[]; steps: ReadonlySet<number> }>();

/** Where a lane differs from the pattern that this one is a variation of. */
export const markedSteps = (state: RootState, laneId: string): ReadonlySet<number> => {
  const pattern = selectPattern(state);
  const parent = state.doc.beat?.patterns.find(({ id }) => id === pattern?.parent);
  if (!pattern || !parent) return NONE;
  const [now, before] = [lanePatternOf(pattern, laneId).hits, lanePatternOf(parent, laneId).hits];
  const kept = marks.get(laneId);
  if (kept?.now === now && kept.before === before) return kept.steps;
  const steps = differences(pattern, parent, laneId);
  marks.set(laneId, { now, before, steps });
  return steps;
};
