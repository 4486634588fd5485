import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { clamp, type Seconds } from '../../core/units';
import { useInk } from './ink';
import './pictures.css';

/** A wave as it is drawn: the lowest and the highest of each column. */
export interface DrawnWave {
  low: number[];
  high: number[];
  seconds: Seconds;
}

/** A place in a sound that can be moved. */
export interface WaveMark {
  name: string;
  at: Seconds;
  /** It stands below the wave, not above it: what is found rather than what is cut. */
  low?: boolean;
  /** It stands on the wave: a corner of the line that is drawn over it. */
  corner?: boolean;
}

interface WaveHandProps {
  label: string;
  wave: DrawnWave;
  marks: WaveMark[];
  /** A line over the wave: where, and how high, 0 to 1. */
  line?: [Seconds, number][];
  /** What is heard of it; the rest is pale. */
  from?: Seconds;
  to?: Seconds;
  /** How many times as wide as the page it is drawn. */
  zoom?: number;
  /** Which mark is chosen. */
  chosen?: number | null;
  onChoose?: (place: number) => void;
  /** @param gesture moves of one drag share it */
  onMove: (place: number, to: Seconds, gesture: string) => void;
  /** A tap between the marks. */
  onTap?: (at: Seconds) => void;
}

const HEIGHT = 112;
const STEP: Seconds = 0.001;
const LEAP: Seconds = 0.01;
const STEPS: Record<string, number> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };

let gestures = 0;

/** A sound's wave with places in it that are dragged, or moved by arrows: a ms, with Shift ten. */
export const WaveHand = ({
  label,
  wave,
  marks,
  line = [],
  from = 0,
  to = wave.seconds,
  zoom = 1,
  chosen = null,
  onChoose,
  onMove,
  onTap,
}: WaveHandProps) => {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<{ place: number; gesture: string } | null>(null);
  const ink = useInk();
  const share = (at: Seconds) => `${(100 * clamp(at, 0, wave.seconds)) / wave.seconds}%`;
  useEffect(() => {
    const { current } = canvas;
    if (!current || !ink) return;
    let there: { destroy: () => void } | null = null;
    let gone = false;
    void import('wavesurfer.js')
      .then(({ default: WaveSurfer }) => {
        if (gone) return;
        there = WaveSurfer.create({
          container: current,
          height: HEIGHT,
          peaks: [wave.high, wave.low.map((x) => -x)],
          duration: wave.seconds,
          waveColor: ink.heather,
          progressColor: ink.heather,
          cursorWidth: 0,
          interact: false,
          hideScrollbar: true,
          normalize: true,
        });
      })
      // Without the picture the places can still be moved.
      .catch(() => undefined);
    return () => {
      gone = true;
      there?.destroy();
    };
  }, [wave, ink, zoom]);
  const at = (event: PointerEvent): Seconds => {
    const { left, width } = box.current!.getBoundingClientRect();
    return clamp((event.clientX - left) / width, 0, 1) * wave.seconds;
  };
  const keys = (event: KeyboardEvent, place: number) => {
    const by = STEPS[event.key];
    if (!by) return;
    event.preventDefault();
    onMove(place, marks[place]!.at + by * (event.shiftKey ? LEAP : STEP), `wave keys ${place}`);
  };
  return (
    <div className="wave-hand" role="group" aria-label={label} tabIndex={-1}>
      <div
        ref={box}
        style={{ width: `${zoom * 100}%`, height: HEIGHT }}
        onPointerMove={(event) => held && onMove(held.place, at(event), held.gesture)}
        onPointerUp={() => setHeld(null)}
        onPointerCancel={() => setHeld(null)}
      >
        <div
          ref={canvas}
          className="wave-paper"
          aria-hidden
          onPointerUp={(event) => !held && onTap?.(at(event))}
        />
        <i className="wave-pale" style={{ left: 0, width: share(from) }} />
        <i className="wave-pale" style={{ left: share(to), right: 0 }} />
        {line.length ? (
          <svg className="wave-line" viewBox="0 0 1000 100" preserveAspectRatio="none" aria-hidden>
            <polyline
              points={line
                .map(([at, level]) => `${(1000 * at) / wave.seconds},${100 - 96 * level}`)
                .join(' ')}
              vectorEffect="non-scaling-stroke"
            />
          </svg>
        ) : null}
        {marks.map((mark, place) => (
          <span
            // The marks of a loop have no names of their own: what they are is their place.
            key={place}
            role="slider"
            tabIndex={0}
            aria-label={mark.name}
            aria-valuemin={0}
            aria-valuemax={wave.seconds}
            aria-valuenow={mark.at}
            aria-valuetext={`${mark.at.toFixed(3)} s`}
            className={`${mark.corner ? 'corner' : mark.low ? 'low' : ''}${chosen === place ? ' chosen' : ''}`}
            style={{ left: share(mark.at) }}
            onFocus={() => onChoose?.(place)}
            onKeyDown={(event) => keys(event, place)}
            onPointerDown={(event) => {
              box.current!.setPointerCapture(event.pointerId);
              setHeld({ place, gesture: `wave ${(gestures += 1)}` });
              onChoose?.(place);
              event.currentTarget.focus();
              event.preventDefault();
            }}
          />
        ))}
      </div>
    </div>
  );
};
