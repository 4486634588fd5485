import { useState } from 'react';
import { createPortal } from 'react-dom';
import { allShown } from '../web/shown';
import type { BandProps } from './BandHand';
import { createBandPointer, placeAt } from './bandDraw';
import { bandAt } from '../../core/make/bands';
import { beadTop } from './geometry';
import './pictures.css';
import { words } from '../words/make';

/** The open string's top and bottom velocity: a band of velocities stands where its beads do. */
const TOP = beadTop(127, true);
const BOTTOM = beadTop(1, true);

const stringOf = (laneId: string): Element | null =>
  allShown('[data-lane]')
    .find(({ dataset }) => dataset['lane'] === laneId)
    ?.querySelector('.string') ?? null;

/** The band over the open string itself: drawn there by a finger, as wide as the pattern. */
export const BandOver = (props: BandProps & { laneId: string; name: string }) => {
  const { laneId, name, band, places, least, most, idle, told, onDraw } = props;
  const [string] = useState(() => stringOf(laneId));
  const [pointer] = useState(createBandPointer);
  const surface = { band, places, least, most, onDraw };
  if (!string) return null;
  const height = (value: number) => 1000 - (1000 * (value - least)) / (most - least);
  const all = Array.from({ length: places }, (_, place) => {
    const at = placeAt(place, places);
    return { x: 1000 * at, ...bandAt(band, at) };
  });
  const line = (points: { x: number; value: number }[]) =>
    points.map(({ x, value }) => `${x.toFixed(1)} ${height(value).toFixed(1)}`).join('L');
  const upper = all.map(({ x, high }) => ({ x, value: high }));
  const lower = all.map(({ x, low }) => ({ x, value: low }));
  const lowest = Math.min(...all.map(({ low }) => low));
  const highest = Math.max(...all.map(({ high }) => high));
  return createPortal(
    <div
      className="band-over"
      data-idle={idle || undefined}
      aria-hidden
      onPointerDown={(event) => pointer.down(event, surface)}
      onPointerMove={(event) => pointer.move(event, surface)}
      onPointerUp={pointer.end}
      onPointerCancel={pointer.end}
    >
      <svg viewBox="0 0 1000 1000" preserveAspectRatio="none" style={{ top: TOP, height: BOTTOM - TOP }}>
        <path className="between" d={`M${line(upper)}L${line([...lower].reverse())}Z`} />
        <path d={`M${line(upper)}`} />
        <path d={`M${line(lower)}`} />
      </svg>
      <span className="figure">
        {idle ? words.noBandOf(name) : words.bandReading(name, told(lowest), told(highest))}
      </span>
    </div>,
    string,
  );
};
