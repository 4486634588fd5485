import { barTicks, beatTicks, type Meter } from '../beat/meter';
import { playWindow, type Note } from '../play/play';
import type { PlayPlan } from '../play/plan';
import { secondsOf, ticksPerMs, type Bpm, type Seconds, type Ticks } from '../units';
import { lastAt, secondsAt, tempoAt, tickAtSeconds } from './tempoMap';
import type { SongPlan } from './plan';
import { songWindow, type Range } from './play';

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
 * What the sound is fed from: a pattern that repeats without end, or a song. Time is told in ticks from where play began
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
    const inBar = (((n * beat) % bar) + bar) % bar;
    out.push({ at: origin + n * beat, first: inBar < 1e-6 || bar - inBar < 1e-6 });
  }
  return out;
};

/** A pattern, repeated without end. */
export const patternPlayable = (plan: PlayPlan, patternId: string | null = null): Playable => ({
  start: 0,
  key: 'pattern',
  placeOf: (tick) => tick,
  length: plan.length,
  meterAt: () => plan.meter,
  notes: (from, to) => playWindow(plan, from, to),
  secondsAt: (tick) => secondsOf(tick, plan.tempo),
  tickAt: (seconds) => seconds * 1000 * ticksPerMs(plan.tempo),
  beats: (from, to) => beatsOf(plan.meter, 0, from, to),
  marks: (from) => [{ at: from, patternId, tick: from, song: null, tempo: plan.tempo }],
});

/** Maps time since play began to the song, where a part of it is repeated. */
const turns = (loop: Range | null) => {
  if (!loop) return { turn: () => 0, length: 0 };
  const length = loop.to - loop.from;
  return { turn: (tick: Ticks) => Math.max(0, Math.floor((tick - loop.from) / length)), length };
};

const marksOf = ({ layout }: SongPlan, from: Ticks, to: Ticks): Mark[] => {
  const starts = layout.stretches.map((stretch) => stretch.from);
  const at = [from, ...starts, ...layout.tempos.ticks].filter((tick) => tick >= from && tick < to);
  return [...new Set(at)]
    .sort((a, b) => a - b)
    .map((tick) => {
      const stretch = layout.stretches[lastAt(starts, tick)];
      return {
        at: tick,
        patternId: stretch?.pattern?.id ?? null,
        tick: stretch ? tick - stretch.from + stretch.offset : tick,
        song: tick,
        tempo: tempoAt(layout.tempos, tick),
      };
    });
};

const songBeats = ({ layout }: SongPlan, from: Ticks, to: Ticks) => {
  const { bars } = layout;
  const first = bars[0];
  if (!first) return [];
  const counted = from < 0 ? beatsOf(first.meter, 0, from, Math.min(0, to)) : [];
  for (
    let at = lastAt(
      bars.map((bar) => bar.from),
      from,
    );
    at < bars.length;
    at++
  ) {
    const bar = bars[at]!;
    if (bar.from >= to) break;
    const end = bar.from + barTicks(bar.meter);
    counted.push(...beatsOf(bar.meter, bar.from, Math.max(from, bar.from), Math.min(to, end)));
  }
  return counted;
};

/**
 * A song, from any place in it.
 *
 * @param start where play begins
 * @param loop what is repeated without end once play has come to it; null plays to the end
 */
export const songPlayable = (plan: SongPlan, start: Ticks, loop: Range | null): Playable => {
  const { layout } = plan;
  const { turn, length } = turns(loop);
  const first: Range = { from: start, to: loop ? loop.to : Infinity };
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
  const song = (tick: Ticks): Ticks => tick - turn(tick) * length;
  return {
    start,
    key: loop ? `song ${loop.from} ${loop.to}` : 'song',
    placeOf: song,
    length: layout.length,
    meterAt: (tick) =>
      layout.bars[
        lastAt(
          layout.bars.map((bar) => bar.from),
          song(tick),
        )
      ]?.meter ?? { beats: 4, unit: 4 },
    notes: (from, to) =>
      eachTurn(from, to, loop ? NEAR : 0, (k, shift) =>
        songWindow(plan, from - shift, to - shift, k ? loop! : first, k ? -Infinity : start).map((note) => ({
          ...note,
          tick: note.tick + shift,
          part: note.part + k * layout.stretches.length,
        })),
      ).sort((a, b) => a.tick - b.tick),
    secondsAt: (tick) => {
      const k = turn(tick);
      const round = loop ? secondsAt(layout.tempos, loop.to) - secondsAt(layout.tempos, loop.from) : 0;
      return secondsAt(layout.tempos, tick - k * length) + k * round;
    },
    tickAt: (seconds) => {
      if (!loop) return tickAtSeconds(layout.tempos, seconds);
      const [a, b] = [secondsAt(layout.tempos, loop.from), secondsAt(layout.tempos, loop.to)];
      const k = Math.max(0, Math.floor((seconds - a) / (b - a)));
      return tickAtSeconds(layout.tempos, seconds - k * (b - a)) + k * length;
    },
    beats: (from, to) =>
      eachTurn(from, to, 0, (k, shift) =>
        songBeats(
          plan,
          Math.max(from - shift, k ? loop!.from : -Infinity),
          Math.min(to - shift, first.to),
        ).map(({ at, first: bar }) => ({ at: at + shift, first: bar })),
      ),
    marks: (from, to) =>
      eachTurn(from, to, 0, (k, shift) =>
        marksOf(plan, Math.max(from - shift, k ? loop!.from : -Infinity), Math.min(to - shift, first.to)).map(
          (mark) => ({ ...mark, at: mark.at + shift }),
        ),
      ),
  };
};

/** How far the feel may carry a note over the edge of what is repeated. */
const NEAR: Ticks = 2400;
