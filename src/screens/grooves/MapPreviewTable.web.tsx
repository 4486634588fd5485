import { useState } from 'react';
import { mapOf, type MapPreview } from '../../../core/midi/mapPreview';
import type { DrumMap } from '../../../core/midi/drumMap';
import { Chip } from '../../ui/Chip';
import { InstrumentChoice } from './InstrumentChoice';

interface MapPreviewTableProps {
  preview: MapPreview;
  onTake: (map: DrumMap) => void;
  onCancel: () => void;
}

/** A list of drums from elsewhere: each line with what it is taken for, to be looked at before it becomes a map. */
export const MapPreviewTable = ({ preview, onTake, onCancel }: MapPreviewTableProps) => {
  const [notes, setNotes] = useState(preview.notes);
  const unknown = notes.filter(({ instrument }) => !instrument).length;
  return (
    <div className="maps-page">
      <h2>{preview.name}</h2>
      <p>
        {`${notes.length} notes. ${unknown ? `${unknown} of them could not be told: give them a drum, or they are left out.` : 'Each was given the drum that its name says.'}`}
      </p>
      {preview.warnings.map((warning) => (
        <p key={warning} className="quiet">
          {warning}
        </p>
      ))}
      <div className="chips">
        <Chip onPress={() => onTake(mapOf({ ...preview, notes }))}>Make this map</Chip>
        <Chip onPress={onCancel}>Not now</Chip>
      </div>
      <ul className="map-notes" aria-label="Notes found">
        {notes.map((one, at) => (
          <li key={`${at} ${one.note}`} className={one.instrument ? undefined : 'greyed'}>
            <span className="figure">{one.note}</span>
            <span className="given-name">{one.name || 'No name'}</span>
            <InstrumentChoice
              label={`Note ${one.note}, ${one.name}, is`}
              value={one.instrument}
              none="Left out"
              onChange={(instrument) =>
                setNotes(notes.map((other, index) => (index === at ? { ...other, instrument } : other)))
              }
            />
          </li>
        ))}
      </ul>
    </div>
  );
};
