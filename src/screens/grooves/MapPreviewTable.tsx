import { Page } from '../../ui/Page';
import { Heading, Para, Words } from '../../ui/Words';
import { Chips, Items, Item } from '../../ui/Layout';
import { styles } from './styles';
import { useState } from 'react';
import { mapOf, type MapPreview } from '../../../core/midi/drumMap/mapPreview';
import type { DrumMap } from '../../../core/midi/drumMap/drumMap';
import { Chip } from '../../ui/Chip';
import { InstrumentChoice } from '../../ui/InstrumentChoice';
import { words } from '../../words/grooves';

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
      <Para>{words.manyNotes(notes.length, !!unknown, unknown)}</Para>
      {preview.warnings.map((warning) => (
        <Para quiet key={warning}>
          {warning}
        </Para>
      ))}
      <Chips>
        <Chip onPress={() => onTake(mapOf({ ...preview, notes }))}>{words.makeThisMap}</Chip>
        <Chip onPress={onCancel}>{words.notNow}</Chip>
      </Chips>
      <Items style={styles.mapNotes} label={words.notesFound}>
        {notes.map((one, at) => (
          <Item key={`${at} ${one.note}`} style={styles.mapNote}>
            <Words figure style={styles.mapFigure}>
              {one.note}
            </Words>
            <Words style={[styles.givenName, !one.instrument && styles.greyed]}>
              {one.name || words.noName}
            </Words>
            <InstrumentChoice
              label={words.noteNoteOneIs(one.note, one.name)}
              value={one.instrument}
              none={words.leftOut2}
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
