import { TabItem } from '@rneui/base/dist/Tab/Tab.Item';
import { StyleSheet, View } from 'react-native';
import { onArrows } from './arrows';
import { useRne } from './Themed';
import { colour, font, TARGET } from './tokens';

interface TabsProps<T extends string> {
  /** What the tabs are of. */
  label: string;
  tabs: readonly { id: T; name: string }[];
  /** The open one; none where what they open is folded. */
  value: T | null;
  onChange: (id: T) => void;
  /** The id of the panel that they open; each tab is named after it. */
  panel?: string;
  /** Which of them cannot be opened now. */
  shut?: (id: T) => boolean;
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', borderBottomWidth: 1, borderBottomColor: colour.line },
  item: { flexGrow: 1, flexShrink: 1, flexBasis: 'auto' },
  button: {
    minHeight: TARGET,
    paddingHorizontal: 6,
    paddingVertical: 0,
    borderBottomWidth: 2,
    borderBottomColor: 'transparent',
  },
  open: { borderBottomColor: colour.woad },
  title: {
    fontFamily: font.words,
    fontSize: 14,
    lineHeight: 20,
    paddingHorizontal: 0,
    paddingVertical: 0,
    color: colour.quiet,
  },
  openTitle: { color: colour.text, fontWeight: '600' },
});

/** The id of a tab, by which its panel is named. */
export const tabId = (panel: string, id: string): string => `${panel}-${id}`;

/**
 * Pages beside one another, of which one is open. Arrows, Home and End go along them. The row is a plain one: RNE's own
 * scrolls to places that it has not measured yet, and puts its indicator among the tabs.
 */
export const Tabs = <T extends string>({ label, tabs, value, onChange, panel, shut }: TabsProps<T>) => {
  const rne = useRne();
  const at = tabs.findIndex(({ id }) => id === value);
  return (
    <View
      style={styles.row}
      {...({ role: 'tablist', 'aria-label': label } as object)}
      {...onArrows('[role=tab]:not([aria-disabled=true])', (_, tab) => {
        const found = tabs.find(({ name }) => name === tab.textContent);
        if (found) onChange(found.id);
      })}
    >
      {tabs.map(({ id, name }, index) => (
        <TabItem
          key={id}
          {...rne}
          title={name}
          active={index === at}
          variant="default"
          onPress={() => onChange(id)}
          disabled={shut?.(id) ?? false}
          containerStyle={styles.item}
          buttonStyle={[styles.button, index === at && styles.open]}
          titleStyle={[styles.title, index === at && styles.openTitle]}
          {...({
            'aria-selected': index === at,
            tabIndex: index === Math.max(0, at) ? 0 : -1,
            ...(panel && { nativeID: tabId(panel, id), 'aria-controls': panel }),
          } as object)}
        />
      ))}
    </View>
  );
};
