import { straightenLane } from '../feel/straight';
import { positionOf } from '../document/position';
import { STEPS } from '../document/choices';
import { gridTicks } from '../document/grid';
import { barTicks } from '../document/meter';
import { feelOf, newPattern } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import { INSTRUMENTS } from '../document/instruments';
import type { Beat, KitId, Lane, LanePattern, Pattern } from '../document/schema';
import { clamp, type Bpm } from '../units';
import { grooveTicks, type Groove, type GrooveLane } from './groove';
import { layOut } from './layOut';

/** How a groove is heard before it is brought in. */
export interface Hearing {
  tempo: Bpm;
  kit: KitId;
  /** Ends with a silent bar, so that nothing of a second round is heard before it is stopped. */
  once: boolean;
}

const laneOf = ({ instrument, note, channel, unknown }: GrooveLane, at: number): Lane => ({
  id: `groove ${at}`,
  name: unknown ? `Note ${note}` : INSTRUMENTS[instrument].name,
  instrument,
  note,
  channel,
  level: 1,
  pan: 0,
  mute: false,
  solo: false,
});

/** A part that loops after the groove's own length, whatever the pattern's is. */
const loopOf = ({ part }: GrooveLane, length: number): LanePattern => {
  const steps = length / gridTicks(part.grid);
  if (Number.isInteger(steps)) return { ...part, steps };
  // A bar that is no whole number of its steps is one of sixteenths, or of finer steps where those are too coarse.
  const scale = gridTicks(part.grid) / gridTicks('1/16');
  const timed = part.hits.map((hit) => ({
    at: positionOf(hit, part.grid),
    hit: hit.length === null ? hit : { ...hit, length: clamp(hit.length * scale, 1e-3, 64) },
  }));
  const laid = layOut(timed, '1/16', length);
  return { ...part, ...laid, steps: length / gridTicks(laid.grid) };
};

const partsOf = (groove: Groove): Record<string, LanePattern> => {
  const length = grooveTicks(groove);
  return Object.fromEntries(groove.lanes.map((lane, at) => [`groove ${at}`, loopOf(lane, length)]));
};

/**
 * A groove as a beat of one pattern, to be played by itself.
 *
 * @example grooveToBeat(groove, beat, { tempo: 96, kit: 'quay', once: false }).tempo // 96
 */
export const grooveToBeat = (groove: Groove, like: Beat, { tempo, kit, once }: Hearing): Beat => {
  const bars = once ? groove.bars + 1 : groove.bars;
  const parts = Object.fromEntries(
    Object.entries(partsOf(groove)).map(([id, part]) => {
      const steps = once ? (part.steps! / groove.bars) * bars : part.steps!;
      // The pattern is as long as the groove: a long part goes by it.
      return [id, { ...part, steps: steps > STEPS.most ? null : steps }];
    }),
  );
  const pattern: Pattern = {
    ...newPattern(`groove ${groove.id}`, groove.name),
    meter: groove.meter,
    bars,
    parts,
  };
  const lanes = groove.lanes.map(laneOf);
  return { ...like, tempo, kit, feel: newFeel(), lanes, groups: [], patterns: [pattern] };
};

/**
 * A beat with a groove beside it, both in time: the groove's bars fall on the bars of the pattern, however long either is.
 *
 * @param silenced lanes of the beat that are not heard meanwhile
 * @example besideBeat(beat, pattern, groove, ['kick']).lanes[0]!.mute // true
 */
export const besideBeat = (beat: Beat, pattern: Pattern, groove: Groove, silenced: string[]): Beat => {
  const solo = beat.lanes.some((lane) => lane.solo);
  const added = groove.lanes.map((lane, at) => ({ ...laneOf(lane, at), solo }));
  const lanes = [
    ...beat.lanes.map((lane) => (silenced.includes(lane.id) ? { ...lane, mute: true } : lane)),
    ...added,
  ];
  const all = { ...beat, lanes };
  const feel = added.reduce((now, { id }) => straightenLane(all, now, id), feelOf(beat, pattern));
  const parts = { ...pattern.parts, ...partsOf(groove) };
  return { ...all, patterns: [{ ...pattern, feel, parts }] };
};

/** How far a groove is, at a time since play began. @example grooveBar({ ...groove, bars: 2 }, 4000) // 1 */
export const grooveBar = (groove: Groove, tick: number): number =>
  Math.floor((tick % grooveTicks(groove)) / barTicks(groove.meter));
