import type { Grid } from '../../core/document/grid';
import type { PassesPlayed } from '../../core/edit/playedRoutes';
import type { NoteNames } from '../../core/document/noteName';
import type { ExportHow } from '../../core/export/choice';
import { createSlice, nanoid, type PayloadAction } from '@reduxjs/toolkit';

import type { Feel } from '../../core/document/feelSchema';
import type { MidiNote } from '../../core/units';
import type { Beat, Pattern } from '../../core/document/schema';
import type { Compared } from '../../core/analysis/compare';
import type { Box, Clip } from '../../core/edit/clip';
import type { BeatEdit, PatternEdit } from '../../core/edit/edits';
import type { Spot } from '../../core/edit/spots';
import { beatOpened } from './doc';

/** What can be done and is not plain: opening a string, dragging in it, choosing by a held finger, comparing by a key. */
export const HINT_IDS = ['open', 'drag', 'box', 'compare'] as const;
export type HintId = (typeof HINT_IDS)[number];

/** What is looked at, as far as screens share it. Not part of the beat. */
export interface ViewState {
  patternId: string | null;
  openLane: string | null;
  /** How many times as wide as a bar on the page the strings are drawn: 1 fills the page with one bar. */
  zoom: number;
  /** Mute and solo of all lanes beside their names. */
  mixOpen: boolean;
  /** How many times as wide partings from the base feel are drawn. */
  glass: 1 | 2 | 4;
  theme: 'system' | 'night' | 'day';
  playing: boolean;
  /** The steps chosen on the strings. */
  selection: Spot[];
  /** The step that the hand or the keys were on last. */
  cursor: Spot | null;
  /** The box that was drawn around them, with its empty edges; null where there was none. */
  box: Box | null;
  /** What the controls of hits are for: what is selected, the open lane, or all lanes. */
  scope: 'hits' | 'lane' | 'all';
  /** Taps and drags take hits off. */
  eraser: boolean;
  /** A hit that is put down or struck harder is heard. */
  hearEdits: boolean;
  /** Which hand plays what stands under the beads. */
  showHands: boolean;
  /** What is played in is kept, so that one's own feel can be told. */
  learnFeel: boolean;
  /** The tempo that is practised at, in BPM; null while it is the beat's own. */
  practice: number | null;
  /** Whose clock is followed, how fast it goes as far as that is known, and whether it comes; null while Ruddik leads. */
  leader: { name: string; bpm: number | null; runs: boolean } | null;
  /** The machine's own ports were allowed before. */
  machinePorts: boolean;
  /** Ports were wanted before: they are there again with the app. */
  ports: boolean;
  /** What is not plain and was found, or was put away: it is not said again. */
  hintsDone: HintId[];
  /** Something that is tried before it is used: an edit that has not been made. */
  trial: Trial | null;
  /** What was copied. */
  clip: Clip | null;
  /** Where it is pasted: shown as a line. */
  pasteAt: Spot | null;
  /** A pattern that was copied, from this beat or another. */
  patternClip: Pattern | null;
  /** The other patterns that an edit is sent to as well. */
  also: string[];
  /** Which page of the drawer is open under the strings. */
  drawer: 'hits' | 'lane' | 'sound' | 'make' | 'moves' | 'pads' | null;
  /** When another pattern begins while one is playing. */
  switchAt: 'now' | 'beat' | 'end';
  /** When the pattern that was chosen last begins, where its key says so. */
  beginsAt: 'now' | 'beat' | 'end' | null;
  /** Which sheet is open over the strings. */
  sheet: 'kits' | 'loop' | null;
  playIn: PlayInSettings;
  metronome: MetronomeSettings;
  /** A bar is counted before the pattern begins. */
  countIn: boolean;
  /** Compared with: without any feel, or with the other feel; null is the beat as it is. */
  compare: Compared | null;
  /** A blind test is on: what is heard is not shown. */
  blind: boolean;
  /** A blind test that was begun. */
  blindTest: BlindTest | null;
  /** What one compares with, by the button, by C and in a blind test. */
  against: Compared;
  /** The feel that is compared and blended with. */
  b: { name: string; feel: Feel } | null;
  /** A feel that was copied, to be used on another pattern or beat. */
  feelClip: Feel | null;
  /** The open string shows pitch by its height: the lane, its own note, and the notes that it plays. */
  heights: Heights | null;
  /** While it plays, a route that is recalled begins at the next slot, or the next bar. */
  routesAt: 'slot' | 'bar';
  /** The switching of routes is recorded; and what was recorded last, to be put into the song. */
  recordingRoutes: boolean;
  routesPlayed: (PassesPlayed & { patternId: string }) | null;
  /** What is heard in the place of the beat, or with it: a groove that is tried. */
  audition: Audition | null;
  /** The song: whether its screen is open, whether it is what plays, from where, and what of it is repeated. */
  song: SongView;
  /** How the last export was asked for. */
  exportHow: ExportHow | null;
  /** What the names beside note numbers call 60: C3 or C4; or no names. */
  noteNames: NoteNames;
  /** How much later a stroke arrives than it was meant, in ms. */
  latency: number;
}

/** The notes of a tuned lane whose open string shows them by its height, from the lowest to the highest. */
export interface Heights {
  laneId: string;
  note: MidiNote;
  notes: MidiNote[];
}

/** Where a blind test stands. */
export interface BlindTest {
  which: Compared;
  /** Whether the first of the two is the feel, in this round. */
  feelFirst: boolean;
  right: number;
  of: number;
}

/** What one compares with now: what was chosen, as far as there is one. */
export const selectAgainst = ({ view }: { view: ViewState }): Compared =>
  view.against === 'b' && !view.b ? 'bare' : view.against;

/** An edit that is heard and drawn but not made, until it is used. */
export interface Trial {
  /** What is tried, in words. */
  name: string;
  /** The pattern that it is shown in. */
  patternId: string;
  edit: { kind: 'pattern'; edit: PatternEdit } | { kind: 'beat'; edit: BeatEdit };
}

export interface SongView {
  shown: boolean;
  playing: boolean;
  /** In ticks from its first bar. */
  from: number;
  loop: { from: number; to: number } | null;
  /** The song with what is tried in it, a fill say. */
  tried: Beat | null;
}

/** A groove that is tried by ear, by itself or beside the beat. */
export interface Audition {
  beat: Beat;
  patternId: string;
}

export interface PlayInSettings {
  recording: boolean;
  replace: boolean;
  erasing: boolean;
  stepwise: boolean;
  quantize: number;
  /** On which grid what is held repeats; null where it does not. */
  repeat: Grid | null;
  /** Notes of the MIDI inputs strike the lanes too. */
  midi: boolean;
}

export interface MetronomeSettings {
  on: boolean;
  level: number;
  accent: boolean;
  onlyRecording: boolean;
}

export const ZOOMS = [0.25, 0.5, 1, 2, 4] as const;

const initialView: ViewState = {
  patternId: null,
  openLane: null,
  zoom: 1,
  mixOpen: false,
  glass: 2,
  theme: 'system',
  playing: false,
  selection: [],
  box: null,
  scope: 'hits',
  eraser: false,
  hearEdits: true,
  showHands: false,
  learnFeel: false,
  practice: null,
  leader: null,
  machinePorts: false,
  ports: false,
  hintsDone: [],
  trial: null,
  cursor: null,
  clip: null,
  pasteAt: null,
  patternClip: null,
  also: [],
  drawer: 'hits',
  switchAt: 'end',
  beginsAt: null,
  sheet: null,
  playIn: {
    recording: false,
    replace: false,
    erasing: false,
    stepwise: false,
    quantize: 0,
    repeat: null,
    midi: false,
  },
  metronome: { on: false, level: 0.6, accent: true, onlyRecording: false },
  countIn: false,
  song: { shown: false, playing: false, from: 0, loop: null, tried: null },
  latency: 0,
  exportHow: null,
  noteNames: 'c3',
  heights: null,
  routesAt: 'slot',
  recordingRoutes: false,
  routesPlayed: null,
  compare: null,
  blind: false,
  blindTest: null,
  against: 'bare',
  b: null,
  feelClip: null,
  audition: null,
};

const NOTHING_SELECTED = {
  selection: [],
  box: null,
  cursor: null,
  pasteAt: null,
  also: [],
  trial: null,
  scope: 'hits',
} satisfies Partial<ViewState>;

/** What a change of the view brings with it: another pattern ends what was selected, tried and edited together in this one. */
const following = (state: ViewState, change: Partial<ViewState>): ViewState => {
  const turned = change.patternId !== undefined && change.patternId !== state.patternId;
  const opened = change.openLane !== undefined && change.openLane !== state.openLane;
  const selected = change.selection !== undefined && change.box === undefined;
  return {
    ...state,
    ...(turned && { ...NOTHING_SELECTED, beginsAt: null }),
    ...(opened && { scope: 'hits' as const, trial: null }),
    ...(selected && { box: null }),
    ...change,
  };
};

const view = createSlice({
  name: 'view',
  initialState: initialView,
  reducers: {
    viewChanged: (state, { payload }: PayloadAction<Partial<ViewState>>) => following(state, payload),
    songViewed: (state, { payload }: PayloadAction<Partial<SongView>>) => ({
      ...state,
      song: { ...state.song, ...payload },
    }),
  },
  // What was selected, tried or edited together belongs to the beat that it was in.
  extraReducers: (builder) => builder.addCase(beatOpened, (state) => ({ ...state, ...NOTHING_SELECTED })),
});

/** A beat as it stands in the list of beats. */
export interface BeatSummary {
  id: string;
  name: string;
  tempo: number;
  meter: string;
  bars: number;
  /** When it was last saved, in ms since 1970. */
  saved: number;
  /** A newer Ruddik wrote it: it is left as it is. */
  newer?: boolean;
}

/** Saved data that could not be read and was set aside. */
export interface SetAside {
  key: string;
  name: string;
  reason: string;
  /** Whether it is the text of a beat, whole or not. */
  isBeat: boolean;
}

export interface LibraryState {
  status: 'loading' | 'ready';
  beats: BeatSummary[];
  aside: SetAside[];
}

const library = createSlice({
  name: 'library',
  initialState: { status: 'loading', beats: [], aside: [] } as LibraryState,
  reducers: {
    libraryRead: (_state, { payload }: PayloadAction<Omit<LibraryState, 'status'>>): LibraryState => ({
      status: 'ready',
      ...payload,
    }),
    summarySet: (state, { payload }: PayloadAction<BeatSummary>) => {
      const at = state.beats.findIndex(({ id }) => id === payload.id);
      if (at < 0) state.beats.push(payload);
      else state.beats[at] = payload;
    },
    summaryRemoved: (state, { payload }: PayloadAction<string>) => {
      state.beats = state.beats.filter(({ id }) => id !== payload);
    },
    asideRemoved: (state, { payload }: PayloadAction<string>) => {
      state.aside = state.aside.filter(({ key }) => key !== payload);
    },
  },
});

/** What a notice offers to do. */
export type NoticeAction =
  | { kind: 'saveBeat' }
  | { kind: 'undo'; at: number }
  | { kind: 'restoreBeat'; id: string }
  | { kind: 'downloadAside'; key: string }
  /** Opens what can be read of a text that was set aside. */
  | { kind: 'openAside'; key: string }
  /** What was handed to `offer`. */
  | { kind: 'offer'; id: string };

export interface Notice {
  id: string;
  text: string;
  tone: 'plain' | 'danger';
  /** Stays until it is dismissed. */
  lasting: boolean;
  action?: { label: string; does: NoticeAction };
  /** Something else that it offers. */
  also?: { label: string; does: NoticeAction };
  /** A later notice of the same subject takes its place. */
  subject?: string;
}

const notices = createSlice({
  name: 'notices',
  initialState: [] as Notice[],
  reducers: {
    noticed: {
      prepare: (notice: Partial<Notice> & { text: string }) => ({
        payload: { id: nanoid(), tone: 'plain', lasting: false, ...notice } as Notice,
      }),
      reducer: (state, { payload }: PayloadAction<Notice>) =>
        [...state.filter(({ subject }) => !subject || subject !== payload.subject), payload].slice(-4),
    },
    noticeDismissed: (state, { payload }: PayloadAction<string>) => state.filter(({ id }) => id !== payload),
    subjectClosed: (state, { payload }: PayloadAction<string>) =>
      state.filter(({ subject }) => subject !== payload),
  },
});

export const { viewChanged, songViewed } = view.actions;
export const { libraryRead, summarySet, summaryRemoved, asideRemoved } = library.actions;
export const { noticed, noticeDismissed, subjectClosed } = notices.actions;
export const viewReducer = view.reducer;
export const libraryReducer = library.reducer;
export const noticesReducer = notices.reducer;
