import { clamp, type Velocity } from '../../core/units';

/**
 * How hard a pad is struck at a height of it; by a key, always the same.
 *
 * @param height 0 at its foot to 1 at its top; null by a key
 * @example velocityAt(0.5) // 77
 */
export const velocityAt = (height: number | null): Velocity =>
  height === null ? 100 : Math.round(clamp(27 + height * 100, 20, 127));
