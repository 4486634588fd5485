import { Cover } from '../../ui/Cover';
import ListItem from '@rneui/themed/dist/ListItem';
import { useRouter } from 'expo-router';
import { useRef, useState, type ReactNode } from 'react';
import { StyleSheet, Text, View } from 'react-native';
import { fileName, writeBeats } from '../../../core/beat/text';
import { keeper } from '../../state/session';
import { viewChanged, type BeatSummary, type SetAside, type ViewState } from '../../state/slices';
import { useApp, useDo } from '../../state/store';
import { Action } from '../../ui/Action';
import { saveBeatFile, saveText } from '../../ui/files';
import { Icon } from '../../ui/Icon';
import { Themed } from '../../ui/Themed';
import { colour, font } from '../../ui/tokens';
import { readAside } from '../../workers/aside';
import { PartsSheet, takeMidi, type Ask, type Asked } from './MidiFile';
import { RenameSheet } from './RenameSheet';
import './beats.css';

const styles = StyleSheet.create({
  item: {
    backgroundColor: 'transparent',
    paddingHorizontal: 0,
    paddingVertical: 4,
    flexWrap: 'wrap',
    gap: 0,
  },
  line: { borderTopWidth: 1, borderTopColor: colour.line },
  title: { fontFamily: font.words, fontSize: 16, fontWeight: '600', color: colour.text },
  under: { fontFamily: font.words, fontSize: 13, color: colour.quiet },
  row: { flexDirection: 'row' },
});

const LARGEST_FILE = 64 * 1024 * 1024;

const about = ({ tempo, meter, bars, newer }: BeatSummary): string =>
  newer
    ? 'Saved by a newer Ruddik; it opens once this one is up to date'
    : tempo
      ? `${tempo} BPM, ${meter}, ${bars} bar${bars === 1 ? '' : 's'}`
      : 'Not read yet';

interface BeatItemProps {
  beat: BeatSummary;
  isOpen: boolean;
  onOpen: () => void;
  onRename: () => void;
}

const BeatItem = ({ beat, isOpen, onOpen, onRename }: BeatItemProps) => {
  const save = async () => {
    if (beat.newer) {
      const text = await keeper.textOf(beat.id);
      if (text !== null) saveText(text, `${fileName(beat.name)}.ruddik.json`);
      return;
    }
    const whole = await keeper.beat(beat.id);
    if (!whole) return;
    saveBeatFile(whole);
    if (isOpen) keeper.taken(whole);
  };
  return (
    <ListItem containerStyle={[styles.item, styles.line]}>
      <ListItem.Content>
        <Cover label={`Open ${beat.name}`} current={isOpen} onPress={onOpen} />
        <Text style={styles.title}>{beat.name}</Text>
        <Text style={styles.under}>{`${about(beat)}${isOpen ? ' · open' : ''}`}</Text>
      </ListItem.Content>
      <View style={styles.row}>
        <Action label={`Rename ${beat.name}`} iconOnly icon={<Icon name="rename" />} onPress={onRename} />
        <Action
          label={`Duplicate ${beat.name}`}
          iconOnly
          icon={<Icon name="copy" />}
          onPress={() => void keeper.duplicate(beat.id)}
        />
        <Action
          label={`Save ${beat.name} to a file`}
          iconOnly
          icon={<Icon name="download" />}
          onPress={() => void save()}
        />
        <Action
          label={`Delete ${beat.name}`}
          iconOnly
          tone="danger"
          icon={<Icon name="remove" />}
          onPress={() => void keeper.remove(beat.id)}
        />
      </View>
    </ListItem>
  );
};

const AsideItem = ({ aside }: { aside: SetAside }) => (
  <ListItem containerStyle={[styles.item, styles.line]}>
    <ListItem.Content>
      <Text style={styles.title}>{aside.name}</Text>
      <Text style={styles.under}>{aside.reason}</Text>
    </ListItem.Content>
    <View style={styles.row}>
      <Action
        label={`Download ${aside.name}`}
        iconOnly
        icon={<Icon name="download" />}
        onPress={() =>
          void keeper.asideText(aside.key).then((text) => saveText(text, `${aside.name}.json.txt`))
        }
      />
      <Action
        label={`Delete ${aside.name}`}
        iconOnly
        tone="danger"
        icon={<Icon name="remove" />}
        onPress={() => void keeper.removeAside(aside.key)}
      />
    </View>
  </ListItem>
);

const THEMES: { id: ViewState['theme']; label: string }[] = [
  { id: 'system', label: 'As the system' },
  { id: 'night', label: 'Night' },
  { id: 'day', label: 'Day' },
];

const Theme = () => {
  const theme = useApp((state) => state.view.theme);
  const act = useDo();
  return (
    <fieldset className="theme">
      <legend>Theme</legend>
      {THEMES.map(({ id, label }) => (
        <label key={id}>
          <input
            type="radio"
            name="theme"
            checked={theme === id}
            onChange={() => act(viewChanged({ theme: id }))}
          />
          {label}
        </label>
      ))}
    </fieldset>
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
      await keeper.check().catch(() => 'The browser’s storage cannot be read.'),
      await checkGrooves(),
    ];
    setTold(found.join(' '));
    setBusy(false);
  };
  return (
    <fieldset className="theme">
      <legend>Storage</legend>
      <Action
        label={busy ? 'Looking through it…' : 'Check what is stored'}
        kind="outline"
        disabled={busy}
        onPress={() => void look()}
      />
      <p className="quiet" role="status">
        {told ?? 'Beats and grooves are kept in this browser. Lists that disagree with them are mended.'}
      </p>
    </fieldset>
  );
};

/** Opens files that a person chooses, or drops onto the list. */
const useFiles = (onDone: () => void) => {
  const input = useRef<HTMLInputElement>(null);
  const [asked, setAsked] = useState<Asked | null>(null);
  const ask: Ask = (name, parts, chosen) =>
    new Promise<string[] | null>((answer) => setAsked({ name, parts, chosen, answer }));
  const take = async (files: Iterable<File>) => {
    const before = keeper.openId();
    for (const file of files) {
      if (file.size > LARGEST_FILE) keeper.refuse(file.name, 'It is larger than 64 MB.');
      else if (/\.midi?$/i.test(file.name)) await takeMidi(file, ask);
      else await keeper.bringIn(file.name, await readAside('readBeats', await file.text()));
    }
    if (keeper.openId() !== before) onDone();
  };
  const field: ReactNode = (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,application/json,.mid,.midi,audio/midi"
        multiple
        hidden
        aria-label="Beat file"
        onChange={(event) => {
          void take([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      {asked ? <PartsSheet key={asked.name} asked={asked} onDone={() => setAsked(null)} /> : null}
    </>
  );
  return { field, choose: () => input.current?.click(), take };
};

/** All beats of this browser. */
export const BeatsScreen = () => {
  const { beats, aside, status } = useApp((state) => state.library);
  const openId = useApp((state) => state.doc.beat?.id);
  const [renaming, setRenaming] = useState<BeatSummary | null>(null);
  const router = useRouter();
  const toPattern = () => router.push('/');
  const files = useFiles(toPattern);

  const open = async (id: string) => {
    if (id === openId || (await keeper.open(id))) toPattern();
  };
  const saveAll = async () => {
    const day = new Date().toISOString().slice(0, 10);
    saveText(writeBeats(await keeper.all()), `all-beats-${day}.ruddik.json`);
  };

  return (
    <Themed>
      <header className="screen-head export-head">
        <div className="titles">
          <h1>Beats</h1>
          <span className="quiet">
            {status === 'ready' ? `${beats.length} in this browser` : 'Looking for beats'}
          </span>
        </div>
        <Action label="Back to the pattern" iconOnly icon={<Icon name="close" />} onPress={toPattern} />
      </header>
      <div
        className="beats"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void files.take([...event.dataTransfer.files]);
        }}
      >
        <div className="beat-actions">
          <Action
            label="New beat"
            kind="filled"
            icon={<Icon name="new" />}
            onPress={() => void keeper.create().then(toPattern)}
          />
          <Action label="Open a file" kind="outline" icon={<Icon name="beats" />} onPress={files.choose} />
          <Action
            label="Save all beats"
            kind="outline"
            icon={<Icon name="download" />}
            onPress={() => void saveAll()}
          />
        </div>
        {files.field}
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
        {status === 'ready' && !beats.length ? (
          <p className="quiet">Beats are kept here as you make them. Begin a new one, or open a file.</p>
        ) : null}
        {aside.map((one) => (
          <AsideItem key={one.key} aside={one} />
        ))}
        <Theme />
        <Stored />
      </div>
      {renaming ? <RenameSheet key={renaming.id} beat={renaming} onClose={() => setRenaming(null)} /> : null}
    </Themed>
  );
};
