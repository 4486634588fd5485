import { useRef, useState, type PointerEvent } from 'react';
import './pictures.css';

/** One who plays, on the map. */
export interface MapPlayer {
  id: string;
  name: string;
}

/** Who goes by whom, and how much, 0 to 1. */
export interface MapThread {
  from: string;
  to: string;
  share: number;
}

interface BandMapProps {
  label: string;
  players: MapPlayer[];
  threads: MapThread[];
  chosen: string;
  onChoose: (id: string) => void;
  /** A thread was drawn from the one to the other. */
  onThread: (from: string, to: string) => void;
}

const [WIDE, HIGH] = [320, 250];
const REACH = { x: 112, y: 78 };
const DOT = 22;
/** Two who go by each other have a thread each, so far apart. */
const BOW = 14;

const placeOf = (at: number, count: number): { x: number; y: number } => {
  const angle = (at / Math.max(1, count)) * 2 * Math.PI - Math.PI / 2;
  return count < 2
    ? { x: WIDE / 2, y: HIGH / 2 }
    : { x: WIDE / 2 + REACH.x * Math.cos(angle), y: HIGH / 2 + REACH.y * Math.sin(angle) };
};

/** A thread from edge to edge, bent a little to its own side, with an arrow where it leads to. */
const pathOf = (a: { x: number; y: number }, b: { x: number; y: number }): string => {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const length = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [dx / length, dy / length];
  const [cx, cy] = [(a.x + b.x) / 2 - uy * BOW, (a.y + b.y) / 2 + ux * BOW];
  return `M${a.x + ux * DOT - uy * 4},${a.y + uy * DOT + ux * 4} Q${cx},${cy} ${b.x - ux * (DOT + 8) - uy * 4},${b.y - uy * (DOT + 8) + ux * 4}`;
};

/**
 * Players as knots, and as threads who goes by whom: thick where they follow closely. A drag from one to another draws a thread; a
 * press chooses one. What the threads say stands beside the map too, so that it can be set by keys and heard.
 */
export const BandMap = ({ label, players, threads, chosen, onChoose, onThread }: BandMapProps) => {
  const box = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<{ id: string; x: number; y: number } | null>(null);
  const places = new Map(players.map(({ id }, at) => [id, placeOf(at, players.length)]));
  const at = (event: PointerEvent) => {
    const { left, top, width, height } = box.current!.getBoundingClientRect();
    return { x: ((event.clientX - left) / width) * WIDE, y: ((event.clientY - top) / height) * HIGH };
  };
  const near = ({ x, y }: { x: number; y: number }) =>
    players.find(({ id }) => Math.hypot(places.get(id)!.x - x, places.get(id)!.y - y) < DOT * 1.5);
  const end = (event: PointerEvent) => {
    const other = held && near(at(event));
    if (held && other && other.id !== held.id) onThread(held.id, other.id);
    setHeld(null);
  };
  return (
    <svg
      ref={box}
      className="band-map"
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="group"
      aria-label={label}
      onPointerMove={(event) => held && setHeld({ ...held, ...at(event) })}
      onPointerUp={end}
      onPointerCancel={() => setHeld(null)}
    >
      <defs>
        <marker
          id="band-end"
          viewBox="0 0 8 8"
          refX="6"
          refY="4"
          markerWidth="5"
          markerHeight="5"
          orient="auto"
          markerUnits="userSpaceOnUse"
        >
          <path d="M0,0 L8,4 L0,8 z" />
        </marker>
      </defs>
      {threads.map(({ from, to, share }) => (
        <path
          key={`${from} ${to}`}
          className={`band-thread${from === chosen ? ' own' : ''}`}
          d={pathOf(places.get(from)!, places.get(to)!)}
          strokeWidth={1 + 7 * share}
          markerEnd="url(#band-end)"
          aria-hidden
        />
      ))}
      {held ? (
        <line
          className="band-held"
          x1={places.get(held.id)!.x}
          y1={places.get(held.id)!.y}
          x2={held.x}
          y2={held.y}
        />
      ) : null}
      {players.map(({ id, name }) => {
        const { x, y } = places.get(id)!;
        return (
          <g
            key={id}
            role="radio"
            aria-checked={id === chosen}
            aria-label={name}
            tabIndex={0}
            className={`band-knot${id === chosen ? ' chosen' : ''}`}
            onKeyDown={(event) => {
              if (event.key !== 'Enter' && event.key !== ' ') return;
              event.preventDefault();
              onChoose(id);
            }}
            onPointerDown={(event) => {
              box.current!.setPointerCapture(event.pointerId);
              onChoose(id);
              setHeld({ id, ...at(event) });
            }}
          >
            <circle cx={x} cy={y} r={DOT} />
            <text x={x} y={y < HIGH / 2 - 1 ? y - DOT - 6 : y + DOT + 14}>
              {name}
            </text>
          </g>
        );
      })}
    </svg>
  );
};
