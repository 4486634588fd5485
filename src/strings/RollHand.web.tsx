import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Roll } from '../../core/document/schema';
import { clamp } from '../../core/units';
import './pictures.css';
import { words } from '../words/strings';

const MOST = 1.2;
const STEP = 0.05;

interface RollHandProps {
  roll: Roll;
  onChange: (levels: number[], gesture?: string) => void;
}

/** Each stroke's velocity, drawn by hand: one upright slider a stroke, and a drag across draws them all. */
export const RollHand = ({ roll, onChange }: RollHandProps) => {
  const box = useRef<HTMLDivElement>(null);
  const gesture = useRef<string | undefined>(undefined);
  const levels = roll.levels;
  const set = (at: number, level: number, name?: string) =>
    onChange(
      levels.map((one, i) => (i === at ? Math.round(clamp(level, 0, MOST) * 100) / 100 : one)),
      name,
    );
  const draw = (event: PointerEvent) => {
    const { left, top, width, height } = box.current!.getBoundingClientRect();
    const at = clamp(Math.floor(((event.clientX - left) / width) * levels.length), 0, levels.length - 1);
    set(at, (1 - (event.clientY - top) / height) * MOST, gesture.current);
  };
  const keys = (event: KeyboardEvent, at: number) => {
    const by = { ArrowUp: STEP, ArrowRight: STEP, ArrowDown: -STEP, ArrowLeft: -STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    set(at, levels[at]! + by);
  };
  return (
    <div
      ref={box}
      className="roll-hand"
      role="group"
      aria-label={words.velocitiesOfTheRollsStrokes}
      onPointerDown={(event) => {
        gesture.current = `roll ${event.timeStamp}`;
        event.currentTarget.setPointerCapture(event.pointerId);
        draw(event);
      }}
      onPointerMove={(event) => {
        if (gesture.current) draw(event);
      }}
      onPointerUp={() => (gesture.current = undefined)}
      onPointerCancel={() => (gesture.current = undefined)}
    >
      {levels.map((level, at) => (
        <span
          key={at}
          role="slider"
          tabIndex={0}
          aria-label={words.strokeAt(at + 1)}
          aria-valuemin={0}
          aria-valuemax={120}
          aria-valuenow={Math.round(level * 100)}
          aria-orientation="vertical"
          onKeyDown={(event) => keys(event, at)}
        >
          <i style={{ height: `${(Math.min(MOST, level) / MOST) * 100}%` }} />
        </span>
      ))}
    </div>
  );
};
