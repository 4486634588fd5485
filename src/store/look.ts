import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { NoteNames } from '../../core/document/noteName';
import { laneShown } from './focus';
import { ownSettings, settingsRead } from './settings';

/** What can be done and is not plain: opening a string, dragging in it, choosing by a held finger, comparing by a key. */
export const HINT_IDS = ['open', 'drag', 'box', 'compare'] as const;
export type HintId = (typeof HINT_IDS)[number];

export const ZOOMS = [0.25, 0.5, 1, 2, 4] as const;

export type DrawerPage = 'hits' | 'lane' | 'sound' | 'make' | 'moves' | 'pads';
export type SheetId = 'kits' | 'loop';

/** How things are shown, and which pages and sheets are open. */
export interface LookState {
  /** How many times as wide as a bar on the page the strings are drawn: 1 fills the page with one bar. */
  zoom: number;
  /** Mute and solo of all lanes beside their names. */
  mixOpen: boolean;
  /** How many times as wide partings from the base feel are drawn. */
  glass: 1 | 2 | 4;
  theme: 'system' | 'night' | 'day';
  /** Which page of the drawer is open under the strings. */
  drawer: DrawerPage | null;
  /** Which sheet is open over the strings. */
  sheet: SheetId | null;
  /** Which hand plays what stands under the beads. */
  showHands: boolean;
  /** What the names beside note numbers call 60: C3 or C4; or no names. */
  noteNames: NoteNames;
  /** What is not plain and was found, or was put away: it is not said again. */
  hintsDone: HintId[];
}

const initialState: LookState = {
  zoom: 1,
  mixOpen: false,
  glass: 2,
  theme: 'system',
  drawer: 'hits',
  sheet: null,
  showHands: false,
  noteNames: 'c3',
  hintsDone: [],
};

const look = createSlice({
  name: 'look',
  initialState,
  reducers: {
    zoomSet: (state, { payload }: PayloadAction<LookState['zoom']>) => ({ ...state, zoom: payload }),
    mixToggled: (state) => ({ ...state, mixOpen: !state.mixOpen }),
    glassSet: (state, { payload }: PayloadAction<LookState['glass']>) => ({ ...state, glass: payload }),
    themeSet: (state, { payload }: PayloadAction<LookState['theme']>) => ({ ...state, theme: payload }),
    drawerTurned: (state, { payload }: PayloadAction<DrawerPage | null>) => ({ ...state, drawer: payload }),
    sheetOpened: (state, { payload }: PayloadAction<SheetId>) => ({ ...state, sheet: payload }),
    sheetClosed: (state) => ({ ...state, sheet: null }),
    handsToggled: (state) => ({ ...state, showHands: !state.showHands }),
    noteNamesSet: (state, { payload }: PayloadAction<NoteNames>) => ({ ...state, noteNames: payload }),
    hintDone: (state, { payload }: PayloadAction<HintId>) =>
      state.hintsDone.includes(payload) ? state : { ...state, hintsDone: [...state.hintsDone, payload] },
  },
  extraReducers: (builder) =>
    builder
      .addCase(laneShown, (state, { payload: { page } }) => (page ? { ...state, drawer: page } : state))
      .addCase(settingsRead, (state, { payload }) => ({ ...state, ...ownSettings('look', payload) })),
});

export const {
  zoomSet,
  mixToggled,
  glassSet,
  themeSet,
  drawerTurned,
  sheetOpened,
  sheetClosed,
  handsToggled,
  noteNamesSet,
  hintDone,
} = look.actions;
export const lookReducer = look.reducer;
