import type { DrumMap } from '../../document/drumMapSchema';
import { INSTRUMENTS, type InstrumentId } from '../../document/instruments';
import type { Beat, Lane } from '../../document/schema';
import type { MidiNote } from '../../units';
import { crossing, entryOf, instrumentIn, type Crossing } from './drumMap';

/** The consequences of writing a beat with another map. */
export type MapChoice =
  /** Lanes keep their instruments and get the numbers that the map has for them. */
  | { keep: 'instruments'; as: Record<string, InstrumentId | null> }
  /** Lanes keep their numbers and become what the map has there: their names and instruments follow. */
  | { keep: 'notes' };

/** The fate of a lane. */
export interface LaneCrossing extends Crossing {
  lane: Lane;
  /** Another drum that its number would sound there, if it stayed. */
  clash: InstrumentId | null;
}

/** The fate of each lane of a beat in a map. @example laneCrossings(beat, GENERAL_MIDI)[0]!.kind // "same" */
export const laneCrossings = ({ lanes }: Pick<Beat, 'lanes'>, to: DrumMap): LaneCrossing[] =>
  lanes.map((lane) => {
    const way = crossing(to, lane.instrument);
    const there = way.kind === 'none' ? instrumentIn(to, lane.note, lane.channel) : null;
    return { lane, ...way, clash: there };
  });

const withNumber = (lane: Lane, map: DrumMap, as: InstrumentId | null): Lane => {
  const entry = as ? entryOf(map, as) : null;
  return entry ? { ...lane, note: entry.note, channel: entry.channel ?? lane.channel } : lane;
};

/** A name that nobody chose follows the instrument. */
const renamed = (lane: Lane, to: InstrumentId): string =>
  lane.name === INSTRUMENTS[lane.instrument].name || lane.name === `Note ${lane.note}`
    ? INSTRUMENTS[to].name
    : lane.name;

const withInstrument = (lane: Lane, map: DrumMap): Lane => {
  const there = instrumentIn(map, lane.note, lane.channel);
  return there && there !== lane.instrument
    ? { ...lane, name: renamed(lane, there), instrument: there }
    : lane;
};

/**
 * Writes a beat with a map. What the map has nothing for keeps its number.
 *
 * @example writtenWith(beat, GENERAL_MIDI, { keep: 'instruments', as: {} }).lanes[0]!.note // 36
 */
export const writtenWith = (beat: Beat, map: DrumMap, choice: MapChoice): Beat => ({
  ...beat,
  map,
  lanes: beat.lanes.map((lane) => {
    if (choice.keep === 'notes') return withInstrument(lane, map);
    const chosen = choice.as[lane.id];
    return withNumber(lane, map, chosen === undefined ? crossing(map, lane.instrument).as : chosen);
  }),
});

/**
 * The numbers that two lanes of different instruments share.
 *
 * @example sharedNumbers({ lanes: [newLane('a', 'kick'), newLane('b', 'kick')] }) // []
 */
export const sharedNumbers = ({ lanes }: Pick<Beat, 'lanes'>): MidiNote[] => {
  const seen = new Map<string, InstrumentId>();
  const out = new Set<MidiNote>();
  for (const { note, channel, instrument } of lanes) {
    const key = `${channel} ${note}`;
    const there = seen.get(key);
    if (there && there !== instrument) out.add(note);
    seen.set(key, instrument);
  }
  return [...out].sort((a, b) => a - b);
};
