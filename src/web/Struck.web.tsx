/**
 * What is played by hand: each finger by itself, at the very time of its touch, harder at the top. React Native's presses
 * know one finger at a time and not when it came.
 */
import { useRef, type MouseEvent, type PointerEvent, type ReactNode } from 'react';

interface StruckProps {
  /** How high it was struck, 0 at its foot and 1 at its top, and when; null and now where a key or a screen reader did it. */
  onStrike: (height: number | null, time: number) => void;
  onRelease?: () => void;
  /** How high it is held by now: a finger that goes up presses harder. */
  onSlide?: (height: number) => void;
  /** The one thing that is struck. */
  children: ReactNode;
}

/** A press that follows a touch by less is that touch's own, in ms. */
const OWN_MS = 700;

const heightOf = (event: PointerEvent): number => {
  const struck = (event.target as Element).closest('[role=button], button');
  const box = (struck ?? event.currentTarget).getBoundingClientRect();
  return box.height ? 1 - (event.clientY - box.top) / box.height : 1;
};

/** Hears strikes on what it holds. */
export const Struck = ({ onStrike, onRelease, onSlide, children }: StruckProps) => {
  const touched = useRef(-Infinity);
  const down = useRef(false);
  const release = (event: PointerEvent) => {
    touched.current = event.timeStamp;
    down.current = false;
    onRelease?.();
  };
  const click = (event: MouseEvent) => {
    if (event.timeStamp - touched.current < OWN_MS) return;
    onStrike(null, event.timeStamp);
    onRelease?.();
  };
  return (
    // eslint-disable-next-line jsx-a11y/no-static-element-interactions -- what is struck is the button inside; this hears it
    <div
      style={{ display: 'contents' }}
      onPointerDown={(event) => {
        touched.current = event.timeStamp;
        down.current = true;
        onStrike(heightOf(event), event.timeStamp);
      }}
      onPointerMove={(event) => down.current && onSlide?.(heightOf(event))}
      // What is struck does not take the keys: Space goes on to play and stop.
      onMouseDown={(event) => event.preventDefault()}
      onPointerUp={release}
      onPointerLeave={release}
      onPointerCancel={release}
      // On the way down: what is pressed keeps its presses to itself.
      onKeyDownCapture={({ key, timeStamp, repeat }) => {
        if (repeat || (key !== 'Enter' && key !== ' ')) return;
        touched.current = timeStamp;
        onStrike(null, timeStamp);
        onRelease?.();
      }}
      // The click that follows is the key’s own, however long it was held.
      onKeyUpCapture={({ timeStamp }) => (touched.current = timeStamp)}
      onClickCapture={click}
    >
      {children}
    </div>
  );
};
