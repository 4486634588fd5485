import { useWide } from '../../ui/useWide';
import { Para, Words } from '../../ui/Words';
import { Chips, Items, Item } from '../../ui/Layout';
import { Press } from '../../ui/Press';
import { View } from 'react-native';
import { styles } from './styles';
import { nanoid } from '@reduxjs/toolkit';
import { use, useEffect, useRef, useState } from 'react';
import type { Beat } from '../../../core/document/schema';
import { recordedSong } from '../../../core/edit/recorded';
import { heardPatterns, heardSeconds } from '../../audio/player';
import { noticed } from '../../store/slices';
import { patternShown } from '../../store/focus';
import { songShown, switchAtSet } from '../../store/transport';
import { useApp, useDo, type Store, useAppStore } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { PlayContext } from '../../ui/playing';
import { SwitchWhen } from '../../ui/SwitchWhen';
import { BeadPicture } from '../../strings/BeadPicture';
import { editSong } from './edit';
import { words } from '../../words/song';

/** Adds what has been played since play began to the song. */
const keepRecording = (store: Store) => {
  const { doc } = store.getState();
  if (!doc.beat) return;
  const song = recordedSong(doc.beat, heardPatterns(), heardSeconds(), nanoid);
  const added = song.order.length - doc.beat.song.order.length;
  if (added > 0) editSong({ edit: 'setSong', args: { song } });
  store.dispatch(
    noticed({
      text: added ? words.addedToTheSongAs(added) : words.nothingWasRecordedNoPattern,
      subject: 'recorded',
    }),
  );
};

/** Patterns switched live, and what was switched written into the song. */
export const LivePage = ({ beat }: { beat: Beat }) => {
  const toggle = use(PlayContext);
  const store = useAppStore();
  const wide = useWide();
  const act = useDo();
  const playing = useApp(({ transport }) => transport.playing && !transport.song.playing);
  const patternId = useApp(({ focus, doc }) => focus.patternId ?? doc.beat?.patterns[0]?.id);
  const switchAt = useApp(({ transport }) => transport.switchAt);
  const [recording, setRecording] = useState(false);
  const was = useRef(false);
  /** What was recorded is in the song already, since one went elsewhere. */
  const kept = useRef(false);
  // Here the pattern plays, and not the song.
  useEffect(() => {
    act(songShown(false));
    return () => {
      act(songShown(true));
    };
  }, [act]);
  useEffect(() => {
    if (was.current && !playing && recording) {
      if (!kept.current) keepRecording(store);
      setRecording(false);
    }
    was.current = playing;
  }, [playing, recording, store]);
  // Who goes elsewhere in the midst of it keeps what was recorded so far.
  const underWay = useRef(false);
  useEffect(() => {
    underWay.current = recording && playing;
  }, [recording, playing]);
  useEffect(() => {
    // Who comes back finds it ended: the same take is not added once more.
    if (kept.current) setRecording(false);
    kept.current = false;
    return () => {
      if (!underWay.current) return;
      underWay.current = false;
      kept.current = true;
      keepRecording(store);
    };
  }, [store]);
  return (
    <View>
      <Para quiet>{words.switchPatternsWhileTheyPlay}</Para>
      <Chips>
        <Chip
          pressed={recording}
          tone="danger"
          onPress={() => {
            if (recording) {
              toggle();
              return;
            }
            if (playing) toggle();
            setRecording(true);
            toggle();
          }}
        >
          {recording ? words.stopAndKeepIt : words.recordTheSwitches}
        </Chip>
        {recording ? null : (
          <Chip pressed={playing} onPress={toggle}>
            {playing ? words.stop : words.play}
          </Chip>
        )}
      </Chips>
      <SwitchWhen value={switchAt} onChange={(value) => act(switchAtSet(value))} />
      <Items style={wide && styles.twoColumns} label={words.patterns}>
        {beat.patterns.map((pattern) => (
          <Item key={pattern.id} style={wide && styles.half}>
            <Press
              pressed={pattern.id === patternId}
              label={words.switchToPattern(pattern.name)}
              style={[
                styles.row,
                pattern.id === patternId && styles.current,
                { borderLeftColor: `var(--${pattern.pigment ?? 'walnut'})` },
              ]}
              onPress={() => act(patternShown(pattern.id))}
            >
              <BeadPicture pattern={pattern} lanes={beat.lanes} width={112} height={40} />
              <Words bold>{pattern.name}</Words>
            </Press>
          </Item>
        ))}
      </Items>
    </View>
  );
};
