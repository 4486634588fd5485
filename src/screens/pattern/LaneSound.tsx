import type { Lane } from '../../../core/document/schema';
import { laneChanged } from '../../state/doc';
import { useDo } from '../../state/store';
import { panText, PAN, PERCENT } from '../../ui/figures';
import { Range } from '../../ui/Range';
import { words } from '../../words/pattern';

/** Level and pan of a lane. */
export const LaneSound = ({ lane }: { lane: Lane }) => {
  const act = useDo();
  return (
    <>
      <Range
        label={words.levelOfLane(lane.name)}
        short={words.level}
        value={lane.level}
        least={0}
        most={2}
        step={0.01}
        written={PERCENT}
        shown={`${Math.round(lane.level * 100)} %`}
        onChange={(level, gesture) => act(laneChanged({ laneId: lane.id, change: { level }, gesture }))}
      />
      <Range
        label={words.panOfLane(lane.name)}
        short={words.pan}
        value={lane.pan}
        least={-1}
        most={1}
        step={0.01}
        written={PAN}
        shown={panText(lane.pan)}
        onChange={(pan, gesture) => act(laneChanged({ laneId: lane.id, change: { pan }, gesture }))}
      />
    </>
  );
};
