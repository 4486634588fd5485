import { useRef, type PointerEvent } from 'react';
import { gridTicks, GRIDS, type Grid } from '../../core/document/grid';
import type { Echoes } from '../../core/document/movesSchema';
import { RANGES } from '../../core/document/ranges';
import { clamp, QUARTER, ticksPerMs, type Bpm, type Ticks } from '../../core/units';
import './pictures.css';

interface EchoHandProps {
  echoes: Echoes;
  tempo: Bpm;
  /** `gesture` is the same all through one drag. */
  onChange: (change: Partial<Echoes>, gesture: string) => void;
}

const WIDE = 320;
const TALL = 132;
/** The level of the hit itself stands so far below the top, in points: a rising row has room above it. */
const FULL = 44;
const FOOT = TALL - 12;
/** So many points up or down are a semitone. */
const SEMITONE = 7;

const rateTicks = ({ rate }: Pick<Echoes, 'rate'>, tempo: Bpm): Ticks =>
  'grid' in rate ? gridTicks(rate.grid) : rate.ms * ticksPerMs(tempo);

/** The grid whose step is nearest to a length. */
const nearestGrid = (ticks: Ticks): Grid =>
  GRIDS.reduce((best, one) =>
    Math.abs(gridTicks(one) - ticks) < Math.abs(gridTicks(best) - ticks) ? one : best,
  );

const yOf = (level: number): number => Math.max(8, FOOT - level * (FOOT - FULL));

/**
 * The repeats of a hit, each as late and as strong as it sounds. The first is dragged sideways for how far apart they are and
 * up or down for how they rise or fall; the last sideways for how many there are and up or down for how their pitch goes.
 * All of it stands below as sliders too, for keys and for who listens.
 */
export const EchoHand = ({ echoes, tempo, onChange }: EchoHandProps) => {
  const box = useRef<HTMLDivElement>(null);
  const taken = useRef<{ which: 'first' | 'last'; y: number; interval: number; gesture: string } | null>(
    null,
  );
  const apart = rateTicks(echoes, tempo);
  const { count, slope, interval } = echoes;
  // One bar at the least, so that what is dragged does not run away under the finger.
  const span = Math.max(4 * QUARTER, (count + 1) * apart);
  const x = (tick: Ticks) => 14 + (tick / span) * (WIDE - 28);
  const repeats = Array.from({ length: count }, (_, at) => ({
    at: x((at + 1) * apart),
    y: yOf(Math.min(1.3, slope ** (at + 1))),
  }));
  const point = ({ clientX, clientY }: PointerEvent) => {
    const { left, top, width, height } = box.current!.getBoundingClientRect();
    const across = ((clientX - left) / width) * WIDE;
    return {
      tick: Math.max(0, ((across - 14) / (WIDE - 28)) * span),
      y: ((clientY - top) / height) * TALL,
    };
  };
  const begin = (event: PointerEvent) => {
    const { tick, y } = point(event);
    const last = count > 1 && Math.abs(tick - count * apart) < Math.abs(tick - apart);
    taken.current = {
      which: last ? 'last' : 'first',
      y,
      interval,
      gesture: `echoes ${event.timeStamp}`,
    };
    event.currentTarget.setPointerCapture?.(event.pointerId);
  };
  const drag = (event: PointerEvent) => {
    const hold = taken.current;
    if (!hold) return;
    const { tick, y } = point(event);
    if (hold.which === 'first') {
      const level = (FOOT - y) / (FOOT - FULL);
      const { least, most } = RANGES.echoSlope;
      const ms = clamp(Math.round(tick / ticksPerMs(tempo)), RANGES.echoMs.least, RANGES.echoMs.most);
      onChange(
        {
          rate: 'grid' in echoes.rate ? { grid: nearestGrid(tick) } : { ms },
          slope: clamp(Math.round(level * 100) / 100, least, most),
        },
        hold.gesture,
      );
    } else {
      const by = Math.round((hold.y - y) / SEMITONE);
      const { least, most } = RANGES.interval;
      onChange(
        {
          count: clamp(Math.round(tick / apart), 1, RANGES.echoes.most),
          interval: clamp(hold.interval + by, least, most),
        },
        hold.gesture,
      );
    }
  };
  const end = () => (taken.current = null);
  return (
    <div
      ref={box}
      className="echo-hand"
      aria-hidden
      onPointerDown={begin}
      onPointerMove={drag}
      onPointerUp={end}
      onPointerCancel={end}
    >
      <svg viewBox={`0 0 ${WIDE} ${TALL}`}>
        <line x1={0} x2={WIDE} y1={FOOT} y2={FOOT} />
        {Array.from({ length: Math.floor(span / QUARTER) + 1 }, (_, at) => (
          <line key={at} x1={x(at * QUARTER)} x2={x(at * QUARTER)} y1={FOOT} y2={FOOT + 6} />
        ))}
        <line className="stem" x1={x(0)} x2={x(0)} y1={yOf(1)} y2={FOOT} />
        <circle className={echoes.withoutHit ? 'hit without' : 'hit'} cx={x(0)} cy={yOf(1)} r={8} />
        {repeats.map(({ at, y }, j) => (
          <g key={j}>
            <line className="stem" x1={at} x2={at} y1={y} y2={FOOT} />
            <circle
              className={j === 0 || j === count - 1 ? 'hold' : ''}
              cx={at}
              cy={y}
              r={2 + 6 * Math.min(1.2, slope ** (j + 1))}
            />
            {interval && (j === 0 || j === count - 1) ? (
              <text x={at} y={Math.max(10, y - 14)}>
                {`${interval * (j + 1) > 0 ? '+' : ''}${interval * (j + 1)}`}
              </text>
            ) : null}
          </g>
        ))}
      </svg>
    </div>
  );
};
