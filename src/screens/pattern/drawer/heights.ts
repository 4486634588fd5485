import { useEffect } from 'react';
import { notesOfLane } from '../../../../core/make/tunedLane';
import { heightsShown } from '../../../store/focus';
import { selectBeat, useApp, useDo } from '../../../store/store';
import { useKept } from '../../../ui/useKept';

/** What the height of a tuned lane's open string means. */
export type HeightIs = 'pitch' | 'velocity';

export const useHeightIs = () => useKept<HeightIs>('height of tuned lanes', 'pitch');

/** Tells the strings which notes the open lane plays, where its height is pitch. */
export const useHeights = (): void => {
  const lane = useApp((state) => selectBeat(state)?.lanes.find(({ id }) => id === state.focus.openLane));
  const [is] = useHeightIs();
  const act = useDo();
  const tuned = is === 'pitch' && lane?.tuning ? lane : null;
  const { id, note, tuning } = tuned ?? {};
  useEffect(() => {
    const heights =
      id !== undefined && note !== undefined && tuning
        ? { laneId: id, note, notes: notesOfLane({ note, tuning }) }
        : null;
    act(heightsShown(heights));
    return () => void act(heightsShown(null));
  }, [act, id, note, tuning]);
};
