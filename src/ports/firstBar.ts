import { barTicks } from '../../core/document/meter';
import { patternOf } from '../../core/document/defaults';
import { soundingPattern, soundingSong } from '../../core/document/sounding';
import type { Beat } from '../../core/document/schema';
import { playable } from '../../core/play/playable';
import { planLive, planSong } from '../../core/play/timelinePlan';
import type { Channel, MidiNote, Ms, Ticks, Velocity } from '../../core/units';
import { identity } from '../audio/feeder';

/** A note of the first bar that would play, with its time from the start of play. */
export interface BarNote {
  /** Which stroke it is: the same as the player will say. */
  id: string;
  ms: Ms;
  length: Ms;
  lane: number;
  note: MidiNote;
  velocity: Velocity;
  channel: Channel;
}

/** What would play: a pattern from its start, or the song from a place. */
export interface WouldPlay {
  beat: Beat;
  patternId: string | null;
  /** Null where a pattern plays by itself. */
  from: Ticks | null;
}

/**
 * The first bar of what would play, made ready while another clock ticks: on its start the notes are let go of at once.
 *
 * @example firstBar({ beat, patternId: 'a', from: null })[0]!.ms // 0
 */
export const firstBar = ({ beat, patternId, from }: WouldPlay): BarNote[] => {
  const pattern = patternOf(beat, patternId);
  const plan =
    from === null
      ? playable(planLive(soundingPattern(beat, pattern), pattern))
      : playable(planSong(soundingSong(beat, pattern)), { start: from });
  const zero = plan.secondsAt(plan.start);
  const msAt = (tick: Ticks): Ms => (plan.secondsAt(tick) - zero) * 1000;
  return plan.notes(plan.start, plan.start + barTicks(plan.meterAt(plan.start))).map((note) => ({
    id: identity(note),
    ms: msAt(note.tick),
    length: msAt(note.tick + note.length) - msAt(note.tick),
    lane: note.lane,
    note: note.note,
    velocity: note.velocity,
    channel: note.channel,
  }));
};
