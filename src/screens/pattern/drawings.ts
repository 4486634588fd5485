import type { Lane } from '../../../core/beat/schema';
import { selectPattern, type RootState } from '../../state/store';
import { createDrawings, type LaneDrawing } from './drawing';

const drawingOf = createDrawings();

/** What is drawn of a lane in the pattern shown: the same object until something of it changes. */
export const laneDrawing = (state: RootState, lane: Lane): LaneDrawing | null => {
  const pattern = selectPattern(state);
  return pattern && state.doc.beat ? drawingOf(state.doc.beat, pattern, lane, state.view.glass) : null;
};
