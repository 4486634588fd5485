import type { Seconds } from '../units';

/** Minutes and seconds. @example timeWords(184.2) // "3:04" */
export const timeWords = (seconds: Seconds): string => {
  const whole = Math.max(0, Math.floor(seconds + 1e-6));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
};
