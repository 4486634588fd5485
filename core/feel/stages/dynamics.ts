import type { FeelStage } from '../stage';

/** How far a lane's velocities lie apart, and how loud it is on the whole: `v = (m + c * (v - m)) * l`. */
export const dynamicsStage: FeelStage = {
  id: 'dynamics',
  prepare: (feel, own, { mean }) => {
    const contrast = (own.contrast ?? 1) * (feel.contrast ?? 1);
    const level = (own.level ?? 1) * feel.level;
    if (contrast === 1 && level === 1) return null;
    return { strength: (force) => (mean + contrast * (force - mean)) * level };
  },
};
