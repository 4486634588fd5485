import { capital } from '../capital';
import type { DrumGroup } from '../document/choices';
import { drumGroupOf, GROUP_NAMES } from '../document/drumGroups';
import { gridTicks } from '../document/grid';
import { barTicks } from '../document/meter';
import type { Feel, Shape } from '../document/feelSchema';
import type { Player } from '../document/playersSchema';
import { heldToRange, RANGES } from '../document/ranges';
import type { Lane } from '../document/schema';
import { heldBand } from '../feel/heldBand';
import { modulo } from '../numbers';
import type { Ms } from '../units';
import { estimateBand, LEAST_HEARD } from './estimateBand';
import { dotsOf, findGrid, groupCurves, shapeFrom } from './extractTemplate';
import { mainNotes, type Performance, type Performed } from './performance';
import { deviation, mean } from './statistics';

/** How a performance is played, as a feel that other beats can be played with: where strokes lie on the whole, how hard they are, and how its players go by one another. */

/** The place of a group of drums, against where it lies on the whole. */
export interface PlayedPlayer {
  group: DrumGroup;
  clock: Ms;
  touch: Ms;
  click: number;
  /** How much it follows each of the others, by their groups. */
  follows: Partial<Record<DrumGroup, number>>;
  /** How far `click` and any of `follows` may be off. */
  doubt: number;
}

export interface PlayedFeel {
  /** Where strokes lie and how hard they are, with a curve for each group of drums. */
  shape: Shape;
  /** How far a slot of it may be off, in ms: twice the standard error, on the whole. */
  doubt: Ms;
  /** How many bars it was taken from. */
  bars: number;
  /** How far strokes lie from it: the standard deviation, in ms and in steps of velocity. */
  spread: Ms;
  velocitySpread: number;
  /** Those of groups that play often enough; null where there are not two, or too little was heard of them. */
  players: PlayedPlayer[] | null;
}

const SIXTEENTH = gridTicks('1/16');
/** A template is told for so many bars at the most: what comes round later is the same again. */
const BARS = 2;
/** A group that plays on fewer sixteenths than this share of them says too little of its time. */
const LEAST_SHARE = 0.2;
/** No more than this is looked at: some ten minutes. */
const MOST_SIXTEENTHS = 8192;

/** The bars that a template of a performance takes: as many as it repeats by, one or two. */
const shapeBars = (performance: Performance): number => {
  const bars = Math.round(performance.length / barTicks(performance.meter));
  return bars >= 2 * BARS && bars % BARS === 0 ? BARS : 1;
};

interface Left {
  group: DrumGroup;
  /** In sixteenths from the start, not rounded. */
  at: number;
  late: Ms;
}

/** How late each note is against where its group lies on its slot. */
const leftOver = (
  notes: (Performed & { group: DrumGroup })[],
  performance: Performance,
  n: number,
): Left[] => {
  const slot = ({ at }: Performed) => modulo(Math.round(at / SIXTEENTH), n);
  const means = new Map<string, number[]>();
  const keyOf = (note: (typeof notes)[number]) => `${note.group} ${slot(note)}`;
  const off = ({ at }: Performed) => at / SIXTEENTH - Math.round(at / SIXTEENTH);
  for (const note of notes) {
    const list = means.get(keyOf(note));
    if (list) list.push(off(note));
    else means.set(keyOf(note), [off(note)]);
  }
  const middle = new Map([...means].map(([key, list]) => [key, mean(list)]));
  return notes.map((note) => ({
    group: note.group,
    at: Math.round(note.at / SIXTEENTH),
    late: ((off(note) - middle.get(keyOf(note))!) * SIXTEENTH) / performance.ticksPerMs(note.at),
  }));
};

/** How late a group is at each sixteenth; where it does not play, between what is beside. */
const seriesOf = (left: Left[], length: number): Ms[] => {
  const byPlace = new Map<number, Ms[]>();
  for (const { at, late } of left) {
    const list = byPlace.get(at);
    if (list) list.push(late);
    else byPlace.set(at, [late]);
  }
  const places = [...byPlace.keys()].sort((a, b) => a - b);
  const late = places.map((at) => mean(byPlace.get(at)!));
  let next = 0;
  return Array.from({ length }, (_, j) => {
    while (next < places.length && places[next]! < j) next += 1;
    if (next >= places.length) return late.at(-1) ?? 0;
    if (places[next] === j || next === 0) return late[next]!;
    const [a, b] = [places[next - 1]!, places[next]!];
    return late[next - 1]! + ((late[next]! - late[next - 1]!) * (j - a)) / (b - a);
  });
};

/** The doubt about a place that a group does not play. */
const GUESSED = 0.35;
/** Times are looked at on sixteenths, on eighths or on quarters: wherever the group that plays least plays most of them. */
const EVERY = [1, 2, 4] as const;
/** How much less the mean of so many steps of a clock strays than one of them: 1/f noise hardly evens out. */
const EVENS: Record<(typeof EVERY)[number], number> = { 1: 1, 2: 0.87, 4: 0.77 };

const coverage = (own: readonly Left[], every: number, length: number): number =>
  new Set(own.flatMap(({ at }) => (at % every ? [] : [at]))).size / Math.ceil(length / every);

/** Errors of hands between two such places are heard by nobody, but followed all the same: following is told too low by up to so much. */
const UNHEARD: Record<(typeof EVERY)[number], number> = { 1: 0, 2: 0.15, 4: 0.25 };

const playersIn = (left: Left[], length: number): PlayedPlayer[] | null => {
  const heard = left.filter(({ at }) => at >= 0 && at < length);
  const groups = [...new Set(heard.map(({ group }) => group))].flatMap((group) => {
    const own = heard.filter((one) => one.group === group);
    return new Set(own.map(({ at }) => at)).size / length >= LEAST_SHARE ? [{ group, own }] : [];
  });
  if (groups.length < 2) return null;
  const shares = EVERY.map((every) => Math.min(...groups.map(({ own }) => coverage(own, every, length))));
  const every = EVERY[shares.indexOf(Math.max(...shares))]!;
  const places = Math.floor(length / every);
  if (places <= LEAST_HEARD) return null;
  const found = estimateBand(
    groups.map(({ own }) => {
      const on = own.flatMap((one) => (one.at % every ? [] : [{ ...one, at: one.at / every }]));
      return seriesOf(on, places);
    }),
  );
  if (!found) return null;
  const guessed = GUESSED * (1 - Math.max(...shares)) + UNHEARD[every];
  return found.map((player, at) => ({
    group: groups[at]!.group,
    clock: player.clock / (every * EVENS[every]),
    touch: player.touch,
    click: player.click,
    follows: Object.fromEntries(
      player.follows.flatMap((much, k) => (k === at || much < 0.01 ? [] : [[groups[k]!.group, much]])),
    ),
    doubt: Math.min(1, player.doubt + guessed),
  }));
};

/**
 * How a performance is played.
 *
 * @param groupOf the group of drums that a lane of it belongs to; null is left out
 * @returns null where no drum is struck
 * @example playedFeel('Rain', performance, () => 'snare')!.bars // 1
 */
export const playedFeel = (
  name: string,
  performance: Performance,
  groupOf: (lane: string) => DrumGroup | null,
): PlayedFeel | null => {
  const notes = mainNotes(performance).flatMap((note) => {
    const group = groupOf(note.lane);
    return group ? [{ ...note, group }] : [];
  });
  if (!notes.length) return null;
  const drums = { ...performance, notes };
  const grid = findGrid(drums);
  const bars = shapeBars(drums);
  const length = bars * barTicks(performance.meter);
  const options = { grid, length };
  const dots = dotsOf(drums, options);
  const shape = shapeFrom(name.slice(0, 80), drums, options, dots);
  const groups = new Set(notes.map(({ group }) => group));
  const curves = groups.size > 1 ? groupCurves(shape, drums, options, dots, groupOf) : {};
  const n = Math.round(length / SIXTEENTH);
  const left = leftOver(notes, performance, n);
  const spread = deviation(left.map(({ late }) => late));
  const rounds = Math.max(1, performance.length / length);
  const loud = new Map<string, number[]>();
  for (const note of notes) {
    const key = `${note.lane} ${modulo(Math.round(note.at / SIXTEENTH), n)}`;
    loud.set(key, [...(loud.get(key) ?? []), note.velocity]);
  }
  const louder = [...loud.values()].flatMap((list) => list.map((value) => value - mean(list)));
  const whole = Math.min(MOST_SIXTEENTHS, Math.floor(performance.length / SIXTEENTH));
  return {
    shape: { ...shape, groups: curves },
    doubt: (2 * spread) / Math.sqrt(rounds),
    bars: Math.round(performance.length / barTicks(performance.meter)),
    spread,
    velocitySpread: deviation(louder),
    players: playersIn(left, whole),
  };
};

/** How sure something is, in a word. */
export type Sureness = 'sure' | 'fair' | 'little';

/**
 * How sure the places of strokes are, and what is said of the players: of those, to a tenth is sure and to a third is fair.
 *
 * @example surenessOf({ ...playedFeel('Rain', performance, () => 'snare')!, bars: 1 }).places // "little"
 */
export const surenessOf = ({ doubt, bars, players }: PlayedFeel): { places: Sureness; players: Sureness } => {
  const most = players ? Math.max(...players.map((player) => player.doubt)) : 1;
  return {
    places: bars < 4 ? 'little' : doubt < 2 ? 'sure' : doubt < 6 ? 'fair' : 'little',
    players: most < 0.12 ? 'sure' : most < 0.35 ? 'fair' : 'little',
  };
};

const tenth = (value: number): number => Math.round(value * 10) / 10;

/** Players for the lanes of a beat: each of its lanes is given to the player of its group. Lanes of other groups go with the first. */
const bandFor = (players: PlayedPlayer[], lanes: readonly Lane[]): Player[] => {
  const there = players.filter(({ group }) =>
    lanes.some(({ instrument }) => drumGroupOf(instrument) === group),
  );
  return there.map(({ group, clock, touch, click, follows }): Player => ({
    id: group,
    name: capital(GROUP_NAMES[group]),
    lanes: lanes.filter(({ instrument }) => drumGroupOf(instrument) === group).map(({ id }) => id),
    clock: heldToRange(RANGES.clock, tenth(clock)),
    touch: heldToRange(RANGES.touch, tenth(touch)),
    click: Math.min(1, Math.round(click * 100) / 100),
    follows: Object.fromEntries(
      Object.entries(follows).filter(([other]) => there.some((one) => one.group === other)),
    ),
  }));
};

/**
 * A feel by which a beat is played as a performance was: its places, its accents, and its players or, where nothing can be said of
 * them, its spread.
 *
 * @param own the feel that all else is taken from
 * @example feelAsPlayed(beat.feel, beat.lanes, { ...shape, id: 't' }, playedFeel('Rain', performance, () => 'snare')!).base // "template"
 */
export const feelAsPlayed = (
  own: Feel,
  lanes: readonly Lane[],
  template: NonNullable<Feel['template']['template']>,
  played: PlayedFeel,
): Feel => {
  const { blend: _, ...rest } = own;
  const { band: __, ...humanize } = own.humanize;
  const players = played.players ? bandFor(played.players, lanes) : [];
  return {
    ...rest,
    off: own.off.filter((stage) => !['base', 'dynamics', 'humanize'].includes(stage)),
    base: 'template',
    template: { template, timing: 1, velocity: 1 },
    // What lanes had of their own would lie on top of what was heard.
    lanes: {},
    humanize: {
      ...humanize,
      timing: players.length > 1 ? 0 : heldToRange(RANGES.timingSpread, tenth(played.spread)),
      velocity: heldToRange(RANGES.velocitySpread, Math.round(played.velocitySpread)),
      ...(players.length > 1 && { band: heldBand({ on: true, tempo: false, players }) }),
    },
  };
};
