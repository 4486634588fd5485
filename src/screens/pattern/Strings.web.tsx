import { useEffect, useRef, useState, type CSSProperties, type FocusEvent, type ReactNode } from 'react';
import { soundingLanes, patternTicks } from '../../../core/beat/defaults';
import { barTicks, beatTicks } from '../../../core/beat/meter';
import type { Beat, Pattern } from '../../../core/beat/schema';
import { store } from '../../state/session';
import { useApp } from '../../state/store';
import { countBar } from './count';
import { LaneRow } from './LaneRow';
import { stepKeys } from './stepKeys';
import { startSweep } from './sweep';
import { createTouch } from './touch';

const keys = stepKeys(store);

/** The velocities by name, for the steps to refer to. */
const Velocities = () => (
  <div hidden>
    {Array.from({ length: 127 }, (_, at) => (
      <span key={at} id={`velocity-${at + 1}`}>{`velocity ${at + 1}`}</span>
    ))}
  </div>
);

const Count = ({ pattern }: { pattern: Pattern }) => {
  const bar = barTicks(pattern.meter);
  const counts = countBar(pattern.meter);
  return (
    <div className="count" aria-hidden>
      <div className="corner" />
      <div className="string">
        {Array.from({ length: pattern.bars }, (_, at) => (
          <span key={at} className="bar" style={{ left: `calc(var(--ppt) * ${at * bar})` }}>
            {counts.map(({ at: place, text, strong }) => (
              <span
                key={place}
                className={strong ? 'strong' : ''}
                style={{ left: `calc(var(--ppt) * ${place})` }}
              >
                {text}
              </span>
            ))}
          </span>
        ))}
      </div>
    </div>
  );
};

/** One tab stop for all steps: the one that had the focus last. */
const rove = (event: FocusEvent<HTMLElement>): void => {
  if (!(event.target instanceof HTMLElement) || event.target.dataset['step'] === undefined) return;
  event.currentTarget.querySelectorAll('[data-step][tabindex="0"]').forEach((cell) => {
    if (cell !== event.target) cell.setAttribute('tabindex', '-1');
  });
  event.target.setAttribute('tabindex', '0');
};

interface StringsProps {
  beat: Beat;
  pattern: Pattern;
  wide: boolean;
  /** Told which bar the page begins with, from 0. */
  onBar: (bar: number) => void;
  /** Stands below the last string. */
  foot: ReactNode;
}

/** The strings of a pattern, one a lane, with the count above and the playing position over them. */
export const Strings = ({ beat, pattern, wide, onBar, foot }: StringsProps) => {
  const { openLane, zoom, mixOpen, playing } = useApp((state) => state.view);
  const root = useRef<HTMLDivElement>(null);
  const line = useRef<HTMLDivElement>(null);
  const [touch] = useState(() => createTouch(store));
  const bar = barTicks(pattern.meter);
  const length = patternTicks(pattern);
  const page = Math.min(bar / zoom, length);
  const sounding = new Set(soundingLanes(beat));

  useEffect(() => {
    const first = root.current?.querySelector('[data-step]');
    if (!root.current?.querySelector('[data-step][tabindex="0"]')) first?.setAttribute('tabindex', '0');
  });

  useEffect(() => {
    const scroller = root.current!;
    const measure = () => {
      const string = scroller.querySelector<HTMLElement>('.count .string')!;
      const points = string.clientWidth / (length + 100);
      line.current!.dataset['points'] = String(points);
      onBar(Math.round(scroller.scrollLeft / points / bar));
    };
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(scroller);
    scroller.addEventListener('scroll', measure, { passive: true });
    return () => {
      watcher.disconnect();
      scroller.removeEventListener('scroll', measure);
    };
  }, [length, bar, onBar, zoom, mixOpen]);

  useEffect(() => {
    if (!playing) return;
    return startSweep({ line: line.current!, scroller: root.current!, length, page });
  }, [playing, length, page]);

  const style = {
    '--page': page,
    '--total': length,
    '--bar': bar,
    '--beat': beatTicks(pattern.meter),
  } as CSSProperties;

  return (
    <div
      ref={root}
      className={mixOpen ? 'strings mixing' : 'strings'}
      role="group"
      aria-label="Strings"
      style={style}
      onPointerDown={(event) => touch.down(event.nativeEvent)}
      onPointerMove={(event) => touch.move(event.nativeEvent)}
      onPointerUp={(event) => touch.up(event.nativeEvent)}
      onPointerCancel={touch.cancel}
      onPointerLeave={touch.cancel}
      onClick={(event) => touch.click(event.nativeEvent)}
      onKeyDown={keys}
      onFocus={rove}
    >
      <Velocities />
      <div className="sheet">
        <Count pattern={pattern} />
        {beat.lanes.map((lane, index) => (
          <LaneRow
            key={lane.id}
            lane={lane}
            index={index}
            open={openLane === lane.id}
            sounding={sounding.has(lane)}
            withSound={!wide}
          />
        ))}
        {foot}
        <div className="sweep" aria-hidden>
          <div ref={line} className="hairline" hidden />
        </div>
        {Array.from({ length: Math.ceil(length / page - 1e-9) }, (_, at) => (
          <span key={at} className="stop" aria-hidden style={{ left: `calc(var(--ppt) * ${at * page})` }} />
        ))}
      </div>
    </div>
  );
};
