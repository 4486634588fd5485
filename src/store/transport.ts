import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Beat } from '../../core/document/schema';
import type { PassesPlayed } from '../../core/edit/playedRoutes';
import { patternShown } from './focus';
import { ownSettings, settingsRead } from './settings';

/** A groove that is tried by ear, by itself or beside the beat. */
export interface Audition {
  beat: Beat;
  patternId: string;
}

/** The song: whether its screen is open, whether it is what plays, from where, and what of it is repeated. */
export interface SongView {
  shown: boolean;
  playing: boolean;
  /** In ticks from its first bar. */
  from: number;
  loop: { from: number; to: number } | null;
  /** The song with what is tried in it, a fill say. */
  tried: Beat | null;
}

export interface MetronomeSettings {
  on: boolean;
  level: number;
  accent: boolean;
  onlyRecording: boolean;
}

/** When another pattern begins while one is playing. */
export type SwitchAt = 'now' | 'beat' | 'end';

/** Whose clock is followed, how fast it goes as far as that is known, and whether it comes. */
export interface Leader {
  name: string;
  bpm: number | null;
  runs: boolean;
}

/** What plays, how fast and from where. */
export interface TransportState {
  playing: boolean;
  switchAt: SwitchAt;
  /** When the pattern that was chosen last begins, where its key says so. */
  beginsAt: SwitchAt | null;
  /** The tempo that is practised at, in BPM; null while it is the beat's own. */
  practice: number | null;
  /** null while Ruddik leads. */
  leader: Leader | null;
  /** What is heard in the place of the beat, or with it: a groove that is tried. */
  audition: Audition | null;
  song: SongView;
  metronome: MetronomeSettings;
  /** A bar is counted before the pattern begins. */
  countIn: boolean;
  /** How much later a stroke arrives than it was meant, in ms. */
  latency: number;
  /** While it plays, a route that is recalled begins at the next slot, or the next bar. */
  routesAt: 'slot' | 'bar';
  /** The switching of routes is recorded; and what was recorded last, to be put into the song. */
  recordingRoutes: boolean;
  routesPlayed: (PassesPlayed & { patternId: string }) | null;
}

const initialState: TransportState = {
  playing: false,
  switchAt: 'end',
  beginsAt: null,
  practice: null,
  leader: null,
  audition: null,
  song: { shown: false, playing: false, from: 0, loop: null, tried: null },
  metronome: { on: false, level: 0.6, accent: true, onlyRecording: false },
  countIn: false,
  latency: 0,
  routesAt: 'slot',
  recordingRoutes: false,
  routesPlayed: null,
};

const withSong = (state: TransportState, change: Partial<SongView>): TransportState => ({
  ...state,
  song: { ...state.song, ...change },
});

const transport = createSlice({
  name: 'transport',
  initialState,
  reducers: {
    /** @param payload whether it is the song that plays */
    playBegan: (state, { payload }: PayloadAction<boolean>) =>
      withSong({ ...state, playing: true }, { playing: payload }),
    /** Play ends, and with it what was tried by ear. */
    playEnded: (state) =>
      withSong({ ...state, playing: false, audition: null }, { playing: false, tried: null }),
    auditionBegan: (state, { payload }: PayloadAction<Audition>) => ({
      ...state,
      audition: payload,
      playing: true,
    }),
    /** Another one is tried in the place of the one that plays, or beside the beat. */
    auditionTurned: (state, { payload }: PayloadAction<Audition>) => ({ ...state, audition: payload }),
    /** @param payload whether the beat that ran before it plays on */
    auditionEnded: (state, { payload }: PayloadAction<boolean>) => ({
      ...state,
      audition: null,
      playing: payload,
    }),
    songShown: (state, { payload }: PayloadAction<boolean>) => withSong(state, { shown: payload }),
    songPlaceSet: (state, { payload }: PayloadAction<SongView['from']>) => withSong(state, { from: payload }),
    /** What is repeated; the place that play begins at stays. */
    songLooped: (state, { payload }: PayloadAction<SongView['loop']>) => withSong(state, { loop: payload }),
    /** The song is tried with something in it, or no longer; from where it then plays, and what of it is repeated. */
    songTried: (state, { payload }: PayloadAction<Pick<SongView, 'tried'> & Partial<SongView>>) =>
      withSong(state, payload),
    switchAtSet: (state, { payload }: PayloadAction<SwitchAt>) => ({ ...state, switchAt: payload }),
    practiceSet: (state, { payload }: PayloadAction<TransportState['practice']>) =>
      payload === state.practice ? state : { ...state, practice: payload },
    leaderTold: (state, { payload }: PayloadAction<Leader | null>) => ({ ...state, leader: payload }),
    metronomeSet: (state, { payload }: PayloadAction<Partial<MetronomeSettings>>) => ({
      ...state,
      metronome: { ...state.metronome, ...payload },
    }),
    countInToggled: (state) => ({ ...state, countIn: !state.countIn }),
    latencySet: (state, { payload }: PayloadAction<TransportState['latency']>) => ({
      ...state,
      latency: payload,
    }),
    routesAtSet: (state, { payload }: PayloadAction<TransportState['routesAt']>) => ({
      ...state,
      routesAt: payload,
    }),
    routesRecording: (state) => ({ ...state, recordingRoutes: true, routesPlayed: null }),
    routesRecorded: (state) => ({ ...state, recordingRoutes: false }),
    routesKept: (state, { payload }: PayloadAction<TransportState['routesPlayed']>) => ({
      ...state,
      routesPlayed: payload,
    }),
  },
  extraReducers: (builder) =>
    builder
      .addCase(patternShown, (state, { payload }) => ({ ...state, beginsAt: payload.beginsAt }))
      .addCase(settingsRead, (state, { payload }) => ({ ...state, ...ownSettings('transport', payload) })),
});

export const {
  playBegan,
  playEnded,
  auditionBegan,
  auditionTurned,
  auditionEnded,
  songShown,
  songPlaceSet,
  songLooped,
  songTried,
  switchAtSet,
  practiceSet,
  leaderTold,
  metronomeSet,
  countInToggled,
  latencySet,
  routesAtSet,
  routesRecording,
  routesRecorded,
  routesKept,
} = transport.actions;
export const transportReducer = transport.reducer;
