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
  <div className="chips" role="group" aria-label="Tracks and channels">
    {parts.map(({ key, name, channel, notes, drums }) => (
      <label key={key} className="tick">
        <input
          type="checkbox"
          checked={chosen.includes(key)}
          onChange={() =>
            onChoose(chosen.includes(key) ? chosen.filter((one) => one !== key) : [...chosen, key])
          }
        />
        {`${name}, channel ${channel}${drums ? ' (drums)' : ''}: ${count(notes, 'note')}`}
      </label>
    ))}
  </div>
);
