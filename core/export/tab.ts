import { gridTicks } from '../beat/grid';
import { barTicks, meterText } from '../beat/meter';
import type { Beat } from '../beat/schema';
import { barsOf } from './midi';
import type { Piece } from './pieces';
import { tempoOf } from './list';
import { letterGrid, placedHits, writtenLanes } from './written';

const GHOST = 52;
const ACCENT = 108;

/** How a hit is written: g a ghost note, O an accent, o any other, f a flam or drag, r a roll. */
const letter = ({ velocity, grace, roll }: { velocity: number; grace: number; roll: boolean }): string => {
  if (roll) return 'r';
  if (grace) return 'f';
  if (velocity <= GHOST) return 'g';
  return velocity >= ACCENT ? 'O' : 'o';
};

const BARS_A_LINE = 2;

/** What is counted over a bar: the beats, and nothing between. */
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
 * @example "Kick    |O---o---|"
 */
export const tabOf = (piece: Piece, beat: Beat): string => {
  const hits = placedHits(piece);
  const step = gridTicks(letterGrid(hits.map(({ tick }) => tick)));
  const lanes = writtenLanes(piece, beat);
  const width = Math.max(5, ...lanes.map(({ lane }) => [...lane.name].length)) + 1;
  const bars = barsOf(piece);
  const lines = [
    `${beat.name}: ${piece.name}`,
    `${bars.length} bar${bars.length === 1 ? '' : 's'}, ${Math.round(tempoOf(piece) * 100) / 100} BPM`,
    'O accent, o hit, g ghost note, f flam or drag, r roll',
    '',
  ];
  for (let first = 0; first < bars.length; first += BARS_A_LINE) {
    const shown = bars.slice(first, first + BARS_A_LINE);
    const cellsOf = shown.map(({ meter }) => Math.ceil(barTicks(meter) / step - 1e-6));
    lines.push(`Bar ${first + 1}, ${meterText(shown[0]!.meter)}`);
    lines.push(
      `${' '.repeat(width)} ${shown.map(({ meter }, at) => counted(cellsOf[at]!, step, meter.unit)).join(' ')}`.trimEnd(),
    );
    for (const { lane, at } of lanes) {
      const rows = shown.map(({ from, meter }, bar) => {
        const cells = new Array<string>(cellsOf[bar]!).fill('-');
        for (const hit of hits) {
          if (hit.lane !== at || hit.tick < from - 1e-6 || hit.tick >= from + barTicks(meter) - 1e-6)
            continue;
          const cell = Math.min(cells.length - 1, Math.round((hit.tick - from) / step));
          cells[cell] = letter(hit);
        }
        return cells.join('');
      });
      lines.push(`${lane.name.padEnd(width)}|${rows.join('|')}|`);
    }
    lines.push('');
  }
  return `${lines.join('\n').trimEnd()}\n`;
};
