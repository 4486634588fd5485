import { useState, type KeyboardEvent } from 'react';
import { bandAt, type HitBand } from '../../core/make/bands';
import { clamp } from '../../core/units';
import { createBandPointer, placeAt, type BandStroke } from './bandDraw';
import './pictures.css';
import { words } from '../words/make';

export interface BandProps {
  label: string;
  band: HitBand;
  /** In so many places it is drawn. */
  places: number;
  least: number;
  most: number;
  /** Nothing goes by it yet: it only shows where a drawing begins. */
  idle: boolean;
  /** How a figure is told. */
  told: (value: number) => string;
  /** Draws an edge or the middle of the band. */
  onDraw: (stroke: BandStroke) => void;
}

/** A band over the pattern: what lies between its edges is drawn; a drag draws an edge or its middle, arrows move it place by place. */
export const BandHand = ({ label, band, places, least, most, idle, told, onDraw }: BandProps) => {
  const [pointer] = useState(createBandPointer);
  const share = (value: number) => clamp((value - least) / (most - least), 0, 1);
  const surface = { band, places, least, most, onDraw };
  const keys = (event: KeyboardEvent, place: number, middle: number) => {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const value = clamp(middle + (by * (most - least)) / 40, least, most);
    onDraw({ places: [{ place, value }], edge: 'middle' });
  };
  return (
    <div
      className="band-hand"
      data-idle={idle || undefined}
      role="group"
      aria-label={label}
      onPointerDown={(event) => pointer.down(event, surface)}
      onPointerMove={(event) => pointer.move(event, surface)}
      onPointerUp={pointer.end}
      onPointerCancel={pointer.end}
    >
      {Array.from({ length: places }, (_, place) => {
        const { low, high } = bandAt(band, placeAt(place, places));
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
