import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { modulo } from '../../core/numbers';
import './pictures.css';
import { words } from '../words/make';

interface RingHandProps {
  label: string;
  slots: number;
  /** The slots that are struck, as the ring is turned, and those of them that have the accent. */
  struck: readonly number[];
  accents: ReadonlySet<number>;
  /** Said in its middle. */
  middle: string;
  onToggle: (slot: number) => void;
  /** Turned by hand, by so many slots from where it was taken. */
  onTurn: (by: number, gesture: string) => void;
}

/** How far a hand moves before it turns the ring. */
const SLACK = 6;
const RADIUS = 42;

/** A ring of slots: strikes are beads on it, put on and taken off by a tap; dragged along it turns. */
export const RingHand = ({ label, slots, struck, accents, middle, onToggle, onTurn }: RingHandProps) => {
  const box = useRef<HTMLDivElement>(null);
  const taken = useRef<{ angle: number; x: number; y: number; gesture: string; turned: boolean } | null>(
    null,
  );
  const dragged = useRef(false);
  const [focus, setFocus] = useState(0);
  const angleOf = ({ clientX, clientY }: PointerEvent): number => {
    const { left, top, width, height } = box.current!.getBoundingClientRect();
    return Math.atan2(clientY - top - height / 2, clientX - left - width / 2);
  };
  const move = (event: PointerEvent) => {
    const from = taken.current;
    if (!from) return;
    if (!from.turned && Math.hypot(event.clientX - from.x, event.clientY - from.y) < SLACK) return;
    if (!from.turned) box.current!.setPointerCapture(event.pointerId);
    from.turned = true;
    dragged.current = true;
    const turned = modulo(angleOf(event) - from.angle + Math.PI, 2 * Math.PI) - Math.PI;
    onTurn(Math.round((turned / (2 * Math.PI)) * slots), from.gesture);
  };
  const keys = (event: KeyboardEvent, slot: number) => {
    const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const next = modulo(slot + by, slots);
    setFocus(next);
    box.current!.querySelectorAll<HTMLElement>('[role=checkbox]')[next]?.focus();
  };
  const stop = Math.min(focus, slots - 1);
  return (
    <div
      ref={box}
      className="ring-hand"
      role="group"
      aria-label={label}
      onPointerDown={(event) => {
        dragged.current = false;
        taken.current = {
          angle: angleOf(event),
          x: event.clientX,
          y: event.clientY,
          gesture: `ring ${event.timeStamp}`,
          turned: false,
        };
      }}
      onPointerMove={move}
      onPointerUp={() => (taken.current = null)}
      onPointerCancel={() => (taken.current = null)}
    >
      <span className="ring-string" aria-hidden />
      {Array.from({ length: slots }, (_, slot) => {
        const angle = (slot / slots) * 2 * Math.PI - Math.PI / 2;
        const on = struck.includes(slot);
        return (
          <button
            key={slot}
            type="button"
            role="checkbox"
            aria-checked={on}
            aria-label={words.slotAt(slot + 1)}
            tabIndex={slot === stop ? 0 : -1}
            className={accents.has(slot) ? 'accent' : ''}
            style={{
              left: `${50 + RADIUS * Math.cos(angle)}%`,
              top: `${50 + RADIUS * Math.sin(angle)}%`,
            }}
            onFocus={() => setFocus(slot)}
            onKeyDown={(event) => keys(event, slot)}
            onClick={() => {
              if (!dragged.current) onToggle(slot);
            }}
          >
            <i />
          </button>
        );
      })}
      <span className="ring-middle">{middle}</span>
    </div>
  );
};
