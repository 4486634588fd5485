import { modulo } from '../numbers';
import { lastAt } from '../numbers';
import { patternTicks } from '../document/defaults';
import { barTicks, beatTicks, type Meter } from '../document/meter';
import type { Beat, Entry, Pattern, Place, Section } from '../document/schema';
import type { Bpm, Ticks } from '../units';
import { tempoMap, type TempoMap } from './tempoMap';

/** A pattern, or a part of one, at its place in a song. */
export interface Region {
  from: Ticks;
  length: Ticks;
  /** Where in the pattern it begins. */
  offset: Ticks;
  /** Null where the pattern was deleted: it is silent. */
  pattern: Pattern | null;
  meter: Meter;
  span: Span;
  /** Tells apart the turns of one pattern, for what is drawn at random: 0 for the first. */
  repeat: number;
  fill: boolean;
}

/** One time through a section. */
export interface Span {
  /** Its place among all spans, from 0. */
  index: number;
  /** Null where a pattern stands by itself. */
  place: Place | null;
  section: Section | null;
  from: Ticks;
  length: Ticks;
  /** Which time at its place this is, from 0. */
  time: number;
}

/** A bar of the song. */
export interface Bar {
  from: Ticks;
  meter: Meter;
}

/** Where everything in a song stands. */
export interface Timeline {
  spans: Span[];
  regions: Region[];
  bars: Bar[];
  tempos: TempoMap;
  length: Ticks;
}

/**
 * The pattern that stands in a section; undefined where it was deleted.
 *
 * @example patternOfEntry(beat, { patternId: 'gone' }) // null
 */
export const patternOfEntry = (beat: Pick<Beat, 'patterns'>, { patternId }: { patternId: string }) =>
  beat.patterns.find(({ id }) => id === patternId) ?? null;

const LOST = { name: 'A pattern that is gone', meter: { beats: 4, unit: 4 } as Meter, bars: 1 };

/**
 * Name, meter and bars of an entry's pattern, even if it has been deleted.
 *
 * @example entryPattern(beat, newEntry('e', 'a')).name // "A"
 */
export const entryPattern = (beat: Beat, entry: Entry): Pick<Pattern, 'name' | 'meter' | 'bars'> =>
  patternOfEntry(beat, entry) ?? entry.gone ?? LOST;

/** How many bars an entry plays. @example entryBars(beat, newEntry('e', 'a', 3)) // 3 */
export const entryBars = (beat: Beat, entry: Entry): number =>
  entry.bars ?? entryPattern(beat, entry).bars * entry.times;

const entryTicks = (beat: Beat, entry: Entry): Ticks =>
  entryBars(beat, entry) * barTicks(entryPattern(beat, entry).meter);

/** The length of one time through a section. @example sectionTicks(beat, songBeat.song.sections[0]!) // 7680 */
export const sectionTicks = (beat: Beat, { entries }: Section): Ticks =>
  entries.reduce((sum, entry) => sum + entryTicks(beat, entry), 0);

/** The length of a section, in bars. @example sectionBars(beat, songBeat.song.sections[0]!) // 2 */
export const sectionBars = (beat: Beat, { entries }: Section): number =>
  entries.reduce((sum, entry) => sum + entryBars(beat, entry), 0);

/**
 * How long a section's fill is: its last bar or beat, or all of it where it is shorter.
 *
 * @example fillTicks(beat, songBeat.song.sections[0]!) // 0
 */
export const fillTicks = (beat: Beat, section: Section): Ticks => {
  const last = section.entries[section.entries.length - 1];
  if (!section.fill || !last) return 0;
  const { meter } = entryPattern(beat, last);
  return Math.min(
    sectionTicks(beat, section),
    section.fill.over === 'bar' ? barTicks(meter) : beatTicks(meter),
  );
};

/** The last turn of a section is that of its fill. */
const FILL_TURN = 63;
const TURNS = 64;

/** The regions of one time through a section. @param occurrence how often the section has played before */
const regionsOf = (beat: Beat, section: Section, span: Span, occurrence: number): Region[] => {
  const out: Region[] = [];
  const fill = section.fill ? patternOfEntry(beat, section.fill) : null;
  const fillLength = fill ? fillTicks(beat, section) : 0;
  const fillFrom = span.length - fillLength;
  let at = 0;
  section.entries.forEach((entry, index) => {
    const whole = entryTicks(beat, entry);
    const length = Math.min(whole, fillFrom - at);
    const { meter } = entryPattern(beat, entry);
    const repeat = occurrence * TURNS + Math.min(index, FILL_TURN - 1);
    if (length > 0)
      out.push({
        from: span.from + at,
        length,
        offset: 0,
        pattern: patternOfEntry(beat, entry),
        meter,
        span,
        repeat,
        fill: false,
      });
    at += whole;
  });
  const last = section.entries[section.entries.length - 1];
  if (fill && last && fillLength > 0)
    out.push({
      from: span.from + fillFrom,
      length: fillLength,
      offset: modulo(patternTicks(fill) - fillLength, patternTicks(fill)),
      pattern: fill,
      meter: entryPattern(beat, last).meter,
      span,
      repeat: occurrence ? occurrence * TURNS + FILL_TURN : 0,
      fill: true,
    });
  return out;
};

const barsOf = (beat: Beat, section: Section, from: Ticks): Bar[] => {
  const out: Bar[] = [];
  let at = from;
  for (const entry of section.entries) {
    const { meter } = entryPattern(beat, entry);
    for (let bar = entryBars(beat, entry); bar > 0; bar--) {
      out.push({ from: at, meter });
      at += barTicks(meter);
    }
  }
  return out;
};

/** A tempo that changes little by little does so in steps of a sixteenth, which a file can tell. */
const TEMPO_STEP: Ticks = 240;

/** How far a section is, 0 to 1. */
export const alongSpan = ({ from, length }: Pick<Span, 'from' | 'length'>, tick: Ticks): number =>
  length > 0 ? Math.min(1, Math.max(0, (tick - from) / length)) : 0;

/** Over what of a section its tempo changes: all of it, or so many of its last bars. */
const lastBars = (beat: Beat, { section, from, length }: Span): Pick<Span, 'from' | 'length'> => {
  const bars = section?.change?.bars;
  if (!section || !bars) return { from, length };
  const begin = barsOf(beat, section, from).at(-bars)?.from ?? from;
  return { from: begin, length: from + length - begin };
};

const tempoSteps = (beat: Beat, span: Span): { at: Ticks; bpm: Bpm }[] => {
  const begin = span.section?.tempo ?? beat.tempo;
  const end = span.section?.change?.tempo ?? begin;
  if (begin === end) return [{ at: span.from, bpm: begin }];
  const last = lastBars(beat, span);
  const steps = Math.ceil(last.length / TEMPO_STEP);
  const changing = Array.from({ length: steps }, (_, step) => {
    const at = last.from + step * TEMPO_STEP;
    return { at, bpm: begin + (end - begin) * alongSpan(last, at) };
  });
  return last.from > span.from ? [{ at: span.from, bpm: begin }, ...changing] : changing;
};

/**
 * Lays a song out: one section after the other, each as often as it is to play.
 *
 * @param order the places to lay out, those of the song where nothing is said
 * @example songTimeline(songBeat).bars.length // 4
 */
export const songTimeline = (beat: Beat, order: Place[] = beat.song.order): Timeline => {
  const sections = new Map(beat.song.sections.map((section) => [section.id, section]));
  const played = new Map<string, number>();
  const spans: Span[] = [];
  const regions: Region[] = [];
  const bars: Bar[] = [];
  let at = 0;
  for (const place of order) {
    const section = sections.get(place.sectionId);
    if (!section) continue;
    const length = sectionTicks(beat, section);
    if (length <= 0) continue;
    for (let time = 0; time < place.times; time++) {
      const occurrence = played.get(section.id) ?? 0;
      const span: Span = { index: spans.length, place, section, from: at, length, time };
      spans.push(span);
      regions.push(...regionsOf(beat, section, span, occurrence));
      bars.push(...barsOf(beat, section, at));
      played.set(section.id, occurrence + 1);
      at += length;
    }
  }
  const steps = spans.flatMap((span) => tempoSteps(beat, span));
  return {
    spans,
    regions,
    bars,
    tempos: tempoMap(steps.length ? steps : [{ at: 0, bpm: beat.tempo }]),
    length: at,
  };
};

/**
 * A pattern by itself, as often as it is to play, laid out as a song is.
 *
 * @param passes 1 or more; Infinity goes on without end: its one bar that is told then repeats
 * @example patternTimeline(beat, pattern, Infinity).length // Infinity
 */
export const patternTimeline = (beat: Beat, pattern: Pattern, passes: number): Timeline => {
  const length = patternTicks(pattern) * passes;
  const span: Span = { index: 0, place: null, section: null, from: 0, length, time: 0 };
  const bar = barTicks(pattern.meter);
  return {
    spans: [span],
    regions: [{ from: 0, length, offset: 0, pattern, meter: pattern.meter, span, repeat: 0, fill: false }],
    bars: Array.from({ length: passes === Infinity ? 1 : pattern.bars * passes }, (_, at) => ({
      from: at * bar,
      meter: pattern.meter,
    })),
    tempos: tempoMap([{ at: 0, bpm: beat.tempo }]),
    length,
  };
};

/** The bar that a position lies in, from 0. @example barAt(songTimeline(songBeat), 4000) // 1 */
export const barAt = ({ bars }: Timeline, tick: Ticks): number =>
  lastAt(
    bars.map(({ from }) => from),
    tick,
  );

/**
 * The span that a position lies in; null in an empty song.
 *
 * @example spanAt(songTimeline(songBeat), 8000)!.time // 1
 */
export const spanAt = ({ spans }: Timeline, tick: Ticks): Span | null =>
  spans[
    lastAt(
      spans.map(({ from }) => from),
      tick,
    )
  ] ?? null;

/** The gaps of a song, in words: patterns that were deleted, by section. @example songFaults(songBeat) // [] */
export const songFaults = (beat: Beat, sections: Section[] = beat.song.sections): string[] =>
  sections.flatMap((section) => {
    const gone = section.entries.filter((entry) => !patternOfEntry(beat, entry));
    const names = [...new Set(gone.map((entry) => entryPattern(beat, entry).name))];
    const out = names.map(
      (name) => `Pattern “${name}” in section “${section.name}” was deleted: it plays silence there.`,
    );
    if (section.fill && !patternOfEntry(beat, section.fill))
      out.push(`The fill of section “${section.name}” was deleted: its pattern plays to the end.`);
    return out;
  });
