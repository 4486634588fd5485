import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Compared } from '../../core/analysis/compare';
import type { Feel } from '../../core/document/feelSchema';

/** Where a blind test stands. */
export interface BlindTestState {
  which: Compared;
  /** Whether the first of the two is the feel, in this round. */
  feelFirst: boolean;
  right: number;
  of: number;
}

/** The feel beside another one, heard or told apart blind. */
export interface ComparingState {
  /** Compared with: without any feel, or with the other feel; null is the beat as it is. */
  compare: Compared | null;
  /** A blind test is on: what is heard is not shown. */
  blind: boolean;
  /** A blind test that was begun. */
  blindTest: BlindTestState | null;
  /** What one compares with, by the button, by C and in a blind test. */
  against: Compared;
  /** The feel that is compared and blended with. */
  b: { name: string; feel: Feel } | null;
}

/** What one compares with now: what was chosen, as far as there is one. */
export const selectAgainst = ({ comparing }: { comparing: ComparingState }): Compared =>
  comparing.against === 'b' && !comparing.b ? 'bare' : comparing.against;

const comparing = createSlice({
  name: 'comparing',
  initialState: { compare: null, blind: false, blindTest: null, against: 'bare', b: null } as ComparingState,
  reducers: {
    compared: (state, { payload }: PayloadAction<Compared | null>) => ({ ...state, compare: payload }),
    againstChosen: (state, { payload }: PayloadAction<Compared>) => ({ ...state, against: payload }),
    /** What is compared is no longer heard, or told apart. */
    comparingEnded: (state) => ({ ...state, compare: null, blind: false }),
    /** One of the two is heard, and not shown. */
    blindHeard: (state, { payload }: PayloadAction<Compared>) => ({
      ...state,
      compare: payload,
      blind: true,
    }),
    blindTestBegun: (state, { payload }: PayloadAction<BlindTestState>) => ({
      ...state,
      blindTest: payload,
      blind: true,
    }),
    /** The test begins anew with what is under it now; whether it is on stays. */
    blindTestTurned: (state, { payload }: PayloadAction<BlindTestState>) => ({
      ...state,
      blindTest: payload,
    }),
    blindTestLeft: (state) => ({ ...state, compare: null, blind: false, blindTest: null }),
    bChosen: (state, { payload }: PayloadAction<ComparingState['b']>) => ({ ...state, b: payload }),
  },
});

export const {
  compared,
  againstChosen,
  comparingEnded,
  blindHeard,
  blindTestBegun,
  blindTestTurned,
  blindTestLeft,
  bChosen,
} = comparing.actions;
export const comparingReducer = comparing.reducer;
