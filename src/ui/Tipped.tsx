import { useEffect, useRef, useState, type ReactNode } from 'react';
import { StyleSheet, View, type PointerEvent, type StyleProp, type ViewStyle } from 'react-native';
import { listen } from '../web/listen';
import { OnTop, pageHeight } from '../web/OnTop';
import { colour, CORNER } from './tokens';
import { Words } from './Words';

interface TippedProps {
  /** The words that an icon stands for: read elsewhere, so only shown here. */
  tip: string;
  /** The button. */
  children: ReactNode;
  style?: StyleProp<ViewStyle>;
}

/** A pointer that rests so long wants to know. */
const TIP_MS = 500;
/** What begins further left than this has its words on its right: they would leave the page. */
const ROOM = 200;
const BESIDE = 4;
/** The height of the words. */
const TALL = 30;

const styles = StyleSheet.create({
  tip: {
    position: 'fixed',
    zIndex: 20,
    paddingHorizontal: 8,
    paddingVertical: 4,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.line,
    backgroundColor: colour.raised,
    pointerEvents: 'none',
  } as object,
  words: { whiteSpace: 'nowrap' } as object,
});

/** Shows in words what an icon stands for, where a pointer rests on it. */
export const Tipped = ({ tip, children, style }: TippedProps) => {
  const [place, setPlace] = useState<object | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const around = useRef<View>(null);
  const hide = () => {
    clearTimeout(timer.current);
    setPlace(null);
  };
  // A screen that is put away takes its words with it.
  useEffect(() => hide, []);
  // Whoever goes on by keys wants to see what lies under them.
  useEffect(() => (place ? listen('keydown', hide) : undefined), [place]);
  const show = () =>
    around.current?.measureInWindow((x, y, width, height) => {
      const below = y + height + BESIDE;
      setPlace({
        top: below + TALL > pageHeight() ? y - BESIDE - TALL : below,
        ...(x < ROOM ? { left: x } : { left: x + width, transform: 'translateX(-100%)' }),
      });
    });
  // A finger does not rest on anything without pressing it.
  const rest = ({ nativeEvent }: PointerEvent) => {
    if (nativeEvent.pointerType === 'mouse') timer.current = setTimeout(show, TIP_MS);
  };
  return (
    <View ref={around} style={style} onPointerEnter={rest} onPointerLeave={hide} onPointerDown={hide}>
      {children}
      {place ? (
        <OnTop>
          <View style={[styles.tip, place]} aria-hidden>
            <Words small style={styles.words}>
              {tip}
            </Words>
          </View>
        </OnTop>
      ) : null}
    </View>
  );
};
