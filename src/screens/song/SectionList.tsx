import { Para, Words } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { Cover } from '../../ui/Cover';
import { nanoid } from '@reduxjs/toolkit';
import type { Beat, Section } from '../../../core/document/schema';
import { SONG } from '../../../core/document/choices';
import { atHand } from '../../../core/edit/forms';
import { newEntry } from '../../../core/edit/song';
import { colourOf, freeSectionName, SECTION_NAMES } from '../../../core/document/sectionNames';
import { songFaults, type Timeline } from '../../../core/play/timeline';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { SortableLater } from '../../web/SortableLater';
import { editSong } from './edit';
import { lengthWords, playsWords } from './words';
import { words } from '../../words/song';

/** A new section with the first pattern at hand, eight bars long. */
const newSection = (beat: Beat, name: string): Section => ({
  id: nanoid(),
  name: freeSectionName(beat.song, name),
  pigment: colourOf(name),
  entries: [{ ...newEntry(nanoid(), atHand(beat)[0]!), bars: 8 }],
  silent: [],
});

const marks = (beat: Beat, section: Section): string =>
  [
    beat.song.order.filter(({ sectionId }) => sectionId === section.id).length > 1 && 'linked',
    section.fill && 'fill',
    section.tempo !== undefined && `${section.tempo} BPM`,
    section.change && 'changes',
    section.silent.length > 0 && words.manySilent(section.silent.length),
  ]
    .filter(Boolean)
    .join(', ');

interface SectionListProps {
  beat: Beat;
  layout: Timeline;
  chosen: string | null;
  onChoose: (placeId: string) => void;
  onForms: () => void;
}

/** The sections in their order. */
export const SectionList = ({ beat, layout, chosen, onChoose, onForms }: SectionListProps) => {
  const { order, sections } = beat.song;
  const full = order.length >= SONG.places || sections.length >= SONG.sections;
  const add = (name: string) => {
    if (!name) return;
    const placeId = nanoid();
    editSong({ edit: 'addSection', args: { section: newSection(beat, name), placeId, at: null } });
    onChoose(placeId);
  };
  return (
    <View>
      {songFaults(beat).map((fault) => (
        <Para danger key={fault} note>
          {fault}
        </Para>
      ))}
      {order.length ? (
        <SortableLater
          label={words.sectionsInTheirOrder}
          items={order.flatMap((place) => {
            const section = sections.find(({ id }) => id === place.sectionId);
            if (!section) return [];
            const more = marks(beat, section);
            return [
              {
                id: place.id,
                name: section.name,
                row: (
                  <View
                    style={[
                      styles.row,
                      place.id === chosen && styles.current,
                      { borderLeftColor: `var(--${section.pigment})` },
                    ]}
                  >
                    <Cover
                      label={words.editSection(section.name)}
                      current={place.id === chosen}
                      onPress={() => onChoose(place.id)}
                    />
                    <View style={styles.words}>
                      <Words bold>{`${section.name}${place.times > 1 ? ` × ${place.times}` : ''}`}</Words>
                      <Words small quiet>
                        {playsWords(beat, section)}
                      </Words>
                    </View>
                    <View style={styles.sectionLength}>
                      <Words figure>{lengthWords(beat, section, place, layout)}</Words>
                      {more ? (
                        <Words small quiet>
                          {more}
                        </Words>
                      ) : null}
                    </View>
                  </View>
                ),
              },
            ];
          })}
          onMove={(placeId, to) => editSong({ edit: 'movePlace', args: { placeId, to } })}
        />
      ) : null}
      <View style={styles.songAdd}>
        <Choice
          label={words.addASection}
          short={words.add}
          value=""
          options={[
            { value: '', name: full ? words.theSongIsFull : words.chooseASection },
            ...(full ? [] : SECTION_NAMES.map((name) => ({ value: name, name }))),
          ]}
          onChange={add}
        />
        <Chip onPress={onForms}>{words.forms}</Chip>
      </View>
    </View>
  );
};
