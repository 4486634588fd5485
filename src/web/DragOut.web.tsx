/** Dragging out of the page: React Native has no counterpart for it. */
import type { DragEvent, ReactNode } from 'react';

interface DragOutProps {
  /** Whether it can be dragged now. */
  when?: boolean;
  onStart: (event: DragEvent) => void;
  onEnd?: () => void;
  /** It holds what stands in a line, and fills what it lies in. */
  line?: boolean;
  children: ReactNode;
}

/** What it holds can be dragged out of it, by a mouse. */
export const DragOut = ({ when = true, onStart, onEnd, line = false, children }: DragOutProps) => (
  <div
    draggable={when}
    onDragStart={onStart}
    onDragEnd={onEnd}
    style={{
      display: 'flex',
      flexDirection: line ? 'row' : 'column',
      minWidth: 0,
      ...(line && { flex: 1, alignSelf: 'stretch', alignItems: 'center', gap: 12 }),
      ...(when && { cursor: 'grab' }),
    }}
  >
    {children}
  </div>
);
