import { lastAt } from '../numbers';
import { unparse } from 'papaparse';
import type { Beat } from '../document/schema';
import { secondsAt, tempoAt } from '../play/tempoMap';
import type { Piece } from './pieces';

const figure = (value: number, digits: number): number => Number(value.toFixed(digits)) + 0;

/** One hit as it sounds. */
export interface ListedHit {
  bar: number;
  /** From 1, with what lies between beats behind the point. */
  beat: number;
  /** In ms from the start. */
  ms: number;
  /** 960 to the quarter, from the start. */
  tick: number;
  lane: string;
  instrument: string;
  note: number;
  channel: number;
  velocity: number;
  /** In ticks. */
  length: number;
  section: string;
}

/** Every hit of a piece where it sounds, in order of time. @example hitsOf(piece, beat).length // 6 */
export const hitsOf = (piece: Piece, beat: Beat): ListedHit[] => {
  const { timeline } = piece.plan;
  const starts = timeline.bars.map(({ from }) => from);
  const spans = timeline.spans.map(({ from }) => from);
  const origin = secondsAt(timeline.tempos, piece.range.from);
  const first = lastAt(starts, piece.range.from);
  return piece.notes().map((note) => {
    const tick = note.tick + piece.range.from;
    const at = lastAt(starts, tick + 1e-6);
    const bar = timeline.bars[at]!;
    const lane = beat.lanes[note.lane]!;
    return {
      bar: at - first + 1,
      beat: figure(1 + (tick - bar.from) / (3840 / bar.meter.unit), 4),
      ms: figure((secondsAt(timeline.tempos, tick) - origin) * 1000, 4),
      tick: figure(note.tick, 4),
      lane: lane.name,
      instrument: lane.instrument,
      note: note.note,
      channel: note.channel,
      velocity: note.velocity,
      length: figure(note.length, 4),
      section:
        timeline.spans[lastAt(spans, note.gridTick + piece.range.from + 1e-6)]?.section?.name ?? piece.name,
    };
  });
};

/**
 * The list of hits as CSV, with a first line of names. A name that a spreadsheet would work out gets an apostrophe.
 *
 * @example csvOf(piece, beat).split('\n').length > 6 // true
 */
export const csvOf = (piece: Piece, beat: Beat): string =>
  `${unparse(hitsOf(piece, beat), { newline: '\n', escapeFormulae: true })}\n`;

/** The tempo at a piece's start. @example tempoOf(piece) // 120 */
export const tempoOf = ({ plan, range }: Piece): number => tempoAt(plan.timeline.tempos, range.from);
