import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Grid } from '../../core/document/grid';
import { ownSettings, settingsRead } from './settings';

/** How strokes are played in, on pads, keys and devices. */
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

/** What taps, strokes and devices do. */
export interface InputState {
  /** Taps and drags take hits off. */
  eraser: boolean;
  /** A hit that is put down or struck harder is heard. */
  hearEdits: boolean;
  /** What is played in is kept, so that one's own feel can be told. */
  learnFeel: boolean;
  playIn: PlayInSettings;
  /** The machine's own ports were allowed before. */
  machinePorts: boolean;
  /** Ports were wanted before: they are there again with the app. */
  ports: boolean;
}

const initialState: InputState = {
  eraser: false,
  hearEdits: true,
  learnFeel: false,
  playIn: {
    recording: false,
    replace: false,
    erasing: false,
    stepwise: false,
    quantize: 0,
    repeat: null,
    midi: false,
  },
  machinePorts: false,
  ports: false,
};

const input = createSlice({
  name: 'input',
  initialState,
  reducers: {
    eraserToggled: (state) => ({ ...state, eraser: !state.eraser }),
    hearEditsToggled: (state) => ({ ...state, hearEdits: !state.hearEdits }),
    learnFeelSet: (state, { payload }: PayloadAction<boolean>) => ({ ...state, learnFeel: payload }),
    playInSet: (state, { payload }: PayloadAction<Partial<PlayInSettings>>) => ({
      ...state,
      playIn: { ...state.playIn, ...payload },
    }),
    portsWanted: (state) => ({ ...state, ports: true }),
    machinePortsAllowed: (state) => ({ ...state, machinePorts: true }),
  },
  extraReducers: (builder) =>
    builder.addCase(settingsRead, (state, { payload }) => ({ ...state, ...ownSettings('input', payload) })),
});

export const { eraserToggled, hearEditsToggled, learnFeelSet, playInSet, portsWanted, machinePortsAllowed } =
  input.actions;
export const inputReducer = input.reducer;
