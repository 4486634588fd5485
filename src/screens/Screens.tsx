import { useTabsWithTriggers, type UseTabsWithTriggersOptions } from 'expo-router/ui';
import { Activity, useEffect, useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useApp, useDo } from '../store/store';
import { ahead } from '../ui/Later';
import { whenIdle } from '../web/idle';
import { SCREEN } from '../web/shown';
import { ADDRESSED } from './addresses';
import { AHEAD } from './fetched';
import { ErrorFallback } from './frame/ErrorFallback';

const styles = StyleSheet.create({ screen: { flex: 1, minHeight: 0 } });

/** The screens by their routes' names. */
const SCREENS = ['index', 'grooves', 'feel', 'song', 'export', 'beats', 'kit', 'ports'] as const;

const addressOf = (route: string): string => (route === 'index' ? '/' : `/${route}`);

const TRIGGERS = SCREENS.map((name) => ({
  type: 'internal' as const,
  name,
  href: addressOf(name),
})) as UseTabsWithTriggersOptions['triggers'];

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
  const ready = useApp(({ library, transport }) => library.status === 'ready' && !transport.playing);
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
 * The router's tabs, headless. Of the screens that were opened so far, or made ready, one is shown. The others do nothing meanwhile
 * and are there at once, as they were left, when one comes back: made anew they would take a quarter of a second on a slow
 * phone. Back goes the way that one came.
 */
export const Screens = () => {
  const { state, descriptors, NavigationContent } = useTabsWithTriggers({
    triggers: TRIGGERS,
    backBehavior: 'fullHistory',
  });
  const route = state.routes[state.index]!;
  const path = addressOf(route.name);
  const Addressed = ADDRESSED[route.name];
  const [opened, setOpened] = useState<string[]>([]);
  if (!opened.includes(path)) setOpened([...opened, path]);
  const [open] = useState(
    () => (one: string) => setOpened((now) => (now.includes(one) ? now : [...now, one])),
  );
  useAhead(path, opened, open);
  return (
    <NavigationContent>
      {Addressed ? (
        <Addressed
          key={route.key}
          params={route.params}
          setParams={(params) => descriptors[route.key]!.navigation.setParams(params)}
        />
      ) : null}
      {state.routes
        .map((route) => ({ route, address: addressOf(route.name) }))
        .filter(({ address }) => opened.includes(address))
        .map(({ route, address }) => (
          <Activity key={route.key} mode={address === path ? 'visible' : 'hidden'}>
            <View style={styles.screen} {...({ dataSet: { [SCREEN]: address } } as object)}>
              <ErrorFallback>
                <Shown>{descriptors[route.key]!.render()}</Shown>
              </ErrorFallback>
            </View>
          </Activity>
        ))}
    </NavigationContent>
  );
};
