import { memo, type CSSProperties } from 'react';
import type { Ticks } from '../../../core/units';
import type { Bead, Cell } from './drawing';

/** Partings smaller than this are not marked: less than a point on a phone. */
const PARTED_TICKS = 9;

const ticks = (value: number): string => `calc(var(--ppt) * ${Math.round(value * 100) / 100})`;

const beadStyle = (bead: Bead, left: number): CSSProperties => {
  const off = bead.rule - bead.x;
  return {
    left: ticks(bead.x - left),
    '--v': bead.velocity,
    ...(bead.chance < 1 && { '--fill': `${Math.round(bead.chance * 100)}%` }),
    ...(Math.abs(off) >= PARTED_TICKS && { '--part-left': Math.min(0, off), '--part': Math.abs(off) }),
  } as CSSProperties;
};

const beadClass = (bead: Bead): string => {
  const parted = Math.abs(bead.rule - bead.x) >= PARTED_TICKS ? ' parted' : '';
  return `bead${parted}${bead.chance < 1 ? ' maybe' : ''}${bead.stroke < 0 ? ' grace' : ''}`;
};

/** A bead at the time that it sounds, `left` being where its parent begins. */
export const BeadMark = ({ bead, left }: { bead: Bead; left: number }) => (
  <i className={beadClass(bead)} data-place={bead.place} style={beadStyle(bead, left)}>
    <b />
  </i>
);

interface StepCellProps {
  cell: Cell;
  /** Where the measure begins that it stands in. */
  from: Ticks;
  laneIndex: number;
  laneName: string;
}

/** One step: what is painted is what a screen reader says. */
const StepCell = memo(({ cell, from, laneIndex, laneName }: StepCellProps) => {
  const on = cell.beads.length > 0;
  return (
    <span
      role="checkbox"
      id={`step-${laneIndex}-${cell.step}`}
      className={on ? 'step on' : 'step'}
      aria-checked={on}
      aria-label={`${laneName}, step ${cell.step + 1}`}
      {...(on && { 'aria-describedby': `velocity-${cell.velocity}` })}
      tabIndex={-1}
      data-step={cell.step}
      style={
        {
          left: ticks(cell.left - from),
          width: ticks(cell.right - cell.left),
          '--centre': Math.round((cell.pip - cell.left) * 100) / 100,
        } as CSSProperties
      }
    >
      {cell.beads.map((bead) => (
        <BeadMark key={`${bead.place}/${bead.stroke}`} bead={bead} left={cell.left} />
      ))}
    </span>
  );
});
StepCell.displayName = 'StepCell';

interface MeasureProps {
  /** The steps of one bar. */
  cells: Cell[];
  from: Ticks;
  /** The length of the bar. */
  length: Ticks;
  laneIndex: number;
  laneName: string;
}

/** One bar of a string: painted and searched by itself, and not at all while it is off the page. */
export const Measure = memo(
  ({ cells, from, length, laneIndex, laneName }: MeasureProps) => (
    <span className="measure" style={{ left: ticks(from), width: ticks(length) }}>
      {cells.map((cell) => (
        <StepCell key={cell.step} cell={cell} from={from} laneIndex={laneIndex} laneName={laneName} />
      ))}
    </span>
  ),
  (a, b) =>
    a.from === b.from &&
    a.length === b.length &&
    a.laneIndex === b.laneIndex &&
    a.laneName === b.laneName &&
    a.cells.length === b.cells.length &&
    a.cells.every((cell, at) => cell === b.cells[at]),
);
Measure.displayName = 'Measure';
