import { selectAllText, selectAllOf } from './field';
import { Input } from '@rneui/base/dist/Input';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { StyleSheet, View, type StyleProp, type TextInput, type ViewStyle } from 'react-native';
import { fieldStyles } from './boxes';
import { keyOf } from './keys';
import { passOn } from './passOn';
import { useRne } from './Themed';
import { colour, font } from './tokens';

const MOST_LETTERS = 80;

interface TextFieldProps {
  label: string;
  value: string;
  placeholder?: string;
  most?: number;
  numeric?: boolean;
  /** Escape gives back what stood there when it was entered, and does not empty it. */
  back?: boolean;
  /** It takes the focus when it appears, with all of it selected. */
  focused?: boolean;
  /** Gets what is typed, letter by letter. */
  onType?: (text: string) => void;
  /** Gets the text once it is left or Enter is pressed; Escape leaves it as it was, and gives that. */
  onDone?: (text: string) => void;
  /** Enter was pressed. */
  onEnter?: (text: string) => void;
  /** Told of fields of the page, such as names to choose from. */
  more?: object;
  style?: StyleProp<ViewStyle>;
}

const styles = StyleSheet.create({
  around: { flexGrow: 1, flexShrink: 1, minWidth: 0 },
  input: { backgroundColor: colour.ground },
  figure: { fontFamily: font.figures },
});

/** A line of text to be typed. */
export const TextField = (props: TextFieldProps) => {
  const {
    label,
    value,
    placeholder,
    most = MOST_LETTERS,
    numeric,
    back,
    focused,
    onType,
    onDone,
    onEnter,
    more,
    style,
  } = props;
  const [draft, setDraft] = useState<string | null>(null);
  const input = useRef<TextInput>(null);
  const rne = useRne();
  const text = draft ?? value;
  useEffect(() => {
    if (focused) selectAllText(input.current);
  }, [focused]);
  // A field that goes when it is done with is done with once: going, it is left too.
  const gone = useRef(false);
  const before = useRef(value);
  const end = (done = text) => {
    setDraft(null);
    if (gone.current || (draft === null && !focused)) return;
    gone.current = focused ?? false;
    onDone?.(done);
  };
  const keys = (event: KeyboardEvent) => {
    if (event.key === 'Escape') {
      if (onType ? value : draft !== null) {
        event.stopPropagation();
        setDraft(null);
        onType?.(back ? before.current : '');
        if (focused) end(value);
      } else if (focused) end(value);
      else passOn(event);
    } else if (event.key === 'Enter') {
      end();
      before.current = text;
      onEnter?.(text);
      if (!focused) selectAllOf(event.target);
    } else if (keyOf(event, ['find'])) passOn(event);
  };
  return (
    <View style={[styles.around, style]} {...({ onKeyDownCapture: keys } as object)}>
      <Input
        {...rne}
        ref={((one: { input?: TextInput } | null) => (input.current = one?.input ?? null)) as never}
        value={text}
        autoFocus={focused ?? false}
        {...(placeholder && { placeholder })}
        maxLength={most}
        onChangeText={(next: string) => (onType ? onType(next) : setDraft(next))}
        onFocus={() => (before.current = value)}
        onBlur={() => end()}
        renderErrorMessage={false}
        containerStyle={fieldStyles.container}
        inputContainerStyle={[fieldStyles.input, styles.input]}
        inputStyle={[fieldStyles.text, numeric && styles.figure]}
        placeholderTextColor={colour.quiet}
        {...({
          'aria-label': label,
          ...(numeric && { inputMode: 'decimal' }),
          autoComplete: 'off',
          ...more,
        } as object)}
      />
    </View>
  );
};
