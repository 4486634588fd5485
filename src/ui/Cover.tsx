import { useEffect, useRef } from 'react';
import { Pressable, StyleSheet, type View } from 'react-native';

interface CoverProps {
  /** What is done, in words. */
  label: string;
  onPress: () => void;
  /** More that is heard of it. */
  about?: string | undefined;
  /** Whether it stands for what is shown now. */
  current?: boolean | undefined;
  tabIndex?: 0 | -1;
  /** Asked once it stands for what is shown: whether the focus comes along. */
  takesFocus?: (() => boolean) | undefined;
}

const styles = StyleSheet.create({
  cover: { ...StyleSheet.absoluteFill, zIndex: 1, cursor: 'pointer' } as object,
});

/** Lies over what it stands beside, so that a whole row is pressed while its words are read by themselves. */
export const Cover = ({ label, onPress, about, current, tabIndex = 0, takesFocus }: CoverProps) => {
  const cover = useRef<View>(null);
  useEffect(() => {
    if (current && takesFocus?.()) cover.current?.focus();
  }, [current, takesFocus]);
  return (
    <Pressable
      ref={cover}
      style={styles.cover}
      onPress={onPress}
      {...({
        role: 'button',
        'aria-label': about ? `${label}, ${about}` : label,
        tabIndex,
        ...(current !== undefined && { 'aria-current': current }),
      } as object)}
    />
  );
};
