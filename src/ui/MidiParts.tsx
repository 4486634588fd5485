import { CheckBox } from './CheckBox';
import { Chips } from './Layout';
import type { MidiPart } from '../../core/midi/read/parts';
import { words } from '../words/ui';

interface MidiPartsProps {
  parts: MidiPart[];
  /** Their keys. */
  chosen: readonly string[];
  onChoose: (chosen: string[]) => void;
}

/** Which tracks and channels of a MIDI file are taken. */
export const MidiParts = ({ parts, chosen, onChoose }: MidiPartsProps) => (
  <Chips label={words.tracksAndChannels}>
    {parts.map(({ key, name, channel, notes, drums }) => (
      <CheckBox
        key={key}
        checked={chosen.includes(key)}
        onChange={(on) => onChoose(on ? [...chosen, key] : chosen.filter((one) => one !== key))}
      >
        {words.nameChannelChannel(name, channel, drums, notes)}
      </CheckBox>
    ))}
  </Chips>
);
