import type { Ms } from '../../units';
import type { FeelStage } from '../stage';

/**
 * A lane's own offset, ahead of the beat where it is negative, behind it otherwise; and what all lanes lean by: over the phrase,
 * into a fill, into a section.
 */
export const aheadStage: FeelStage = {
  id: 'ahead',
  prepare: (feel, { offset = 0 }, { ticksPerMs, leanAt, mostLean = 0 }) => {
    const lean = leanAt?.(feel) ?? null;
    if (offset === 0 && !lean) return null;
    const late = (position: number): Ms => offset + (lean ? lean(position) : 0);
    return {
      offset,
      moves: (position) => position + late(position) * ticksPerMs(position),
      reachMs: Math.abs(offset) + (lean ? mostLean : 0),
    };
  },
};
