import { useState, type ReactNode } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';

interface FittedProps {
  /** No wider than that, in points. */
  most: number;
  /** What is drawn at a width, in points. */
  children: (width: number) => ReactNode;
  style?: StyleProp<ViewStyle>;
  more?: object;
}

/** As wide as a phone leaves it, until the page is laid out. */
const FIRST = 334;

/** What has to be told how wide it is: a chart, which cannot find out by itself. */
export const Fitted = ({ most, children, style, more }: FittedProps) => {
  const [room, setRoom] = useState(FIRST);
  return (
    <View style={style} onLayout={({ nativeEvent }) => setRoom(nativeEvent.layout.width || FIRST)} {...more}>
      {children(Math.min(most, room))}
    </View>
  );
};
