import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { patternTicks } from '../../core/document/defaults';
import { instrument } from '../../core/document/instruments';
import type { Beat, Pattern } from '../../core/document/schema';
import { selectAudible } from '../store/audible';
import { useApp } from '../store/store';
import { AROUND, beadTop, INSET } from './geometry';
import { heightsOf, pitchScale, pitchTop } from './heights';
import { hasThreads, threadsOf, type ThreadEnd } from './threads';

interface Place {
  top: number;
  tall: number;
  open: boolean;
}

/** Where each string stands on its sheet, by lane; those that are folded away stand nowhere. */
const placesIn = (sheet: HTMLElement): Map<string, Place> =>
  new Map(
    [...sheet.querySelectorAll<HTMLElement>('[data-lane]')].map((lane) => [
      lane.dataset['lane']!,
      { top: lane.offsetTop, tall: lane.offsetHeight, open: lane.classList.contains('open') },
    ]),
  );

interface ThreadsProps {
  patternId: string;
  /** Points for a tick. */
  points: number;
  /** Whichever is open, strings stand elsewhere. */
  openLane: string | null;
}

const Drawn = ({
  beat,
  pattern,
  points,
  openLane,
}: { beat: Beat; pattern: Pattern } & Omit<ThreadsProps, 'patternId'>) => {
  const glass = useApp(({ look }) => look.glass);
  const heights = useApp((state) => (openLane ? heightsOf(state, openLane) : null));
  const svg = useRef<SVGSVGElement>(null);
  const [places, setPlaces] = useState<Map<string, Place>>(new Map());
  const threads = useMemo(() => threadsOf(beat, pattern, glass), [beat, pattern, glass]);
  useLayoutEffect(() => {
    const sheet = svg.current!.closest<HTMLElement>('.sheet')!;
    const measure = () => setPlaces(placesIn(sheet));
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(sheet);
    return () => watcher.disconnect();
  }, [openLane, beat.lanes]);
  const spot = ({ laneId, x, velocity, pitch }: ThreadEnd): [number, number] | null => {
    const place = places.get(laneId);
    if (!place) return null;
    const scale = place.open && heights ? pitchScale(heights) : null;
    const down = scale ? pitchTop(pitch, scale) : beadTop(velocity, place.open, place.tall);
    return [(x + INSET) * points, place.top + down];
  };
  const paths = new Map<string, string>();
  for (const { from, to } of threads) {
    const [a, b] = [spot(from), spot(to)];
    if (!a || !b) continue;
    const middle = ((a[1] + b[1]) / 2).toFixed(1);
    const path = `M${a[0].toFixed(1)} ${a[1].toFixed(1)}C${a[0].toFixed(1)} ${middle} ${b[0].toFixed(1)} ${middle} ${b[0].toFixed(1)} ${b[1].toFixed(1)}`;
    paths.set(from.laneId, (paths.get(from.laneId) ?? '') + path);
  }
  const dye = (laneId: string): string => {
    const lane = beat.lanes.find(({ id }) => id === laneId)!;
    return `var(--${lane.pigment ?? instrument(lane.instrument).pigment})`;
  };
  return (
    <svg
      ref={svg}
      className="threads"
      aria-hidden
      width={Math.max(0, (patternTicks(pattern) + AROUND) * points)}
      height="100%"
    >
      {[...paths].map(([laneId, path]) => (
        <path key={laneId} d={path} style={{ stroke: dye(laneId) }} />
      ))}
    </svg>
  );
};

/** A thread from each stroke that sets off another lane to what it sets off, between their strings. */
export const Threads = ({ patternId, points, openLane }: ThreadsProps) => {
  // As it is heard, what is only tried included.
  const beat = useApp(selectAudible);
  const pattern = beat?.patterns.find(({ id }) => id === patternId);
  return beat && pattern && points > 0 && hasThreads(pattern) ? (
    <Drawn beat={beat} pattern={pattern} points={points} openLane={openLane} />
  ) : null;
};
