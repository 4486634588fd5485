import { usePathname } from 'expo-router';
import { Activity, useEffect, useState, type ComponentType, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useDo } from '../state/store';
import { Later } from '../ui/Later';
import { SCREEN } from '../web/shown';
import { ErrorFallback } from './frame/ErrorFallback';
import { PatternScreen } from './pattern/PatternScreen';

const styles = StyleSheet.create({ screen: { flex: 1, minHeight: 0 } });

type Name = 'Feel' | 'Grooves' | 'Song' | 'Export' | 'Beats' | 'Kit' | 'Ports';

const later = (name: Name): ComponentType => {
  const fetch = async () => (await import('./later'))[`${name}Screen`];
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

/**
 * The screens that were opened so far, of which one is shown. The others do nothing meanwhile and are there at once, as they
 * were left, when one comes back: made anew they would take a quarter of a second on a slow phone.
 */
export const Screens = () => {
  const path = usePathname();
  const [opened, setOpened] = useState<string[]>([]);
  if (path in SCREENS && !opened.includes(path)) setOpened([...opened, path]);
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
