import { CheckBox } from '@rneui/base/dist/CheckBox';
import { StyleSheet, View } from 'react-native';
import { onArrows } from './arrows';
import { tickStyles } from './boxes';
import { Icon } from './Icon';
import { useRne } from './Themed';
import { colour } from './tokens';

interface RadiosProps<T extends string | number> {
  /** What is chosen among them. */
  label: string;
  value: T;
  options: readonly { value: T; name: string }[];
  onChange: (value: T) => void;
}

const styles = StyleSheet.create({
  group: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 20 },
  words: { fontSize: 15, lineHeight: 21 },
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
          containerStyle={[tickStyles.box, { color: colour.text } as object]}
          textStyle={[tickStyles.words, styles.words]}
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
