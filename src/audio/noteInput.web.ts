import type { MidiNote } from '../../core/units';

/**
 * Where notes come from outside: the browser's MIDI inputs, asked for only when a person wants to learn a note, and a
 * simulated one that takes its notes from events of the page, for browsers and machines that have none.
 */

/** The event by which the simulated input plays a note; `detail` is the note number. */
export const SIMULATED_NOTE = 'ruddik-note';

const WAIT_MS = 15000;

const inputs = async (): Promise<MIDIInput[]> => {
  if (!navigator.requestMIDIAccess) return [];
  try {
    const access = await navigator.requestMIDIAccess();
    return [...access.inputs.values()];
  } catch {
    return [];
  }
};

const isNoteOn = (data: Uint8Array | null): data is Uint8Array =>
  !!data && (data[0]! & 0xf0) === 0x90 && data[2]! > 0;

/** The next note that is played on any input; null where none comes within 15 seconds. */
export const learnNote = (): Promise<MidiNote | null> =>
  new Promise((resolve) => {
    const stops: (() => void)[] = [];
    const done = (note: MidiNote | null) => {
      stops.forEach((stop) => stop());
      resolve(note);
    };
    const simulated = (event: Event) => done((event as CustomEvent<number>).detail);
    window.addEventListener(SIMULATED_NOTE, simulated);
    const timer = setTimeout(() => done(null), WAIT_MS);
    stops.push(
      () => window.removeEventListener(SIMULATED_NOTE, simulated),
      () => clearTimeout(timer),
    );
    void inputs().then((all) => {
      for (const input of all) {
        const hear = ({ data }: MIDIMessageEvent) => isNoteOn(data) && done(data[1]!);
        input.addEventListener('midimessage', hear);
        stops.push(() => input.removeEventListener('midimessage', hear));
      }
    });
  });

/** Plays a note on the simulated input. */
export const simulateNote = (note: MidiNote): void => {
  window.dispatchEvent(new CustomEvent(SIMULATED_NOTE, { detail: note }));
};
