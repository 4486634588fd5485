import { VERSION } from './version';
import type { MidiNote, Ticks } from '../units';
import { gridTicks } from './grid';
import { newFeel } from './feelDefaults';
import { LEVELS } from './levels';
import { instrument, type InstrumentId } from './instruments';
import { barTicks } from './meter';
import type { Beat, Feel, Hit, Lane, LanePattern, Pattern } from './schema';

/** A lane's part before anything is in it. */
export const EMPTY_LANE_PATTERN: LanePattern = {
  grid: '1/16',
  steps: null,
  rate: '1',
  direction: 'forward',
  hits: [],
};

/** A plain hit. @example newHit(4).velocity // 96 */
export const newHit = (step: number, velocity = 96): Hit => ({
  step,
  nudge: 0,
  velocity,
  length: null,
  chance: 1,
});

/**
 * A lane for an instrument, at full level, in the middle, neither muted nor soloed.
 *
 * @example newLane('a', 'kick').note // 36
 */
export const newLane = (id: string, instrumentId: InstrumentId): Lane => ({
  id,
  name: instrument(instrumentId).name,
  instrument: instrumentId,
  note: instrument(instrumentId).note,
  channel: 10,
  level: 1,
  pan: 0,
  mute: false,
  solo: false,
  ...tunedAs(instrumentId),
});

/** Not the drums', so that no drum kit plays what has pitches. */
const PITCHED_CHANNEL = 1;

/**
 * The tuning that a lane begins with: an octave up and down from its note, as far as notes go.
 *
 * @example tuningAround(60).low // 48
 */
export const tuningAround = (note: MidiNote): NonNullable<Lane['tuning']> => ({
  root: 'C',
  scale: 'minor pentatonic',
  low: Math.max(0, note - 12),
  high: Math.min(127, note + 12),
});

/**
 * The channel and the tuning that a lane begins with when its instrument plays pitches; nothing for a drum.
 *
 * @example tunedAs('marimba').tuning // { root: "C", scale: "minor pentatonic", low: 48, high: 72 }
 */
export const tunedAs = (id: InstrumentId): Pick<Lane, 'channel' | 'tuning'> | Record<string, never> => {
  const { note, tuned } = instrument(id);
  return tuned ? { channel: PITCHED_CHANNEL, tuning: tuningAround(note) } : {};
};

/** An empty pattern of one bar of 4/4. @example newPattern('a', 'A').bars // 1 */
export const newPattern = (id: string, name: string): Pattern => ({
  id,
  name,
  meter: { beats: 4, unit: 4 },
  bars: 1,
  parts: {},
});

const FIRST_LANES: InstrumentId[] = [
  'kick',
  'snare',
  'clap',
  'hat.closed',
  'hat.open',
  'tom.low',
  'tom.high',
  'ride',
  'crash',
  'shaker',
];

/**
 * A beat with nothing in it yet: ten lanes, one bar of 4/4 at 100 BPM.
 *
 * @param id names the document for good
 * @param seed what is drawn at random follows from it, 0 to 2^32 - 1
 * @example newBeat('b', 'Ferry', 7).tempo // 100
 */
export const newBeat = (id: string, name: string, seed: number): Beat => ({
  kind: 'ruddik.beat',
  version: VERSION,
  id,
  name,
  tempo: 100,
  kit: 'quay',
  feel: newFeel(),
  feels: [],
  templates: [],
  seed,
  random: 2,
  levels: { ...LEVELS },
  groups: [],
  lanes: FIRST_LANES.map((one) => newLane(one, one)),
  patterns: [newPattern('a', 'A')],
  tray: [],
  song: { sections: [], order: [] },
});

/**
 * The part of a lane in a pattern; an empty one where there is none.
 *
 * @example lanePatternOf(pattern, 'kick').hits.length // 4
 */
export const lanePatternOf = (pattern: Pattern, laneId: string): LanePattern =>
  pattern.parts[laneId] ?? EMPTY_LANE_PATTERN;

/**
 * The feel that a pattern is played with: its own, or the beat's.
 *
 * @example feelOf(beat, pattern) === beat.feel // true
 */
export const feelOf = (beat: Beat, pattern: Pattern): Feel => pattern.feel ?? beat.feel;

/** The length of a pattern. @example patternTicks({ ...pattern, bars: 2 }) // 7680 */
export const patternTicks = (pattern: Pattern): Ticks => barTicks(pattern.meter) * pattern.bars;

/**
 * How many steps a part has: its own, or as many as begin within the pattern.
 *
 * @example stepsOf(EMPTY_LANE_PATTERN, newPattern('a', 'A')) // 16
 */
export const stepsOf = (part: LanePattern, pattern: Pattern): number =>
  part.steps ?? Math.max(1, Math.ceil(patternTicks(pattern) / gridTicks(part.grid) - 1e-9));

/**
 * The lanes that sound: those not muted, and only the soloed ones as long as there are any.
 *
 * @example
 * soundingLanes({ ...beat, lanes: beat.lanes.map((one) => ({ ...one, solo: one.id === 'kick' })) }).map(({ id }) => id)
 * // ["kick"]
 */
export const soundingLanes = (beat: Beat): Lane[] => {
  const solo = beat.lanes.some((lane) => lane.solo);
  return beat.lanes.filter((lane) => !lane.mute && (!solo || lane.solo));
};

/**
 * The same pattern with another part for a lane.
 *
 * @example withLanePattern(pattern, 'kick', EMPTY_LANE_PATTERN).parts['kick']!.hits // []
 */
export const withLanePattern = (pattern: Pattern, laneId: string, part: LanePattern): Pattern => ({
  ...pattern,
  parts: { ...pattern.parts, [laneId]: part },
});

/**
 * Puts a changed pattern in the place of the one with its id.
 *
 * @example setPattern(beat, { ...pattern, name: 'Rain' }).patterns[0]!.name // "Rain"
 */
export const setPattern = (beat: Beat, pattern: Pattern): Beat => ({
  ...beat,
  patterns: beat.patterns.map((one) => (one.id === pattern.id ? pattern : one)),
});

/** The pattern with an id, or the first one. @example patternOf(beat, 'nobody').id // "a" */
export const patternOf = (beat: Beat, id: string | null): Pattern =>
  beat.patterns.find((pattern) => pattern.id === id) ?? beat.patterns[0]!;
