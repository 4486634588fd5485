import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from './Button';
import { Icon, type IconName } from './Icon';
import { colour, CORNER, TARGET } from './tokens';
import { Words } from './Words';

interface IconButtonProps {
  /** What it does, in words: heard, and shown by the pointer. */
  label: string;
  icon: IconName;
  onPress: () => void;
  disabled?: boolean | undefined;
  /** For a button that is on or off. */
  pressed?: boolean | undefined;
  expanded?: boolean | undefined;
  filled?: boolean;
}

/** A pointer that rests so long wants to know. */
const TIP_MS = 500;

const styles = StyleSheet.create({
  around: { position: 'relative', width: TARGET, height: TARGET },
  button: { width: TARGET, height: TARGET, paddingHorizontal: 0, paddingVertical: 0 },
  on: { backgroundColor: colour.raised },
  tip: {
    position: 'absolute',
    top: TARGET + 4,
    right: 0,
    zIndex: 20,
    paddingHorizontal: 8,
    paddingVertical: 4,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.line,
    backgroundColor: colour.raised,
  },
  words: { whiteSpace: 'nowrap' } as object,
});

/** A button that shows an icon alone, as large as a thumb. */
export const IconButton = ({
  label,
  icon,
  onPress,
  disabled,
  pressed,
  expanded,
  filled,
}: IconButtonProps) => {
  const [tip, setTip] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const hide = () => {
    clearTimeout(timer.current);
    setTip(false);
  };
  return (
    <View style={styles.around}>
      <Button
        label={label}
        icon={<Icon name={icon} {...(filled && { filled })} />}
        onPress={onPress}
        disabled={disabled}
        expanded={expanded}
        style={[styles.button, pressed && styles.on]}
        more={{
          ...(pressed !== undefined && { 'aria-pressed': pressed }),
          onHoverIn: () => (timer.current = setTimeout(() => setTip(true), TIP_MS)),
          onHoverOut: hide,
          onPressIn: hide,
        }}
      >
        {''}
      </Button>
      {tip ? (
        <View style={[styles.tip, { pointerEvents: 'none' }]} aria-hidden>
          <Words small style={styles.words}>
            {label}
          </Words>
        </View>
      ) : null}
    </View>
  );
};
