import { configureStore, type Middleware, type UnknownAction } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { feelOf, patternOf } from '../../core/document/defaults';
import { docReducer, isDocAction, type DocState } from './doc';
import { createDeferredEdits } from './deferredEdits';
import { groovesReducer } from './grooves';
import { hearingReducer } from './hearing';
import { comparingReducer } from './comparing';
import { copiedReducer } from './copied';
import { exportingReducer } from './exporting';
import { focusReducer, type FocusState } from './focus';
import { inputReducer } from './input';
import { libraryReducer, noticesReducer } from './slices';
import { lookReducer } from './look';
import { transportReducer } from './transport';

/** Hears each edit of the open beat: how it was before, what was done, how it is now. */
export type EditHearer = (before: DocState, action: UnknownAction, after: DocState) => void;

export const createStore = () => {
  const late = createDeferredEdits();
  let hear: EditHearer = () => undefined;
  const recorder: Middleware<object, { doc: DocState }> =
    ({ getState }) =>
    (next) =>
    (action) => {
      const before = getState().doc;
      const out = next(action);
      const after = getState().doc;
      if (after.beat !== before.beat && isDocAction(action as UnknownAction))
        hear(before, action as UnknownAction, after);
      return out;
    };
  const store = configureStore({
    reducer: {
      doc: docReducer,
      focus: focusReducer,
      copied: copiedReducer,
      look: lookReducer,
      transport: transportReducer,
      input: inputReducer,
      comparing: comparingReducer,
      exporting: exportingReducer,
      library: libraryReducer,
      notices: noticesReducer,
      grooves: groovesReducer,
      hearing: hearingReducer,
    },
    // The checks walk the whole beat on every action; the beat is plain data by its type.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false }).concat(late.middleware, recorder),
  });
  return Object.assign(store, {
    /** Hears edits; one hearer at most. */
    hearEdits: (next: EditHearer) => {
      hear = next;
    },
    /** Until edits that wait for their code have been done. */
    editsSettled: late.settled,
  });
};

export type Store = ReturnType<typeof createStore>;
export type RootState = ReturnType<Store['getState']>;
export type Dispatch = Store['dispatch'];

export const useApp = useSelector.withTypes<RootState>();
export const useDo = useDispatch.withTypes<Dispatch>();
/** The store itself, for what is looked up only when something is pressed. */
export const useAppStore = useStore.withTypes<Store>();

export const selectBeat = (state: RootState) => state.doc.beat;
/** The feel that the pattern shown is played with. */
export const selectFeel = (state: RootState) => {
  const pattern = selectPattern(state);
  return pattern && feelOf(state.doc.beat!, pattern);
};

export const selectPattern = (state: { doc: Pick<DocState, 'beat'>; focus: FocusState }) =>
  state.doc.beat && patternOf(state.doc.beat, state.focus.patternId);
