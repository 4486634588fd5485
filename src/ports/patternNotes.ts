import type { Pattern } from '../../core/document/schema';
import type { MidiNote } from '../../core/units';
import { viewChanged } from '../state/slices';
import { selectBeat, type Store } from '../state/store';

/** Patterns begun by the notes of a device, one a key from a first one on: each as its own key says, or as patterns switch. */

interface Pressed {
  note: MidiNote;
  /** The pattern that it led away from. */
  from: string | null;
  /** It set play going. */
  began: boolean;
}

/** @param togglePlay begins and ends play */
export const createPatternNotes = (
  store: Pick<Store, 'dispatch' | 'getState'>,
  togglePlay: () => void,
): { on: (first: MidiNote, note: MidiNote) => void; off: (first: MidiNote, note: MidiNote) => void } => {
  let pressed: Pressed | null = null;
  const patternOf = (first: MidiNote, note: MidiNote): Pattern | undefined =>
    selectBeat(store.getState() as Parameters<typeof selectBeat>[0])?.patterns[note - first];
  const show = (patternId: string | null, { key }: Pattern) =>
    store.dispatch(
      viewChanged({
        patternId,
        beginsAt: key?.at ?? store.getState().view.switchAt,
        selection: [],
        cursor: null,
      }),
    );
  const back = (pattern: Pattern) => {
    const { from, began } = pressed!;
    pressed = null;
    if (began && store.getState().view.playing) togglePlay();
    if (store.getState().doc.beat?.patterns.some(({ id }) => id === from)) show(from, pattern);
  };
  return {
    /** A key goes down: its pattern begins; where it is to be pressed again, the second press leads back. */
    on: (first, note) => {
      const pattern = patternOf(first, note);
      if (!pattern) return;
      const { view, doc } = store.getState();
      if (pressed?.note === note && view.patternId === pattern.id && !pattern.key?.held) return back(pattern);
      pressed = { note, from: view.patternId ?? doc.beat!.patterns[0]!.id, began: !view.playing };
      show(pattern.id, pattern);
      if (!view.playing) togglePlay();
    },
    /** A key comes up: a pattern that plays while it is held ends. */
    off: (first, note) => {
      const pattern = patternOf(first, note);
      if (pattern?.key?.held && pressed?.note === note) back(pattern);
    },
  };
};
