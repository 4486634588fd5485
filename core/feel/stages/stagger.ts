import { staggerReach } from '../stagger';
import type { FeelStage } from '../stage';

/** Each next stroke later than the one before. By how much goes by the strokes of all its lanes, and is said of each before. */
export const staggerStage: FeelStage = {
  id: 'stagger',
  prepare: ({ stagger }, _own, lane) => {
    if (!stagger || (stagger.lanes && !stagger.lanes.includes(lane.id))) return null;
    return { delays: true, ...staggerReach(stagger) };
  },
};
