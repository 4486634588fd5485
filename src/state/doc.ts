import { createAction, type UnknownAction } from '@reduxjs/toolkit';
import type { Beat, Lane, Pattern, Swing } from '../../core/beat/schema';
import { editFeel, type FeelEdit } from '../../core/feel/edits';
import { changeFeel, patternOf, setLane, setPattern, setSwing, setTempo } from '../../core/pattern/beatEdits';
import type * as Edits from '../../core/pattern/edits';
import type { BeatEdit, PatternEdit } from '../../core/pattern/edits';
import { setStep, setVelocity } from '../../core/pattern/hits';

/** The open beat and its history. Beats are never changed in place, so the history shares what did not change. */
export interface DocState {
  beat: Beat | null;
  past: Beat[];
  future: Beat[];
  /** Edits with the same gesture, a drag say, are one step of the history. */
  gesture: string | null;
}

/** How many steps can be undone. */
export const HISTORY = 500;

interface OnPattern {
  patternId: string;
  laneId: string;
}
type Gesture = { gesture?: string };

export const beatOpened = createAction<{ beat: Beat }>('doc/beatOpened');
/** The beat as another tab has saved it. */
export const beatAdopted = createAction<{ beat: Beat }>('doc/beatAdopted');
export const stepSet = createAction<OnPattern & Gesture & { step: number; on: boolean; velocity?: number }>(
  'doc/stepSet',
);
export const velocitySet = createAction<
  OnPattern & Gesture & { step: number; velocity: number; place?: number }
>('doc/velocitySet');
export const laneChanged = createAction<Gesture & { laneId: string; change: Partial<Omit<Lane, 'id'>> }>(
  'doc/laneChanged',
);
export const tempoSet = createAction<Gesture & { tempo: number }>('doc/tempoSet');
export const swingSet = createAction<Gesture & { patternId: string | null; change: Partial<Swing> }>(
  'doc/swingSet',
);
/** Any edit of a feel by its name: that of a pattern where it has its own, else the beat's. */
export const feelEdited = createAction<Gesture & { patternId: string | null; edit: FeelEdit }>(
  'doc/feelEdited',
);
export const kitSet = createAction<{ kit: Beat['kit'] }>('doc/kitSet');
/** Any edit of patterns by its name; sent to all patterns given. */
export const patternsEdited = createAction<Gesture & { patternIds: string[]; edit: PatternEdit }>(
  'doc/patternsEdited',
);
/** Any edit of the beat by its name. */
export const beatEdited = createAction<Gesture & { edit: BeatEdit }>('doc/beatEdited');
export const beatRenamed = createAction<{ name: string }>('doc/beatRenamed');
export const undone = createAction('doc/undone');
export const redone = createAction('doc/redone');

/** The edits beyond a tap on a step: large, and not there from the first moment. */
let edits: Pick<typeof Edits, 'editBeat' | 'editPatterns'> | null = null;
export const giveEdits = (late: NonNullable<typeof edits>): void => {
  edits = late;
};
export const hasEdits = (): boolean => edits !== null;
/** Whether an action can be taken only when the edits are there. */
export const needsEdits = (action: unknown): boolean =>
  patternsEdited.match(action as UnknownAction) || beatEdited.match(action as UnknownAction);

const initial: DocState = { beat: null, past: [], future: [], gesture: null };

const changed = (state: DocState, beat: Beat, gesture: string | undefined): DocState => {
  if (!state.beat || beat === state.beat) return state;
  const goesOn = gesture !== undefined && gesture === state.gesture;
  const past = goesOn ? state.past : [...state.past, state.beat].slice(-HISTORY);
  return { beat, past, future: [], gesture: gesture ?? null };
};

const onPattern = (beat: Beat, id: string, edit: (pattern: Pattern) => Pattern): Beat => {
  const pattern = patternOf(beat, id);
  const edited = edit(pattern);
  return edited === pattern ? beat : setPattern(beat, edited);
};

/** What an action makes of a beat; the same beat where it is no edit. */
const edited = (beat: Beat, action: UnknownAction): Beat => {
  if (stepSet.match(action)) {
    const { patternId, laneId, step, on, velocity } = action.payload;
    return onPattern(beat, patternId, (pattern) => setStep(pattern, laneId, step, on, velocity));
  }
  if (velocitySet.match(action)) {
    const { patternId, laneId, step, velocity, place } = action.payload;
    return onPattern(beat, patternId, (pattern) => setVelocity(pattern, laneId, step, velocity, place));
  }
  if (laneChanged.match(action)) return setLane(beat, action.payload.laneId, action.payload.change);
  if (tempoSet.match(action)) return setTempo(beat, action.payload.tempo);
  if (swingSet.match(action)) return setSwing(beat, action.payload.patternId, action.payload.change);
  if (feelEdited.match(action)) {
    const { patternId, edit } = action.payload;
    return changeFeel(beat, patternId, (feel) => editFeel(feel, edit));
  }
  if (kitSet.match(action)) return { ...beat, kit: action.payload.kit };
  if (patternsEdited.match(action))
    return edits!.editPatterns(beat, action.payload.patternIds, action.payload.edit);
  if (beatEdited.match(action)) return edits!.editBeat(beat, action.payload.edit);
  if (beatRenamed.match(action)) return { ...beat, name: action.payload.name };
  return beat;
};

const stepBack = (state: DocState): DocState => {
  const beat = state.past[state.past.length - 1];
  if (!beat || !state.beat) return state;
  return { beat, past: state.past.slice(0, -1), future: [state.beat, ...state.future], gesture: null };
};

const stepOn = (state: DocState): DocState => {
  const [beat, ...future] = state.future;
  if (!beat || !state.beat) return state;
  return { beat, past: [...state.past, state.beat], future, gesture: null };
};

/**
 * Not a slice: its drafts would be made and frozen anew for every tap on a beat of some thousand hits, and core's edits
 * return new objects by themselves.
 */
export const docReducer = (state: DocState = initial, action: UnknownAction): DocState => {
  if (beatOpened.match(action)) return { ...initial, beat: action.payload.beat };
  if (beatAdopted.match(action)) return changed(state, action.payload.beat, undefined);
  if (undone.match(action)) return stepBack(state);
  if (redone.match(action)) return stepOn(state);
  if (!state.beat) return state;
  const gesture = (action as { payload?: Gesture }).payload?.gesture;
  return changed(state, edited(state.beat, action), gesture);
};
