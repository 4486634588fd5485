import { useCallback } from 'react';
import { instrument } from '../../core/document/instruments';
import type { DrumDrawn as Drum } from '../workers/drumPicture';
import type { Ink } from './ink';
import { Picture } from './Picture';

interface DrumPictureProps {
  drum: Drum;
  width: number;
  height: number;
}

const GAP = 8;

/** A drum's wave, and beside it what it is made of, from low to high. */
export const DrumPicture = ({ drum, width, height }: DrumPictureProps) => {
  const draw = useCallback(
    (brush: CanvasRenderingContext2D, ink: Ink) => {
      const half = (width - GAP) / 2;
      brush.fillStyle = ink.line;
      brush.fillRect(0, height / 2, half, 1);
      brush.fillRect(half + GAP, height - 1, half, 1);
      brush.fillStyle = ink[instrument(drum.instrument).pigment];
      const column = half / drum.wave.length;
      drum.wave.forEach((level, at) => {
        const tall = Math.max(1, level * height);
        brush.fillRect(at * column, (height - tall) / 2, Math.max(1, column), tall);
      });
      const band = half / drum.bands.length;
      drum.bands.forEach((level, at) => {
        const tall = level * (height - 2);
        brush.fillRect(half + GAP + at * band, height - 1 - tall, Math.max(1, band - 0.5), tall);
      });
    },
    [drum, width, height],
  );
  return <Picture width={width} height={height} draw={draw} />;
};
