import { Para } from '../../ui/Words';
import { Chips } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { use } from 'react';
import { beatEdited } from '../../state/doc';
import { editShown } from '../../state/editing';
import { store } from '../../state/session';
import { viewChanged, type Trial } from '../../state/slices';
import { selectPattern, useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';
import { PlayContext } from '../../ui/playing';
import { words } from '../../words/pattern';

/** Tries an edit: it is heard and drawn, and not made until it is used. */
export const attempt = (name: string, edit: Trial['edit']): void => {
  const pattern = selectPattern(store.getState());
  if (pattern) store.dispatch(viewChanged({ trial: { name, patternId: pattern.id, edit } }));
};

export const leaveTrial = (): void => {
  store.dispatch(viewChanged({ trial: null }));
};

/** Makes what is tried an edit. */
export const acceptTrial = ({ edit }: Trial): void => {
  if (edit.kind === 'pattern') editShown(store, edit.edit);
  else store.dispatch(beatEdited({ edit: edit.edit }));
  leaveTrial();
};

/** What is tried, and what becomes of it; nothing where nothing is tried. */
export const TrialBar = () => {
  const trial = useApp(({ view }) => view.trial);
  const playing = useApp(({ view }) => view.playing);
  const togglePlay = use(PlayContext);
  const act = useDo();
  if (!trial) return null;
  return (
    <View style={styles.trial} role="group" aria-label={words.tryingTrial(trial.name)}>
      <Para live>{words.tryingTrialNothingIsChanged(trial.name)}</Para>
      <Chips>
        <Chip pressed={playing} onPress={togglePlay}>
          {playing ? words.stop : words.hearIt}
        </Chip>
        <Chip onPress={() => acceptTrial(trial)}>{words.useIt}</Chip>
        <Chip onPress={() => act(viewChanged({ trial: null }))}>{words.leaveIt}</Chip>
      </Chips>
    </View>
  );
};
