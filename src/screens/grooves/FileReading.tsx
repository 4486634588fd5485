import { View } from 'react-native';
import { styles } from './styles';
import type { Groove } from '../../../core/groove/groove';
import { GENERAL_MIDI } from '../../../core/midi/drumMap/drumMap';
import { noticed } from '../../store/slices';
import { useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { MidiParts } from '../../ui/MidiParts';
import { rereadHeard } from './audition';
import { shelf, useShelf } from './shelf';
import { takeOff } from './takeOff';
import { words } from '../../words/grooves';

/** How a file is read: with which map, and whether its tempos are followed. */
export const FileReadingPanel = ({ groove }: { groove: Groove }) => {
  const maps = useApp((state) => state.grooves.maps);
  const act = useDo();
  useShelf();
  const indexed = shelf.indexed(groove.id);
  if (!indexed) return null;
  const { parts } = indexed;
  const only = indexed.only ?? parts?.map(({ key }) => key) ?? [];
  const change = async (to: { map?: string; followTempo?: boolean; only?: string[] }) => {
    await shelf.readAnew(groove.id, to);
    await rereadHeard();
  };
  return (
    <View style={styles.choices}>
      <Choice
        label={words.readWithTheDrumMap}
        short={words.drumMap}
        value={indexed.map}
        options={[GENERAL_MIDI, ...maps].map(({ name }) => ({ value: name, name }))}
        onChange={(map) => void change({ map })}
      />
      {indexed.tempoChanges ? (
        <Chip
          pressed={indexed.followTempo}
          onPress={() => void change({ followTempo: !indexed.followTempo })}
        >
          {words.followItsTempoChangesMoreTempos(indexed.tempoChanges)}
        </Chip>
      ) : null}
      {parts ? (
        <MidiParts
          parts={parts}
          chosen={only}
          onChoose={(next) => {
            if (next.length) void change({ only: next });
            else
              act(
                noticed({
                  text: words.onePartHasToStay,
                  subject: 'groove',
                }),
              );
          }}
        />
      ) : null}
      {groove.source === 'imported' ? (
        <Chip tone="danger" onPress={() => void takeOff([groove.id], `“${groove.name}”`)}>
          {words.takeItOffTheList}
        </Chip>
      ) : null}
    </View>
  );
};
