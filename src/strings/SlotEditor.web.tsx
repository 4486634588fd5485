import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Slot, Template } from '../../core/document/feelSchema';
import { slotOffsets } from '../../core/feel/templateBend';
import { clamp } from '../../core/units';
import { percent } from '../ui/figures';
import { Para } from '../ui/Words';
import './pictures.css';
import { words } from '../words/strings';

const WIDTH = 320;
const HEIGHT = 130;
const TOP = 10;
/** How high the part of a slot is that a finger takes hold of. */
const GRIP = 44;

interface SlotEditorProps {
  template: Template;
  onChange: (slots: Slot[], gesture?: string) => void;
}

const slotText = (slot: Slot): string =>
  slot ? words.offsetOfAStepVelocity(percent(slot.offset), Math.round(slot.velocity * 127)) : words.openSlot;

/** The slots of a template: a bead dragged sideways is timing, up and down velocity. */
export const SlotEditor = ({ template, onChange }: SlotEditorProps) => {
  const { slots } = template;
  const drag = useRef<{ at: number; gesture: string } | null>(null);
  const offsets = slotOffsets(template);
  const step = WIDTH / slots.length;

  const set = (at: number, slot: Slot, gesture?: string) => {
    const next = slots.map((one, place) => (place === at ? slot : one));
    // A template has at least one slot that is not open.
    if (next.some(Boolean)) onChange(next, gesture);
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    if (!drag.current) return;
    const box = event.currentTarget.getBoundingClientRect();
    const { at, gesture } = drag.current;
    const x = ((event.clientX - box.left) / box.width) * WIDTH;
    const y = ((event.clientY - box.top) / box.height) * HEIGHT;
    const offset = clamp(Math.round((x / step - at - 0.5) * 100) / 100, -0.5, 0.5);
    set(at, { offset, velocity: clamp(1 - (y - TOP) / (HEIGHT - 2 * TOP), 0.01, 1) }, gesture);
  };
  const press = (event: PointerEvent<SVGSVGElement>) => {
    // A finger beside the beads scrolls the page.
    if (event.pointerType === 'touch' && !(event.target as Element).classList.contains('grip')) return;
    const box = event.currentTarget.getBoundingClientRect();
    const at = Math.floor(((event.clientX - box.left) / box.width) * slots.length);
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { at: clamp(at, 0, slots.length - 1), gesture: `slot ${event.timeStamp}` };
    move(event);
  };
  const keys = (at: number) => (event: KeyboardEvent) => {
    const slot = slots[at] ?? { offset: offsets[at]!, velocity: 0.5 };
    const sideways = { ArrowLeft: -0.01, ArrowRight: 0.01 }[event.key];
    const up = { ArrowUp: 0.02, ArrowDown: -0.02 }[event.key];
    if (event.key === 'Delete' || event.key === 'Backspace') set(at, null);
    else if (sideways) set(at, { ...slot, offset: clamp(slot.offset + sideways, -0.5, 0.5) }, `slot ${at}`);
    else if (up) set(at, { ...slot, velocity: clamp(slot.velocity + up, 0.01, 1) }, `slot ${at}`);
    else return;
    event.preventDefault();
  };

  return (
    <>
      <svg
        className="slot-editor"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="group"
        aria-label={words.slotsOfTemplate(template.name)}
        onPointerDown={press}
        onPointerMove={move}
        onPointerUp={() => (drag.current = null)}
        onPointerCancel={() => (drag.current = null)}
      >
        {slots.map((slot, at) => {
          const rule = (at + 0.5) * step;
          const velocity = slot?.velocity ?? 0.5;
          return (
            <g key={at}>
              <path className="rule-line" d={`M${rule} 0V${HEIGHT}`} />
              <circle
                className={slot ? '' : 'open'}
                pointerEvents="none"
                cx={rule + offsets[at]! * step}
                cy={TOP + (1 - velocity) * (HEIGHT - 2 * TOP)}
                r={Math.min(step * 0.45, 2 + velocity * 6)}
                role="slider"
                tabIndex={0}
                aria-label={words.slotAt(at + 1)}
                aria-valuemin={-50}
                aria-valuemax={50}
                aria-valuenow={Math.round(offsets[at]! * 100)}
                aria-valuetext={slotText(slot)}
                onKeyDown={keys(at)}
              />
              <rect
                className="grip"
                x={at * step}
                y={TOP + (1 - velocity) * (HEIGHT - 2 * TOP) - GRIP / 2}
                width={step}
                height={GRIP}
              />
            </g>
          );
        })}
      </svg>
      <Para quiet>{words.sidewaysIsTimingHeightIs}</Para>
    </>
  );
};
