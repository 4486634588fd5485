import { CheckBox } from '../../ui/CheckBox';
import { Chips } from '../../ui/Layout';
import { Para } from '../../ui/Words';
import { View } from 'react-native';
import { nanoid } from '@reduxjs/toolkit';
import { useState } from 'react';
import { MOST } from '../../../core/document/choices';
import type { Beat } from '../../../core/document/schema';
import { beatEdited } from '../../store/doc';
import { persistence } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { selectPattern, useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { Sheet } from '../../ui/Sheet';
import { words } from '../../words/pattern';

interface LanesOfProps {
  from: Beat;
  onDone: () => void;
}

/** The lanes of a beat, to be chosen. */
const LanesOf = ({ from, onDone }: LanesOfProps) => {
  const pattern = useApp(selectPattern)!;
  const room = useApp((state) => MOST.lanes - (state.doc.beat?.lanes.length ?? 0));
  const [chosen, setChosen] = useState<string[]>([]);
  const act = useDo();
  const bring = () => {
    const ids = Object.fromEntries(chosen.map((laneId) => [laneId, nanoid()]));
    act(
      beatEdited({
        edit: { edit: 'bringLanes', args: { patternId: pattern.id, from, laneIds: chosen, ids } },
      }),
    );
    const came = Math.min(chosen.length, room);
    const left = chosen.length - came;
    const said = left ? words.aBeatHoldsLanesLanes(MOST.lanes, left) : '';
    act(noticed({ text: words.cameOfTheLanesOf(came, from.name, pattern.name, said) }));
    onDone();
  };
  return (
    <>
      <Chips>
        {from.lanes.map(({ id, name }) => (
          <CheckBox
            key={id}
            checked={chosen.includes(id)}
            onChange={(on) => setChosen(on ? [...chosen, id] : chosen.filter((one) => one !== id))}
          >
            {name}
          </CheckBox>
        ))}
      </Chips>
      <Chip disabled={!chosen.length} onPress={bring}>
        {words.bringThemIn}
      </Chip>
    </>
  );
};

/** Brings lanes of another beat into the pattern shown. */
export const BringSheet = ({ onClose }: { onClose: () => void }) => {
  const beats = useApp((state) => state.library.beats);
  const openId = useApp((state) => state.doc.beat?.id);
  const [from, setFrom] = useState<Beat | null>(null);
  const [missing, setMissing] = useState(false);
  const choose = async (id: string) => {
    const beat = id ? await persistence.beat(id) : null;
    setFrom(beat);
    setMissing(id !== '' && !beat);
  };
  return (
    <Sheet title={words.lanesOfAnotherBeat} open onClose={onClose}>
      <View>
        <Choice
          label={words.beatToTakeLanesFrom}
          short={words.beat}
          value={from?.id ?? ''}
          options={[
            { value: '', name: words.chooseABeat },
            ...beats.filter(({ id }) => id !== openId).map(({ id, name }) => ({ value: id, name })),
          ]}
          onChange={(id) => void choose(id)}
        />
        {missing ? <Para live>{words.thatBeatCannotBeRead}</Para> : null}
        {from ? (
          <LanesOf key={from.id} from={from} onDone={onClose} />
        ) : (
          <Para quiet>{words.chooseABeatThenThe}</Para>
        )}
      </View>
    </Sheet>
  );
};
