import { Page } from '../../ui/Page';
import { Heading, Para, Words } from '../../ui/Words';
import { Chips, Items, Item } from '../../ui/Layout';
import { styles } from './styles';
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
    <Page inner={styles.mapsPage}>
      <Heading level={2}>{preview.name}</Heading>
      <Para>
        {`${notes.length} notes. ${unknown ? `${unknown} of them could not be told: give them a drum, or they are left out.` : 'Each was given the drum that its name says.'}`}
      </Para>
      {preview.warnings.map((warning) => (
        <Para quiet key={warning}>
          {warning}
        </Para>
      ))}
      <Chips>
        <Chip onPress={() => onTake(mapOf({ ...preview, notes }))}>Make this map</Chip>
        <Chip onPress={onCancel}>Not now</Chip>
      </Chips>
      <Items style={styles.mapNotes} label="Notes found">
        {notes.map((one, at) => (
          <Item key={`${at} ${one.note}`} style={styles.mapNote}>
            <Words figure style={styles.mapFigure}>
              {one.note}
            </Words>
            <Words style={[styles.givenName, !one.instrument && styles.greyed]}>
              {one.name || 'No name'}
            </Words>
            <InstrumentChoice
              label={`Note ${one.note}, ${one.name}, is`}
              value={one.instrument}
              none="Left out"
              onChange={(instrument) =>
                setNotes(notes.map((other, index) => (index === at ? { ...other, instrument } : other)))
              }
            />
          </Item>
        ))}
      </Items>
    </Page>
  );
};
