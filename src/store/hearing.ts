import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Fit } from '../../core/groove/fit';
import type { Groove } from '../../core/groove/groove';
import { PLAIN_VOICING, type Voicing } from '../../core/groove/voicing';

/** The groove that is heard or was heard last, and how it is to be played. */
export interface Heard {
  groove: Groove | null;
  /** While a file is read or fetched. */
  loading: string | null;
  fit: Fit;
  voicing: Voicing;
  sounding: boolean;
}

export const PLAIN_FIT: Fit = { times: '1', bars: null };

export const heardAtFirst: Heard = {
  groove: null,
  loading: null,
  fit: PLAIN_FIT,
  voicing: PLAIN_VOICING,
  sounding: false,
};

const hearing = createSlice({
  name: 'hearing',
  initialState: heardAtFirst,
  reducers: {
    // A new object: a draft of a groove of some thousand hits would be made and frozen each time.
    heardChanged: (state, { payload }: PayloadAction<Partial<Heard>>) => ({ ...state, ...payload }),
  },
});

export const { heardChanged } = hearing.actions;
export const hearingReducer = hearing.reducer;
