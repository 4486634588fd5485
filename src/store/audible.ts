import type { Beat } from '../../core/document/schema';
import { compared } from '../../core/analysis/compare';
import { wouldBe } from './doc';
import { selectPattern, type RootState } from './store';
import { type Trial } from './focus';

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

/** All of a beat at one tempo: what sections would have of their own is left aside meanwhile. */
const steady = (beat: Beat, tempo: number): Beat => ({
  ...beat,
  tempo,
  song: {
    ...beat.song,
    sections: beat.song.sections.map((section) => {
      const { tempo: _, ...change } = section.change ?? {};
      return section.change ? { ...section, change } : section;
    }),
  },
});

let practised: { beat: Beat; tempo: number; out: Beat } | null = null;

/** At another tempo than its own. */
const atTempo = (beat: Beat, tempo: number): Beat => {
  if (practised?.beat !== beat || practised.tempo !== tempo)
    practised = { beat, tempo, out: steady(beat, tempo) };
  return practised.out;
};

/** The beat as it is heard and drawn: as it is, with what is tried, or while one compares without its feel or with another. */
const selectHeard = (state: RootState): Beat | null => {
  const { beat } = state.doc;
  const { compare, b } = state.comparing;
  const { trial } = state.focus;
  const pattern = selectPattern(state);
  if (beat && trial && trial.patternId === pattern?.id) return withTrial(beat, trial);
  if (!beat || !pattern || compare === null) return beat;
  const key = [beat, pattern, compare, b];
  if (!last || key.some((one, at) => one !== last!.key[at]))
    last = { key, beat: compared(beat, pattern, compare, b?.feel ?? null) };
  return last.beat;
};

/** The same, at the tempo that it is practised at, or that another device gives. */
export const selectAudible = (state: RootState): Beat | null => {
  const beat = selectHeard(state);
  const { practice, leader } = state.transport;
  const tempo = leader?.bpm ?? practice;
  return beat && tempo !== null ? atTempo(beat, tempo) : beat;
};
