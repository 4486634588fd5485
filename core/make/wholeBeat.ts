import { drumGroupOf } from '../document/drumGroups';
import type { DrumGroup } from '../document/choices';
import { EMPTY_LANE_PATTERN, newHit } from '../document/defaults';
import { gridTicks } from '../document/grid';
import { INSTRUMENTS, type InstrumentId } from '../document/instruments';
import { barTicks, meterText, type Meter } from '../document/meter';
import { inOrder, positionOf } from '../document/position';
import type { Hit } from '../document/schema';
import type { Groove, GrooveFeel, GrooveLane } from '../groove/groove';
import { alike, likenessOf, type Likeness } from '../groove/likeness';
import { keepTimeOn } from '../groove/timekeeper';
import { draw, hashText, PURPOSE } from '../random/draw';
import { clamp, ticksPerMs, type Bpm, type Ticks } from '../units';
import { drummable, type DrummerStroke } from './oneDrummer';

/** A whole beat at a tap: drawn from how grooves of a style are played, then put right by rules. */

const SIXTEENTH: Ticks = gridTicks('1/16');

/** A hit of a groove, folded to a sixteenth of a bar. */
interface CellHit {
  velocity: number;
  /** How far off the sixteenth, in ticks. */
  off: Ticks;
}

/** One bar of one groove: what each instrument plays on each sixteenth. */
interface ModelBar {
  lanes: Map<InstrumentId, (CellHit | undefined)[]>;
}

/** How a style is played. */
export interface BeatModel {
  meter: Meter;
  bpm: Bpm;
  feel: GrooveFeel;
  cells: number;
  /** The bars of its grooves. */
  bars: ModelBar[];
  /** The last bars of its fills. */
  fills: ModelBar[];
  /** For each instrument and sixteenth, in how many of the bars it is struck, 0 to 1, how hard and how far off on average. */
  likely: Map<InstrumentId, { p: number; velocity: number; off: Ticks }[]>;
  timekeeper: InstrumentId | null;
  /** The profiles of its grooves. */
  like: Likeness[];
}

const barsOfGroove = (groove: Groove, cells: number): ModelBar[] => {
  const bar = barTicks(groove.meter);
  const out = Array.from({ length: groove.bars }, (): ModelBar => ({ lanes: new Map() }));
  for (const { instrument, part } of groove.lanes)
    for (const hit of part.hits) {
      const at = Math.max(0, positionOf(hit, part.grid));
      const whole = Math.round(at / SIXTEENTH);
      const barAt = Math.floor((whole * SIXTEENTH) / bar + 1e-9);
      const into = out[barAt];
      const cell = Math.round((whole * SIXTEENTH - barAt * bar) / SIXTEENTH);
      if (!into || cell >= cells) continue;
      const row = into.lanes.get(instrument) ?? new Array<CellHit | undefined>(cells).fill(undefined);
      const there = row[cell];
      if (!there || there.velocity < hit.velocity)
        row[cell] = { velocity: hit.velocity, off: at - whole * SIXTEENTH };
      into.lanes.set(instrument, row);
    }
  return out;
};

const likelyOf = (bars: ModelBar[], cells: number): BeatModel['likely'] => {
  const likely: BeatModel['likely'] = new Map();
  for (const instrument of new Set(bars.flatMap(({ lanes }) => [...lanes.keys()])))
    likely.set(
      instrument,
      Array.from({ length: cells }, (_, cell) => {
        const hits = bars.flatMap(({ lanes }) => lanes.get(instrument)?.[cell] ?? []);
        const mean = (of: (hit: CellHit) => number) =>
          hits.reduce((sum, hit) => sum + of(hit), 0) / Math.max(1, hits.length);
        return {
          p: hits.length / bars.length,
          velocity: mean(({ velocity }) => velocity),
          off: mean(({ off }) => off),
        };
      }),
    );
  return likely;
};

const mostCommon = <T extends string>(values: T[]): T | undefined => {
  const counts = new Map<T, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
};

/**
 * How some grooves are played: of one style of the library, or of what somebody marked or imported.
 *
 * @returns null where there is no groove to go by
 * @example beatModel([groove])!.meter // { beats: 4, unit: 4 }
 */
export const beatModel = (grooves: readonly Groove[]): BeatModel | null => {
  const whole = grooves.filter(({ lanes }) => lanes.length > 0);
  const plain = whole.filter(({ kind }) => kind !== 'fill' && kind !== 'ending');
  const meter = mostCommon((plain.length ? plain : whole).map((groove) => meterText(groove.meter)));
  const same = (plain.length ? plain : whole).filter((groove) => meterText(groove.meter) === meter);
  const first = same[0];
  if (!first) return null;
  const cells = Math.round(barTicks(first.meter) / SIXTEENTH);
  const bars = same.flatMap((groove) => barsOfGroove(groove, cells));
  const fills = whole
    .filter((groove) => groove.kind === 'fill' && meterText(groove.meter) === meter)
    .flatMap((groove) => barsOfGroove(groove, cells).slice(-1));
  const main = same.filter(({ kind }) => kind === 'main' || kind === 'variation');
  return {
    like: (main.length ? main : same).map(likenessOf),
    meter: first.meter,
    bpm: first.bpm,
    feel: first.feel,
    cells,
    bars,
    fills,
    likely: likelyOf(bars, cells),
    timekeeper: mostCommon(same.flatMap(({ timekeeper }) => timekeeper ?? [])) ?? null,
  };
};

export interface BeatSettings {
  bars: number;
  /** 0 sparse, 50 as the style is, 100 full; and by group of drums besides. */
  busy: number;
  groups?: Partial<Record<DrumGroup, number>>;
  /** Who keeps time; null is as the style has it. */
  timekeeper: InstrumentId | null;
  /** Whether the backbeat is always there. */
  backbeat: boolean;
  ghosts: boolean;
  /** Whether the last bar is a fill, where there are two at least. */
  fill: boolean;
  /** Which rules hold fast: only what one drummer can play. */
  oneDrummer: boolean;
  tempo: Bpm;
}

export const BEAT_DEFAULTS: BeatSettings = {
  bars: 2,
  busy: 50,
  timekeeper: null,
  backbeat: true,
  ghosts: true,
  fill: false,
  oneDrummer: true,
  tempo: 100,
};

/** How much of what is drawn goes by one bar of one groove; the rest goes by all. */
const OWN = 0.5;
/** A bar after the first is another one in so much of it. */
const ANOTHER = 0.2;
const LIKELY = 0.5;
const GHOST = 60;

/** More or less likely: the odds are multiplied, so that what is certain stays so and a fuller beat holds a sparser one. */
const busier = (p: number, busy: number): number => {
  const odds = Math.pow(8, (busy - 50) / 50);
  return (p * odds) / (1 - p + p * odds);
};

const busyOf = (settings: BeatSettings, instrument: InstrumentId): number =>
  clamp(settings.busy + (settings.groups?.[drumGroupOf(instrument)] ?? 50) - 50, 0, 100);

interface MadeHit extends DrummerStroke {
  bar: number;
  cell: number;
  off: Ticks;
}

const isBackbeat = (instrument: InstrumentId, { p, velocity }: { p: number; velocity: number }): boolean =>
  drumGroupOf(instrument) === 'snare' && p >= LIKELY && velocity >= 75;

/** How usual a bar is for its style: how likely what it plays is, and what it leaves out. */
const usualness = ({ lanes }: ModelBar, likely: BeatModel['likely']): number => {
  let sum = 0;
  for (const [instrument, row] of likely)
    row.forEach(({ p }, cell) => (sum -= Math.abs((lanes.get(instrument)?.[cell] ? 1 : 0) - p)));
  return sum;
};

/** Of three bars the most usual: what is rare in a style leads a beat rarely. */
const sourceOf = ({ bars, likely }: BeatModel, seed: number): ModelBar =>
  [0, 1, 2]
    .map((one) => bars[Math.floor(draw(seed, one, PURPOSE.beatSource) * bars.length)]!)
    .reduce((best, bar) => (usualness(bar, likely) > usualness(best, likely) ? bar : best));

const drawBar = (model: BeatModel, settings: BeatSettings, seed: number, bar: number): MadeHit[] => {
  const source = sourceOf(model, seed);
  const out: MadeHit[] = [];
  for (const [instrument, row] of model.likely) {
    const key = hashText(instrument);
    row.forEach((cell, at) => {
      if (cell.p === 0) return;
      const own = source.lanes.get(instrument)?.[at];
      const anew = bar > 0 && draw(seed, key, bar, at, PURPOSE.beatSource) < ANOTHER;
      const u = draw(seed, key, anew ? bar : 0, at, PURPOSE.beatStruck);
      const p = OWN * (own ? 1 : 0) + (1 - OWN) * cell.p;
      const held = settings.backbeat && isBackbeat(instrument, cell);
      if (!held && u >= busier(p, busyOf(settings, instrument))) return;
      const spread = 10 * (draw(seed, key, bar, at, PURPOSE.beatVelocity) - 0.5);
      const velocity = Math.round(clamp((own?.velocity ?? cell.velocity) + spread, 1, 127));
      if (!settings.ghosts && drumGroupOf(instrument) === 'snare' && velocity < GHOST && !held) return;
      const off = own?.off ?? cell.off;
      out.push({
        bar,
        cell: at,
        off,
        velocity,
        instrument,
        ms: (bar * barTicks(model.meter) + at * SIXTEENTH + off) / ticksPerMs(settings.tempo),
      });
    });
  }
  return out;
};

const fillBar = (model: BeatModel, settings: BeatSettings, seed: number, bar: number): MadeHit[] => {
  const fill = model.fills[Math.floor(draw(seed, 9, PURPOSE.beatSource) * model.fills.length)]!;
  return [...fill.lanes].flatMap(([instrument, row]) =>
    row.flatMap((hit, cell): MadeHit[] =>
      hit
        ? [
            {
              bar,
              cell,
              off: hit.off,
              velocity: hit.velocity,
              instrument,
              ms: (bar * barTicks(model.meter) + cell * SIXTEENTH + hit.off) / ticksPerMs(settings.tempo),
            },
          ]
        : [],
    ),
  );
};

/** Of two strokes that ring at once one gives way: an open and a closed hat are one stroke. */
const oneHat = (hits: MadeHit[]): MadeHit[] => {
  const hats = new Map<string, MadeHit>();
  for (const hit of hits)
    if (drumGroupOf(hit.instrument) === 'hat' && hit.instrument !== 'hat.pedal') {
      const place = `${hit.bar} ${hit.cell}`;
      const there = hats.get(place);
      if (!there || there.velocity < hit.velocity) hats.set(place, hit);
    }
  return hits.filter(
    (hit) =>
      drumGroupOf(hit.instrument) !== 'hat' ||
      hit.instrument === 'hat.pedal' ||
      hats.get(`${hit.bar} ${hit.cell}`) === hit,
  );
};

const laneOf = (instrument: InstrumentId, hits: MadeHit[], cells: number): GrooveLane => ({
  instrument,
  note: INSTRUMENTS[instrument].note,
  channel: 10,
  part: {
    ...EMPTY_LANE_PATTERN,
    hits: inOrder(
      hits.map(({ bar, cell, off, velocity }): Hit => ({
        ...newHit(bar * cells + cell, velocity),
        nudge: clamp(off / SIXTEENTH, -0.5, 0.5),
      })),
    ),
  },
});

/** So many beats are drawn for one, and the nearest to its style is given. */
const DRAWN = 6;

/** How near a beat is to the grooves of its style, on average. */
const nearness = ({ like }: BeatModel, groove: Groove): number => {
  const own = likenessOf(groove);
  return like.reduce((sum, one) => sum + alike(own, one), 0);
};

/**
 * The seed whose beat is nearest to the style, of those that one seed leads to. It is chosen as the style is played, whatever the
 * settings, so that turning them keeps to one beat.
 */
const nearestSeed = (model: BeatModel, { bars, tempo }: BeatSettings, seed: number): number => {
  const plain = { ...BEAT_DEFAULTS, bars, tempo };
  const seeds = Array.from({ length: DRAWN }, (_, at) =>
    at ? Math.floor(draw(seed, at, PURPOSE.beatChoice) * 0x1_0000_0000) : seed,
  );
  const near = seeds.map((one) => nearness(model, drawnBeat(model, plain, one)));
  return seeds[near.indexOf(Math.max(...near))]!;
};

/**
 * A beat in the style of a model: the nearest to it of some that are drawn. The same seed gives the same beat; a busier one of the same seed holds all of a sparser one
 * that one drummer can play.
 *
 * @example wholeBeat(beatModel([groove])!, BEAT_DEFAULTS, 7).bars // 2
 */
export const wholeBeat = (model: BeatModel, settings: BeatSettings, seed: number): Groove => ({
  ...drawnBeat(model, settings, nearestSeed(model, settings, seed)),
  id: `made ${seed}`,
});

function drawnBeat(model: BeatModel, settings: BeatSettings, seed: number): Groove {
  const hasFill = settings.fill && settings.bars > 1 && model.fills.length > 0;
  const drawn = Array.from({ length: settings.bars }, (_, bar) =>
    hasFill && bar === settings.bars - 1
      ? fillBar(model, settings, seed, bar)
      : drawBar(model, settings, seed, bar),
  ).flat();
  const hits = oneHat(drawn);
  const instruments = [...new Set(hits.map(({ instrument }) => instrument))];
  const groove: Groove = {
    id: `made ${seed}`,
    name: 'Made',
    style: '',
    kind: 'main',
    source: 'built-in',
    path: [],
    meter: model.meter,
    bars: settings.bars,
    bpm: model.bpm,
    tempos: [model.bpm, model.bpm],
    feel: model.feel,
    timekeeper: model.timekeeper,
    instruments,
    tags: [],
    lanes: instruments.map((instrument) =>
      laneOf(
        instrument,
        hits.filter((hit) => hit.instrument === instrument),
        model.cells,
      ),
    ),
  };
  const kept = settings.timekeeper ? keepTimeOn(groove, settings.timekeeper) : groove;
  return settings.oneDrummer ? playableBy(model, settings, kept) : kept;
}

/** The strokes of it that one drummer can play, once it is known who keeps time. What may not give way is asked for first. */
function playableBy(model: BeatModel, settings: BeatSettings, groove: Groove): Groove {
  const strokes = groove.lanes.flatMap(({ instrument, part }) =>
    part.hits.map((hit) => {
      const cell = model.likely.get(instrument)?.[hit.step % model.cells];
      const held = settings.backbeat && !!cell && isBackbeat(instrument, cell);
      return {
        ms: positionOf(hit, part.grid) / ticksPerMs(settings.tempo),
        velocity: hit.velocity + (held ? 200 : 0),
        instrument,
        hit,
      };
    }),
  );
  const struck = new Set(drummable(strokes).map(({ hit }) => hit));
  const lanes = groove.lanes
    .map((lane) => ({
      ...lane,
      part: { ...lane.part, hits: lane.part.hits.filter((hit) => struck.has(hit)) },
    }))
    .filter(({ part }) => part.hits.length);
  return { ...groove, lanes, instruments: lanes.map(({ instrument }) => instrument) };
}
