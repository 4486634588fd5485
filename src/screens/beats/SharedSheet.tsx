import { nanoid } from '@reduxjs/toolkit';
import { useEffect, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import type { Beat } from '../../../core/document/schema';
import type { SharedBeat } from '../../keeping/handed';
import { useApp } from '../../store/store';
import { BeadPicture } from '../../strings/BeadPicture';
import { Action } from '../../ui/Action';
import { Dialog } from '../../ui/Dialog';
import { IconButton } from '../../ui/IconButton';
import { Item, Items } from '../../ui/Layout';
import { Para, Words } from '../../ui/Words';
import { words } from '../../words/beats';
import { readAside } from '../../workers/aside';
import { hearBeat, stopBeat } from './hear';

const styles = StyleSheet.create({
  beat: { flexDirection: 'row', alignItems: 'center', gap: 12, paddingTop: 4 },
  // Fifty files would push the answers off a phone.
  files: { maxHeight: 320 },
  name: { flexGrow: 1, flexShrink: 1, minWidth: 0 },
});

/** Larger ones are named and not looked into before they are wanted. */
const LOOKED_INTO = 16 * 1024 * 1024;

/** What is in a file, as far as it can be shown without keeping anything of it. */
interface Looked {
  name: string;
  beats: Beat[];
  fault: string | null;
}

const look = async (file: File): Promise<Looked> => {
  const { name } = file;
  const found = (beats: Beat[], fault: string | null = null): Looked => ({ name, beats, fault });
  if (file.size > LOOKED_INTO || /\.zip$/i.test(name)) return found([]);
  if (/\.midi?$/i.test(name)) {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const read = await readAside('beatFromMidi', bytes, name.replace(/\.[^.]*$/, ''), nanoid(), 1);
    return read.ok ? found([read.value.beat]) : found([], read.error);
  }
  const read = await readAside('readBeats', await file.text());
  if (!read.ok) return found([], read.error);
  const { beats, faults } = read.value;
  return found(beats, beats.length ? null : (faults[0] ?? words.noBeatInIt));
};

const SharedBeat = ({ beat }: { beat: Beat }) => {
  const heard = useApp(({ transport }) => transport.audition?.beat.id === beat.id);
  return (
    <View style={styles.beat}>
      <BeadPicture pattern={beat.patterns[0]!} lanes={beat.lanes} width={112} height={48} />
      <Words style={styles.name} bold>
        {beat.name}
      </Words>
      <IconButton
        label={heard ? words.stopBeat(beat.name) : words.hearBeat(beat.name)}
        icon={heard ? 'stop' : 'play'}
        pressed={heard}
        onPress={() => (heard ? stopBeat() : hearBeat(beat))}
      />
    </View>
  );
};

/**
 * Files that something sent to the app: shown and heard, and added only where that is wanted. Any page may send some.
 *
 * @param onAnswer hears whether they are wanted
 */
export const SharedSheet = ({
  shared,
  onAnswer,
}: {
  shared: SharedBeat;
  onAnswer: (wanted: boolean) => void;
}) => {
  const [looked, setLooked] = useState<Looked[] | null>(null);
  useEffect(() => {
    let wanted = true;
    void Promise.all(
      shared.files.map((file) =>
        look(file).catch(() => ({ name: file.name, beats: [], fault: words.notReadable })),
      ),
    ).then((all) => wanted && setLooked(all));
    return () => {
      wanted = false;
    };
  }, [shared]);
  const answer = (wanted: boolean) => {
    stopBeat();
    onAnswer(wanted);
  };
  const isAny = looked?.some(({ fault }) => !fault) ?? false;
  return (
    <Dialog
      title={words.addWhatWasSent(shared.files.length)}
      open
      onClose={() => answer(false)}
      actions={
        <>
          <Action label={words.doNotAdd} onPress={() => answer(false)} />
          <Action label={words.addToBeats} kind="filled" disabled={!isAny} onPress={() => answer(true)} />
        </>
      }
    >
      <Para quiet>{words.sentAbout}</Para>
      {looked ? (
        <ScrollView
          style={styles.files}
          {...({ tabIndex: 0, role: 'group', 'aria-label': words.whatWasSent } as object)}
        >
          <Items label={words.whatWasSent}>
            {looked.map(({ name, beats, fault }, at) => (
              <Item key={`${at} ${name}`} ruled>
                <Words small quiet>
                  {fault ? `${name}: ${fault}` : name}
                </Words>
                {beats.map((beat) => (
                  <SharedBeat key={beat.id} beat={beat} />
                ))}
              </Item>
            ))}
          </Items>
        </ScrollView>
      ) : (
        <Para quiet live>
          {words.lookingThroughIt}
        </Para>
      )}
    </Dialog>
  );
};
