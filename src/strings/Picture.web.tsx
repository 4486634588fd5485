import { useLayoutEffect, useRef } from 'react';
import { useInk, type Ink } from './ink';

interface PictureProps {
  width: number;
  height: number;
  draw: (brush: CanvasRenderingContext2D, ink: Ink) => void;
}

/** A small picture for the eye alone, sharp on any screen; drawn anew with another theme. */
export const Picture = ({ width, height, draw }: PictureProps) => {
  const canvas = useRef<HTMLCanvasElement>(null);
  const ink = useInk();
  useLayoutEffect(() => {
    const brush = canvas.current?.getContext('2d');
    if (!brush || !ink) return;
    const ratio = Math.min(3, window.devicePixelRatio || 1);
    canvas.current!.width = width * ratio;
    canvas.current!.height = height * ratio;
    brush.setTransform(ratio, 0, 0, ratio, 0, 0);
    draw(brush, ink);
  }, [width, height, draw, ink]);
  return <canvas ref={canvas} aria-hidden style={{ width, height }} width={0} height={0} />;
};
