import { feelOf, newPattern, patternTicks } from '../beat/defaults';
import { newFeel } from '../beat/feelDefaults';
import { MOST } from '../beat/choices';
import { INSTRUMENTS, type InstrumentId } from '../beat/instruments';
import type { Beat, Lane, Part, Pattern } from '../beat/schema';
import { gridTicks } from '../beat/grid';
import { barTicks } from '../beat/meter';
import { entryOf } from '../midi/drumMap';
import { laneStraightened } from '../pattern/writeIn';
import { patternOf, setPattern } from '../pattern/beatEdits';
import { fitGroove } from './fit';
import type { Groove, GrooveLane } from './groove';

/** Where a groove goes. */
export type Bring =
  | { how: 'new'; id: string; name: string }
  | { how: 'replace'; patternId: string }
  /** Only these of its instruments, over what is there. */
  | { how: 'over'; patternId: string; instruments: InstrumentId[] };

/** What was brought in. */
export interface Brought {
  beat: Beat;
  /** Names of instruments that found no lane since the beat is full. */
  left: string[];
}

const freeId = (lanes: Lane[], id: string): string => {
  const taken = new Set(lanes.map((lane) => lane.id));
  let at = 2;
  let free = id;
  while (taken.has(free)) free = `${id}-${at++}`;
  return free;
};

/** A lane for an instrument, with the note that the beat's map has for it. */
const laneFor = (beat: Beat, { instrument, note, channel, unknown }: GrooveLane): Lane => {
  const entry = beat.map && !unknown ? entryOf(beat.map, instrument) : null;
  return {
    id: freeId(beat.lanes, instrument),
    name: unknown ? `Note ${note}` : INSTRUMENTS[instrument].name,
    instrument,
    note: entry?.note ?? note,
    channel: entry?.channel ?? channel,
    level: 1,
    pan: 0,
    mute: false,
    solo: false,
  };
};

/** The beat's lane that plays what a groove's lane plays: the same instrument, none used twice. */
const matching = (beat: Beat, lane: GrooveLane, used: ReadonlySet<string>): Lane | undefined => {
  const free = beat.lanes.filter(({ id }) => !used.has(id));
  const same = free.filter((one) => one.instrument === lane.instrument);
  const exact = same.find((one) => one.note === lane.note);
  // What goes by its number alone is no drum of the beat's.
  return lane.unknown ? exact : (exact ?? same[0]);
};

const partLike = (part: Part): Part => ({
  grid: part.grid,
  steps: null,
  rate: '1',
  direction: 'forward',
  hits: part.hits,
});

/** The lanes of a groove by the ids of the beat's lanes; lanes that are missing are made. */
const landed = (beat: Beat, lanes: GrooveLane[]): Brought & { parts: Record<string, Part> } => {
  const used = new Set<string>();
  const left: string[] = [];
  const parts: Record<string, Part> = {};
  let now = beat;
  for (const lane of lanes) {
    let target = matching(now, lane, used);
    if (!target) {
      if (now.lanes.length >= MOST.lanes) {
        left.push(INSTRUMENTS[lane.instrument].name);
        continue;
      }
      target = laneFor(now, lane);
      now = { ...now, lanes: [...now.lanes, target] };
    }
    used.add(target.id);
    parts[target.id] = partLike(lane.part);
  }
  return { beat: now, left, parts };
};

/** A groove's hits lie where they were played: a feel over them would move them twice. */
const asPlayed = (beat: Beat, pattern: Pattern): Pattern => {
  const straight = newFeel();
  const { takes, ...rest } = feelOf(beat, pattern).humanize;
  const feel = { ...straight, humanize: { ...straight.humanize, ...rest, takes, timing: 0, velocity: 0 } };
  return { ...pattern, feel };
};

const lanesAsPlayed = (beat: Beat, pattern: Pattern, laneIds: string[]): Pattern => ({
  ...pattern,
  feel: laneIds.reduce((feel, id) => laneStraightened(beat, feel, id), feelOf(beat, pattern)),
});

/**
 * Brings a groove into a beat: as a new pattern, in the place of one, or some of its instruments over one, repeated or
 * cut to that pattern's length. What it plays sounds as it did, whatever feel the beat has.
 *
 * @returns the beat, and what found no room in it
 */
export const bringIn = (beat: Beat, groove: Groove, bring: Bring): Brought => {
  if (bring.how === 'new') {
    if (beat.patterns.length >= MOST.patterns)
      return { beat, left: ['all of it: a beat holds 256 patterns'] };
    const { parts, ...done } = landed(beat, groove.lanes);
    const made = { ...newPattern(bring.id, bring.name), meter: groove.meter, bars: groove.bars, parts };
    const patterns = [...done.beat.patterns, asPlayed(beat, made)];
    return { beat: { ...done.beat, patterns }, left: done.left };
  }
  const pattern = patternOf(beat, bring.patternId);
  if (bring.how === 'replace') {
    const { parts, ...done } = landed(beat, groove.lanes);
    const now = { ...pattern, meter: groove.meter, bars: groove.bars, parts };
    return { beat: setPattern(done.beat, asPlayed(beat, now)), left: done.left };
  }
  const chosen = groove.lanes.filter(({ instrument }) => bring.instruments.includes(instrument));
  const length = patternTicks(pattern);
  const { parts, ...done } = landed(
    beat,
    chosen.map((lane) => within(groove, lane, length)),
  );
  const ids = Object.keys(parts);
  const now = lanesAsPlayed(done.beat, { ...pattern, parts: { ...pattern.parts, ...parts } }, ids);
  return { beat: setPattern(done.beat, now), left: done.left };
};

/** A lane as long as another pattern, whatever its bars are: repeated, and cut at the end. */
const within = (groove: Groove, lane: GrooveLane, length: number): GrooveLane => {
  const g = gridTicks(lane.part.grid);
  const bars = Math.ceil(length / barTicks(groove.meter) - 1e-9);
  const [fitted] = fitGroove({ ...groove, lanes: [lane] }, { times: '1', bars }).lanes;
  const hits = fitted!.part.hits.filter(({ step, nudge }) => (step + nudge) * g < length - 1e-6);
  return { ...lane, part: { ...lane.part, hits } };
};
