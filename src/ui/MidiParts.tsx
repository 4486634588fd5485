import { CheckBox } from './CheckBox';
import { Chips } from './Layout';
import { count } from '../../core/beat/text';
import type { MidiPart } from '../../core/midi/parts';

interface MidiPartsProps {
  parts: MidiPart[];
  /** Their keys. */
  chosen: readonly string[];
  onChoose: (chosen: string[]) => void;
}

/** Which tracks and channels of a MIDI file are taken. */
export const MidiParts = ({ parts, chosen, onChoose }: MidiPartsProps) => (
  <Chips label="Tracks and channels">
    {parts.map(({ key, name, channel, notes, drums }) => (
      <CheckBox
        key={key}
        checked={chosen.includes(key)}
        onChange={(on) => onChoose(on ? [...chosen, key] : chosen.filter((one) => one !== key))}
      >
        {`${name}, channel ${channel}${drums ? ' (drums)' : ''}: ${count(notes, 'note')}`}
      </CheckBox>
    ))}
  </Chips>
);
