import { use, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { SayContext } from './say';

interface NumberFieldProps {
  label: string;
  value: number;
  least: number;
  most: number;
  /** What the unit is called below the figure. */
  under: string;
  /** Behind the figure, such as " %". */
  unit?: string;
  /** How much an arrow key or eight points of a drag change. */
  step?: number;
  width: number;
  /** Gets what was asked for, held to the range, which is said; `gesture` is the same all through one drag. */
  onChange: (value: number, gesture?: string) => void;
}

const shown = (value: number): string => String(Math.round(value * 100) / 100);

/** What a person typed as a number: a comma counts as a point, a unit behind it is passed over. */
const typed = (text: string): number => Number.parseFloat(text.replace(',', '.'));

const DRAG_POINTS = 4;

/** A figure to type, to drag up and down, or to change by the arrow keys. */
export const NumberField = (props: NumberFieldProps) => {
  const { label, value, least, most, under, unit = '', step = 1, width, onChange } = props;
  const [draft, setDraft] = useState<string | null>(null);
  const drag = useRef<{ y: number; from: number; gesture: string; moved: boolean } | null>(null);

  const say = use(SayContext);

  /** What is out of range is held to it, and that is said. */
  const give = (asked: number) => {
    const kept = Math.min(most, Math.max(least, asked));
    if (kept !== asked)
      say(`${label} goes from ${least} to ${most}; ${shown(asked)} was held to ${kept}.`, label);
    if (kept !== value || kept === asked) onChange(kept);
  };

  const take = () => {
    if (draft !== null && Number.isFinite(typed(draft))) give(typed(draft));
    setDraft(null);
  };

  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    const by = { ArrowUp: step, ArrowDown: -step, PageUp: 10 * step, PageDown: -10 * step }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      setDraft(null);
      give(value + by);
    }
    if (event.key === ' ') take();
    if (event.key === 'Enter') {
      take();
      event.currentTarget.select();
    }
    if (event.key === 'Escape' && draft !== null) {
      // Only the typing is taken back: the focus stays where a person is.
      event.stopPropagation();
      setDraft(null);
    }
  };

  const press = (event: PointerEvent<HTMLInputElement>) => {
    if (document.activeElement === event.currentTarget) return;
    drag.current = { y: event.clientY, from: value, gesture: `${label} ${event.timeStamp}`, moved: false };
    event.currentTarget.setPointerCapture(event.pointerId);
    event.preventDefault();
  };

  const move = (event: PointerEvent<HTMLInputElement>) => {
    const now = drag.current;
    if (!now) return;
    const up = now.y - event.clientY;
    if (Math.abs(up) > DRAG_POINTS) now.moved = true;
    if (!now.moved) return;
    const wanted = now.from + Math.round(up / 8) * step;
    onChange(Math.min(most, Math.max(least, wanted)), now.gesture);
  };

  const release = (event: PointerEvent<HTMLInputElement>) => {
    const now = drag.current;
    drag.current = null;
    if (now && !now.moved) {
      event.currentTarget.focus();
      event.currentTarget.select();
    }
  };

  return (
    <span className="number-field" style={{ width }}>
      <input
        type="text"
        inputMode="decimal"
        role="spinbutton"
        aria-label={label}
        aria-valuenow={value}
        aria-valuemin={least}
        aria-valuemax={most}
        aria-valuetext={`${shown(value)}${unit || ` ${under}`}`}
        autoComplete="off"
        value={draft ?? `${shown(value)}${unit}`}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={take}
        onKeyDown={keys}
        onPointerDown={press}
        onPointerMove={move}
        onPointerUp={release}
        onPointerCancel={() => (drag.current = null)}
      />
      <span className="under" aria-hidden>
        {under}
      </span>
    </span>
  );
};
