import { StyleSheet, View } from 'react-native';
import { capital } from '../../core/capital';
import { Slider, type SliderProps } from './Slider';
import { steady } from './steady';
import { colour, TARGET } from './tokens';
import { Words } from './Words';

interface RangeProps extends SliderProps {
  /** What is shown of its name. */
  short: string;
}

const styles = StyleSheet.create({
  range: { flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: TARGET },
  name: { width: 64, flexShrink: 0 },
  slider: { flexGrow: 1, flexShrink: 1, flexBasis: 0 },
  figure: { width: 64, flexShrink: 0, textAlign: 'right', color: colour.text },
});

/** A slider with its name and figure. */
export const Range = steady(({ short, ...slider }: RangeProps) => (
  <View style={styles.range}>
    <Words quiet style={styles.name}>
      {capital(short)}
    </Words>
    <View style={styles.slider}>
      <Slider {...slider} />
    </View>
    <Words figure unsaid style={styles.figure}>
      {slider.shown}
    </Words>
  </View>
));
