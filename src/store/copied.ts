import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Feel } from '../../core/document/feelSchema';
import type { Pattern } from '../../core/document/schema';
import type { Clip } from '../../core/edit/clip';

/** What was copied, each kind by itself: hits, a pattern and a feel, from this beat or another. */
export interface CopiedState {
  clip: Clip | null;
  patternClip: Pattern | null;
  feelClip: Feel | null;
}

const copied = createSlice({
  name: 'copied',
  initialState: { clip: null, patternClip: null, feelClip: null } as CopiedState,
  reducers: {
    hitsCopied: (state, { payload }: PayloadAction<Clip>) => ({ ...state, clip: payload }),
    patternCopied: (state, { payload }: PayloadAction<Pattern>) => ({ ...state, patternClip: payload }),
    feelCopied: (state, { payload }: PayloadAction<Feel>) => ({ ...state, feelClip: payload }),
  },
});

export const { hitsCopied, patternCopied, feelCopied } = copied.actions;
export const copiedReducer = copied.reducer;
