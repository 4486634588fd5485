import { useState } from 'react';
import type { Lane } from '../../../../../core/document/schema';
import { beatEdited } from '../../../../store/doc';
import { useDo } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { Chips, Group } from '../../../../ui/Layout';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/sounds';
import { LoopSheet } from '../../loop/LoopSheet';

/** The loop whose slices a lane plays. */
export const LoopGroup = ({ lane }: { lane: Lane }) => {
  const act = useDo();
  const [open, setOpen] = useState(false);
  const loop = lane.loop!;
  return (
    <Group title={words.loopOf(lane.name)}>
      <Para quiet>
        {`${loop.sample.file}: ${words.slices(loop.marks.length)}, ${words.barsAt(loop.bars, loop.tempo.toFixed(1))}`}
      </Para>
      <Chips>
        <Chip onPress={() => setOpen(true)}>{words.editLoop}</Chip>
        <Chip
          onPress={() =>
            act(beatEdited({ edit: { edit: 'setVoice', args: { laneId: lane.id, voice: null } } }))
          }
        >
          {words.backToKit}
        </Chip>
      </Chips>
      {open ? <LoopSheet lane={lane} onClose={() => setOpen(false)} /> : null}
    </Group>
  );
};
