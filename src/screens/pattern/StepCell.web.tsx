import { memo } from 'react';
import type { Cell } from './drawing';
import { INSET } from './geometry';

const ticks = (value: number): string => `calc(var(--ppt) * ${Math.round(value * 100) / 100})`;

interface StepCellProps {
  cell: Cell;
  laneIndex: number;
  laneName: string;
}

/** One step for the hand, the keys and the ear; its beads are painted under it. */
export const StepCell = memo(({ cell, laneIndex, laneName }: StepCellProps) => {
  const on = cell.beads.length > 0;
  return (
    <span
      role="checkbox"
      id={`step-${laneIndex}-${cell.step}`}
      className="step"
      aria-checked={on}
      aria-label={`${laneName}, step ${cell.step + 1}`}
      {...(on && { 'aria-describedby': `velocity-${cell.velocity}` })}
      tabIndex={-1}
      data-step={cell.step}
      style={{
        width: ticks(cell.right - cell.left),
        ...(cell.step === 0 && { marginLeft: ticks(cell.left + INSET) }),
      }}
    />
  );
});
StepCell.displayName = 'StepCell';
