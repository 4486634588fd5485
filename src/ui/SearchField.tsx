import { write } from './field';
import { Input } from '@rneui/base/dist/Input';
import { useLayoutEffect, useRef, useState } from 'react';
import { StyleSheet, View, type TextInput } from 'react-native';
import { fieldStyles } from './boxes';
import { useRne } from './Themed';
import { colour } from './tokens';

interface SearchFieldProps {
  /** What is looked through. */
  label: string;
  placeholder: string;
  value: string;
  /** Gets what is typed, letter by letter. */
  onType: (text: string) => void;
}

const styles = StyleSheet.create({
  around: { flexGrow: 1, flexShrink: 1, flexBasis: 0, minWidth: 0 },
  input: { backgroundColor: colour.raised },
});

/**
 * Words to look for. It keeps its own letters, so that none waits for what they find; it follows where they change
 * elsewhere.
 */
export const SearchField = ({ label, placeholder, value, onType }: SearchFieldProps) => {
  const [first] = useState(value);
  const input = useRef<TextInput>(null);
  useLayoutEffect(() => {
    write(input.current, value);
  }, [value]);
  return (
    <View style={styles.around}>
      <Input
        {...useRne()}
        ref={((one: { input?: TextInput } | null) => (input.current = one?.input ?? null)) as never}
        defaultValue={first}
        placeholder={placeholder}
        onChangeText={onType}
        renderErrorMessage={false}
        containerStyle={fieldStyles.container}
        inputContainerStyle={[fieldStyles.input, styles.input]}
        inputStyle={fieldStyles.text}
        placeholderTextColor={colour.quiet}
        {...({ 'aria-label': label, inputMode: 'search', autoComplete: 'off' } as object)}
      />
    </View>
  );
};
