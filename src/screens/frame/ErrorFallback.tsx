import { useAppStore } from '../../store/store';
import { Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { usePathname } from 'expo-router';
import type { ReactNode } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { Chip } from '../../ui/Chip';
import { saveBeat } from '../saveBeats';
import { words } from '../../words/frame';

const Fallback = ({ resetErrorBoundary }: FallbackProps) => {
  const store = useAppStore();
  const save = () => {
    const { beat } = store.getState().doc;
    if (beat) void saveBeat(beat);
  };
  return (
    <View style={styles.failed} role="alert">
      <Para>{words.somethingWentWrongOnThis}</Para>
      <Chip onPress={resetErrorBoundary}>{words.showItAgain}</Chip>
      <Chip onPress={save}>{words.saveTheBeatAsA}</Chip>
    </View>
  );
};

/** A fault of one screen stays on it: all the others, play and the beat go on. */
export const ErrorFallback = ({ children }: { children: ReactNode }) => {
  const path = usePathname();
  return (
    <ErrorBoundary FallbackComponent={Fallback} resetKeys={[path]}>
      {children}
    </ErrorBoundary>
  );
};
