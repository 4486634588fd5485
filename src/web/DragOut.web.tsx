/** Dragging out of the page: React Native has no counterpart for it. */
import type { DragEvent, ReactNode } from 'react';

interface DragOutProps {
  /** Whether it can be dragged now. */
  when?: boolean;
  onStart: (event: DragEvent) => void;
  onEnd?: () => void;
  /** As high as what it lies in. */
  fill?: boolean;
  children: ReactNode;
}

/** What it holds can be dragged out of it, by a mouse. */
export const DragOut = ({ when = true, onStart, onEnd, fill = false, children }: DragOutProps) => (
  <div
    draggable={when}
    onDragStart={onStart}
    onDragEnd={onEnd}
    style={{
      display: 'flex',
      flexDirection: 'column',
      minWidth: 0,
      ...(fill && { flex: 1 }),
      ...(when && { cursor: 'grab' }),
    }}
  >
    {children}
  </div>
);
