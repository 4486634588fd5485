import { CheckBox } from '@rneui/base/dist/CheckBox';
import { StyleSheet, View } from 'react-native';
import { onArrows } from './arrows';
import { Icon } from './Icon';
import { useRne } from './Themed';
import { colour, font, TARGET } from './tokens';

interface RadiosProps<T extends string | number> {
  /** What is chosen among them. */
  label: string;
  value: T;
  options: readonly { value: T; name: string }[];
  onChange: (value: T) => void;
}

const styles = StyleSheet.create({
  group: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 20 },
  one: {
    minHeight: TARGET,
    margin: 0,
    marginLeft: 0,
    marginRight: 0,
    padding: 0,
    justifyContent: 'center',
    backgroundColor: 'transparent',
  },
  words: {
    fontFamily: font.words,
    fontSize: 15,
    lineHeight: 21,
    fontWeight: '400',
    marginLeft: 8,
    marginRight: 0,
    flexShrink: 1,
    color: colour.text,
  },
});

const Empty = () => <Icon name="unchosen" size={22} />;
const Full = () => <Icon name="chosen" size={22} />;

/** One of a few, all of them seen. Arrows choose the one beside. */
export const Radios = <T extends string | number>({ label, value, options, onChange }: RadiosProps<T>) => {
  const rne = useRne();
  return (
    <View
      style={styles.group}
      {...({ role: 'radiogroup', 'aria-label': label } as object)}
      {...onArrows('[role=radio]', (index) => onChange(options[index]!.value))}
    >
      {options.map((option) => (
        <CheckBox
          key={option.value}
          {...rne}
          checked={option.value === value}
          title={option.name}
          onPress={() => onChange(option.value)}
          checkedIcon={<Full />}
          uncheckedIcon={<Empty />}
          containerStyle={[styles.one, { color: colour.text } as object]}
          textStyle={styles.words}
          {...({
            role: 'radio',
            'aria-label': option.name,
            'aria-checked': option.value === value,
            tabIndex: option.value === value ? 0 : -1,
          } as object)}
        />
      ))}
    </View>
  );
};
