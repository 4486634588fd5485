import type { MidiNote, Ms, Velocity } from '../../core/units';

/**
 * Where notes come from outside: the browser's MIDI inputs, asked for only when a person wants to play or learn a note, and
 * a simulated one that takes its notes from events of the page, for browsers and machines that have none.
 */

/** The event by which the simulated input plays a note; `detail` is the note number, or the note with its velocity. */
export const SIMULATED_NOTE = 'ruddik-note';

/** A note that was played outside. */
export interface NoteIn {
  note: MidiNote;
  velocity: Velocity;
  /** When it was struck, in ms of the page's clock. */
  time: Ms;
}

/** By which a note is pressed harder or let go; `detail` is a `HeldIn`. */
const SIMULATED_HELD = 'ruddik-held';

/** What becomes of a note after it was struck. */
export interface HeldIn {
  /** Null is all that are held. */
  note: MidiNote | null;
  /** How hard it is pressed by now, 0 to 127; null where it is let go. */
  pressure: number | null;
}

const WAIT_MS = 15000;

/** How strong a simulated note is that does not say it. */
const SIMULATED_VELOCITY = 100;

const access = async (): Promise<MIDIAccess | null> => {
  if (!navigator.requestMIDIAccess) return null;
  try {
    return await navigator.requestMIDIAccess();
  } catch {
    return null;
  }
};

/** How many hear notes now. */
let listening = 0;

/** Whether anyone hears what is played outside: who plays in, or learns a note. */
export const isHeard = (): boolean => listening > 0;

/** A note came by a port: whoever hears notes gets it, with the time of its own. */
export const playOutside = (note: NoteIn): void => {
  window.dispatchEvent(new CustomEvent(SIMULATED_NOTE, { detail: note }));
};

/** A note that came by a port is pressed harder, or let go. */
export const holdOutside = (held: HeldIn): void => {
  window.dispatchEvent(new CustomEvent(SIMULATED_HELD, { detail: held }));
};

/**
 * What a message says of notes that are held; null where it says nothing of them.
 *
 * @example heldOf([0xd9, 80]) // { note: null, pressure: 80 }
 */
export const heldOf = ([status = 0, first = 0, second = 0]: ArrayLike<number> &
  Iterable<number>): HeldIn | null => {
  const kind = status & 0xf0;
  if (kind === 0x80 || (kind === 0x90 && second === 0)) return { note: first, pressure: null };
  if (kind === 0xa0) return { note: first, pressure: second };
  return kind === 0xd0 ? { note: null, pressure: first } : null;
};

const isNoteOn = (data: Uint8Array | null): data is Uint8Array =>
  !!data && (data[0]! & 0xf0) === 0x90 && data[2]! > 0;

/** What is done with what is played outside. */
interface Hearing {
  give: (note: NoteIn) => void;
  /** What becomes of notes that are held. */
  hold?: (held: HeldIn) => void;
  /** Whether the browser's own inputs are asked for; without, what comes by ports is heard alone. */
  asks?: boolean;
  /** Told how many inputs there are, now and whenever that changes. */
  found?: (inputs: number) => void;
}

/** Hears every note that is played on any input, those that are plugged in later too. @returns stops it */
export const hearNotes = ({ give, hold, asks = true, found }: Hearing): (() => void) => {
  let heard = true;
  const inputs = new Set<MIDIInput>();
  const simulated = (event: Event) => {
    const { detail } = event as CustomEvent<number | (Omit<NoteIn, 'time'> & { time?: Ms })>;
    const note = typeof detail === 'number' ? { note: detail, velocity: SIMULATED_VELOCITY } : detail;
    give({ time: event.timeStamp, ...note });
  };
  const hear = ({ data, timeStamp }: MIDIMessageEvent) => {
    if (isNoteOn(data)) return give({ note: data[1]!, velocity: data[2]!, time: timeStamp });
    const held = data && heldOf(data);
    if (held) hold?.(held);
  };
  const simulatedHold = (event: Event) => hold?.((event as CustomEvent<HeldIn>).detail);
  listening += 1;
  window.addEventListener(SIMULATED_NOTE, simulated);
  window.addEventListener(SIMULATED_HELD, simulatedHold);
  let unplug = () => undefined as void;
  void (asks ? access() : Promise.resolve(null)).then((midi) => {
    if (!midi || !heard) return found?.(0);
    const look = () => {
      for (const input of midi.inputs.values())
        if (!inputs.has(input)) {
          inputs.add(input);
          input.addEventListener('midimessage', hear);
        }
      found?.(midi.inputs.size);
    };
    look();
    midi.addEventListener('statechange', look);
    unplug = () => midi.removeEventListener('statechange', look);
  });
  return () => {
    if (heard) listening -= 1;
    heard = false;
    unplug();
    window.removeEventListener(SIMULATED_NOTE, simulated);
    window.removeEventListener(SIMULATED_HELD, simulatedHold);
    for (const input of inputs) input.removeEventListener('midimessage', hear);
  };
};

let cancel: () => void = () => undefined;

/** The next note that is played on any input; null where none comes within 15 seconds, or another is to be learnt first. */
export const learnNote = (): Promise<MidiNote | null> => {
  cancel();
  return new Promise((resolve) => {
    const done = (note: MidiNote | null) => {
      stop();
      clearTimeout(timer);
      cancel = () => undefined;
      resolve(note);
    };
    const timer = setTimeout(() => done(null), WAIT_MS);
    const stop = hearNotes({ give: ({ note }) => done(note) });
    cancel = () => done(null);
  });
};

/** No longer waits for a note to learn. */
export const cancelLearning = (): void => cancel();

/** Plays a note on the simulated input. */
export const simulateNote = (note: MidiNote): void => {
  window.dispatchEvent(new CustomEvent(SIMULATED_NOTE, { detail: note }));
};
