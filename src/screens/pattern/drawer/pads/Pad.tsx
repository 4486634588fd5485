import { View } from 'react-native';
import { instrument } from '../../../../../core/document/instruments';
import type { Lane } from '../../../../../core/document/schema';
import { InstrumentIcon } from '../../../../ui/InstrumentIcon';
import { Press } from '../../../../ui/Press';
import { velocityAt } from '../../../../ui/velocityAt';
import { Words } from '../../../../ui/Words';
import { Struck } from '../../../../web/Struck';
import { words } from '../../../../words/drawer';
import { styles } from '../styles';

/** The keys of the computer's keyboard that play the lanes, by their place on it. */
export const CODES = [
  ...['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK', 'KeyL'],
  ...['KeyQ', 'KeyW', 'KeyE', 'KeyR', 'KeyT', 'KeyY', 'KeyU', 'KeyI', 'KeyO', 'KeyP'],
];
const keyName = (at: number): string => CODES[at]?.slice(3) ?? '';

interface PadProps {
  lane: Lane;
  at: number;
  onStrike: (velocity: number, time: number) => void;
  onSlide: (velocity: number) => void;
  onRelease: () => void;
}

/** A lane that is played by hand. */
export const Pad = ({ lane, at, onStrike, onSlide, onRelease }: PadProps) => {
  const { material, pigment } = instrument(lane.instrument);
  return (
    <Struck
      onStrike={(height, time) => onStrike(velocityAt(height), time)}
      onSlide={(height) => onSlide(velocityAt(height))}
      onRelease={onRelease}
    >
      <Press
        style={[styles.pad, styles[material], { borderLeftColor: `var(--${lane.pigment ?? pigment})` }]}
        label={words.playLaneKey(lane.name, keyName(at))}
      >
        {/* One text: so the space parts the name from its key for whoever listens too. */}
        <Words small>
          {lane.name}{' '}
          <Words inline figure quiet style={styles.padKey}>
            {keyName(at)}
          </Words>
        </Words>
        <View style={styles.padIcon}>
          <InstrumentIcon of={lane.instrument} />
        </View>
      </Press>
    </Struck>
  );
};
