import { useLayoutEffect, useRef } from 'react';
import { instrument } from '../../core/document/instruments';
import { lanePatternOf, patternTicks, stepsOf } from '../../core/document/defaults';
import { gridTicks } from '../../core/document/grid';
import type { Lane, Pattern } from '../../core/document/schema';
import { useInk } from './ink';

interface BeadPictureProps {
  pattern: Pattern;
  lanes: Lane[];
  width: number;
  height: number;
}

/** A pattern seen from afar: its beads as dots, a row a lane. */
export const BeadPicture = ({ pattern, lanes, width, height }: BeadPictureProps) => {
  const canvas = useRef<HTMLCanvasElement>(null);
  const ink = useInk();
  useLayoutEffect(() => {
    const brush = canvas.current?.getContext('2d');
    if (!brush || !ink) return;
    const ratio = Math.min(3, window.devicePixelRatio || 1);
    canvas.current!.width = width * ratio;
    canvas.current!.height = height * ratio;
    brush.setTransform(ratio, 0, 0, ratio, 0, 0);
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
  }, [pattern, lanes, width, height, ink]);
  return <canvas ref={canvas} aria-hidden style={{ width, height }} width={0} height={0} />;
};
