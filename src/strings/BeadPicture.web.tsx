import { useCallback } from 'react';
import { instrument } from '../../core/document/instruments';
import { lanePatternOf, patternTicks, stepsOf } from '../../core/document/defaults';
import { gridTicks } from '../../core/document/grid';
import type { Lane, Pattern } from '../../core/document/schema';
import type { Ink } from './ink';
import { Picture } from './Picture';

interface BeadPictureProps {
  pattern: Pattern;
  lanes: Lane[];
  width: number;
  height: number;
}

/** A pattern seen from afar: its beads as dots, a row a lane. */
export const BeadPicture = ({ pattern, lanes, width, height }: BeadPictureProps) => {
  const draw = useCallback(
    (brush: CanvasRenderingContext2D, ink: Ink) => {
      const shown = lanes.filter(({ id }) => lanePatternOf(pattern, id).hits.length);
      const row = height / Math.max(1, shown.length);
      const total = patternTicks(pattern);
      shown.forEach((lane, at) => {
        const part = lanePatternOf(pattern, lane.id);
        brush.fillStyle = ink[lane.pigment ?? instrument(lane.instrument).pigment];
        for (const hit of part.hits) {
          if (hit.step >= stepsOf(part, pattern)) continue;
          const x = ((hit.step + hit.nudge) * gridTicks(part.grid) * width) / total;
          const size = Math.max(1.2, Math.min(row, 5) * (0.35 + (0.65 * hit.velocity) / 127));
          if (x < width) brush.fillRect(x + 1, (at + 0.5) * row - size / 2, Math.max(1.5, size * 0.7), size);
        }
      });
    },
    [pattern, lanes, width, height],
  );
  return <Picture width={width} height={height} draw={draw} />;
};
