import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { MidiNote } from '../../core/units';
import type { Box } from '../../core/edit/clip';
import type { BeatEdit, PatternEdit } from '../../core/edit/edits';
import type { Spot } from '../../core/edit/spots';
import { beatOpened } from './doc';

/** The notes of a tuned lane whose open string shows them by its height, from the lowest to the highest. */
export interface Heights {
  laneId: string;
  note: MidiNote;
  notes: MidiNote[];
}

/** An edit that is heard and drawn but not made, until it is used. */
export interface Trial {
  /** What is tried, in words. */
  name: string;
  /** The pattern that it is shown in. */
  patternId: string;
  edit: { kind: 'pattern'; edit: PatternEdit } | { kind: 'beat'; edit: BeatEdit };
}

/** What the controls of hits are for: what is selected, the open lane, or all lanes. */
export type Scope = 'hits' | 'lane' | 'all';

/** What the hand and the keys are on: the pattern, the lane, the hits. Not part of the beat. */
export interface FocusState {
  patternId: string | null;
  openLane: string | null;
  /** The steps chosen on the strings. */
  selection: Spot[];
  /** The box that was drawn around them, with its empty edges; null where there was none. */
  box: Box | null;
  /** The step that the hand or the keys were on last. */
  cursor: Spot | null;
  scope: Scope;
  /** Where what was copied is pasted: shown as a line. */
  pasteAt: Spot | null;
  /** The other patterns that an edit is sent to as well. */
  also: string[];
  /** Something that is tried before it is used: an edit that has not been made. */
  trial: Trial | null;
  /** The open string shows pitch by its height: the lane, its own note, and the notes that it plays. */
  heights: Heights | null;
}

const NOTHING_SELECTED = {
  selection: [],
  box: null,
  cursor: null,
  pasteAt: null,
  also: [],
  trial: null,
  scope: 'hits',
} satisfies Partial<FocusState>;

const NO_HITS = { selection: [], box: null, cursor: null } satisfies Partial<FocusState>;

const focus = createSlice({
  name: 'focus',
  initialState: { patternId: null, openLane: null, heights: null, ...NOTHING_SELECTED } as FocusState,
  reducers: {
    /** Another pattern ends what was selected, tried and edited together in this one; the same one only what was selected. */
    patternShown: {
      prepare: (
        patternId: string | null,
        beginsAt: 'now' | 'beat' | 'end' | null = null,
      ): { payload: { patternId: string | null; beginsAt: 'now' | 'beat' | 'end' | null } } => ({
        payload: { patternId, beginsAt },
      }),
      reducer: (state, { payload }: PayloadAction<{ patternId: string | null; beginsAt: unknown }>) => ({
        ...state,
        ...(payload.patternId === state.patternId ? NO_HITS : NOTHING_SELECTED),
        patternId: payload.patternId,
      }),
    },
    /** A string is opened, or none is open: what is selected stays. */
    laneOpened: (state, { payload }: PayloadAction<string | null>) => {
      if (payload === state.openLane) return state;
      return { ...state, openLane: payload, scope: 'hits', trial: null };
    },
    /** The drawer turns to a lane by itself, where a page is given to that page: nothing of it is selected. */
    laneShown: {
      prepare: (laneId: string | null, page?: 'lane' | 'sound') => ({ payload: { laneId, page } }),
      reducer: (state, { payload }: PayloadAction<{ laneId: string | null; page?: unknown }>) => ({
        ...state,
        ...NO_HITS,
        ...(payload.laneId !== state.openLane && { scope: 'hits' as const, trial: null }),
        openLane: payload.laneId,
      }),
    },
    /** Hits are chosen, by a box or one by one: the controls are for them. */
    hitsSelected: (
      state,
      {
        payload: { spots, box = null, ...at },
      }: PayloadAction<{ spots: Spot[]; box?: Box | null; cursor?: Spot | null; pasteAt?: Spot | null }>,
    ) => ({ ...state, selection: spots, box, scope: 'hits', ...at }),
    /** What was selected is elsewhere now: it was moved. */
    selectionMoved: (state, { payload }: PayloadAction<Spot[]>) => ({
      ...state,
      selection: payload,
      box: null,
    }),
    selectionEnded: (state) => ({ ...state, selection: [], box: null }),
    /** Nothing is selected and nothing is under the hand: the controls are for nothing. */
    focusEnded: (state) => ({ ...state, ...NO_HITS, scope: 'hits' }),
    /** The hand or the keys are on a step; what is copied is pasted there where that is given. */
    cursorMoved: (state, { payload }: PayloadAction<{ cursor: Spot; pasteAt?: Spot }>) => ({
      ...state,
      ...payload,
    }),
    pasteMoved: (state, { payload }: PayloadAction<Spot>) => ({ ...state, pasteAt: payload }),
    scopeChosen: (state, { payload }: PayloadAction<Scope>) => ({ ...state, scope: payload }),
    editedTogether: (state, { payload }: PayloadAction<string[]>) => ({ ...state, also: payload }),
    trialBegun: (state, { payload }: PayloadAction<Trial>) => ({ ...state, trial: payload }),
    trialEnded: (state) => ({ ...state, trial: null }),
    heightsShown: (state, { payload }: PayloadAction<Heights | null>) => ({ ...state, heights: payload }),
  },
  // What was selected, tried or edited together belongs to the beat that it was in.
  extraReducers: (builder) => builder.addCase(beatOpened, (state) => ({ ...state, ...NOTHING_SELECTED })),
});

export const {
  patternShown,
  laneOpened,
  laneShown,
  hitsSelected,
  selectionMoved,
  selectionEnded,
  focusEnded,
  cursorMoved,
  pasteMoved,
  scopeChosen,
  editedTogether,
  trialBegun,
  trialEnded,
  heightsShown,
} = focus.actions;
export const focusReducer = focus.reducer;
