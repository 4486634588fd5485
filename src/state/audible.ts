import type { Beat } from '../../core/document/schema';
import { compared } from '../../core/analysis/compare';
import { wouldBe } from './doc';
import type { Trial } from './slices';
import { selectPattern, type RootState } from './store';

let last: { key: unknown[]; beat: Beat } | null = null;
let tried: { beat: Beat; trial: Trial; out: Beat } | null = null;

/** A beat with what is tried in it. */
const withTrial = (beat: Beat, trial: Trial): Beat => {
  if (tried?.beat !== beat || tried.trial !== trial) {
    const { edit, patternId } = trial;
    const out = wouldBe(beat, edit.kind === 'beat' ? edit : { ...edit, patternIds: [patternId] });
    tried = { beat, trial, out };
  }
  return tried.out;
};

let practised: { beat: Beat; tempo: number; out: Beat } | null = null;

/** At the tempo that it is practised at. */
const atTempo = (beat: Beat, tempo: number): Beat => {
  if (practised?.beat !== beat || practised.tempo !== tempo)
    practised = { beat, tempo, out: { ...beat, tempo } };
  return practised.out;
};

/** The beat as it is heard and drawn: as it is, with what is tried, or while one compares without its feel or with another. */
const selectHeard = (state: RootState): Beat | null => {
  const { beat } = state.doc;
  const { compare, b, trial } = state.view;
  const pattern = selectPattern(state);
  if (beat && trial && trial.patternId === pattern?.id) return withTrial(beat, trial);
  if (!beat || !pattern || compare === null) return beat;
  const key = [beat, pattern, compare, b];
  if (!last || key.some((one, at) => one !== last!.key[at]))
    last = { key, beat: compared(beat, pattern, compare, b?.feel ?? null) };
  return last.beat;
};

/** The same, at the tempo that it is practised at. */
export const selectAudible = (state: RootState): Beat | null => {
  const beat = selectHeard(state);
  return beat && state.view.practice !== null ? atTempo(beat, state.view.practice) : beat;
};
