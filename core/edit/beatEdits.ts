import { patternOf, setPattern } from '../document/defaults';
import type { Beat, Feel, Lane, Swing } from '../document/schema';
import { withSwing } from './swing';
import type { Bpm } from '../units';
import { SWING } from '../document/choices';
import { heldToRange, RANGES } from '../document/ranges';
import { clamp, TEMPO } from '../units';

export { SWING };

/** A value that was asked for, and whether it had to be held to its range. */
export interface Held {
  value: number;
  held: boolean;
}

const within = (value: number, least: number, most: number): Held => {
  const kept = clamp(value, least, most);
  return { value: kept, held: kept !== value };
};

/** A tempo held to 20..300 BPM, to a hundredth. @example heldTempo(500) // { value: 300, held: true } */
export const heldTempo = (bpm: Bpm): Held => within(Math.round(bpm * 100) / 100, TEMPO.least, TEMPO.most);

/** A swing held to 40..75 %, to a hundredth. @example heldSwing(90) // { value: 75, held: true } */
export const heldSwing = (percent: number): Held =>
  within(Math.round(percent * 100) / 100, SWING.least, SWING.most);

/** Sets the tempo in BPM, held to 20 to 300. @example setTempo(beat, 140).tempo // 140 */
export const setTempo = (beat: Beat, bpm: Bpm): Beat => ({ ...beat, tempo: heldTempo(bpm).value });

/**
 * Changes the feel that a pattern is played with: its own, or the beat's.
 *
 * @example changeFeel(beat, null, (feel) => ({ ...feel, level: 0.5 })).feel.level // 0.5
 */
export const changeFeel = (beat: Beat, patternId: string | null, change: (feel: Feel) => Feel): Beat => {
  const pattern = patternOf(beat, patternId);
  if (!pattern.feel) return { ...beat, feel: change(beat.feel) };
  return setPattern(beat, { ...pattern, feel: change(pattern.feel) });
};

/**
 * Turns the swing of the feel that a pattern is played with.
 *
 * @example setSwing(beat, null, { percent: 58 }).feel.swing.percent // 58
 */
export const setSwing = (beat: Beat, patternId: string | null, change: Partial<Swing>): Beat =>
  changeFeel(beat, patternId, ({ blend, ...plain }) => ({
    ...withSwing(plain, {
      ...change,
      ...(change.percent !== undefined && { percent: heldSwing(change.percent).value }),
      ...(change.withTempo !== undefined && { withTempo: heldToRange(RANGES.share, change.withTempo) }),
    }),
    ...(blend && { blend }),
  }));

/**
 * Changes one lane; the others stay the same objects.
 *
 * @example setLane(beat, 'kick', { mute: true }).lanes[0]!.mute // true
 */
export const setLane = (beat: Beat, laneId: string, change: Partial<Omit<Lane, 'id'>>): Beat => ({
  ...beat,
  lanes: beat.lanes.map((lane) => (lane.id === laneId ? { ...lane, ...change } : lane)),
});
