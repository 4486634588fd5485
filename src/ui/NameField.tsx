import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Chip } from './Chip';
import { TextField } from './TextField';

interface NameFieldProps {
  label: string;
  /** What the button says. */
  action: string;
  onGive: (name: string) => void;
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, alignItems: 'center' },
});

/** A name, and what is done with it. */
export const NameField = ({ label, action, onGive }: NameFieldProps) => {
  const [name, setName] = useState('');
  const give = () => {
    if (!name.trim()) return;
    onGive(name.trim());
    setName('');
  };
  return (
    <View style={styles.line}>
      <TextField label={label} placeholder={label} value={name} onType={setName} onEnter={give} />
      <Chip disabled={!name.trim()} onPress={give}>
        {action}
      </Chip>
    </View>
  );
};
