import type { Loop, Sample } from '../../../../core/document/schema';
import { bpmOf } from '../../../../core/samples/loopTempo';
import { marksAt } from '../../../../core/samples/loops';
import { store } from '../../../keeping/session';
import { selectBeat } from '../../../store/store';
import { askDesk } from '../../../workers/askOwn';
import type { LoopFound, Wave } from '../../../workers/soundDesk';

export const USUAL_SENSITIVITY = 50;

/** A loop that is worked on, and what is known of it. */
export interface OpenLoop {
  sample: Sample;
  found: LoopFound;
  wave: Wave;
  loop: Loop;
}

/** The tempo of a loop of so many bars, as far as a loop may have one. */
export const heldLoopTempo = (bpm: number): number => Math.min(400, Math.max(20, bpm));

/** What is found in a sample by how readily a mark is set; null where it is missing. */
export const foundIn = (sample: Sample, sensitivity: number, quarters: number): Promise<LoopFound | null> => {
  // Its name may tell its tempo, and it is likely brought into a beat that it suits.
  const hints = { file: sample.file, beat: selectBeat(store.getState())?.tempo };
  return askDesk<LoopFound | null>(
    (far) => far.found(sample.id, sensitivity, quarters, hints) as Promise<LoopFound | null>,
  );
};

/** A sample as a loop: its wave, its hits, cut at them, as long as it likely is. */
export const openLoop = async (sample: Sample, quarters: number, loop?: Loop): Promise<OpenLoop | null> => {
  const [wave, found] = await Promise.all([
    askDesk<Wave | null>((far) => far.wave(sample.id) as Promise<Wave | null>),
    foundIn(sample, USUAL_SENSITIVITY, quarters),
  ]);
  if (!wave || !found) return null;
  const likely = found.tempos[0] ?? { bars: 1, bpm: bpmOf(found.seconds, 1, quarters) };
  return {
    sample,
    wave,
    found,
    loop: loop ?? {
      sample,
      marks: marksAt(found.onsets, found.seconds),
      end: found.seconds,
      bars: likely.bars,
      tempo: heldLoopTempo(likely.bpm),
    },
  };
};
