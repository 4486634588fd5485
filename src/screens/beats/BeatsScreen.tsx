import { Chips, Group, ScreenHead } from '../../ui/Layout';
import { Page } from '../../ui/Page';
import { Radios } from '../../ui/Radios';
import { buttonRow, rowList } from '../../ui/row';
import { DropFiles } from '../../web/DropFiles';
import { useFileField } from '../../web/fileField';
import { openWindow } from '../../web/openWindow';
import { Para, Words } from '../../ui/Words';
import { Cover } from '../../ui/Cover';
import ListItem from '@rneui/themed/dist/ListItem';
import { useRouter } from 'expo-router';
import { useEffect, useEffectEvent, useState, useSyncExternalStore, type ReactNode } from 'react';
import type { Beat } from '../../../core/document/schema';
import { BeadPicture } from '../../strings/BeadPicture';
import { Badge } from '../../ui/Badge';
import { IconButton } from '../../ui/IconButton';
import { Skeleton } from '../../ui/Skeleton';
import { hearBeat, stopBeat, useStopped } from './hear';
import { StyleSheet, View } from 'react-native';
import { fileName } from '../../../core/document/text';
import { answered, onHanded, takeHanded, toBeAsked } from '../../keeping/handed';
import { persistence } from '../../keeping/session';
import { type BeatSummary, type SetAside } from '../../store/slices';
import { type LookState, themeSet } from '../../store/look';
import { useApp, useDo, useAppStore } from '../../store/store';
import { Action } from '../../ui/Action';
import { saveText } from '../../ui/files';
import { saveAllBeats, saveBeat } from '../saveBeats';
import { Icon } from '../../ui/Icon';
import { colour } from '../../ui/tokens';
import { useWider } from '../../ui/useWide';
import { readAside } from '../../workers/aside';
import { PartsSheet, takeMidi, type Ask, type Asked } from './MidiFile';
import { FolderInStep } from './FolderInStep';
import { RenameSheet } from './RenameSheet';
import { RoomUsed } from './RoomUsed';
import { SharedSheet } from './SharedSheet';
import { keepOpenedKit, openWithSounds } from './withSounds';
import { words } from '../../words/beats';

const styles = StyleSheet.create({
  item: {
    backgroundColor: 'transparent',
    paddingHorizontal: 0,
    paddingVertical: 4,
    flexWrap: 'wrap',
    gap: 0,
  },
  line: { borderTopWidth: 1, borderTopColor: colour.line },
  picture: { width: 112, height: 48, marginRight: 12 },
  names: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  row: { flexDirection: 'row' },
  head: { paddingLeft: 16 },
  beats: { maxWidth: 860 },
  beatsRoomy: { maxWidth: 1440, flexDirection: 'row', alignItems: 'flex-start', gap: 32 },
  list: { flexGrow: 2, flexShrink: 1, flexBasis: 640, minWidth: 0 },
  beside: { flexGrow: 1, flexShrink: 1, flexBasis: 300, maxWidth: 440 },
  actions: { paddingTop: 8, paddingBottom: 16 },
  theme: { borderTopWidth: 1, borderTopColor: colour.line, marginTop: 16, marginBottom: 0 },
});

const LARGEST_FILE = 64 * 1024 * 1024;
const LARGEST_WITH_SOUNDS = 400 * 1024 * 1024;

const about = ({ tempo, meter, bars, newer }: BeatSummary): string =>
  newer
    ? words.savedByANewerRuddik
    : tempo
      ? words.tempoBpmMeterBarsBar(tempo, meter, bars)
      : words.notReadYet;

/** When it was saved, as the system writes days. */
const savedOn = ({ saved }: BeatSummary): string =>
  saved ? new Date(saved).toLocaleDateString(undefined, { dateStyle: 'medium' }) : '';

/** What is in a beat, read once its row is there; null until then, and where it cannot be read. */
const useContent = ({ id, saved, newer }: BeatSummary): Beat | null => {
  const [content, setContent] = useState<Beat | null>(null);
  useEffect(() => {
    if (newer) return;
    let wanted = true;
    void persistence.beat(id).then((beat) => wanted && setContent(beat));
    return () => {
      wanted = false;
    };
  }, [id, saved, newer]);
  return content;
};

interface BeatItemProps {
  beat: BeatSummary;
  isOpen: boolean;
  onOpen: () => void;
  onRename: () => void;
}

const BeatItem = ({ beat, isOpen, onOpen, onRename }: BeatItemProps) => {
  const content = useContent(beat);
  const heard = useApp(({ transport }) => transport.audition?.beat.id === beat.id);
  const save = async () => {
    if (beat.newer) {
      const text = await persistence.textOf(beat.id);
      if (text !== null) saveText(text, `${fileName(beat.name)}.ruddik.json`);
      return;
    }
    const whole = await persistence.beat(beat.id);
    if (!whole) return;
    await saveBeat(whole);
    if (isOpen) persistence.taken(whole);
  };
  return (
    <ListItem containerStyle={[styles.item, styles.line]} {...buttonRow}>
      <View style={styles.picture}>
        {content ? (
          <BeadPicture pattern={content.patterns[0]!} lanes={content.lanes} width={112} height={48} />
        ) : null}
      </View>
      <ListItem.Content>
        <Cover label={words.openBeat(beat.name)} current={isOpen} onPress={onOpen} />
        <View style={styles.names}>
          <Words bold>{beat.name}</Words>
          {isOpen ? <Badge>{words.open}</Badge> : null}
        </View>
        <Words small quiet>
          {[about(beat), savedOn(beat)].filter(Boolean).join(' · ')}
        </Words>
      </ListItem.Content>
      <View style={styles.row}>
        <IconButton
          label={heard ? words.stopBeat(beat.name) : words.hearBeat(beat.name)}
          icon={heard ? 'stop' : 'play'}
          disabled={!content}
          pressed={heard}
          onPress={() => content && (heard ? stopBeat() : hearBeat(content))}
        />
        <Action
          label={words.renameBeat2(beat.name)}
          iconOnly
          icon={<Icon name="rename" />}
          onPress={onRename}
        />
        <Action
          label={words.duplicateBeat(beat.name)}
          iconOnly
          icon={<Icon name="copy" />}
          onPress={() => void persistence.duplicate(beat.id)}
        />
        <Action
          label={words.saveBeatToAFile(beat.name)}
          iconOnly
          icon={<Icon name="download" />}
          onPress={() => void save()}
        />
        <Action
          label={words.deleteBeat(beat.name)}
          iconOnly
          tone="danger"
          icon={<Icon name="remove" />}
          onPress={() => void persistence.remove(beat.id)}
        />
      </View>
    </ListItem>
  );
};

const AsideItem = ({ aside, onOpen }: { aside: SetAside; onOpen: () => void }) => (
  <ListItem containerStyle={[styles.item, styles.line]} {...buttonRow}>
    <ListItem.Content>
      <Words bold>{aside.name}</Words>
      <Words small quiet>
        {aside.reason}
      </Words>
    </ListItem.Content>
    <View style={styles.row}>
      {aside.isBeat ? (
        <Action
          label={words.openAside(aside.name)}
          iconOnly
          icon={<Icon name="beats" />}
          onPress={() => void persistence.openAside(aside.key).then((isOpen) => isOpen && onOpen())}
        />
      ) : null}
      <Action
        label={words.downloadAside(aside.name)}
        iconOnly
        icon={<Icon name="download" />}
        onPress={() =>
          void persistence.asideText(aside.key).then((text) => saveText(text, `${aside.name}.json.txt`))
        }
      />
      <Action
        label={words.deleteAside(aside.name)}
        iconOnly
        tone="danger"
        icon={<Icon name="remove" />}
        onPress={() => void persistence.removeAside(aside.key)}
      />
    </View>
  </ListItem>
);

const THEMES: { value: LookState['theme']; name: string }[] = [
  { value: 'system', name: words.asTheSystem },
  { value: 'night', name: words.night },
  { value: 'day', name: words.day },
];

const Theme = () => {
  const theme = useApp((state) => state.look.theme);
  const act = useDo();
  return (
    <Group title={words.theme} style={styles.theme}>
      <Radios label={words.theme} value={theme} options={THEMES} onChange={(to) => act(themeSet(to))} />
    </Group>
  );
};

/** All that is kept is looked through, and what was found is said. */
const Stored = () => {
  const [told, setTold] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const look = async () => {
    setBusy(true);
    const { checkGrooves } = await import('../later');
    const found = [
      await persistence.check().catch(() => words.theBrowsersStorageCannotBe),
      await checkGrooves(),
    ];
    setTold(found.join(' '));
    setBusy(false);
  };
  return (
    <Group title={words.storage} style={styles.theme}>
      <Chips>
        <Action
          label={busy ? words.lookingThroughIt : words.checkWhatIsStored}
          kind="outline"
          disabled={busy}
          onPress={() => void look()}
        />
      </Chips>
      <Para quiet live>
        {told ?? words.beatsAndGroovesAreKept}
      </Para>
      <FolderInStep />
      <RoomUsed />
    </Group>
  );
};

/** Opens files that a person chooses, or drops onto the list. */
const useFiles = (onDone: () => void) => {
  const store = useAppStore();
  const [asked, setAsked] = useState<Asked | null>(null);
  const ask: Ask = (name, parts, chosen) =>
    new Promise<string[] | null>((answer) => setAsked({ name, parts, chosen, answer }));
  const take = async (files: Iterable<File>) => {
    const before = persistence.openId();
    for (const file of files) {
      const zip = /\.zip$/i.test(file.name);
      if (file.size > (zip ? LARGEST_WITH_SOUNDS : LARGEST_FILE))
        persistence.refuse(file.name, zip ? words.itIsLargerThan400 : words.itIsLargerThan64);
      else if (/\.ruddik-kit\.zip$/i.test(file.name)) await keepOpenedKit(file);
      else if (zip) await persistence.bringIn(file.name, await openWithSounds(file));
      else if (/\.midi?$/i.test(file.name)) await takeMidi(store, file, ask);
      else await persistence.bringIn(file.name, await readAside('readBeats', await file.text()));
    }
    if (persistence.openId() !== before) onDone();
  };
  const { field, choose } = useFileField({
    label: words.beatFile,
    accept: '.json,application/json,.zip,application/zip,.mid,.midi,audio/midi',
    multiple: true,
    onFiles: (files) => void take(files),
  });
  const fields: ReactNode = (
    <>
      {field}
      {asked ? <PartsSheet key={asked.name} asked={asked} onDone={() => setAsked(null)} /> : null}
    </>
  );
  return { fields, choose, take };
};

/** Opens what the system handed over; what was sent from elsewhere is asked about. */
const useHanded = (take: (files: File[]) => Promise<void>): ReactNode => {
  const shared = useSyncExternalStore(onHanded, toBeAsked);
  const opens = useEffectEvent(() => {
    const files = takeHanded();
    if (files.length) void take(files);
  });
  useEffect(() => {
    opens();
    return onHanded(opens);
  }, []);
  if (!shared) return null;
  const answer = (wanted: boolean) => {
    answered();
    if (wanted) void take(shared.files);
  };
  return <SharedSheet shared={shared} onAnswer={answer} />;
};

/** All beats of this browser. */
export const BeatsScreen = () => {
  const { beats, aside, status } = useApp((state) => state.library);
  const openId = useApp((state) => state.doc.beat?.id);
  const [renaming, setRenaming] = useState<BeatSummary | null>(null);
  const router = useRouter();
  const roomy = useWider(1200);
  const toPattern = () => router.push('/');
  const files = useFiles(toPattern);
  const asked = useHanded(files.take);
  useStopped();

  const open = async (id: string) => {
    if (id === openId || (await persistence.open(id))) toPattern();
  };
  const saveAll = async () => {
    const day = new Date().toISOString().slice(0, 10);
    await saveAllBeats(await persistence.all(), day);
  };

  return (
    <>
      <ScreenHead
        title={words.beats}
        style={styles.head}
        under={
          <Words quiet>
            {status === 'ready' ? words.manyInThisBrowser(beats.length) : words.lookingForBeats}
          </Words>
        }
      >
        <Action label={words.backToThePattern} iconOnly icon={<Icon name="close" />} onPress={toPattern} />
      </ScreenHead>
      <DropFiles onFiles={(dropped) => void files.take(dropped)}>
        <Page inner={roomy ? styles.beatsRoomy : styles.beats}>
          <View style={roomy && styles.list} {...rowList}>
            <Chips style={styles.actions}>
              <Action
                label={words.newBeat}
                kind="filled"
                icon={<Icon name="new" />}
                onPress={() => void persistence.create().then(toPattern)}
              />
              <Action
                label={words.openAFile}
                kind="outline"
                icon={<Icon name="beats" />}
                onPress={files.choose}
              />
              <Action
                label={words.saveAllBeats}
                kind="outline"
                icon={<Icon name="download" />}
                onPress={() => void saveAll()}
              />
            </Chips>
            {files.fields}
            {asked}
            {status !== 'ready' && !beats.length ? (
              <Skeleton label={words.lookingForBeats} height={60} />
            ) : null}
            {[...beats]
              .sort((a, b) => b.saved - a.saved)
              .map((beat) => (
                <BeatItem
                  key={beat.id}
                  beat={beat}
                  isOpen={beat.id === openId}
                  onOpen={() => void open(beat.id)}
                  onRename={() => setRenaming(beat)}
                />
              ))}
            {status === 'ready' && !beats.length ? <Para quiet>{words.beatsAreKeptHereAs}</Para> : null}
            {aside.map((one) => (
              <AsideItem key={one.key} aside={one} onOpen={toPattern} />
            ))}
          </View>
          <View style={roomy && styles.beside}>
            <Theme />
            <Stored />
            <Group title={words.aboutRuddik} style={styles.theme}>
              <Chips>
                <Action label={words.licences} kind="outline" onPress={() => openWindow('/licences')} />
              </Chips>
            </Group>
          </View>
        </Page>
      </DropFiles>
      {renaming ? <RenameSheet key={renaming.id} beat={renaming} onClose={() => setRenaming(null)} /> : null}
    </>
  );
};
