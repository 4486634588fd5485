import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { bandAt, type Band } from '../../core/make/bands';
import { clamp } from '../../core/units';
import './pictures.css';
import { words } from '../words/make';

/** With so many places a band is drawn by hand. */
export const BAND_PLACES = 16;

interface BandHandProps {
  label: string;
  band: Band;
  least: number;
  most: number;
  /** How a figure is told. */
  told: (value: number) => string;
  /** Draws the middle of the band at a place, from 0. */
  onDraw: (place: number, middle: number, gesture?: string) => void;
}

const placeAt = (at: number): number => at / (BAND_PLACES - 1);

/** A band over the pattern: what lies between its edges is drawn; a drag draws its middle, arrows move it place by place. */
export const BandHand = ({ label, band, least, most, told, onDraw }: BandHandProps) => {
  const box = useRef<HTMLDivElement>(null);
  const gesture = useRef<string | undefined>(undefined);
  const share = (value: number) => clamp((value - least) / (most - least), 0, 1);
  const draw = (event: PointerEvent) => {
    const { left, top, width, height } = box.current!.getBoundingClientRect();
    const place = clamp(Math.floor(((event.clientX - left) / width) * BAND_PLACES), 0, BAND_PLACES - 1);
    const middle = least + clamp(1 - (event.clientY - top) / height, 0, 1) * (most - least);
    onDraw(place, middle, gesture.current);
  };
  const keys = (event: KeyboardEvent, place: number, middle: number) => {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onDraw(place, clamp(middle + (by * (most - least)) / 40, least, most));
  };
  return (
    <div
      ref={box}
      className="band-hand"
      role="group"
      aria-label={label}
      onPointerDown={(event) => {
        gesture.current = `band ${event.timeStamp}`;
        event.currentTarget.setPointerCapture(event.pointerId);
        draw(event);
      }}
      onPointerMove={(event) => {
        if (gesture.current) draw(event);
      }}
      onPointerUp={() => (gesture.current = undefined)}
      onPointerCancel={() => (gesture.current = undefined)}
    >
      {Array.from({ length: BAND_PLACES }, (_, place) => {
        const { low, high } = bandAt(band, placeAt(place));
        const middle = (low + high) / 2;
        return (
          <span
            key={place}
            role="slider"
            tabIndex={0}
            aria-label={words.columnAt(place + 1)}
            aria-valuemin={least}
            aria-valuemax={most}
            aria-valuenow={middle}
            aria-valuetext={told(middle)}
            aria-orientation="vertical"
            onKeyDown={(event) => keys(event, place, middle)}
          >
            <i style={{ bottom: `${share(low) * 100}%`, top: `${(1 - share(high)) * 100}%` }} />
          </span>
        );
      })}
    </div>
  );
};
