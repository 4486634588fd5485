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
  /** Which stroke it is: the same in every plan. Left out, it is like no other. */
  id?: string;
  time: Ms;
  length: Ms;
  channel: Channel;
  note: MidiNote;
  velocity: Velocity;
}

/** How a way out has kept its word, since it was there. */
export interface OutCount {
  /** Notes that left more than 2 ms after they were due. */
  late: number;
  /** Notes that left twice. */
  doubled: number;
}

interface Waiting {
  message: MidiBytes;
  time: Ms;
  /** Which stroke begins, where one does. */
  id: string | null;
  /** The port has it. */
  given: boolean;
}

const keyOf = (channel: number, note: number): number => channel * 128 + note;
const isOn = ([status, , velocity]: MidiBytes): boolean => (status! & 0xf0) === 0x90 && velocity! > 0;
const isOff = ([status, , velocity]: MidiBytes): boolean =>
  (status! & 0xf0) === 0x80 || ((status! & 0xf0) === 0x90 && velocity === 0);

/** Notes are let go at least so long after they were struck: some instruments overlook shorter ones. */
const SHORTEST_MS: Ms = 1;
/** A port that can take nothing back is given what is due within so long: longer than a page mostly stands still. */
const AHEAD_MS: Ms = 400;
/** Messages that have left are remembered for so long: no plan of it is older. */
const MEMORY_MS: Ms = 1000;
/** More than this after its time a note is late. */
const LATE_MS: Ms = 2;

/**
 * The queue of one way out: messages are given ahead of time and leave on time, what is planned anew takes the place of what was
 * planned before, what has left is not sent again by any new plan, and no note is ever left on.
 *
 * @param now the page's clock, in ms
 */
export const createOutbox = (out: Out, now: () => Ms) => {
  /** Not yet left, in order of time. */
  let waiting: Waiting[] = [];
  /** How often each note sounds that has left, by channel and note. */
  const held = new Map<number, number>();
  /** When each stroke left, of the last second. */
  const left = new Map<string, Ms>();
  const count: OutCount = { late: 0, doubled: 0 };

  /** Gives the port what it is to have by now. */
  const feed = (time: Ms): void => {
    const until = out.clear ? Infinity : time + AHEAD_MS;
    for (const one of waiting) {
      if (one.time > until) break;
      if (one.given) continue;
      one.given = true;
      if (isOn(one.message) && time - one.time > LATE_MS) count.late += 1;
      out.send(one.message, one.time);
    }
  };

  /** A message that has left is no longer waited for. */
  const settle = (time: Ms): void => {
    feed(time);
    const gone = waiting.findIndex((one) => one.time > time);
    for (const { message, id, time: at } of waiting.splice(0, gone < 0 ? waiting.length : gone)) {
      const key = keyOf(message[0]! & 0x0f, message[1] ?? 0);
      if (isOn(message)) held.set(key, (held.get(key) ?? 0) + 1);
      else if (isOff(message)) {
        const many = (held.get(key) ?? 0) - 1;
        if (many > 0) held.set(key, many);
        else held.delete(key);
      }
      if (id === null) continue;
      if (left.has(id)) count.doubled += 1;
      left.set(id, at);
    }
    for (const [id, at] of left) if (at < time - MEMORY_MS) left.delete(id);
  };

  const put = (message: MidiBytes, time: Ms, id: string | null = null): void => {
    let at = waiting.length;
    while (at > 0 && waiting[at - 1]!.time > time) at -= 1;
    waiting.splice(at, 0, { message, time, id, given: false });
  };

  /** Lets go of a note at a time, where it is still sounding then. */
  const offOf = (channel: Channel, note: MidiNote): MidiBytes => [0x80 | (channel - 1), note, 0];

  const putNotes = (notes: readonly NoteOut[]): void => {
    const coming = new Set(waiting.flatMap(({ id }) => (id === null ? [] : [id])));
    for (const { id, time, length, channel, note, velocity } of notes) {
      // It has left, or can be taken back no more.
      if (id !== undefined && (left.has(id) || coming.has(id))) continue;
      const strength = Math.max(1, Math.min(127, Math.round(velocity)));
      put([0x90 | (channel - 1), note, strength], time, id ?? null);
      put(offOf(channel, note), time + Math.max(SHORTEST_MS, length));
    }
    feed(now());
  };

  const recall = (from: Ms): void => {
    settle(now());
    const stays = ({ time, given }: Waiting): boolean => time < from || (given && !out.clear);
    const [kept, gone] = [waiting.filter(stays), waiting.filter((one) => !stays(one))];
    if (!gone.length) return;
    if (out.clear) {
      out.clear();
      for (const one of kept) if (one.given) out.send(one.message, one.time);
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
    /**
     * Notes in the place of all that was planned from a time on; a time that is past takes back only what has not left.
     *
     * @param fresh something else plays from now on, or it leapt: what was heard may come again
     */
    plan: (from: Ms, notes: readonly NoteOut[], fresh = false): void => {
      recall(from);
      if (fresh) left.clear();
      putNotes(notes);
    },
    /** Notes that come after all that was planned. */
    extend: (notes: readonly NoteOut[]): void => {
      settle(now());
      putNotes(notes);
    },
    /** Clock ticks and the like: they are taken back with the notes. @param id by which it is known if it is planned again */
    add: (message: MidiBytes, time: Ms, id?: string): void => {
      settle(now());
      if (id !== undefined && (left.has(id) || waiting.some((one) => one.id === id))) return;
      put(message, time, id ?? null);
      feed(now());
    },
    /** Gives the port what it is to have by now: to be called often where it can take nothing back. */
    feed: (): void => settle(now()),
    /** Nothing more leaves, and every note that sounds ends now. */
    stop: (): void => {
      const time = now();
      settle(time);
      // Where a port cannot take back what it was given, each note that is still to come is let go of right after.
      const coming = out.clear ? [] : waiting.filter(({ message, given }) => given && isOn(message));
      out.clear?.();
      waiting = waiting.filter(
        ({ message, given }) => given && isRealTime(message[0]!) && message[0] !== 0xf8 && !out.clear,
      );
      for (const [key, many] of held)
        for (let n = 0; n < many; n++) out.send([0x80 | (key >> 7), key & 127, 0], time);
      for (const { message, time: at } of coming)
        out.send([0x80 | (message[0]! & 0x0f), message[1]!, 0], at + SHORTEST_MS);
      held.clear();
      left.clear();
    },
    /** Silences whatever is there, known or not: all notes and all sounds off on every channel. */
    panic: (): void => {
      const time = now();
      out.clear?.();
      waiting = [];
      held.clear();
      left.clear();
      for (let channel = 0; channel < 16; channel++)
        for (const control of [120, 123]) out.send([0xb0 | channel, control, 0], time);
    },
    /** For tests and lights: what sounds now. */
    sounding: (): number => {
      settle(now());
      return [...held.values()].reduce((sum, many) => sum + many, 0);
    },
    /** How many notes were late, and how many doubled. */
    count: (): OutCount => ({ ...count }),
  };
};

export type Outbox = ReturnType<typeof createOutbox>;
