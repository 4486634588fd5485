import { useState } from 'react';
import { DRUM_IDS, instrument, type InstrumentId } from '../../../../../core/document/instruments';
import type { Beat, Lane } from '../../../../../core/document/schema';
import type { DrumFigures } from '../../../../../core/samples/fitting';
import { KIT_LIST, kitToldOf } from '../../../../../core/synthesis/kitList';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { Chips } from '../../../../ui/Layout';
import { Para } from '../../../../ui/Words';
import { askDesk } from '../../../../workers/askOwn';
import { words } from '../../../../words/sounds';
import { tell } from '../../takeSounds';

/** A drum of any kit, stacked upon what is there. */
export const StackDrum = ({ onAdd }: { onAdd: (kit: string, drum: InstrumentId) => void }) => {
  const [open, setOpen] = useState(false);
  const [kit, setKit] = useState(KIT_LIST[0]!.id);
  const [drum, setDrum] = useState<InstrumentId>('clap');
  return (
    <>
      <Chips>
        <Chip pressed={open} onPress={() => setOpen(!open)}>
          {words.drumOfKit}
        </Chip>
      </Chips>
      {open ? (
        <>
          <Choice
            label={words.whichKit}
            short={words.kit}
            value={kit}
            options={KIT_LIST.map(({ id, name }) => ({ value: id, name }))}
            onChange={setKit}
          />
          <Choice<InstrumentId>
            label={words.whichDrum}
            short={words.drum}
            value={drum}
            options={DRUM_IDS.map((value) => ({ value, name: instrument(value).name }))}
            onChange={setDrum}
          />
          <Chips>
            <Chip onPress={() => onAdd(kit, drum)}>{words.add}</Chip>
          </Chips>
        </>
      ) : null}
    </>
  );
};

/** Drums of other kits that go with what plays beside it. */
export const Fitting = ({ beat, lane, onUse }: { beat: Beat; lane: Lane; onUse: (kit: string) => void }) => {
  const [found, setFound] = useState<DrumFigures[] | 'looking' | null>(null);
  const look = async () => {
    setFound('looking');
    const others = [...new Set(beat.lanes.map((one) => one.instrument))];
    const all = await askDesk<DrumFigures[]>(
      (far) => far.fitting(lane.instrument, beat.kit, others) as Promise<DrumFigures[]>,
    );
    if (!all) tell(words.noAnswer, true);
    setFound(all && all.filter(({ kit }) => kit !== beat.kit).slice(0, 4));
  };
  return (
    <>
      <Chips>
        <Chip disabled={found === 'looking'} onPress={() => void look()}>
          {found === 'looking' ? words.looking : words.fitting}
        </Chip>
      </Chips>
      {Array.isArray(found) ? (
        <>
          <Para quiet>{words.fits}</Para>
          <Chips>
            {found.map(({ kit }) => (
              <Chip key={kit} onPress={() => onUse(kit)}>
                {words.drumFrom(instrument(lane.instrument).name, kitToldOf(kit).name)}
              </Chip>
            ))}
          </Chips>
        </>
      ) : null}
    </>
  );
};
