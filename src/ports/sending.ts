import { CLOCKS_A_QUARTER } from '../../core/ports/clockFollower';
import type { NoteOut } from '../../core/ports/outbox';
import { QUARTER, type Bpm, type Frames, type Ms, type Ticks } from '../../core/units';
import type { HandedNote } from '../audio/messages';
import { SAMPLE_RATE } from '../audio/timing';
import type { BarNote } from './firstBar';
import type { Hub } from './hub';

/** What is played leaves by the ports ahead of time, each message with the time at which it is heard here. */

const CLOCK_TICKS: Ticks = QUARTER / CLOCKS_A_QUARTER;
const SIXTEENTH: Ticks = QUARTER / 4;

/** From where on the audio clock counts what time. */
export interface SentAnchor {
  frame: Frames;
  tick: Ticks;
  song: Ticks | null;
  tempo: Bpm;
}

interface SendingParts {
  hub: Pick<Hub, 'outs'>;
  /** When a frame is heard, in ms of the page's clock. */
  timeOfFrame: (frame: Frames) => Ms | null;
  /** The ids of the lanes, by their places. */
  lanes: () => readonly string[];
  now: () => Ms;
  /** Does something when what is told together has been told. */
  soon: (work: () => void) => void;
}

/** The clocks of page and sound drift apart by less than this without being told: each jump would be a jolt in the clock. */
const DRIFT_MS = 1;

const frameOf = (anchor: SentAnchor, tick: Ticks): Frames =>
  anchor.frame + ((tick - anchor.tick) * 60 * SAMPLE_RATE) / (QUARTER * anchor.tempo);
const tickOf = (anchor: SentAnchor, frame: Frames): Ticks =>
  anchor.tick + ((frame - anchor.frame) * QUARTER * anchor.tempo) / (60 * SAMPLE_RATE);

/** Sends notes and the clock to all ports that are to have them. */
export const createSending = ({ hub, timeOfFrame, lanes, now, soon }: SendingParts) => {
  let anchors: SentAnchor[] = [];
  let offset: Ms | null = null;
  let began = false;
  /** Up to where all was told. */
  let told: Frames | null = null;
  /** What of the clock is still to be sent. */
  let owed: { from: Frames; until: Frames } | null = null;

  const timeOf = (frame: Frames): Ms => {
    const read = (timeOfFrame(frame) ?? now()) - (frame * 1000) / SAMPLE_RATE;
    if (offset === null || Math.abs(read - offset) > DRIFT_MS) offset = read;
    return (frame * 1000) / SAMPLE_RATE + offset;
  };
  const clocked = () => hub.outs().filter(({ setting }) => setting.clock);

  const sendClock = () => {
    if (!owed || !anchors.length) return;
    const { from, until } = owed;
    owed = null;
    const outs = clocked();
    anchors.forEach((anchor, at) => {
      const begin = Math.max(anchor.frame, from);
      const end = Math.min(anchors[at + 1]?.frame ?? Infinity, until);
      if (begin >= end || !outs.length) return;
      if (!began) start(anchor, outs);
      for (let n = Math.ceil(tickOf(anchor, begin) / CLOCK_TICKS - 1e-6); ; n++) {
        const frame = frameOf(anchor, n * CLOCK_TICKS);
        if (frame >= end - 1e-6) break;
        // What is counted in is before the start, and has no clock.
        if (n >= 0) outs.forEach(({ outbox }) => outbox.add([0xf8], timeOf(frame), `clock ${n}`));
      }
    });
  };
  const start = (anchor: SentAnchor, outs: ReturnType<typeof clocked>) => {
    began = true;
    const place = anchor.song ?? 0;
    const at = timeOf(frameOf(anchor, Math.max(0, anchor.tick)));
    for (const { outbox } of outs) {
      const sixteenths = Math.round(place / SIXTEENTH);
      if (sixteenths > 0) outbox.add([0xf2, sixteenths & 127, (sixteenths >> 7) & 127], at - 2);
      outbox.add([sixteenths > 0 ? 0xfb : 0xfa], at - 1);
    }
  };

  return {
    handed: (from: Frames, until: Frames, notes: readonly HandedNote[], fresh = false): void => {
      const ids = lanes();
      const begin = timeOf(from);
      // What only goes on takes nothing back.
      const goesOn = told !== null && from >= told;
      told = until;
      for (const { setting, outbox } of hub.outs()) {
        if (!setting.notes && !setting.clock) continue;
        const mine = setting.notes
          ? notes.filter(({ lane }) => !setting.lanes || setting.lanes.includes(ids[lane] ?? ''))
          : [];
        const out = mine.map(({ id, frame, frames, note, velocity, channel }): NoteOut => ({
          id,
          time: timeOf(frame),
          length: (frames * 1000) / SAMPLE_RATE,
          note,
          velocity,
          channel: setting.channel || channel,
        }));
        if (goesOn) outbox.extend(out);
        else outbox.plan(begin, out, fresh);
      }
      owed = { from: owed ? Math.min(owed.from, from) : from, until };
      soon(sendClock);
    },
    /** The first bar, let go of before the sound here is awake: what is handed over later finds it sent. */
    letGo: (notes: readonly BarNote[], at: Ms): void => {
      const ids = lanes();
      for (const { setting, outbox } of hub.outs()) {
        if (!setting.notes) continue;
        outbox.extend(
          notes
            .filter(({ lane }) => !setting.lanes || setting.lanes.includes(ids[lane] ?? ''))
            .map(({ id, ms, length, note, velocity, channel }) => ({
              id,
              time: at + ms,
              length,
              note,
              velocity,
              channel: setting.channel || channel,
            })),
        );
      }
    },
    /** Ports that can take nothing back get what they are to have by now. */
    feed: (): void => {
      for (const { outbox } of hub.outs()) outbox.feed();
    },
    anchored: (anchor: SentAnchor): void => {
      anchors = anchors.filter(({ frame }) => frame < anchor.frame).slice(-64);
      anchors.push(anchor);
    },
    stopped: (): void => {
      for (const { setting, outbox } of hub.outs()) {
        if (!setting.notes && !setting.clock) continue;
        outbox.stop();
        if (setting.clock && began) outbox.add([0xfc], now());
      }
      anchors = [];
      offset = null;
      owed = null;
      began = false;
      told = null;
    },
  };
};
