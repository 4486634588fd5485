import { straightenLane } from '../feel/straight';
import { inOrder, placed, positionOf } from '../document/position';
import { setPattern, feelOf, newPattern, lanePatternOf, patternTicks, patternOf } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import { MOST, SONG } from '../document/choices';
import { INSTRUMENTS, type InstrumentId } from '../document/instruments';
import { freeId, numbered } from '../document/numbered';
import type { Beat, Lane, LanePattern, Pattern } from '../document/schema';
import { count, listed } from '../document/text';
import { gridTicks, type Grid } from '../document/grid';
import { barTicks, meterText } from '../document/meter';
import { entryOf } from '../midi/drumMap/drumMap';
import { DRUM_CHANNEL } from '../midi/read/parts';
import { commitFeel } from '../play/commitFeel';
import { clamp, type Ticks } from '../units';
import { fitGroove, groovePiecesOf } from '../groove/fit';
import { layOut, type TimedHit } from '../groove/layOut';
import { type Groove, type GrooveLane } from '../groove/groove';

/** Where a groove goes. */
export type Bring =
  | { how: 'new'; id: string; name: string }
  /** All of it, however long: a pattern for each piece, all of them in the tray in their order. */
  | { how: 'all'; ids: { pattern: string; tray: string }[]; name: string }
  | { how: 'replace'; patternId: string }
  /** Only these of its instruments, added to what is there. */
  | { how: 'over'; patternId: string; instruments: InstrumentId[] };

/** The beat after something was brought in. */
export interface Brought {
  beat: Beat;
  /** Sentences to tell: drums that found no lane, bars that were left out, meters that do not agree. A sentence each. */
  told: string[];
}

/** A lane for an instrument, with the note that the beat's map has for it. */
/** The range and the scale of a lane whose hits have pitches: every semitone that it plays, and an octave at the least. */
export const tuningOfHits = ({ note, part }: GrooveLane): NonNullable<Lane['tuning']> => {
  const pitches = part.hits.map(({ pitch = 0 }) => note + pitch);
  const low = Math.min(note, ...pitches);
  return { root: 'C', scale: 'chromatic', low, high: Math.min(127, Math.max(low + 12, ...pitches)) };
};

const laneFor = (beat: Beat, lane: GrooveLane): Lane => {
  const { instrument, note, channel, unknown, tuned } = lane;
  const entry = beat.map && !unknown && !tuned ? entryOf(beat.map, instrument) : null;
  const name = unknown ? `Note ${note}` : INSTRUMENTS[instrument].name;
  return {
    id: freeId(
      instrument,
      beat.lanes.map((lane) => lane.id),
    ),
    name: numbered(
      name,
      beat.lanes.map((lane) => lane.name),
    ),
    instrument,
    note: entry?.note ?? note,
    channel: entry?.channel ?? channel,
    level: 1,
    pan: 0,
    mute: false,
    solo: false,
    ...(tuned && { tuning: tuningOfHits(lane) }),
  };
};

/** Whether a lane plays another number than its instrument has by custom: somebody chose it. */
const isAssigned = (beat: Beat, { instrument, note, channel }: Lane): boolean =>
  beat.map !== undefined || note !== INSTRUMENTS[instrument].note || channel !== DRUM_CHANNEL;

const isUnused = (beat: Beat, { id }: Lane): boolean =>
  beat.patterns.every((pattern) => !pattern.parts[id]?.hits.length);

/**
 * The lane that each lane of a groove goes to, so that what is written out has the notes that came in: the lane of the same
 * instrument, number and channel; else one of the instrument whose number somebody chose, since that is where the drum is;
 * else one of the instrument that no pattern plays yet, which takes the groove's number. No lane is given twice.
 */
const matched = (beat: Beat, lanes: GrooveLane[]): Map<GrooveLane, Lane> => {
  const out = new Map<GrooveLane, Lane>();
  const used = new Set<string>();
  const allot = (fits: (lane: GrooveLane, one: Lane) => Lane | null) => {
    for (const lane of lanes) {
      if (out.has(lane)) continue;
      for (const one of beat.lanes) {
        const target = used.has(one.id) || one.instrument !== lane.instrument ? null : fits(lane, one);
        if (!target) continue;
        out.set(lane, target);
        used.add(one.id);
        break;
      }
    }
  };
  allot((lane, one) => (one.note === lane.note && one.channel === lane.channel ? one : null));
  // What goes by its number alone is no drum of the beat's.
  allot((lane, one) => (!lane.unknown && !lane.tuned && isAssigned(beat, one) ? one : null));
  allot((lane, one) =>
    !lane.unknown && !lane.tuned && isUnused(beat, one)
      ? { ...one, note: lane.note, channel: lane.channel }
      : null,
  );
  return out;
};

const partLike = (part: LanePattern): LanePattern => ({
  grid: part.grid,
  steps: null,
  rate: '1',
  direction: 'forward',
  hits: part.hits,
});

/** The lanes of a groove by the ids of the beat's lanes; lanes that are missing are made. */
const landed = (
  beat: Beat,
  lanes: GrooveLane[],
): { beat: Beat; left: string[]; parts: Record<string, LanePattern> } => {
  const targets = matched(beat, lanes);
  const left: string[] = [];
  const parts: Record<string, LanePattern> = {};
  let now = beat;
  for (const lane of lanes) {
    let target = targets.get(lane);
    if (target) {
      const changed = target;
      now = { ...now, lanes: now.lanes.map((one) => (one.id === changed.id ? changed : one)) };
    } else {
      if (now.lanes.length >= MOST.lanes) {
        left.push(lane.unknown ? `note ${lane.note}` : INSTRUMENTS[lane.instrument].name);
        continue;
      }
      target = laneFor(now, lane);
      now = { ...now, lanes: [...now.lanes, target] };
    }
    parts[target.id] = partLike(lane.part);
  }
  return { beat: now, left, parts };
};

const noLane = (left: string[]): string[] =>
  left.length ? [`No lane was free for ${listed(left)}: a beat holds ${MOST.lanes}.`] : [];

/** A groove's hits lie where they were played: a feel over them would move them twice. */
const asPlayed = (beat: Beat, pattern: Pattern): Pattern => {
  const straight = newFeel();
  const { takes, ...rest } = feelOf(beat, pattern).humanize;
  const feel = { ...straight, humanize: { ...straight.humanize, ...rest, takes, timing: 0, velocity: 0 } };
  return { ...pattern, feel };
};

const lanesAsPlayed = (beat: Beat, pattern: Pattern, laneIds: string[]): Pattern => ({
  ...pattern,
  feel: laneIds.reduce((feel, id) => straightenLane(beat, feel, id), feelOf(beat, pattern)),
});

const isFull = ({ patterns }: Beat): boolean => patterns.length >= MOST.patterns;
const FULL = `A beat holds ${MOST.patterns} patterns: delete one first.`;

/** A new pattern of a groove, at the end. */
const asNew = (beat: Beat, groove: Groove, id: string, name: string): Brought => {
  if (isFull(beat)) return { beat, told: [FULL] };
  const { parts, left, ...done } = landed(beat, groove.lanes);
  const free = numbered(
    name,
    beat.patterns.map((pattern) => pattern.name),
  );
  const made = { ...newPattern(id, free), meter: groove.meter, bars: groove.bars, parts };
  const patterns = [...done.beat.patterns, asPlayed(beat, made)];
  return { beat: { ...done.beat, patterns }, told: noLane(left) };
};

/** All pieces of a groove as patterns, in the tray one after the other. */
const asPieces = (beat: Beat, pieces: Groove[], { ids, name }: Extract<Bring, { how: 'all' }>): Brought => {
  const told = new Set<string>();
  let now = beat;
  pieces.forEach((piece, at) => {
    const own = ids[at];
    if (!own || isFull(now) || now.tray.length >= SONG.tray) {
      told.add(isFull(now) ? FULL : 'The tray is full: take something off it first.');
      return;
    }
    const done = asNew(now, piece, own.pattern, pieces.length > 1 ? `${name.slice(0, 74)} ${at + 1}` : name);
    const { name: given } = done.beat.patterns[done.beat.patterns.length - 1]!;
    for (const one of done.told) told.add(one);
    now = { ...done.beat, tray: [...done.beat.tray, { id: own.tray, name: given, patternId: own.pattern }] };
  });
  return { beat: now, told: [...told] };
};

/** A part that another can be added to: it goes with the pattern, step by step. */
const isPlain = ({ steps, direction, rate }: LanePattern): boolean =>
  steps === null && direction === 'forward' && rate === '1';

/** Two hits nearer than this are one, the louder. */
const SAME: Ticks = 0.5;

/** The hits of a lane with their times, their lengths in steps of another grid. */
const timedFor = ({ grid, hits }: LanePattern, to: Grid): TimedHit[] => {
  const scale = gridTicks(grid) / gridTicks(to);
  return hits.map((hit) => {
    // A roll without a length of its own is one step long, whatever grid it comes to.
    const length = hit.length ?? (hit.roll && scale !== 1 ? 1 : null);
    const own = length === null ? null : scale === 1 ? length : clamp(length * scale, 1e-3, 64);
    return { at: positionOf(hit, grid), hit: { ...hit, length: own } };
  });
};

/** The hits of both; of two hits on one place the louder stays. Where the grid that is there is too coarse, it becomes finer. */
const added = (there: LanePattern, more: LanePattern, length: Ticks): LanePattern => {
  const [own, moved] = [timedFor(there, there.grid), timedFor(more, there.grid)];
  const near = (one: TimedHit) => (other: TimedHit) => Math.abs(one.at - other.at) < SAME;
  const kept = own.filter(
    (hit) => !moved.some((one) => near(hit)(one) && one.hit.velocity > hit.hit.velocity),
  );
  const joined = moved.filter((hit) => !kept.some(near(hit)));
  const laid = layOut([...kept, ...joined], there.grid, length);
  // What stands beyond the end is kept and not played.
  const beyond = kept
    .filter(({ at }) => at >= length - 1e-6)
    .map(({ at, hit }) => ({ ...hit, ...placed(at, laid.grid) }));
  return { ...there, ...laid, hits: inOrder([...laid.hits, ...beyond]) };
};

const layOver = (beat: Beat, groove: Groove, pattern: Pattern, instruments: InstrumentId[]): Brought => {
  const chosen = groove.lanes.filter(({ instrument }) => instruments.includes(instrument));
  const length = patternTicks(pattern);
  const told: string[] = [];
  if (meterText(groove.meter) !== meterText(pattern.meter))
    told.push(
      `The groove is in ${meterText(groove.meter)} and the pattern in ${meterText(pattern.meter)}: their bars do not meet.`,
    );
  const {
    parts,
    left,
    beat: ready,
  } = landed(
    beat,
    chosen.map((lane) => within(groove, lane, length)),
  );
  let now = ready;
  const own: Record<string, LanePattern> = {};
  for (const [id, part] of Object.entries(parts)) {
    const there = lanePatternOf(patternOf(now, pattern.id), id);
    if (!there.hits.length) own[id] = part;
    else if (isPlain(there)) {
      // What is there keeps its feel by having it in its hits: the lane is straight from now on.
      now = commitFeel(now, pattern.id, id, false);
      own[id] = added(lanePatternOf(patternOf(now, pattern.id), id), part, length);
    } else if (now.lanes.length < MOST.lanes) {
      const like = now.lanes.find((lane) => lane.id === id)!;
      const beside = {
        ...like,
        id: freeId(
          like.instrument,
          now.lanes.map((lane) => lane.id),
        ),
        name: numbered(
          like.name,
          now.lanes.map(({ name }) => name),
        ),
      };
      now = { ...now, lanes: [...now.lanes, beside] };
      own[beside.id] = part;
      told.push(`${like.name} has a loop of its own: what was added lies on “${beside.name}”.`);
    } else left.push(now.lanes.find((lane) => lane.id === id)!.name);
  }
  const target = patternOf(now, pattern.id);
  const done = lanesAsPlayed(now, { ...target, parts: { ...target.parts, ...own } }, Object.keys(own));
  return { beat: setPattern(now, done), told: [...told, ...noLane(left)] };
};

/** The bars left out of a groove that is longer than a pattern can be, or whose meters change. */
const cutShort = (groove: Groove): string[] => {
  const pieces = groovePiecesOf(groove);
  return pieces.length > 1
    ? [`Only its first ${count(pieces[0]!.bars, 'bar')} of ${groove.bars} came in.`]
    : [];
};

/**
 * Brings a groove into a beat: as a new pattern, all of it as several, in the place of a pattern, or some of its instruments
 * added to one, repeated or cut to that pattern's length. What it plays sounds as it did, whatever feel the beat has, and is
 * written out with the notes that came in.
 *
 * @returns the beat, and what there is to tell
 */
export const bringIn = (beat: Beat, groove: Groove, bring: Bring): Brought => {
  if (bring.how === 'all') return asPieces(beat, groovePiecesOf(groove), bring);
  if (bring.how === 'over') return layOver(beat, groove, patternOf(beat, bring.patternId), bring.instruments);
  const [piece] = groovePiecesOf(groove) as [Groove, ...Groove[]];
  const cut = cutShort(groove);
  if (bring.how === 'new') {
    const done = asNew(beat, piece, bring.id, bring.name);
    return { ...done, told: [...cut, ...done.told] };
  }
  const { parts, left, ...done } = landed(beat, piece.lanes);
  const now = { ...patternOf(beat, bring.patternId), meter: piece.meter, bars: piece.bars, parts };
  return { beat: setPattern(done.beat, asPlayed(beat, now)), told: [...cut, ...noLane(left)] };
};

/** A lane as long as another pattern, whatever its bars are: repeated, and cut at the end. */
const within = (groove: Groove, lane: GrooveLane, length: number): GrooveLane => {
  const bars = Math.ceil(length / barTicks(groove.meter) - 1e-9);
  const [fitted] = fitGroove({ ...groove, lanes: [lane] }, { times: '1', bars }).lanes;
  const { part } = fitted!;
  const timed = part.hits.map((hit) => ({ at: positionOf(hit, part.grid), hit }));
  return { ...lane, part: { ...part, ...layOut(timed, part.grid, length) } };
};
