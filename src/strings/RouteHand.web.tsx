import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { clamp } from '../../core/units';
import './pictures.css';
import { words } from '../words/make';

interface RouteHandProps {
  /** For each slot from which slot it plays, from 1; 0 is silence. */
  route: readonly number[];
  onChange: (route: number[], gesture?: string) => void;
}

const WIDE = 320;
const TALL = 84;

/** Two rows of slots with threads between: a slot below is dragged to the slot above that it is to play. */
export const RouteHand = ({ route, onChange }: RouteHandProps) => {
  const box = useRef<HTMLDivElement>(null);
  const taken = useRef<{ slot: number; gesture: string } | null>(null);
  const count = route.length;
  const x = (slot: number) => ((slot + 0.5) * WIDE) / count;
  const slotUnder = ({ clientX }: PointerEvent): number => {
    const { left, width } = box.current!.getBoundingClientRect();
    return clamp(Math.floor(((clientX - left) / width) * count), 0, count - 1);
  };
  const set = (slot: number, from: number, gesture?: string) =>
    onChange(
      route.map((one, at) => (at === slot ? from : one)),
      gesture,
    );
  const keys = (event: KeyboardEvent, slot: number) => {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (event.key === 'Delete' || event.key === 'Backspace') set(slot, 0);
    else if (by === undefined) return;
    else set(slot, clamp(route[slot]! + by, 0, count));
    event.preventDefault();
  };
  return (
    <div
      ref={box}
      className="route-hand"
      role="group"
      aria-label={words.route}
      onPointerDown={(event) => {
        taken.current = { slot: slotUnder(event), gesture: `route ${event.timeStamp}` };
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (taken.current) set(taken.current.slot, slotUnder(event) + 1, taken.current.gesture);
      }}
      onPointerUp={() => (taken.current = null)}
      onPointerCancel={() => (taken.current = null)}
    >
      <svg viewBox={`0 0 ${WIDE} ${TALL}`} preserveAspectRatio="none" aria-hidden>
        {route.map((from, slot) =>
          from ? (
            <path
              key={slot}
              className={from === slot + 1 ? 'straight' : ''}
              d={`M${x(from - 1)} 8 C${x(from - 1)} ${TALL / 2} ${x(slot)} ${TALL / 2} ${x(slot)} ${TALL - 8}`}
            />
          ) : null,
        )}
      </svg>
      <div className="route-slots">
        {route.map((from, slot) => (
          <span
            key={slot}
            role="slider"
            tabIndex={0}
            aria-label={words.slotAt(slot + 1)}
            aria-valuemin={0}
            aria-valuemax={count}
            aria-valuenow={from}
            aria-valuetext={words.playsFrom(slot + 1, from)}
            onKeyDown={(event) => keys(event, slot)}
          >
            {from || words.silence}
          </span>
        ))}
      </div>
    </div>
  );
};
