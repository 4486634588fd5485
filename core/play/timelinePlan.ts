import { feelOf, lanePatternOf, patternTicks, soundingLanes } from '../document/defaults';
import { gridTicks } from '../document/grid';
import type { Beat, Feel, Pattern } from '../document/schema';
import { hash } from '../random/draw';
import { bandAlone, bandOf, SIXTEENTH, type PlacedBand } from '../feel/bandAt';
import { keptRun, type BandRun, type BandSpan } from '../feel/band';
import type { PlainFeel } from '../document/feelSchema';
import { lastAt } from '../numbers';
import { fastestOf, followingTempos, throughTempo } from './bandTempo';
import {
  everyOf,
  phraseLean,
  phraseMost,
  planLane,
  type LanePlan,
  type PlanOptions,
  type PlanSetting,
} from './plan';
import { sparksTo } from './moves/sparks';
import { rateOf } from './reading';
import { newShared } from './staggerCount';
import { ticksPerMs, type Ms, type Ticks } from '../units';
import { alongSpan, patternTimeline, songTimeline, type Timeline, type Region } from './timeline';
import { tempoAt, type TempoMap } from './tempoMap';

/** A song made ready to be played from any place. Its patterns are made ready as they come up. */
export interface TimelinePlan {
  beat: Beat;
  timeline: Timeline;
  /** The lanes that play in a region. */
  lanesOf: (region: Region) => LanePlan[];
  /** The longest note that any lane has. */
  longest: Ticks;
  /** The farthest that a stroke can sound from its region, or be held off by one that does, of all that sounds up to a position. */
  reach: (upTo: Ticks) => Ticks;
}

/** Random draws differ from one turn of a pattern to the next; the first is as the pattern by itself. */
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

const ownFeelOf = (beat: Beat, { span, pattern }: Region): Feel =>
  span.section?.feel ?? feelOf(beat, pattern!);

/** The players of a whole timeline. */
interface Bands {
  /** Of those that run on through it. */
  run: BandRun;
  /** The tempo that follows them; null where none does. */
  tempos: TempoMap | null;
}

/** A region whose players run on through the timeline. */
const runsOn = (beat: Beat, region: Region): boolean => {
  if (!region.pattern) return false;
  const feel = ownFeelOf(beat, region);
  return feel.humanize.anew && bandOf(feel) !== null;
};

const localRun = (feel: PlainFeel, pass: Ticks): BandRun => bandAlone(feel, everyOf(feel, pass))!.run;

const spansOf = (beat: Beat, { regions }: Timeline): BandSpan[] => {
  const out: BandSpan[] = [];
  for (const region of regions) {
    const feel = region.pattern && ownFeelOf(beat, region);
    const players = feel && runsOn(beat, region) ? bandOf(feel)!.players : null;
    const seed = players ? feel!.humanize.seed : 0;
    const last = out.at(-1);
    if (!last || last.players !== players || last.seed !== seed)
      out.push({ from: Math.round(region.from / SIXTEENTH), players, seed });
  }
  return out.length ? out : [{ from: 0, players: null, seed: 0 }];
};

/** How late the band whose drift is the tempo's is, at a sixteenth of the timeline. */
const meanOf = (beat: Beat, { regions }: Timeline, run: BandRun): ((j: number) => Ms) => {
  const starts = regions.map(({ from }) => from);
  return (j) => {
    const region = regions[lastAt(starts, j * SIXTEENTH)];
    const feel = region?.pattern ? ownFeelOf(beat, region) : null;
    if (!feel || !bandOf(feel)?.tempo) return 0;
    if (feel.humanize.anew) return run.mean(j);
    const inside = Math.round((j * SIXTEENTH - region!.from + region!.offset) / SIXTEENTH);
    return localRun(feel, patternTicks(region!.pattern!)).mean(inside);
  };
};

const bandsOf = (beat: Beat, timeline: Timeline): Bands => {
  const run = keptRun(spansOf(beat, timeline), null);
  const follows = timeline.regions.some((region) => region.pattern && bandOf(ownFeelOf(beat, region))?.tempo);
  return {
    run,
    tempos: follows ? followingTempos(timeline.tempos, meanOf(beat, timeline, run), timeline.length) : null,
  };
};

/** Where the players of a feel stand in a region. */
const placedIn = (
  beat: Beat,
  timeline: Timeline,
  region: Region,
  { run, tempos }: Bands,
): ((feel: PlainFeel) => PlacedBand | null) => {
  const shift = region.from - region.offset;
  const main = ownFeelOf(beat, region);
  const through = tempos && throughTempo(timeline.tempos, tempos);
  return (feel) => {
    const band = bandOf(feel);
    if (!band) return null;
    const own = band === main.humanize.band;
    if (feel.humanize.anew)
      return {
        band,
        // What a feel is blended with runs on by itself.
        run: own ? run : bandAlone(feel, null)!.run,
        from: shift,
        ...(through && { through }),
      };
    return {
      band,
      run: localRun(feel, patternTicks(region.pattern!)),
      from: 0,
      ...(through && { through: (position, late) => through(shift + position, late) - shift }),
    };
  };
};

/** Where the bars before the next section begin that lead into it; null where nothing leads into it. */
const intoNext = ({ spans, bars }: Timeline, { span }: Region) => {
  const next = spans[span.index + 1];
  const into = next?.section?.into;
  if (!next || !into?.ms) return null;
  const at = lastAt(
    bars.map(({ from }) => from),
    next.from,
  );
  return { ms: into.ms, from: bars[Math.max(0, at - into.bars)]!.from, to: next.from };
};

/** The lean of strokes in a region: over the phrase, into a fill, into the next section. */
const leanIn = (timeline: Timeline, region: Region): PlanSetting['leanAt'] => {
  const phrase = phraseLean(patternTicks(region.pattern!));
  const into = intoNext(timeline, region);
  const shift = region.from - region.offset;
  return (feel) => {
    const parts: ((position: Ticks) => Ms)[] = [];
    const over = phrase(feel);
    if (over) parts.push(over);
    const fill = region.fill ? (feel.lean?.fill ?? 0) : 0;
    if (fill)
      parts.push((position) => fill * Math.min(1, Math.max(0, position - region.offset) / region.length));
    if (into)
      parts.push((position) => {
        const along = (shift + position - into.from) / (into.to - into.from);
        return along > 0 ? into.ms * Math.min(1, along) : 0;
      });
    return parts.length ? (position) => parts.reduce((sum, part) => sum + part(position), 0) : null;
  };
};

const mostLeanIn = (timeline: Timeline, region: Region, feel: Feel): Ms =>
  phraseMost(feel) +
  Math.max(Math.abs(feel.lean?.fill ?? 0), Math.abs(feel.blend?.with.lean?.fill ?? 0)) +
  Math.abs(intoNext(timeline, region)?.ms ?? 0);

const settingOf = (beat: Beat, timeline: Timeline, region: Region, bands: Bands): PlanSetting => {
  const { section } = region.span;
  const feel = anew(ownFeelOf(beat, region), region.repeat);
  const begin = section?.tempo ?? beat.tempo;
  const end = section?.change?.tempo ?? begin;
  const steady = ticksPerMs(begin);
  const swing = section?.change?.swing;
  const from = region.from - region.offset;
  const { tempos } = bands;
  const set = Math.max(begin, end);
  return {
    feel,
    seed: turned(beat.seed, region.repeat),
    fastest: tempos ? Math.max(set, fastestOf(tempos)) : set,
    rateAt: tempos
      ? (position) => ticksPerMs(tempoAt(tempos, from + position))
      : begin === end
        ? () => steady
        : (position) => ticksPerMs(tempoAt(timeline.tempos, from + position)),
    band: placedIn(beat, timeline, region, bands),
    leanAt: leanIn(timeline, region),
    mostLean: mostLeanIn(timeline, region, feel),
    swingAt: swing === undefined ? null : gradual(region, startSwing(feel), swing, NaN),
    levelAt: gradual(region, section?.level ?? 1, section?.change?.level, 1),
  };
};

/** Stretches that are alike in all that shapes their notes share what has been made ready. */
const keyOf = (beat: Beat, timeline: Timeline, region: Region, { tempos }: Bands): string => {
  const { pattern, span, repeat, from, offset, fill, length } = region;
  const { section } = span;
  const own = section?.change || tempos || runsOn(beat, region) || intoNext(timeline, region);
  const place = own ? `${from - offset}` : fill ? `fill ${offset} ${length}` : '';
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

/** The reach of strokes goes by pattern and section: regions that repeat one another reach as far. */
const reachOf = (timeline: Timeline, lanesOf: (region: Region) => LanePlan[]): Ticks => {
  const seen = new Set<string>();
  let most = 0;
  for (const region of timeline.regions) {
    const key = `${region.pattern?.id} ${region.span.section?.id} ${intoNext(timeline, region)?.ms ?? 0}`;
    if (seen.has(key)) continue;
    seen.add(key);
    for (const lane of lanesOf(region)) most = Math.max(most, lane.reach + lane.around);
  }
  return most;
};

/** The farthest that players have moved any stroke up to a position of the timeline. */
const wanderedIn = ({ regions }: Timeline, lanesOf: (region: Region) => LanePlan[], upTo: Ticks): Ticks => {
  let most = 0;
  for (const region of regions) {
    if (region.from > upTo) break;
    const shift = region.from - region.offset;
    for (const lane of lanesOf(region))
      most = Math.max(most, lane.wandered(Math.min(upTo - shift, region.offset + region.length)));
  }
  return most;
};

/** Whether a lane has hits, or others set it off. */
const mayPlay = (beat: Beat, pattern: Pattern, laneId: string): boolean =>
  lanePatternOf(pattern, laneId).hits.length > 0 || sparksTo(beat, pattern, laneId).length > 0;

const mayWander = ({ blend, ...feel }: Feel): boolean =>
  bandOf(feel) !== null || (!!blend && bandOf(blend.with) !== null);

const planOf = (beat: Beat, given: Timeline, { includeMuted, switched }: PlanOptions): TimelinePlan => {
  const heard = includeMuted ? beat.lanes : soundingLanes(beat);
  const made = new Map<string, LanePlan[]>();
  const bands = bandsOf(beat, given);
  const timeline = bands.tempos ? { ...given, tempos: bands.tempos } : given;
  const wanders = given.regions.some((region) => region.pattern && mayWander(ownFeelOf(beat, region)));
  const make = (region: Region): LanePlan[] => {
    const { pattern, span } = region;
    const silent = includeMuted ? [] : (span.section?.silent ?? []);
    const shared = newShared();
    const setting = { ...settingOf(beat, given, region, bands), ...(switched && { switched }) };
    return heard
      .filter(({ id }) => !silent.includes(id) && mayPlay(beat, pattern!, id))
      .map((lane) => planLane(beat, pattern!, lane, shared, setting));
  };
  const lanesOf = (region: Region): LanePlan[] => {
    if (!region.pattern) return [];
    const key = keyOf(beat, given, region, bands);
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
    reach: (upTo) => {
      reach ??= reachOf(timeline, lanesOf);
      if (!wanders) return reach;
      const first = wanderedIn(timeline, lanesOf, upTo);
      return reach + wanderedIn(timeline, lanesOf, upTo + first + reach);
    },
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
