import type { PlainFeel, Swing } from './feelSchema';

/**
 * A feel whose every stage leaves all as it is. Its base is swing, so that a turn of the swing is heard at once.
 *
 * @example newFeel({ percent: 60, grid: '1/16' }).base // "swing"
 */
export const newFeel = (swing: Swing = { percent: 50, grid: '1/16' }): PlainFeel => ({
  off: [],
  quantize: { grid: '1/16', strength: 0, window: 1, flams: true, lanes: null },
  base: 'swing',
  swing,
  template: { template: null, timing: 1, velocity: 1 },
  level: 1,
  lanes: {},
  humanize: { timing: 0, velocity: 0, drift: 0.5, seed: 1, takes: [1], anew: false },
});
