import { Select } from '../../ui/Select';
import { Press } from '../../ui/Press';
import { Words, Para } from '../../ui/Words';
import { Group } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { nanoid } from '@reduxjs/toolkit';
import { SONG } from '../../../core/document/choices';
import type { Beat, Entry, Section } from '../../../core/document/schema';
import { newEntry } from '../../../core/edit/song';
import { entryPattern, patternOfEntry } from '../../../core/play/timeline';
import { Choice } from '../../ui/Choice';
import { IconButton } from '../../ui/IconButton';
import { NumberField } from '../../ui/NumberField';
import { SortableLater } from '../../web/SortableLater';
import { BeadPicture } from '../../strings/BeadPicture';
import { editSong } from './edit';
import { useClamped } from '../../store/useClamped';
import { entryWords } from './words';
import { words } from '../../words/song';

interface OnSection {
  beat: Beat;
  section: Section;
}

/** Patterns to choose from: those of the tray first. */
const patternChoices = (beat: Beat) => {
  const tray = new Set(beat.tray.map(({ patternId }) => patternId));
  return [...beat.patterns]
    .sort((a, b) => Number(tray.has(b.id)) - Number(tray.has(a.id)))
    .map(({ id, name }) => ({ value: id, name: tray.has(id) ? words.nameTray(name) : name }));
};

const EntryRow = ({ beat, section, entry, at }: OnSection & { entry: Entry; at: number }) => {
  const within = useClamped();
  const pattern = patternOfEntry(beat, entry);
  const { name } = entryPattern(beat, entry);
  const by = entry.bars === undefined ? 'times' : 'bars';
  const set = (args: { patternId?: string; times?: number; bars?: number | null }, gesture?: string) =>
    editSong(
      { edit: 'changeEntry', args: { sectionId: section.id, entryId: entry.id, change: args } },
      gesture,
    );
  return (
    <View style={styles.songEntry}>
      {pattern ? <BeadPicture pattern={pattern} lanes={beat.lanes} width={64} height={40} /> : null}
      <View style={styles.entryChoice}>
        <Select
          label={words.patternAtOfSection(at + 1, section.name)}
          value={pattern ? entry.patternId : ''}
          options={[
            ...(pattern ? [] : [{ value: '', name: words.nameDeletedSilence(name) }]),
            ...patternChoices(beat),
          ]}
          onChange={(patternId) => set({ patternId })}
        />
      </View>
      <NumberField
        label={by === 'times' ? words.timesNamePlays(name) : words.barsOfName(name)}
        value={entry.bars ?? entry.times}
        least={1}
        most={64}
        under={by === 'times' ? words.times : words.bars}
        width={48}
        onChange={(asked, gesture) => {
          const value = Math.round(within(asked, 1, SONG.bars, by === 'times' ? words.times2 : words.bars2));
          set(by === 'times' ? { times: value } : { bars: value }, gesture);
        }}
      />
      <Press
        style={styles.songBy}
        label={by === 'times' ? words.countBarsInsteadForName(name) : words.countTimesInsteadForName(name)}
        onPress={() => set({ bars: by === 'times' ? Number.parseInt(entryWords(beat, entry), 10) : null })}
      >
        <Words quiet style={styles.link}>
          {by === 'times' ? words.countBarsInstead : words.countTimesInstead}
        </Words>
      </Press>
      <IconButton
        label={words.takeNameOutOfSection(name, section.name)}
        icon="remove"
        onPress={() => editSong({ edit: 'removeEntry', args: { sectionId: section.id, entryId: entry.id } })}
      />
    </View>
  );
};

/** The row of patterns that a section plays. */
export const Entries = ({ beat, section }: OnSection) => (
  <Group title={words.patternsInOrder}>
    {section.entries.length ? (
      <SortableLater
        label={words.patternsOfSection(section.name)}
        items={section.entries.map((entry, at) => ({
          id: entry.id,
          name: entryPattern(beat, entry).name,
          row: <EntryRow beat={beat} section={section} entry={entry} at={at} />,
        }))}
        onMove={(entryId, to) =>
          editSong({ edit: 'moveEntry', args: { sectionId: section.id, entryId, to } })
        }
      />
    ) : (
      <Para quiet>{words.itHasNoPatternYet}</Para>
    )}
    <Choice
      label={words.addAPatternToSection(section.name)}
      short={words.add}
      value=""
      options={[{ value: '', name: words.chooseAPattern }, ...patternChoices(beat)]}
      onChange={(patternId) =>
        patternId &&
        editSong({ edit: 'addEntry', args: { sectionId: section.id, entry: newEntry(nanoid(), patternId) } })
      }
    />
  </Group>
);
