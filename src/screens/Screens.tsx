import { usePathname } from 'expo-router';
import { Activity, useEffect, useState, type ComponentType, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useApp, useDo } from '../state/store';
import { ahead, Later } from '../ui/Later';
import { whenIdle } from '../web/idle';
import { SCREEN } from '../web/shown';
import { ErrorFallback } from './frame/ErrorFallback';
import { PatternScreen } from './pattern/PatternScreen';

const styles = StyleSheet.create({ screen: { flex: 1, minHeight: 0 } });

type Name = 'Feel' | 'Grooves' | 'Song' | 'Export' | 'Beats' | 'Kit' | 'Ports';

const fetching = (name: Name) => async () => (await import('./later'))[`${name}Screen`];

/** Those that are a press away from wherever one is, in the order in which they are made ready. */
const AHEAD: Record<string, () => Promise<ComponentType>> = {
  '/grooves': async () => {
    const { builtIn, GroovesScreen } = await import('./later');
    void builtIn();
    return GroovesScreen;
  },
  '/feel': fetching('Feel'),
  '/song': fetching('Song'),
  '/export': fetching('Export'),
};

const later = (name: Name): ComponentType => {
  const fetch = AHEAD[`/${name.toLowerCase()}`] ?? fetching(name);
  const Screen = () => <Later of={fetch} />;
  Screen.displayName = `${name}Later`;
  return Screen;
};

const SCREENS: Record<string, ComponentType> = {
  '/': PatternScreen,
  '/feel': later('Feel'),
  '/grooves': later('Grooves'),
  '/song': later('Song'),
  '/export': later('Export'),
  '/beats': later('Beats'),
  '/kit': later('Kit'),
  '/ports': later('Ports'),
};

/** Has what it holds look at the store anew when it is shown: see `sinceThen`. */
const Shown = ({ children }: { children: ReactNode }) => {
  const act = useDo();
  useEffect(() => void act({ type: 'screens/shown' }), [act]);
  return children;
};

/** What a start still has to do is done by then; between two screens a hand has time to do something else. */
const PAUSE_MS = { first: 2000, then: 400 };

/**
 * Makes the screens that were not opened yet while nothing else is to be done, one after the other, put away as those are
 * that were left: opened for the first time, one would take a second on a slow phone.
 */
const useAhead = (path: string, opened: readonly string[], open: (path: string) => void) => {
  // What is heard is also seen: a screen made meanwhile would hold up the strings.
  const ready = useApp(({ library, view }) => library.status === 'ready' && !view.playing);
  const next = Object.keys(AHEAD).find((one) => !opened.includes(one));
  const among = path === '/' || path in AHEAD;
  useEffect(() => {
    if (!ready || !next || !among) return;
    // What could not be fetched is fetched when it is asked for, and said.
    const make = () =>
      void ahead(AHEAD[next]!).then(
        () => open(next),
        () => undefined,
      );
    return whenIdle(make, opened.length > 1 ? PAUSE_MS.then : PAUSE_MS.first);
    // Wherever somebody goes meanwhile, it waits anew.
  }, [ready, next, among, path, open, opened.length]);
};

/**
 * The screens that were opened so far, or made ready, of which one is shown. The others do nothing meanwhile and are there at once, as they
 * were left, when one comes back: made anew they would take a quarter of a second on a slow phone.
 */
export const Screens = () => {
  const path = usePathname();
  const [opened, setOpened] = useState<string[]>([]);
  if (path in SCREENS && !opened.includes(path)) setOpened([...opened, path]);
  const [open] = useState(
    () => (one: string) => setOpened((now) => (now.includes(one) ? now : [...now, one])),
  );
  useAhead(path, opened, open);
  return opened.map((one) => {
    const Screen = SCREENS[one]!;
    return (
      <Activity key={one} mode={one === path ? 'visible' : 'hidden'}>
        <View style={styles.screen} {...({ dataSet: { [SCREEN]: one } } as object)}>
          <ErrorFallback>
            <Shown>
              <Screen />
            </Shown>
          </ErrorFallback>
        </View>
      </Activity>
    );
  });
};
