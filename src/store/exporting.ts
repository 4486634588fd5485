import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { ExportHow } from '../../core/export/choice';
import { ownSettings, settingsRead } from './settings';

/** How the last export was asked for. */
export interface ExportingState {
  exportHow: ExportHow | null;
}

const exporting = createSlice({
  name: 'exporting',
  initialState: { exportHow: null } as ExportingState,
  reducers: {
    exportHowSet: (_state, { payload }: PayloadAction<ExportHow>) => ({ exportHow: payload }),
  },
  extraReducers: (builder) =>
    builder.addCase(settingsRead, (state, { payload }) => ({
      ...state,
      ...ownSettings('exporting', payload),
    })),
});

export const { exportHowSet } = exporting.actions;
export const exportingReducer = exporting.reducer;
