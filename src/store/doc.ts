import { createAction, type UnknownAction } from '@reduxjs/toolkit';
import { hitsOn, type Spot } from '../../core/edit/spots';
import type { Beat, Hit, Lane, Pattern, Swing } from '../../core/document/schema';
import { setPattern, patternOf } from '../../core/document/defaults';
import { changeFeel, setLane, setSwing, setTempo } from '../../core/edit/beatEdits';
import type * as Edits from '../../core/edit/edits';
import type { Around, BeatEdit, FeelEdit, PatternEdit } from '../../core/edit/edits';
import { setStep, setVelocity } from '../../core/edit/hits';
import { patched, type Patch } from './patch';

/** The open beat and its history. Beats are never changed in place, so the history shares what did not change. */
export interface DocState {
  beat: Beat | null;
  past: Beat[];
  future: Beat[];
  /** Edits with the same gesture, a drag say, are one step of the history. */
  gesture: string | null;
  /** Hits that were taken off their steps by hand, by pattern, lane and step: put back they have all they had. */
  off: Record<string, Hit[]>;
}

/** So many steps are remembered from which hits were taken. */
const MOST_OFF = 512;

const stepKey = (patternId: string, laneId: string, step: number): string => `${patternId} ${step} ${laneId}`;

/** How many steps can be undone. */
export const HISTORY = 500;

interface OnPattern {
  patternId: string;
  laneId: string;
}
type Gesture = {
  gesture?: string;
  /** The edit is told from where the gesture began, and not from what it has come to. */
  anew?: boolean;
};

export const beatOpened = createAction<{ beat: Beat }>('doc/beatOpened');
/** The document with what other tabs did in it, in the order that holds for all. */
export const docMerged = createAction<{ doc: DocState }>('doc/docMerged');
/** An edit that has no name, told by its places: an undo in another tab say. */
export const beatPatched = createAction<{ patch: Patch }>('doc/beatPatched');
/** @param also other patterns in which the same is done */
export const stepSet = createAction<
  OnPattern &
    Gesture & {
      step: number;
      on: boolean;
      velocity?: number;
      also?: string[];
      /** What the steps held before, by pattern: told where the page that does it cannot know. */
      held?: Record<string, Hit[]>;
    }
>('doc/stepSet');
export const velocitySet = createAction<
  OnPattern & Gesture & { step: number; velocity: number; place?: number; also?: string[] }
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
export const patternsEdited = createAction<
  Gesture & {
    /** The one that is shown first. */
    patternIds: string[];
    edit: PatternEdit;
    /** The box that the hits were chosen by: in the other patterns it holds other hits. */
    around?: Around;
  }
>('doc/patternsEdited');
/** Any edit of the beat by its name. */
export const beatEdited = createAction<Gesture & { edit: BeatEdit }>('doc/beatEdited');
export const beatRenamed = createAction<{ name: string }>('doc/beatRenamed');
export const undone = createAction('doc/undone');
export const redone = createAction('doc/redone');

/** The edits beyond a tap on a step: large, and not there from the first moment. */
let edits: Pick<typeof Edits, 'editBeat' | 'editFeel' | 'editPatterns'> | null = null;
export const giveEdits = (late: NonNullable<typeof edits>): void => {
  edits = late;
};
export const hasEdits = (): boolean => edits !== null;
/** Whether an action can be taken only when the edits are there. */
export const needsEdits = (action: unknown): boolean =>
  [patternsEdited, beatEdited, feelEdited].some((edit) => edit.match(action as UnknownAction));

const EDITS = [
  stepSet,
  velocitySet,
  laneChanged,
  tempoSet,
  swingSet,
  feelEdited,
  kitSet,
  patternsEdited,
  beatEdited,
  beatRenamed,
  beatPatched,
];
/** Whether an action edits the open beat, undo and redo aside. */
export const isBeatAction = (action: UnknownAction): boolean => EDITS.some((edit) => edit.match(action));
/** Whether an action changes the open beat in any way that a person asked for. */
export const isDocAction = (action: UnknownAction): boolean =>
  isBeatAction(action) || undone.match(action) || redone.match(action);

export const initialDoc: DocState = { beat: null, past: [], future: [], gesture: null, off: {} };

const changed = (state: DocState, beat: Beat, gesture: string | undefined): DocState => {
  if (!state.beat || beat === state.beat) return state;
  const goesOn = gesture !== undefined && gesture === state.gesture;
  const past = goesOn ? state.past : [...state.past, state.beat].slice(-HISTORY);
  return { ...state, beat, past, future: [], gesture: gesture ?? null };
};

/** What an action takes off by hand, by pattern: a tap, Delete, a bead dragged off its string, the eraser. */
const takenOff = (action: UnknownAction): { patternIds: string[]; spots: Spot[] } | null => {
  if (stepSet.match(action) && !action.payload.on) {
    const { patternId, laneId, step, also = [] } = action.payload;
    return { patternIds: [patternId, ...also], spots: [{ laneId, step }] };
  }
  if (!patternsEdited.match(action) || action.payload.edit.edit !== 'removeHits') return null;
  return { patternIds: action.payload.patternIds, spots: action.payload.edit.args.spots };
};

/** What a step held before its hits were taken off it is remembered; `from` is the beat before the gesture. */
const remembering = (state: DocState, from: Beat, action: UnknownAction): DocState => {
  const taken = takenOff(action);
  if (!taken) return state;
  const added = new Map<string, Hit[]>();
  for (const pattern of from.patterns.filter(({ id }) => taken.patternIds.includes(id)))
    for (const { laneId, hit } of hitsOn(pattern, taken.spots)) {
      const key = stepKey(pattern.id, laneId, hit.step);
      added.set(key, [...(added.get(key) ?? []), hit]);
    }
  if (!added.size) return state;
  const off = Object.entries(state.off)
    .concat([...added])
    .slice(-MOST_OFF);
  return { ...state, off: Object.fromEntries(off) };
};

/** Putting a hit on a step, with what the step held before told along. */
export const withHeld = (state: DocState, action: ReturnType<typeof stepSet>): ReturnType<typeof stepSet> => {
  const { patternId, laneId, step, also = [] } = action.payload;
  const held = [patternId, ...also].flatMap((id): [string, Hit[]][] => {
    const hits = state.off[stepKey(id, laneId, step)];
    return hits ? [[id, hits]] : [];
  });
  return stepSet({ ...action.payload, held: Object.fromEntries(held) });
};

const onPattern = (beat: Beat, id: string, edit: (pattern: Pattern) => Pattern): Beat => {
  const pattern = patternOf(beat, id);
  const edited = edit(pattern);
  return edited === pattern ? beat : setPattern(beat, edited);
};

/** What an action makes of a beat; the same beat where it is no edit. */
const edited = (beat: Beat, action: UnknownAction, off: DocState['off'] = {}): Beat => {
  if (stepSet.match(action)) {
    const { patternId, laneId, step, on, velocity, also = [], held } = action.payload;
    const heldOf = (id: string) => (held ? held[id] : off[stepKey(id, laneId, step)]);
    return [patternId, ...also].reduce(
      (now, id) =>
        onPattern(now, id, (pattern) => setStep(pattern, laneId, step, on, velocity, heldOf(pattern.id))),
      beat,
    );
  }
  if (velocitySet.match(action)) {
    const { patternId, laneId, step, velocity, place, also = [] } = action.payload;
    return [patternId, ...also].reduce(
      (now, id) => onPattern(now, id, (pattern) => setVelocity(pattern, laneId, step, velocity, place)),
      beat,
    );
  }
  if (laneChanged.match(action)) return setLane(beat, action.payload.laneId, action.payload.change);
  if (tempoSet.match(action)) return setTempo(beat, action.payload.tempo);
  if (swingSet.match(action)) return setSwing(beat, action.payload.patternId, action.payload.change);
  if (feelEdited.match(action)) {
    const { patternId, edit } = action.payload;
    return changeFeel(beat, patternId, (feel) => edits!.editFeel(feel, edit));
  }
  if (kitSet.match(action)) return { ...beat, kit: action.payload.kit };
  if (patternsEdited.match(action))
    return edits!.editPatterns(beat, action.payload.patternIds, action.payload.edit, action.payload.around);
  if (beatEdited.match(action)) return edits!.editBeat(beat, action.payload.edit);
  if (beatRenamed.match(action)) return { ...beat, name: action.payload.name };
  if (beatPatched.match(action)) return patched(beat, action.payload.patch);
  return beat;
};

const stepBack = (state: DocState): DocState => {
  const beat = state.past[state.past.length - 1];
  if (!beat || !state.beat) return state;
  return {
    ...state,
    beat,
    past: state.past.slice(0, -1),
    future: [state.beat, ...state.future],
    gesture: null,
  };
};

const stepOn = (state: DocState): DocState => {
  const [beat, ...future] = state.future;
  if (!beat || !state.beat) return state;
  return { ...state, beat, past: [...state.past, state.beat], future, gesture: null };
};

/**
 * Not a slice: its drafts would be made and frozen anew for every tap on a beat of some thousand hits, and core's edits
 * return new objects by themselves.
 */
export const docReducer = (state: DocState = initialDoc, action: UnknownAction): DocState => {
  if (beatOpened.match(action)) return { ...initialDoc, beat: action.payload.beat };
  if (docMerged.match(action)) return action.payload.doc;
  if (undone.match(action)) return stepBack(state);
  if (redone.match(action)) return stepOn(state);
  if (!state.beat) return state;
  const { gesture, anew } = (action as { payload?: Gesture }).payload ?? {};
  const goesOn = anew && gesture !== undefined && gesture === state.gesture;
  const from = goesOn ? (state.past[state.past.length - 1] ?? state.beat) : state.beat;
  return changed(remembering(state, from, action), edited(from, action, state.off), gesture);
};

/** What an edit would make of a beat, for what is tried before it is used; the same beat while edits are not there yet. */
export const wouldBe = (
  beat: Beat,
  edit: { kind: 'pattern'; patternIds: string[]; edit: PatternEdit } | { kind: 'beat'; edit: BeatEdit },
): Beat => {
  if (!edits) return beat;
  return edit.kind === 'beat'
    ? edits.editBeat(beat, edit.edit)
    : edits.editPatterns(beat, edit.patternIds, edit.edit);
};
