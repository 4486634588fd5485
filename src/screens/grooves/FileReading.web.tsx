import type { Groove } from '../../../core/groove/groove';
import { GENERAL_MIDI } from '../../../core/midi/drumMap';
import { offer } from '../../state/offers';
import { noticed } from '../../state/slices';
import { useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { rereadHeard, stopHearing } from './audition';
import { shelf, useShelf } from './shelf';

/** How a file is read: with which map, and whether its tempos are followed. */
export const FileReading = ({ groove }: { groove: Groove }) => {
  const maps = useApp((state) => state.grooves.maps);
  const act = useDo();
  useShelf();
  const indexed = shelf.indexed(groove.id);
  if (!indexed) return null;
  const change = async (to: { map?: string; followTempo?: boolean }) => {
    await shelf.readAnew(groove.id, to);
    await rereadHeard();
  };
  const forget = async () => {
    stopHearing();
    const bringBack = await shelf.forget([groove.id]);
    act(
      noticed({
        text: `“${groove.name}” is off the list. What was brought into beats stays there.`,
        subject: 'groove',
        action: { label: 'Take it back', does: offer(() => void bringBack()) },
      }),
    );
  };
  return (
    <div className="choices">
      <Choice
        label="Read with the drum map"
        short="Drum map"
        value={indexed.map}
        options={[GENERAL_MIDI, ...maps].map(({ name }) => ({ value: name, name }))}
        onChange={(map) => void change({ map })}
      />
      {indexed.tempoChanges ? (
        <Chip
          pressed={indexed.followTempo}
          onPress={() => void change({ followTempo: !indexed.followTempo })}
        >
          {`Follow its ${indexed.tempoChanges} more tempos`}
        </Chip>
      ) : null}
      {groove.source === 'imported' ? (
        <Chip tone="danger" onPress={() => void forget()}>
          Take it off the list
        </Chip>
      ) : null}
    </div>
  );
};
