import { barTicks, meterText } from '../document/meter';
import type { Beat } from '../document/schema';
import { barsOf } from './midi';
import type { Piece } from './pieces';
import { tempoOf } from './list';
import { letterStep, placedHits, writtenLanes, type PlacedHit } from './written';

const GHOST = 52;
const ACCENT = 108;

/** How a hit is written: g a ghost note, O an accent, o any other, f a flam or drag, r a roll. */
const letter = ({ velocity, grace, roll }: { velocity: number; grace: number; roll: boolean }): string => {
  if (roll) return 'r';
  if (grace) return 'f';
  if (velocity <= GHOST) return 'g';
  return velocity >= ACCENT ? 'O' : 'o';
};

/** Two bars stand beside one another where they are no wider than this, in letters. */
const WIDEST = 72;

/** The name of a step between letters, for the head of the tab. */
const STEP_NAMES: Record<number, string> = {
  480: 'eighth',
  320: 'eighth triplet',
  240: 'sixteenth',
  192: 'eighth quintuplet',
  160: 'sixteenth triplet',
  120: 'thirty-second',
  96: 'sixteenth quintuplet',
  80: 'thirty-second triplet',
  60: 'sixty-fourth',
  48: 'twentieth of a quarter',
  40: 'sixty-fourth triplet',
};

/** Hits of a lane in one bar as letters, and how many of them found their place taken. */
const letters = (hits: PlacedHit[], cells: number, step: number): { row: string; shared: number } => {
  const row = new Array<string>(cells).fill('-');
  let shared = 0;
  for (const hit of hits) {
    const cell = Math.min(cells - 1, Math.round(hit.tick / step));
    if (row[cell] !== '-') shared++;
    row[cell] = letter(hit);
  }
  return { row: row.join(''), shared };
};

/** The count over a bar: the beats, and nothing between. */
const counted = (cells: number, step: number, unit: number): string => {
  const beat = 3840 / unit;
  let out = '';
  for (let at = 0; at < cells; at++) {
    const n = (at * step) / beat;
    out += Number.isInteger(Math.round(n * 1e6) / 1e6) ? String((Math.round(n) % 9) + 1) : ' ';
  }
  return out;
};

/**
 * A drum tab in plain letters: a line a lane, two bars beside one another, hits on their steps.
 *
 * @example tabOf(piece, beat).includes('Kick') // true
 */
export const tabOf = (piece: Piece, beat: Beat): string => {
  const hits = placedHits(piece);
  const lanes = writtenLanes(piece, beat);
  const width = Math.max(5, ...lanes.map(({ lane }) => [...lane.name].length)) + 1;
  const bars = barsOf(piece).map(({ from, meter }) => ({
    meter,
    hits: hits
      .filter(({ tick }) => tick >= from - 1e-6 && tick < from + barTicks(meter) - 1e-6)
      .map((hit) => ({ ...hit, tick: hit.tick - from })),
  }));
  const step = letterStep(bars.flatMap((bar) => bar.hits.map(({ tick }) => tick)));
  const cellsOf = bars.map(({ meter }) => Math.ceil(barTicks(meter) / step - 1e-6));
  let shared = 0;
  const body: string[] = [];
  for (let first = 0; first < bars.length;) {
    const together = first + 1 < bars.length && cellsOf[first]! + cellsOf[first + 1]! <= WIDEST ? 2 : 1;
    const shown = bars.slice(first, first + together);
    body.push(`Bar ${first + 1}, ${meterText(shown[0]!.meter)}`);
    body.push(
      `${' '.repeat(width)} ${shown.map(({ meter }, at) => counted(cellsOf[first + at]!, step, meter.unit)).join(' ')}`.trimEnd(),
    );
    for (const { lane, at } of lanes) {
      const rows = shown.map((bar, index) => {
        const own = bar.hits.filter((hit) => hit.lane === at);
        const written = letters(own, cellsOf[first + index]!, step);
        shared += written.shared;
        return written.row;
      });
      body.push(`${lane.name.padEnd(width)}|${rows.join('|')}|`);
    }
    body.push('');
    first += together;
  }
  const lines = [
    `${beat.name}: ${piece.name}`,
    `${bars.length} bar${bars.length === 1 ? '' : 's'}, ${Math.round(tempoOf(piece) * 100) / 100} BPM`,
    `O accent, o hit, g ghost note, f flam or drag, r roll; from one place to the next is a ${STEP_NAMES[step]!}`,
    ...(shared
      ? [
          `${shared} hit${shared === 1 ? ' stands' : 's stand'} so close to another of the same drum that they share a letter.`,
        ]
      : []),
    '',
    ...body,
  ];
  return `${lines.join('\n').trimEnd()}\n`;
};
