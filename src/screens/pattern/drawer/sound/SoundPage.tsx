import { Figure } from '../../../../ui/Figure';
import { Group } from '../../../../ui/Layout';
import type { Lane } from '../../../../../core/document/schema';
import { laneChanged } from '../../../../store/doc';
import { useDo } from '../../../../store/store';
import { hertzText, HERTZ } from '../../../../ui/figures';
import { Range } from '../../../../ui/Range';
import { LaneSound } from '../../LaneSound';
import { LoopGroup } from './LoopGroup';
import { OwnSoundPart } from './OwnSound';
import { words } from '../../../../words/drawer';

const OPEN = { low: 20000, high: 20 };

/** Pitch is heard by ratios, so a slider for it moves by them. */
const toSlider = (hertz: number): number => Math.log2(hertz);
const toHertz = (value: number): number => Math.round(2 ** value);

/** How the open lane sounds. */
export const SoundPage = ({ lane }: { lane: Lane }) => {
  const act = useDo();
  const set = (change: Partial<Omit<Lane, 'id'>>, gesture: string) =>
    act(laneChanged({ laneId: lane.id, change, gesture }));
  const low = lane.lowPass ?? OPEN.low;
  const high = lane.highPass ?? OPEN.high;
  return (
    <>
      <Group title={words.soundOfLane(lane.name)}>
        <LaneSound lane={lane} />
        <Figure
          of="tune"
          label={words.tuneOfLane(lane.name)}
          short={words.tune}
          value={lane.tune ?? 0}
          shown={words.tuneSt((lane.tune ?? 0) > 0 ? '+' : '', lane.tune ?? 0)}
          onChange={(tune, gesture) => set({ tune }, gesture)}
        />
        <Figure
          of="decay"
          label={words.decayOfLane(lane.name)}
          short={words.decay}
          value={lane.decay ?? 1}
          onChange={(decay, gesture) => set({ decay }, gesture)}
        />
        <Range
          label={words.lowPassOfLane(lane.name)}
          short={words.lowPass}
          value={toSlider(low)}
          least={toSlider(100)}
          most={toSlider(OPEN.low)}
          step={0.02}
          written={HERTZ}
          shown={low >= OPEN.low ? words.open : hertzText(low)}
          onChange={(value, gesture) => set({ lowPass: Math.min(OPEN.low, toHertz(value)) }, gesture)}
        />
        <Range
          label={words.highPassOfLane(lane.name)}
          short={words.highPass}
          value={toSlider(high)}
          least={toSlider(OPEN.high)}
          most={toSlider(8000)}
          step={0.02}
          written={HERTZ}
          shown={high <= OPEN.high ? words.open : hertzText(high)}
          onChange={(value, gesture) => set({ highPass: Math.max(OPEN.high, toHertz(value)) }, gesture)}
        />
      </Group>
      {lane.loop ? <LoopGroup lane={lane} /> : <OwnSoundPart lane={lane} />}
    </>
  );
};
