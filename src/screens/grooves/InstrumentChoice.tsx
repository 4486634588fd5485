import { View } from 'react-native';
import { Select } from '../../ui/Select';
import { styles } from './styles';
import { INSTRUMENT_IDS, INSTRUMENTS, type InstrumentId } from '../../../core/document/instruments';

interface InstrumentChoiceProps {
  label: string;
  value: InstrumentId | null;
  /** What is said for none. */
  none: string;
  onChange: (id: InstrumentId | null) => void;
}

/** One of all instruments, or none. */
export const InstrumentChoice = ({ label, value, none, onChange }: InstrumentChoiceProps) => (
  <View style={styles.mapChoice}>
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
