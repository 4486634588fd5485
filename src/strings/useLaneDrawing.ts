import { useCallback, useEffect, useReducer, useState, type RefObject } from 'react';
import type { Lane } from '../../core/document/schema';
import { store } from '../keeping/session';
import { useApp } from '../store/store';
import type { LaneDrawing, Part } from './drawing';
import { laneDrawing } from './drawings';

/** What cannot be seen is drawn anew when nothing has changed for so long: a drag moves the rest first. */
const REST_MS = 200;

/** Hears whether a lane is in sight within the strings; taken to be so until it is known. */
const useInSight = (row: RefObject<HTMLElement | null>, told: (seen: boolean) => void): void => {
  useEffect(() => {
    const element = row.current;
    if (!element || typeof IntersectionObserver === 'undefined') return;
    const eye = new IntersectionObserver((entries) => told(entries.at(-1)!.isIntersecting), {
      root: element.closest('.strings'),
      rootMargin: '60px 100000px',
    });
    eye.observe(element);
    return () => eye.disconnect();
  }, [row, told]);
};

/**
 * What there is to draw of a lane in the pattern shown: at once where it is in sight, a little later where it is not.
 *
 * @param inSight what of the pattern is on the page; null is all of it
 */
export const useLaneDrawing = (
  lane: Lane,
  row: RefObject<HTMLElement | null>,
  inSight: () => Part | null,
): LaneDrawing | null => {
  // While it is out of sight: what was drawn of it last.
  const [away, setAway] = useState<{ drawing: LaneDrawing | null } | null>(null);
  const told = useCallback(
    (seen: boolean) => setAway(seen ? null : { drawing: laneDrawing(store.getState(), lane) }),
    [lane],
  );
  useInSight(row, told);
  const seen = away === null;
  const fresh = useApp((state) =>
    seen ? laneDrawing(state, lane, state.doc.gesture === null ? null : inSight()) : null,
  );
  const [, drawWhole] = useReducer((times: number) => times + 1, 0);
  useEffect(() => {
    if (!fresh?.partly) return;
    const timer = setTimeout(() => {
      // Once it is drawn it is the one that is remembered.
      laneDrawing(store.getState(), lane);
      drawWhole();
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [fresh, lane]);
  useEffect(() => {
    if (seen) return;
    const draw = () => setAway({ drawing: laneDrawing(store.getState(), lane) });
    let timer = setTimeout(draw, REST_MS);
    const stop = store.subscribe(() => {
      clearTimeout(timer);
      timer = setTimeout(draw, REST_MS);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [seen, lane]);
  return away ? away.drawing : fresh;
};
