import { StyleSheet, View } from 'react-native';
import { INSTRUMENT_IDS, INSTRUMENTS, type InstrumentId } from '../../core/document/instruments';
import { Select } from './Select';

interface InstrumentChoiceProps {
  label: string;
  value: InstrumentId | null;
  /** What is said for none. */
  none: string;
  onChange: (id: InstrumentId | null) => void;
}

const styles = StyleSheet.create({
  choice: { flexGrow: 1, flexShrink: 1, flexBasis: 160, maxWidth: 240 },
});

/** One of all instruments, or none. */
export const InstrumentChoice = ({ label, value, none, onChange }: InstrumentChoiceProps) => (
  <View style={styles.choice}>
    <Select<InstrumentId | ''>
      label={label}
      value={value ?? ''}
      options={[
        { value: '', name: none },
        ...INSTRUMENT_IDS.map((id) => ({ value: id, name: INSTRUMENTS[id].name })),
      ]}
      onChange={(id) => onChange(id || null)}
    />
  </View>
);
