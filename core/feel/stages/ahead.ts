import type { FeelStage } from '../stage';

/** A lane's own offset: ahead of the beat where it is negative, behind it otherwise. */
export const aheadStage: FeelStage = {
  id: 'ahead',
  prepare: (_feel, { offset = 0 }, { ticksPerMs }) =>
    offset === 0
      ? null
      : {
          offset,
          moves: (position) => position + offset * ticksPerMs(position),
          reachMs: Math.abs(offset),
        },
};
