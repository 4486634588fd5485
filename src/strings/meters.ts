import { useEffect, type RefObject } from 'react';
import { hearPeaks } from '../audio/player';

/** A peak in parts of full scale as a length from 0 to 1: 48 dB from end to end. */
const length = (peak: number): number => (peak > 0 ? Math.max(0, 1 + (20 * Math.log10(peak)) / 48) : 0);

/** Shows how loud each lane is beside its name, for as long as it is wanted. */
export const useMeters = (wanted: boolean, root: RefObject<HTMLElement | null>): void => {
  useEffect(() => {
    if (!wanted) return;
    const show = (peaks: Float32Array) => {
      root.current?.querySelectorAll<HTMLElement>('[data-lane]').forEach((lane) => {
        const meter = lane.querySelector<HTMLElement>('.meter');
        const peak = peaks[Number(lane.dataset['index'])] ?? 0;
        if (meter) meter.style.transform = `scaleX(${Math.min(1, length(peak)).toFixed(2)})`;
      });
    };
    return hearPeaks(show);
  }, [wanted, root]);
};
