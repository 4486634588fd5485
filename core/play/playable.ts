import { modulo } from '../numbers';
import { lastAt } from '../numbers';
import { barTicks, beatTicks, type Meter } from '../document/meter';
import { patternTicks } from '../document/defaults';
import type { Note } from './notes';
import type { Bpm, Seconds, Ticks } from '../units';
import { secondsAt, tempoAt, tickAtSeconds } from './tempoMap';
import type { TimelinePlan } from './timelinePlan';
import { notesIn, type TickRange } from './driver';

/** From here on, for the eye: which pattern plays, from where in it, and at which tempo. */
export interface Mark {
  at: Ticks;
  patternId: string | null;
  /** Where in the pattern, and where in the song. */
  tick: Ticks;
  song: Ticks | null;
  tempo: Bpm;
}

/**
 * The source of playback: a pattern that repeats without end, or a song. Time is told in ticks from where play began
 * (of a song, from its first bar), which run on where a part of the song is repeated.
 */
export interface Playable {
  /** Where play begins. */
  start: Ticks;
  /** Time runs the same in two that have one key. */
  key: string;
  /** Where in the song, or in the pattern's time, a position since play began lies. */
  placeOf: (tick: Ticks) => Ticks;
  /** How long it is until it comes round or ends. */
  length: Ticks;
  meterAt: (tick: Ticks) => Meter;
  notes: (from: Ticks, to: Ticks) => Note[];
  secondsAt: (tick: Ticks) => Seconds;
  tickAt: (seconds: Seconds) => Ticks;
  /** The beats within a stretch of time, and whether a bar begins there. */
  beats: (from: Ticks, to: Ticks) => { at: Ticks; first: boolean }[];
  /** Where it changes what is to be shown, within a stretch of time, the last one before it first. */
  marks: (from: Ticks, to: Ticks) => Mark[];
}

/** The beats of one meter, counted from a position. */
const beatsOf = (meter: Meter, origin: Ticks, from: Ticks, to: Ticks) => {
  const beat = beatTicks(meter);
  const bar = barTicks(meter);
  const out: { at: Ticks; first: boolean }[] = [];
  for (let n = Math.ceil((from - origin) / beat - 1e-6); origin + n * beat < to - 1e-6; n++) {
    const inBar = modulo(n * beat, bar);
    out.push({ at: origin + n * beat, first: inBar < 1e-6 || bar - inBar < 1e-6 });
  }
  return out;
};

/** Maps time since play began to the song, where a part of it is repeated. */
const turns = (loop: TickRange | null) => {
  if (!loop) return { turn: () => 0, length: 0 };
  const length = loop.to - loop.from;
  return { turn: (tick: Ticks) => Math.max(0, Math.floor((tick - loop.from) / length)), length };
};

/** A pattern that repeats without end has nothing else to show. */
const isEndless = ({ timeline }: TimelinePlan): boolean => timeline.length === Infinity;

const marksOf = (plan: TimelinePlan, from: Ticks, to: Ticks): Mark[] => {
  const { regions, tempos } = plan.timeline;
  const starts = regions.map((region) => region.from);
  // A tempo that follows players changes though a pattern repeats without end.
  const changes = isEndless(plan) ? tempos.ticks.slice(1) : [...starts, ...tempos.ticks];
  const at = [from, ...changes].filter((tick) => tick >= from && tick < to);
  return [...new Set(at)]
    .sort((a, b) => a - b)
    .map((tick) => {
      const region = regions[lastAt(starts, tick)];
      return {
        at: tick,
        patternId: region?.pattern?.id ?? null,
        tick: region ? tick - region.from + region.offset : tick,
        song: isEndless(plan) ? null : tick,
        tempo: tempoAt(tempos, tick),
      };
    });
};

const startsOf = ({ timeline }: TimelinePlan): Ticks[] => timeline.bars.map((bar) => bar.from);

const beatsIn = (plan: TimelinePlan, from: Ticks, to: Ticks) => {
  const { bars } = plan.timeline;
  const first = bars[0];
  if (!first) return [];
  const counted = from < 0 ? beatsOf(first.meter, 0, from, Math.min(0, to)) : [];
  for (let at = lastAt(startsOf(plan), from); at < bars.length; at++) {
    const bar = bars[at]!;
    if (bar.from >= to) break;
    const end = isEndless(plan) ? Infinity : bar.from + barTicks(bar.meter);
    counted.push(...beatsOf(bar.meter, bar.from, Math.max(from, bar.from), Math.min(to, end)));
  }
  return counted;
};

/** From where it is played, and what of it is repeated. */
export interface PlayOptions {
  /** Where play begins. */
  start?: Ticks;
  /** The span that is repeated without end once play has come to it; null plays to the end. */
  loop?: TickRange | null;
  /** When what plays was switched: strokes of before and after are told apart. */
  switched?: readonly { at: Ticks }[];
}

/** Strokes of one number before and after a switch are not the same stroke. */
const apart = (notes: Note[], switched: PlayOptions['switched']): Note[] =>
  switched && switched.length > 1
    ? notes.map((note) => ({
        ...note,
        regionIndex: Math.max(0, switched.filter(({ at }) => at <= note.gridTick + 1e-6).length - 1),
      }))
    : notes;

/**
 * A timeline as the sound is fed from it: a pattern that repeats without end from its start, or a song from any place in it.
 *
 * @example playable(planSong(songBeat), { start: 3840 }).placeOf(5000) // 5000
 */
export const playable = (
  plan: TimelinePlan,
  { start = 0, loop = null, switched }: PlayOptions = {},
): Playable => {
  const { timeline } = plan;
  const { turn, length } = turns(loop);
  const first: TickRange = { from: start, to: loop ? loop.to : Infinity };
  const endless = isEndless(plan);
  /** Gathers what each turn that a stretch of time touches has, with by how much it is to be shifted. */
  const eachTurn = <T>(
    from: Ticks,
    to: Ticks,
    around: Ticks,
    give: (k: number, shift: Ticks) => T[],
  ): T[] => {
    const out: T[] = [];
    for (let k = turn(from - around); k <= turn(to + around); k++) out.push(...give(k, k * length));
    return out;
  };
  const place = (tick: Ticks): Ticks => tick - turn(tick) * length;
  const ownBegin = (k: number): Ticks => (k ? loop!.from : -Infinity);
  return {
    start,
    key: endless ? 'pattern' : loop ? `song ${loop.from} ${loop.to}` : 'song',
    placeOf: place,
    length: endless ? patternTicks(timeline.regions[0]!.pattern!) : timeline.length,
    meterAt: (tick) => timeline.bars[lastAt(startsOf(plan), place(tick))]?.meter ?? { beats: 4, unit: 4 },
    notes: (from, to) =>
      loop
        ? eachTurn(from, to, plan.reach(to), (k, shift) =>
            notesIn(plan, from - shift, to - shift, {
              steps: k ? loop : first,
              start: k ? -Infinity : start,
            }).map((note) => ({
              ...note,
              tick: note.tick + shift,
              regionIndex: note.regionIndex + k * timeline.regions.length,
            })),
          ).sort((a, b) => a.tick - b.tick)
        : apart(notesIn(plan, from, to, { ...(!endless && { steps: first }), start }), switched),
    secondsAt: (tick) => {
      const k = turn(tick);
      const round = loop ? secondsAt(timeline.tempos, loop.to) - secondsAt(timeline.tempos, loop.from) : 0;
      return secondsAt(timeline.tempos, tick - k * length) + k * round;
    },
    tickAt: (seconds) => {
      if (!loop) return tickAtSeconds(timeline.tempos, seconds);
      const [a, b] = [secondsAt(timeline.tempos, loop.from), secondsAt(timeline.tempos, loop.to)];
      const k = Math.max(0, Math.floor((seconds - a) / (b - a)));
      return tickAtSeconds(timeline.tempos, seconds - k * (b - a)) + k * length;
    },
    beats: (from, to) =>
      eachTurn(from, to, 0, (k, shift) =>
        beatsIn(plan, Math.max(from - shift, ownBegin(k)), Math.min(to - shift, first.to)).map(
          ({ at, first: bar }) => ({ at: at + shift, first: bar }),
        ),
      ),
    marks: (from, to) =>
      eachTurn(from, to, 0, (k, shift) =>
        marksOf(plan, Math.max(from - shift, ownBegin(k)), Math.min(to - shift, first.to)).map((mark) => ({
          ...mark,
          at: mark.at + shift,
        })),
      ),
  };
};
