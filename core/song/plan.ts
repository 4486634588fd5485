import { feelOf, partOf, soundingLanes } from '../beat/defaults';
import { gridTicks } from '../beat/grid';
import type { Beat, Feel } from '../beat/schema';
import { sharedPinks } from '../feel/lanePlan';
import { hash } from '../play/draw';
import { planLane, type LanePlan, type PlanOptions, type Setting } from '../play/plan';
import { rateOf } from '../play/reading';
import { ticksPerMs, type Ticks } from '../units';
import { alongSpan, layoutPattern, layoutSong, type Layout, type Stretch } from './layout';
import { tempoAt } from './tempoMap';

/** A song made ready to be played from any place. Its patterns are made ready as they come up. */
export interface SongPlan {
  beat: Beat;
  layout: Layout;
  /** The lanes that play in a stretch. */
  lanesOf: (stretch: Stretch) => LanePlan[];
  /** The longest note that any lane has. */
  longest: Ticks;
}

/** What is drawn at random differs from one turn of a pattern to the next; the first is as the pattern by itself. */
const turned = (seed: number, turn: number): number => (turn === 0 ? seed : hash(seed, turn));

const anew = (feel: Feel, turn: number): Feel =>
  turn === 0 || !feel.humanize.anew
    ? feel
    : { ...feel, humanize: { ...feel.humanize, seed: turned(feel.humanize.seed, turn) } };

/** From where something is to where it will be, or null where it stays as it is. */
const gradual = (stretch: Stretch, begin: number, end: number | undefined, still: number) => {
  if (end === undefined || end === begin) return begin === still ? null : () => begin;
  return (position: Ticks) =>
    begin + (end - begin) * alongSpan(stretch.span, stretch.from - stretch.offset + position);
};

const startSwing = ({ base, swing, off }: Feel): number =>
  base === 'swing' && !off.includes('base') ? swing.percent : 50;

const settingOf = (beat: Beat, layout: Layout, stretch: Stretch): Setting => {
  const { section } = stretch.span;
  const feel = anew(section?.feel ?? feelOf(beat, stretch.pattern!), stretch.turn);
  const begin = section?.tempo ?? beat.tempo;
  const end = section?.change?.tempo ?? begin;
  const steady = ticksPerMs(begin);
  const swing = section?.change?.swing;
  const from = stretch.from - stretch.offset;
  return {
    feel,
    seed: turned(beat.seed, stretch.turn),
    fastest: Math.max(begin, end),
    rateAt: begin === end ? () => steady : (position) => ticksPerMs(tempoAt(layout.tempos, from + position)),
    swingAt: swing === undefined ? null : gradual(stretch, startSwing(feel), swing, NaN),
    levelAt: gradual(stretch, section?.level ?? 1, section?.change?.level, 1),
  };
};

/** Stretches that are alike in all that shapes their notes share what has been made ready. */
const keyOf = ({ pattern, span, turn, from, offset }: Stretch): string => {
  const { section } = span;
  const place = section?.change ? `${from - offset}` : '';
  return `${pattern!.id} ${section?.id ?? ''} ${turn} ${place}`;
};

const longestIn = ({ patterns }: Pick<Beat, 'patterns'>): Ticks => {
  let most = 0;
  for (const pattern of patterns)
    for (const part of Object.values(pattern.parts)) {
      const step = gridTicks(part.grid) / rateOf(part.rate);
      for (const hit of part.hits) most = Math.max(most, (hit.length ?? 1) * step);
    }
  return most;
};

const planOf = (beat: Beat, layout: Layout, { includeMuted }: PlanOptions): SongPlan => {
  const heard = includeMuted ? beat.lanes : soundingLanes(beat);
  const made = new Map<string, LanePlan[]>();
  const make = (stretch: Stretch): LanePlan[] => {
    const { pattern, span } = stretch;
    const silent = includeMuted ? [] : (span.section?.silent ?? []);
    const pinks = sharedPinks();
    const setting = settingOf(beat, layout, stretch);
    return heard
      .filter(({ id }) => !silent.includes(id) && partOf(pattern!, id).hits.length > 0)
      .map((lane) => planLane(beat, pattern!, lane, pinks, setting));
  };
  return {
    beat,
    layout,
    longest: longestIn(beat),
    lanesOf: (stretch) => {
      if (!stretch.pattern) return [];
      const key = keyOf(stretch);
      const lanes = made.get(key) ?? make(stretch);
      made.set(key, lanes);
      return lanes;
    },
  };
};

/** Makes a song ready, or only some places of it, as if they stood alone. */
export const planSong = (beat: Beat, options: PlanOptions = {}, order = beat.song.order): SongPlan =>
  planOf(beat, layoutSong(beat, order), options);

/** Makes a pattern ready in the same way. */
export const planPasses = (
  beat: Beat,
  pattern: Beat['patterns'][number],
  passes: number,
  options: PlanOptions = {},
): SongPlan => planOf(beat, layoutPattern(beat, pattern, passes), options);
