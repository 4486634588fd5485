import { gridTicks } from '../../document/grid';
import { quantizer } from '../quantize';
import type { FeelStage } from '../stage';

/** Draws strokes towards a grid. */
export const quantizeStage: FeelStage = {
  id: 'quantize',
  prepare: ({ quantize }, _own, lane) => {
    const { grid, strength, window, lanes } = quantize;
    if (strength === 0 || (lanes && !lanes.includes(lane.id))) return null;
    return {
      moves: quantizer(lane.bars, grid, strength, window),
      reach: (strength * window * gridTicks(grid)) / 2,
    };
  },
};
