import { drag } from '../../ui/dragged';
import { DragOut } from '../../web/DragOut';
import { SetDown } from '../../web/SetDown';
import { Chips, Items, Item } from '../../ui/Layout';
import { Press } from '../../ui/Press';
import { Words, Para, Heading } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { nanoid } from '@reduxjs/toolkit';
import { use } from 'react';
import { meterText } from '../../../core/document/meter';
import type { Beat, Pattern } from '../../../core/document/schema';
import { count } from '../../../core/document/text';
import { newEntry } from '../../../core/edit/song';
import { colourOf, freeSectionName } from '../../../core/document/sectionNames';
import { songTried } from '../../store/transport';
import { useApp, useDo, useAppStore } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { NameInput } from '../../ui/NameInput';
import { PlayContext } from '../../ui/playing';
import { SortableLater } from '../../web/SortableLater';
import { BeadPicture } from '../../strings/BeadPicture';
import { editSong } from './edit';
import { words } from '../../words/song';

/** The tray as a song of its own: each once, in order. */
const trayBeat = (beat: Beat, from: number): Beat => {
  const items = beat.tray.slice(from);
  return {
    ...beat,
    song: {
      sections: items.map(({ id, name, patternId }) => ({
        id,
        name,
        pigment: 'walnut',
        entries: [newEntry(id, patternId)],
        silent: [],
      })),
      order: items.map(({ id }) => ({ id, sectionId: id, times: 1 })),
    },
  };
};

const Picture = ({ beat, pattern }: { beat: Beat; pattern: Pattern | undefined }) =>
  pattern ? (
    <BeadPicture pattern={pattern} lanes={beat.lanes} width={80} height={40} />
  ) : (
    <View style={styles.gone} aria-hidden />
  );

const rename = (id: string, now: string, name: string) => {
  if (name.trim() && name.trim() !== now) editSong({ edit: 'renameInTray', args: { id, name } });
};

const asSection = (beat: Beat, name: string, patternId: string) => {
  const free = freeSectionName(beat.song, name);
  editSong({
    edit: 'addSection',
    args: {
      section: {
        id: nanoid(),
        name: free,
        pigment: colourOf(name),
        entries: [newEntry(nanoid(), patternId)],
        silent: [],
      },
      placeId: nanoid(),
      at: null,
    },
  });
};

const setAside = (beat: Beat, patternId: string) => {
  const pattern = beat.patterns.find(({ id }) => id === patternId);
  if (pattern) editSong({ edit: 'toTray', args: { id: nanoid(), name: pattern.name, patternId } });
};

/** What was set aside for the song, and the patterns that can be. */
export const TrayPage = ({ beat, wide }: { beat: Beat; wide: boolean }) => {
  const store = useAppStore();
  const toggle = use(PlayContext);
  const act = useDo();
  const playing = useApp(({ transport }) => transport.playing && transport.song.tried !== null);
  const play = (from: number) => {
    if (store.getState().transport.playing) toggle();
    act(songTried({ tried: trayBeat(beat, from), from: 0, loop: null }));
    toggle();
  };
  const patternOf = (id: string) => beat.patterns.find((pattern) => pattern.id === id);
  return (
    <View>
      <SetDown>
        {(over) => (
          <View role="region" aria-label={words.tray} style={over && styles.over}>
            <Chips>
              <Chip
                disabled={!beat.tray.length}
                pressed={playing}
                onPress={() => (playing ? toggle() : play(0))}
              >
                {playing ? words.stop : words.playInOrder}
              </Chip>
            </Chips>
            {beat.tray.length ? (
              <SortableLater
                label={words.trayInItsOrder}
                items={beat.tray.map(({ id, name, patternId }, at) => {
                  const pattern = patternOf(patternId);
                  return {
                    id,
                    name,
                    row: (
                      <View style={styles.trayRow}>
                        <Press
                          style={styles.trayPlay}
                          label={words.playTheTrayFromName(name)}
                          disabled={!pattern}
                          onPress={() => play(at)}
                        >
                          <Picture beat={beat} pattern={pattern} />
                        </Press>
                        <View style={styles.trayWords}>
                          <NameInput
                            label={words.nameOfNameInThe(name)}
                            value={name}
                            onName={(to) => rename(id, name, to)}
                          />
                          <Words small quiet>
                            {pattern
                              ? `${meterText(pattern.meter)}, ${count(pattern.bars, 'bar')}`
                              : words.itsPatternWasDeleted}
                          </Words>
                        </View>
                        <IconButton
                          label={words.addNameToTheSong(name)}
                          icon="new"
                          disabled={!pattern}
                          onPress={() => asSection(beat, name, patternId)}
                        />
                        <IconButton
                          label={words.takeNameOffTheTray(name)}
                          icon="close"
                          onPress={() => editSong({ edit: 'fromTray', args: { id } })}
                        />
                      </View>
                    ),
                  };
                })}
                onMove={(id, to) => editSong({ edit: 'moveInTray', args: { id, to } })}
              />
            ) : (
              <Para quiet>{words.setPatternsAndGroovesAside}</Para>
            )}
          </View>
        )}
      </SetDown>
      <View role="region" aria-label={words.patternsOfTheBeat}>
        <Heading level={2}>{words.patternsOfTheBeat}</Heading>
        {wide ? <Para quiet>{words.dragOneUpIntoThe}</Para> : null}
        <Items label={words.patterns}>
          {beat.patterns.map((pattern) => (
            <Item key={pattern.id}>
              <DragOut
                when={wide}
                onStart={(event) => {
                  event.dataTransfer.setData('text/plain', pattern.name);
                  drag(() => setAside(beat, pattern.id));
                }}
                onEnd={() => drag(null)}
              >
                <View style={styles.line}>
                  <Picture beat={beat} pattern={pattern} />
                  <View style={styles.trayWords}>
                    <Words bold>{pattern.name}</Words>
                    <Words small quiet>{`${meterText(pattern.meter)}, ${count(pattern.bars, 'bar')}`}</Words>
                  </View>
                  <Chip
                    label={words.intoTheTrayPattern(pattern.name)}
                    onPress={() => setAside(beat, pattern.id)}
                  >
                    {words.intoTheTray}
                  </Chip>
                </View>
              </DragOut>
            </Item>
          ))}
        </Items>
      </View>
    </View>
  );
};
