import type { FeelStage } from '../stage';

/** A lane's own offset: ahead of the beat where it is negative, behind it otherwise. */
export const aheadStage: FeelStage = {
  id: 'ahead',
  prepare: (_feel, { offset = 0 }, { ticksPerMs }) =>
    offset === 0
      ? null
      : {
          offset,
          each: (stroke) => {
            stroke.tick += offset * ticksPerMs(stroke.tick);
          },
          reachMs: Math.abs(offset),
        },
};
