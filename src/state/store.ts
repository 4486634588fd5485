import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { feelOf } from '../../core/beat/defaults';
import { patternOf } from '../../core/pattern/beatEdits';
import { docReducer } from './doc';
import { lateEdits } from './lateEdits';
import { groovesReducer } from './grooves';
import { libraryReducer, noticesReducer, viewReducer } from './slices';

export const createStore = () =>
  configureStore({
    reducer: {
      doc: docReducer,
      view: viewReducer,
      library: libraryReducer,
      notices: noticesReducer,
      grooves: groovesReducer,
    },
    // The checks walk the whole beat on every action; the beat is plain data by its type.
    middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).concat(lateEdits),
  });

export type Store = ReturnType<typeof createStore>;
export type RootState = ReturnType<Store['getState']>;
export type Dispatch = Store['dispatch'];

export const useApp = useSelector.withTypes<RootState>();
export const useDo = useDispatch.withTypes<Dispatch>();

export const selectBeat = (state: RootState) => state.doc.beat;
/** The feel that the pattern shown is played with. */
export const selectFeel = (state: RootState) => {
  const pattern = selectPattern(state);
  return pattern && feelOf(state.doc.beat!, pattern);
};

export const selectPattern = (state: RootState) =>
  state.doc.beat && patternOf(state.doc.beat, state.view.patternId);
