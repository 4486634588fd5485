import { Para, Words } from './Words';
import { StyleSheet, View } from 'react-native';
import { useLayoutEffect, useState, type ComponentType, type ReactNode } from 'react';
import { Chip } from './Chip';
import { words } from '../words/ui';

type Fetch<P> = () => Promise<ComponentType<P>>;

const styles = StyleSheet.create({
  // Said only where it takes long.
  waiting: { margin: 16 },
  failed: { alignItems: 'flex-start', gap: 12, margin: 16 },
});

/** Parts by the function that fetches them; of which kind each is that function says. */
const fetched = new Map<unknown, unknown>();

/** Fetches a part before it is shown, so that it is there at once. Rejects where it cannot be fetched. */
export const ahead = async <P,>(of: Fetch<P>): Promise<void> => {
  if (fetched.has(of)) return;
  const found = await of();
  fetched.set(of, found);
};

interface LaterProps<P> {
  /** The same function each time. */
  of: Fetch<P>;
  /** What it is called where it cannot be fetched. */
  what?: string;
  /** What stands in its place meanwhile. */
  waiting?: ReactNode;
  /** What it is given. */
  given?: P;
}

/**
 * A screen or a part of one that is fetched when it is first shown; from then on it is there at once. Where it cannot be
 * fetched that is said, the rest of the app goes on, and it can be asked for again.
 */
export const Later = <P extends object>({ of, what = words.thisScreen, waiting, given }: LaterProps<P>) => {
  const [part, setPart] = useState(() => (fetched.get(of) as ComponentType<P> | undefined) ?? null);
  const [tries, setTries] = useState(0);
  const [failed, setFailed] = useState(false);
  useLayoutEffect(() => {
    if (fetched.has(of)) return;
    let wanted = true;
    ahead(of).then(
      () => wanted && setPart(() => fetched.get(of) as ComponentType<P>),
      () => wanted && setFailed(true),
    );
    return () => {
      wanted = false;
    };
  }, [of, tries]);
  const Part = part;
  if (Part) return <Part {...((given ?? {}) as P)} />;
  if (!failed)
    return waiting === undefined ? (
      <Words quiet live style={styles.waiting}>
        {words.oneMoment}
      </Words>
    ) : (
      waiting
    );
  const again = () => {
    setFailed(false);
    setTries(tries + 1);
  };
  return (
    <View style={styles.failed} role="alert">
      <Para>{words.whatCouldNotBeFetched(what)}</Para>
      <Chip onPress={again}>{words.tryAgain}</Chip>
    </View>
  );
};
