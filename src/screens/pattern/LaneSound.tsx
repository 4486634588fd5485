import { Figure } from '../../ui/Figure';
import type { Lane } from '../../../core/document/schema';
import { laneChanged } from '../../store/doc';
import { useDo } from '../../store/store';
import { words } from '../../words/pattern';

/** Level and pan of a lane. */
export const LaneSound = ({ lane }: { lane: Lane }) => {
  const act = useDo();
  return (
    <>
      <Figure
        of="level"
        label={words.levelOfLane(lane.name)}
        short={words.level}
        value={lane.level}
        onChange={(level, gesture) => act(laneChanged({ laneId: lane.id, change: { level }, gesture }))}
      />
      <Figure
        of="pan"
        label={words.panOfLane(lane.name)}
        short={words.pan}
        value={lane.pan}
        onChange={(pan, gesture) => act(laneChanged({ laneId: lane.id, change: { pan }, gesture }))}
      />
    </>
  );
};
