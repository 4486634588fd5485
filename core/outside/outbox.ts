import type { Channel, MidiNote, Ms, Velocity } from '../units';
import { isRealTime, type MidiBytes } from './midiStream';

/** Where messages leave by: a port of the machine, or the cable to a stand-in. */
export interface Out {
  /** @param time when it is to leave, in ms of the page's clock */
  send: (message: MidiBytes, time: Ms) => void;
  /** Takes back all that has not left yet; a port that cannot do so leaves this out. */
  clear?: () => void;
}

/** A note that is to be played outside. */
export interface NoteOut {
  time: Ms;
  length: Ms;
  channel: Channel;
  note: MidiNote;
  velocity: Velocity;
}

interface Waiting {
  message: MidiBytes;
  time: Ms;
}

const keyOf = (channel: number, note: number): number => channel * 128 + note;
const isOn = ([status, , velocity]: MidiBytes): boolean => (status! & 0xf0) === 0x90 && velocity! > 0;
const isOff = ([status, , velocity]: MidiBytes): boolean =>
  (status! & 0xf0) === 0x80 || ((status! & 0xf0) === 0x90 && velocity === 0);

/** Notes are let go at least so long after they were struck: some instruments overlook shorter ones. */
const SHORTEST_MS: Ms = 1;

/**
 * What leaves by one way out: messages are given ahead of time and leave on time, what is planned anew takes the place of what was
 * planned before, and no note is ever left on.
 *
 * @param now the page's clock, in ms
 */
export const createOutbox = (out: Out, now: () => Ms) => {
  /** Given to the port, and not yet left, in order of time. */
  let waiting: Waiting[] = [];
  /** How often each note sounds that has left, by channel and note. */
  const held = new Map<number, number>();

  /** What has left by now is no longer waited for. */
  const settle = (time: Ms): void => {
    const gone = waiting.findIndex((one) => one.time > time);
    const left = waiting.splice(0, gone < 0 ? waiting.length : gone);
    for (const { message } of left) {
      const key = keyOf(message[0]! & 0x0f, message[1] ?? 0);
      if (isOn(message)) held.set(key, (held.get(key) ?? 0) + 1);
      else if (isOff(message)) {
        const many = (held.get(key) ?? 0) - 1;
        if (many > 0) held.set(key, many);
        else held.delete(key);
      }
    }
  };

  const put = (message: MidiBytes, time: Ms): void => {
    let at = waiting.length;
    while (at > 0 && waiting[at - 1]!.time > time) at -= 1;
    waiting.splice(at, 0, { message, time });
    out.send(message, time);
  };

  /** Lets go of a note at a time, where it is still sounding then. */
  const offOf = (channel: Channel, note: MidiNote): MidiBytes => [0x80 | (channel - 1), note, 0];

  const putNotes = (notes: readonly NoteOut[]): void => {
    for (const { time, length, channel, note, velocity } of notes) {
      const strength = Math.max(1, Math.min(127, Math.round(velocity)));
      put([0x90 | (channel - 1), note, strength], time);
      put(offOf(channel, note), time + Math.max(SHORTEST_MS, length));
    }
  };

  const recall = (from: Ms): void => {
    settle(now());
    const [kept, gone] = [
      waiting.filter(({ time }) => time < from),
      waiting.filter(({ time }) => time >= from),
    ];
    if (!gone.length) return;
    if (out.clear) {
      out.clear();
      for (const { message, time } of kept) out.send(message, time);
    }
    // A note that is struck before, and whose end was taken back, ends where it is taken back.
    const open = new Map(held);
    for (const { message } of kept) {
      const key = keyOf(message[0]! & 0x0f, message[1] ?? 0);
      if (isOn(message)) open.set(key, (open.get(key) ?? 0) + 1);
      else if (isOff(message)) open.set(key, (open.get(key) ?? 0) - 1);
    }
    waiting = kept;
    for (const { message, time } of gone) {
      if (!isOff(message)) continue;
      const key = keyOf(message[0]! & 0x0f, message[1]!);
      const many = open.get(key) ?? 0;
      if (many <= 0) continue;
      open.set(key, many - 1);
      put(message, time);
    }
  };

  return {
    /** Notes in the place of all that was planned from a time on. */
    plan: (from: Ms, notes: readonly NoteOut[]): void => {
      recall(from);
      putNotes(notes);
    },
    /** Notes that come after all that was planned. */
    extend: (notes: readonly NoteOut[]): void => {
      settle(now());
      putNotes(notes);
    },
    /** Clock ticks and the like: they are taken back with the notes. */
    add: (message: MidiBytes, time: Ms): void => put(message, time),
    /** Nothing more leaves, and every note that sounds ends now. */
    stop: (): void => {
      const time = now();
      settle(time);
      // Where a port cannot take back what it was given, each note that is still to come is let go of right after.
      const coming = out.clear ? [] : waiting.filter(({ message }) => isOn(message));
      out.clear?.();
      waiting = waiting.filter(({ message }) => isRealTime(message[0]!) && message[0] !== 0xf8 && !out.clear);
      for (const [key, many] of held)
        for (let n = 0; n < many; n++) out.send([0x80 | (key >> 7), key & 127, 0], time);
      for (const { message, time: at } of coming)
        out.send([0x80 | (message[0]! & 0x0f), message[1]!, 0], at + SHORTEST_MS);
      held.clear();
    },
    /** Silences whatever is there, known or not: all notes and all sounds off on every channel. */
    panic: (): void => {
      const time = now();
      out.clear?.();
      waiting = [];
      held.clear();
      for (let channel = 0; channel < 16; channel++)
        for (const control of [120, 123]) out.send([0xb0 | channel, control, 0], time);
    },
    /** For tests and lights: what sounds now. */
    sounding: (): number => {
      settle(now());
      return [...held.values()].reduce((sum, many) => sum + many, 0);
    },
  };
};

export type Outbox = ReturnType<typeof createOutbox>;
