import { feelOf, lanePatternOf, soundingLanes } from '../document/defaults';
import { gridTicks } from '../document/grid';
import type { Beat, Feel, Pattern } from '../document/schema';
import { hash } from '../random/draw';
import { margin } from './notes';
import { planLane, type LanePlan, type PlanOptions, type Setting } from './plan';
import { sparksTo } from './moves/sparks';
import { rateOf } from './reading';
import { newShared } from './staggerCount';
import { ticksPerMs, type Ticks } from '../units';
import { alongSpan, patternTimeline, songTimeline, type Timeline, type Region } from './timeline';
import { tempoAt } from './tempoMap';

/** A song made ready to be played from any place. Its patterns are made ready as they come up. */
export interface TimelinePlan {
  beat: Beat;
  timeline: Timeline;
  /** The lanes that play in a region. */
  lanesOf: (region: Region) => LanePlan[];
  /** The longest note that any lane has. */
  longest: Ticks;
  /** The farthest that a stroke can sound from its region, or be held off by one that does. */
  reach: () => Ticks;
}

/** What is drawn at random differs from one turn of a pattern to the next; the first is as the pattern by itself. */
const turned = (seed: number, repeat: number): number => (repeat === 0 ? seed : hash(seed, repeat));

const anew = (feel: Feel, repeat: number): Feel =>
  repeat === 0 || !feel.humanize.anew
    ? feel
    : { ...feel, humanize: { ...feel.humanize, seed: turned(feel.humanize.seed, repeat) } };

/** From where something is to where it will be, or null where it stays as it is. */
const gradual = (region: Region, begin: number, end: number | undefined, still: number) => {
  if (end === undefined || end === begin) return begin === still ? null : () => begin;
  return (position: Ticks) =>
    begin + (end - begin) * alongSpan(region.span, region.from - region.offset + position);
};

const startSwing = ({ base, swing, off }: Feel): number =>
  base === 'swing' && !off.includes('base') ? swing.percent : 50;

const settingOf = (beat: Beat, timeline: Timeline, region: Region): Setting => {
  const { section } = region.span;
  const feel = anew(section?.feel ?? feelOf(beat, region.pattern!), region.repeat);
  const begin = section?.tempo ?? beat.tempo;
  const end = section?.change?.tempo ?? begin;
  const steady = ticksPerMs(begin);
  const swing = section?.change?.swing;
  const from = region.from - region.offset;
  return {
    feel,
    seed: turned(beat.seed, region.repeat),
    fastest: Math.max(begin, end),
    rateAt:
      begin === end ? () => steady : (position) => ticksPerMs(tempoAt(timeline.tempos, from + position)),
    swingAt: swing === undefined ? null : gradual(region, startSwing(feel), swing, NaN),
    levelAt: gradual(region, section?.level ?? 1, section?.change?.level, 1),
  };
};

/** Stretches that are alike in all that shapes their notes share what has been made ready. */
const keyOf = ({ pattern, span, repeat, from, offset }: Region): string => {
  const { section } = span;
  const place = section?.change ? `${from - offset}` : '';
  return `${pattern!.id} ${section?.id ?? ''} ${repeat} ${place}`;
};

const longestIn = ({ regions }: Timeline): Ticks => {
  let most = 0;
  for (const pattern of new Set(regions.flatMap((region) => region.pattern ?? [])))
    for (const part of Object.values(pattern.parts)) {
      const step = gridTicks(part.grid) / rateOf(part.rate);
      for (const hit of part.hits) most = Math.max(most, (hit.length ?? 1) * step);
    }
  return most;
};

/** What reaches how far goes by pattern and section: regions that repeat one another reach as far. */
const reachOf = ({ regions }: Timeline, lanesOf: (region: Region) => LanePlan[]): Ticks => {
  const seen = new Set<string>();
  let most = 0;
  for (const region of regions) {
    const key = `${region.pattern?.id} ${region.span.section?.id}`;
    if (seen.has(key)) continue;
    seen.add(key);
    for (const lane of lanesOf(region)) most = Math.max(most, margin(lane));
  }
  return most;
};

/** Whether a lane has hits, or others set it off. */
const mayPlay = (beat: Beat, pattern: Pattern, laneId: string): boolean =>
  lanePatternOf(pattern, laneId).hits.length > 0 || sparksTo(beat, pattern, laneId).length > 0;

const planOf = (beat: Beat, timeline: Timeline, { includeMuted }: PlanOptions): TimelinePlan => {
  const heard = includeMuted ? beat.lanes : soundingLanes(beat);
  const made = new Map<string, LanePlan[]>();
  const make = (region: Region): LanePlan[] => {
    const { pattern, span } = region;
    const silent = includeMuted ? [] : (span.section?.silent ?? []);
    const shared = newShared();
    const setting = settingOf(beat, timeline, region);
    return heard
      .filter(({ id }) => !silent.includes(id) && mayPlay(beat, pattern!, id))
      .map((lane) => planLane(beat, pattern!, lane, shared, setting));
  };
  const lanesOf = (region: Region): LanePlan[] => {
    if (!region.pattern) return [];
    const key = keyOf(region);
    const lanes = made.get(key) ?? make(region);
    made.set(key, lanes);
    return lanes;
  };
  let reach: Ticks | null = null;
  return {
    beat,
    timeline,
    longest: longestIn(timeline),
    lanesOf,
    reach: () => (reach ??= reachOf(timeline, lanesOf)),
  };
};

/**
 * Makes a song ready, or only some places of it, as if they stood alone.
 *
 * @example planSong(songBeat).timeline.length // 15360
 */
export const planSong = (beat: Beat, options: PlanOptions = {}, order = beat.song.order): TimelinePlan =>
  planOf(beat, songTimeline(beat, order), options);

/**
 * Makes a pattern ready that repeats without end: what is heard live.
 *
 * @example notesIn(planLive(beat, pattern), 0, 960).length // 1
 */
export const planLive = (
  beat: Beat,
  pattern: Beat['patterns'][number],
  options: PlanOptions = {},
): TimelinePlan => planPasses(beat, pattern, Infinity, options);

/**
 * Makes so many passes of a pattern ready.
 *
 * @param passes 1 or more; Infinity goes on without end
 * @example planPasses(beat, pattern, 3).timeline.length // 11520
 */
export const planPasses = (
  beat: Beat,
  pattern: Beat['patterns'][number],
  passes: number,
  options: PlanOptions = {},
): TimelinePlan => planOf(beat, patternTimeline(beat, pattern, passes), options);
