import { Para } from '../../ui/Words';
import { Chips } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { use } from 'react';
import { useApp, useAppStore } from '../../store/store';
import { acceptTrial, leaveTrial } from '../../store/trial';
import { Chip } from '../../ui/Chip';
import { PlayContext } from '../../ui/playing';
import { words } from '../../words/pattern';

/** What is tried, and what becomes of it; nothing where nothing is tried. */
export const TrialBar = () => {
  const trial = useApp(({ focus }) => focus.trial);
  const playing = useApp(({ transport }) => transport.playing);
  const togglePlay = use(PlayContext);
  const store = useAppStore();
  if (!trial) return null;
  return (
    <View style={styles.trial} role="group" aria-label={words.tryingTrial(trial.name)}>
      <Para live>{words.tryingTrialNothingIsChanged(trial.name)}</Para>
      <Chips>
        <Chip pressed={playing} onPress={togglePlay}>
          {playing ? words.stop : words.hearIt}
        </Chip>
        <Chip onPress={() => acceptTrial(store, trial)}>{words.useIt}</Chip>
        <Chip onPress={() => leaveTrial(store)}>{words.discard}</Chip>
      </Chips>
    </View>
  );
};
