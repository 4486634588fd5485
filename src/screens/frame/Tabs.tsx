import { Pressable, StyleSheet, View } from 'react-native';
import { buttonColumn, buttonRow } from '../../ui/row';
import { useWide } from '../../ui/useWide';
import { Words } from '../../ui/Words';
import { SetDown } from '../../web/SetDown';
import { styles } from './styles';
import { Link, usePathname } from 'expo-router';
import { Icon, type IconName } from '../../ui/Icon';
import { words } from '../../words/frame';

const TABS: { href: '/grooves' | '/' | '/feel' | '/song' | '/export'; label: string; icon: IconName }[] = [
  { href: '/grooves', label: words.grooves, icon: 'grooves' },
  { href: '/', label: words.pattern, icon: 'pattern' },
  { href: '/feel', label: words.feel, icon: 'feel' },
  { href: '/song', label: words.song, icon: 'song' },
  { href: '/export', label: words.export, icon: 'export' },
];

const Screen = ({ href, label, icon }: (typeof TABS)[number]) => {
  const path = usePathname();
  const wide = useWide();
  const here = path === href;
  return (
    <Link href={href} asChild>
      <Pressable
        // One style: the link lays its own over it.
        style={StyleSheet.flatten([styles.tab, wide && styles.railTab, here && styles.tabOn])}
        {...({ role: 'link', ...(here && { 'aria-current': 'page' }) } as object)}
      >
        <Icon name={icon} size={22} />
        <Words style={[styles.tabWords, here && styles.tabOnWords]}>{label}</Words>
      </Pressable>
    </Link>
  );
};

/** The screens in the order of the work. A pattern that is dragged onto Song is laid into the tray. */
export const ScreenTabs = () => {
  const wide = useWide();
  return (
    <View
      nativeID="screens"
      role="navigation"
      style={[styles.tabs, wide && styles.rail]}
      aria-label={words.screens}
      {...(wide ? buttonColumn : buttonRow)}
    >
      {TABS.map((tab) =>
        tab.href === '/song' ? (
          <SetDown key={tab.href}>{() => <Screen {...tab} />}</SetDown>
        ) : (
          <Screen key={tab.href} {...tab} />
        ),
      )}
    </View>
  );
};
