import type { Loop } from '../document/schema';
import { sliceFrames } from '../samples/renderVoice';
import type { Audio } from '../samples/sample';
import { wavOf } from './wav';

/** The slices of a loop as files, at its own rate: one after the other they are the loop. */
export const sliceFiles = ({ rate, channels }: Audio, cut: Pick<Loop, 'marks' | 'end'>): Uint8Array[] =>
  sliceFrames(cut, rate).map(([from, to]) =>
    wavOf(
      channels.map((data) => data.slice(from, to)),
      rate,
      24,
    ),
  );
