import type { MidiNote } from '../../core/units';
import { createPatternStarts } from '../store/patternStarts';
import type { Store } from '../store/store';

/** Begins patterns by the keys of a device, by their order: each as its own key says, or as patterns switch. @param togglePlay begins and ends play */
export const createPatternNotes = (store: Pick<Store, 'dispatch' | 'getState'>, togglePlay: () => void) => {
  const starts = createPatternStarts(
    store,
    (order: number) => {
      const { doc, transport } = store.getState();
      const pattern = doc.beat?.patterns[order];
      return (
        pattern && { pattern, at: pattern.key?.at ?? transport.switchAt, held: pattern.key?.held ?? false }
      );
    },
    togglePlay,
  );
  return {
    /** @param first the note of the first pattern */
    on: (first: MidiNote, note: MidiNote) => void starts.down(note - first),
    off: (first: MidiNote, note: MidiNote) => void starts.up(note - first),
  };
};
