import { lastAt } from '../../core/numbers';
import { lanePatternOf, patternTicks, stepsOf } from '../../core/document/defaults';
import { gridTicks } from '../../core/document/grid';
import { instrument, type Pigment } from '../../core/document/instruments';
import type { Beat, Lane, Pattern } from '../../core/document/schema';
import { rateOf } from '../../core/play/reading';
import { barTicks } from '../../core/document/meter';
import type { Timeline, Region } from '../../core/play/timeline';
import { secondsAt, tickAtSeconds } from '../../core/play/tempoMap';
import { timeWords } from '../../core/play/time';
import type { Ticks } from '../../core/units';

/** Strings seen from afar: painted in the page or in a worker. */

type Brush = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** A hit as a dot: where in its pattern, on which lane, how hard. */
interface Dot {
  at: Ticks;
  lane: string;
  velocity: number;
}

const dots = new WeakMap<Pattern, Dot[]>();

/** The hits of one lane over the length of the pattern, its own loop repeated. */
const laneDots = (pattern: Pattern, lane: string): Dot[] => {
  const part = lanePatternOf(pattern, lane);
  const step = gridTicks(part.grid) / rateOf(part.rate);
  const steps = stepsOf(part, pattern);
  const total = patternTicks(pattern);
  const round = part.steps === null ? total / rateOf(part.rate) : steps * step;
  const out: Dot[] = [];
  for (let start = 0; start < total; start += round)
    for (const { step: n, nudge, velocity } of part.hits) {
      const at = start + (n + nudge) * step;
      if (n < steps && at < total) out.push({ at, lane, velocity });
    }
  return out;
};

const dotsOf = (pattern: Pattern): Dot[] => {
  const known = dots.get(pattern);
  if (known) return known;
  const made = Object.keys(pattern.parts).flatMap((lane) => laneDots(pattern, lane));
  dots.set(pattern, made);
  return made;
};

/** A lane as it is drawn. */
export interface Row {
  at: number;
  pigment: Pigment;
}

/** The lanes that play anywhere in the song, from above. */
export const rowsOf = (beat: Beat, layout: Timeline): Map<string, Row> => {
  const used = new Set(
    layout.regions.flatMap(({ pattern }) =>
      Object.entries(pattern?.parts ?? {})
        .filter(([, part]) => part.hits.length)
        .map(([lane]) => lane),
    ),
  );
  const pigmentOf = (lane: Lane): Pigment => lane.pigment ?? instrument(lane.instrument).pigment;
  return new Map(
    beat.lanes
      .filter(({ id }) => used.has(id))
      .map((lane, at) => [lane.id, { at, pigment: pigmentOf(lane) }] as const),
  );
};

/** What the strings are drawn with. */
export interface Measures {
  /** Points a tick. */
  scale: number;
  /** Of the area of the strings. */
  top: number;
  height: number;
}

/** Pixels that are filled straight away: some thousand small boxes cost a canvas far more. */
interface Sheet {
  pixels: Uint32Array;
  width: number;
  height: number;
  /** Pixels a point. */
  ratio: number;
}

/** A colour such as #7fb2d6, or #db5 for #ddbb55, as a pixel. @example pixelOf('#ff0000') // 0xff0000ff */
export const pixelOf = (hex: string): number => {
  const digits = hex.length < 7 ? hex.slice(1, 4).replace(/./g, '$&$&') : hex.slice(1, 7);
  const value = Number.parseInt(digits, 16) || 0;
  return (0xff000000 | ((value & 0xff) << 16) | (value & 0xff00) | (value >> 16)) >>> 0;
};

/** In points; at least a pixel each way. */
const fill = (sheet: Sheet, x: number, y: number, width: number, height: number, pixel: number): void => {
  const { pixels, ratio } = sheet;
  const left = Math.max(0, Math.round(x * ratio));
  const right = Math.min(sheet.width, left + Math.max(1, Math.round(width * ratio)));
  const top = Math.max(0, Math.round(y * ratio));
  const bottom = Math.min(sheet.height, top + Math.max(1, Math.round(height * ratio)));
  if (left >= right) return;
  for (let row = top; row < bottom; row++)
    pixels.fill(pixel, row * sheet.width + left, row * sheet.width + right);
};

const drawStretch = (
  sheet: Sheet,
  stretch: Region,
  rows: Map<string, Row>,
  pixel: Record<Pigment, number>,
  { scale, top, height }: Measures,
  [from, to]: [Ticks, Ticks],
): void => {
  const { pattern } = stretch;
  if (!pattern) return;
  const silent = new Set(stretch.span.section?.silent ?? []);
  const total = patternTicks(pattern);
  const row = height / Math.max(1, rows.size);
  const end = Math.min(to, stretch.from + stretch.length);
  const first = stretch.from - stretch.offset;
  const skip = Math.max(0, Math.floor((from - first) / total) * total);
  const wide = Math.max(1, Math.min(3, scale * 120));
  for (let pass = first + skip; pass < end; pass += total)
    for (const { at, lane, velocity } of dotsOf(pattern)) {
      const tick = pass + at;
      if (tick < stretch.from || tick >= end || tick < from || silent.has(lane)) continue;
      const where = rows.get(lane);
      if (!where) continue;
      const size = Math.max(1, Math.min(row - 1, 5) * (0.35 + (0.65 * velocity) / 127));
      fill(
        sheet,
        (tick - from) * scale,
        top + (where.at + 0.5) * row - size / 2,
        wide,
        size,
        pixel[where.pigment],
      );
    }
};

/** How many bars lie between two numbers, so that they do not run into one another. */
export const numberEvery = (barPoints: number): number =>
  [1, 2, 4, 8, 16, 32, 64].find((every) => every * barPoints >= 34) ?? 128;

/** How many seconds lie between two times that are written, so that they do not run into one another. */
const timeEvery = (secondPoints: number): number =>
  [1, 5, 10, 15, 30, 60, 120, 300].find((every) => every * secondPoints >= 56) ?? 600;

/** Minutes and seconds below the strings. */
const paintTimes = (
  brush: Brush,
  { tempos, length }: Timeline,
  ink: Record<string, string>,
  { scale, top, height }: Measures,
  from: Ticks,
  to: Ticks,
): void => {
  const total = secondsAt(tempos, length);
  const every = timeEvery((length * scale) / Math.max(1, total));
  const first = Math.floor(Math.max(0, secondsAt(tempos, from) - 8) / every) * every;
  brush.fillStyle = ink['quiet']!;
  for (let time = first; time <= Math.min(total, secondsAt(tempos, to)); time += every) {
    const x = (tickAtSeconds(tempos, time) - from) * scale;
    brush.fillRect(x, top + height + 2, 1, 5);
    brush.fillText(timeWords(time), x + 3, top + height + 4);
  }
};

/** The bars that begin within a stretch of time, each with whether its number is written. */
const barsWithin = ({ bars }: Timeline, [from, to]: [Ticks, Ticks], scale: number) => {
  const every = numberEvery((bars[0] ? barTicks(bars[0].meter) : 3840) * scale);
  const out: { bar: Timeline['bars'][number]; at: number; numbered: boolean }[] = [];
  for (let at = lastAt(starts(bars), from - 3840 * 2); at < bars.length && bars[at]!.from < to; at++)
    out.push({ bar: bars[at]!, at, numbered: at % every === 0 });
  return out;
};

const begun = new WeakMap<Timeline['bars'], Ticks[]>();
const starts = (bars: Timeline['bars']): Ticks[] => {
  const known = begun.get(bars) ?? bars.map(({ from }) => from);
  begun.set(bars, known);
  return known;
};

/**
 * Paints one tile of the song: strings, bar lines, numbers and times.
 *
 * @param ratio pixels a point
 */
export const paintTile = (
  brush: Brush,
  layout: Timeline,
  rows: Map<string, Row>,
  ink: Record<string, string>,
  measures: Measures,
  [from, to]: [Ticks, Ticks],
  ratio: number,
): void => {
  const { scale, top, height } = measures;
  const image = brush.createImageData(brush.canvas.width, brush.canvas.height);
  const sheet: Sheet = {
    pixels: new Uint32Array(image.data.buffer),
    width: image.width,
    height: image.height,
    ratio,
  };
  const pixel = Object.fromEntries(Object.entries(ink).map(([name, hex]) => [name, pixelOf(hex)])) as Record<
    Pigment | 'ground' | 'rule' | 'line',
    number
  >;
  sheet.pixels.fill(pixel.ground);
  const bars = barsWithin(layout, [from, to], scale);
  for (const { bar, numbered } of bars) {
    const x = (bar.from - from) * scale;
    if (x >= 0 && (numbered || barTicks(bar.meter) * scale >= 7))
      fill(sheet, x, numbered ? top - 4 : top, 1, height + (numbered ? 4 : 0), pixel.rule);
  }
  const row = height / Math.max(1, rows.size);
  for (const { at } of rows.values())
    fill(sheet, 0, top + (at + 0.5) * row, (Math.min(to, layout.length) - from) * scale, 0.5, pixel.line);
  for (const stretch of layout.regions)
    if (stretch.from < to && stretch.from + stretch.length > from)
      drawStretch(sheet, stretch, rows, pixel, measures, [from, to]);
  brush.putImageData(image, 0, 0);
  brush.font = '11px "Martian Mono", monospace';
  brush.textBaseline = 'top';
  brush.fillStyle = ink['quiet']!;
  for (const { bar, at, numbered } of bars)
    if (numbered) brush.fillText(String(at + 1), (bar.from - from) * scale + 3, 3);
  paintTimes(brush, layout, ink, measures, from, to);
};
