import { nanoid } from '@reduxjs/toolkit';
import { instrument, INSTRUMENT_IDS, type InstrumentId } from '../../../core/document/instruments';
import { beatEdited } from '../../store/doc';
import { laneShown } from '../../store/focus';
import { useDo } from '../../store/store';
import { Select } from '../../ui/Select';
import { words } from '../../words/pattern';

/** Which drum a new lane is to play. */
export const NewLane = ({ onDone }: { onDone: () => void }) => {
  const act = useDo();
  const add = (instrument: InstrumentId) => {
    const id = nanoid();
    act(beatEdited({ edit: { edit: 'addLane', args: { id, instrument } } }));
    act(laneShown(id, 'lane'));
    onDone();
  };
  return (
    <Select<InstrumentId | ''>
      label={words.drumOfTheNewLane}
      value=""
      options={[
        { value: '', name: words.whichDrum },
        ...INSTRUMENT_IDS.map((value) => ({ value, name: instrument(value).name })),
      ]}
      onChange={(id) => id && add(id)}
    />
  );
};
