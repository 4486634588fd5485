import { CLOCKS_A_QUARTER, createClockFollower } from '../../core/ports/clockFollower';
import type { MidiBytes } from '../../core/ports/midiStream';
import { QUARTER, type Bpm, type Ms, type Ticks } from '../../core/units';

/** Another device leads: its clock is followed, with its start, stop, continue and place in the song. */

const CLOCK_TICKS: Ticks = QUARTER / CLOCKS_A_QUARTER;
const SIXTEENTH: Ticks = QUARTER / 4;

/** What is told of who leads. */
export interface FollowedLeader {
  name: string;
  /** Null until it is known. */
  bpm: Bpm | null;
  /** Whether its ticks come. */
  runs: boolean;
}

interface FollowingParts {
  now: () => Ms;
  /** Who leads now; null is Ruddik itself. */
  onLeader: (leader: FollowedLeader | null) => void;
  /** Someone else's clock comes while one is followed. */
  onSecond: (name: string, leads: string) => void;
  /**
   * @param place where in the song it begins, in ticks; 0 is its start
   * @param at when that place is due, in ms of the page's clock
   */
  start: (place: Ticks, at: Ms) => void;
  /** The leader's clock ticks and nothing plays: it may say start at any time. */
  arm?: () => void;
  /** It went from one place to another, from where it was to where it is, in ticks: it may do so again. */
  leapt?: (from: Ticks, to: Ticks) => void;
  /** It went on where it had leapt before. */
  wentOn?: () => void;
  stop: () => void;
  isPlaying: () => boolean;
  /** Where play stands at a time, in ticks from where it began or, in a song, from its first bar; null while that is not known. */
  tickAt: (time: Ms) => Ticks | null;
  /** At a time play is to stand at a tick. */
  align: (time: Ms, tick: Ticks) => void;
}

/** So often it is looked how far play is from the clock. */
export const FOLLOW_LOOK_MS: Ms = 120;
/** It is put right ahead of time, so that nothing that sounds is moved. */
const AHEAD_MS: Ms = 80;
/** Less than this is left: putting it right would cost more than it gives. */
const CLOSE_MS: Ms = 0.25;
/** And so is a tempo that differs by less: the clock's jitter makes it, and each new one is drawn and planned anew. */
const CLOSE_BPM: Bpm = 0.05;
/** Farther off than this play has leapt where the leader did not. */
const FAR_MS: Ms = 250;
/** The first tick after a start is waited for, where it is not known when it comes, for no longer than this. */
const WAIT_MS: Ms = 60;
/** A tick that comes so shortly after its time is that tick. */
const TICK_ROOM_MS: Ms = 6;

/** A tempo is told to so many places. */
const TOLD = 100;

/** Follows one clock at a time: the first that comes, until it stops. */
export const createFollowing = (parts: FollowingParts) => {
  const { now, onLeader, onSecond, tickAt, align } = parts;
  let follower = createClockFollower();
  let leader: FollowedLeader | null = null;
  let told: string | null = null;
  /** Where in the song the clock's count began. */
  let place: Ticks = 0;
  let begun = false;
  /** When it said start, where its first tick is still to come. */
  let waits: Ms | null = null;
  /** It leapt: the next tick says where it is. */
  let leaping = false;

  /** Play begins: at once, where the first tick comes at a time that is known. */
  const startAt = (at: Ms) => {
    waits = null;
    begun = true;
    if (parts.isPlaying()) parts.stop();
    parts.start(place, at);
  };

  /** When the tick after a moment is due by the clock so far; null where that is not known. */
  const nextTick = (time: Ms): Ms | null => {
    const { bpm, runs } = follower.state(time);
    const at = follower.ticksAt(time);
    if (bpm === null || !runs || at === null) return null;
    const period = 60_000 / (CLOCKS_A_QUARTER * bpm);
    const last = follower.ticks() - 1;
    const due = time + (last + 1 - at) * period;
    // Farther off than a tick and a half, the clock stood still: its next tick is when it comes.
    return due >= time - TICK_ROOM_MS && due <= time + 1.5 * period ? Math.max(due, time) : null;
  };

  const tell = () => {
    const text = JSON.stringify(leader);
    if (text === told) return;
    told = text;
    onLeader(leader && { ...leader });
  };

  /** Where it stops, it goes on when it is told to continue. */
  const halt = () => {
    if (begun) place += follower.ticks() * CLOCK_TICKS;
    begun = false;
  };

  const look = (): void => {
    if (!leader) return;
    const { bpm, runs } = follower.state(now());
    leader.runs = runs;
    // A clock that stopped has told its last tempo: play goes on in it until it is stopped.
    if (bpm !== null && runs && Math.abs(bpm - (leader.bpm ?? Infinity)) > CLOSE_BPM)
      leader.bpm = Math.round(bpm * TOLD) / TOLD;
    tell();
    if (waits !== null && now() - waits > WAIT_MS) startAt(waits);
    if (!runs || bpm === null) return;
    if (!parts.isPlaying()) {
      if (waits === null) parts.arm?.();
      return;
    }
    if (!begun) return;
    const time = now() + AHEAD_MS;
    const [ticks, at] = [follower.ticksAt(time), tickAt(time)];
    if (ticks === null || at === null) return;
    const wanted = place + ticks * CLOCK_TICKS;
    const off = ((at - wanted) * 60_000) / (QUARTER * bpm);
    if (Math.abs(off) > FAR_MS && !leaping) parts.wentOn?.();
    if (ticks >= 0 && Math.abs(off) > CLOSE_MS) align(time, wanted);
  };

  return {
    /** @returns whether the message was the clock's */
    take: (name: string, bytes: MidiBytes, time: Ms): boolean => {
      const [status] = bytes;
      if (![0xf8, 0xfa, 0xfb, 0xfc, 0xf2].includes(status!)) return false;
      if (leader && leader.name !== name) {
        if (follower.state(now()).runs) {
          if (status === 0xf8) onSecond(name, leader.name);
          return true;
        }
        leader = null;
      }
      if (!leader) {
        leader = { name, bpm: null, runs: true };
        follower = createClockFollower();
        begun = false;
      }
      if (status === 0xf8) {
        follower.tick(time);
        if (waits !== null) startAt(time);
        else if (leaping) look();
        leaping = false;
      } else if (status === 0xf2) {
        const to = ((bytes[1] ?? 0) + 128 * (bytes[2] ?? 0)) * SIXTEENTH;
        if (begun && parts.isPlaying()) {
          // Its next tick would have been there, and is here.
          const from = place + follower.ticks() * CLOCK_TICKS;
          leaping = true;
          if (Math.abs(to - from) > SIXTEENTH) parts.leapt?.(from, to);
        }
        place = to;
        // While it runs, it is a leap: its next tick is there.
        follower.restart();
      } else if (status === 0xfc) {
        halt();
        waits = null;
        if (parts.isPlaying()) parts.stop();
      } else if (status === 0xfa || !begun || !parts.isPlaying()) {
        halt();
        if (status === 0xfa) place = 0;
        const due = nextTick(time);
        follower.restart();
        if (due === null) waits = time;
        else startAt(due);
      }
      tell();
      return true;
    },
    look,
    /** Nobody is followed any more. */
    end: (): void => {
      leader = null;
      begun = false;
      waits = null;
      tell();
    },
    leader: (): FollowedLeader | null => leader,
  };
};
