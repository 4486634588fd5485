import { createSlice, nanoid, type PayloadAction } from '@reduxjs/toolkit';

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

export interface NoticeState {
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
  initialState: [] as NoticeState[],
  reducers: {
    noticed: {
      prepare: (notice: Partial<NoticeState> & { text: string }) => ({
        payload: { id: nanoid(), tone: 'plain', lasting: false, ...notice } as NoticeState,
      }),
      reducer: (state, { payload }: PayloadAction<NoticeState>) =>
        [...state.filter(({ subject }) => !subject || subject !== payload.subject), payload].slice(-4),
    },
    noticeDismissed: (state, { payload }: PayloadAction<string>) => state.filter(({ id }) => id !== payload),
    subjectClosed: (state, { payload }: PayloadAction<string>) =>
      state.filter(({ subject }) => subject !== payload),
  },
});

export const { libraryRead, summarySet, summaryRemoved, asideRemoved } = library.actions;
export const { noticed, noticeDismissed, subjectClosed } = notices.actions;
export const libraryReducer = library.reducer;
export const noticesReducer = notices.reducer;
