import { nanoid } from '@reduxjs/toolkit';
import { useCallback, useEffect, useState } from 'react';
import { StyleSheet } from 'react-native';
import { instrument, type InstrumentId } from '../../../core/document/instruments';
import { RANGES } from '../../../core/document/ranges';
import { fileName } from '../../../core/document/text';
import type { Beat, OwnKit as Own } from '../../../core/document/schema';
import { SOUND } from '../../../core/document/choices';
import { instrumentOfFile } from '../../../core/samples/fileNames';
import { kitFor } from '../../../core/samples/fitting';
import { kitToldOf } from '../../../core/synthesis/kitList';
import { voicesGiven, type VoiceFile } from '../../../core/samples/newVoice';
import { hearPeaks } from '../../audio/player';
import { beatEdited, kitSet, laneChanged } from '../../store/doc';
import { forgetKit, keepKit, keptKits, type KeptKit } from '../../keeping/keptKits';
import { offerUndo } from '../../store/offers';
import { noticed } from '../../store/slices';
import { browserStorage } from '../../keeping/storage';
import { selectBeat, useAppStore, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { saveBytes } from '../../ui/files';
import { Chips, Group, Item, Items, Line } from '../../ui/Layout';
import { NameInput } from '../../ui/NameInput';
import { Range } from '../../ui/Range';
import { Para, Words } from '../../ui/Words';
import { DropFiles } from '../../web/DropFiles';
import { FilePick } from '../../web/FilePick';
import { useFileField } from '../../web/fileField';
import { askDesk } from '../../workers/askOwn';
import type { KitOpened } from '../../workers/soundDesk';
import { InstrumentChoice } from '../../ui/InstrumentChoice';
import { words } from '../../words/sounds';
import { AUDIO_FILES, takeSounds, tell } from './takeSounds';

const storage = browserStorage();

const styles = StyleSheet.create({
  file: { flexGrow: 0, flexShrink: 1, flexBasis: 120, minWidth: 0 },
});

const namesOf = ({ voices }: Own): string =>
  Object.keys(voices)
    .map((id) => instrument(id as InstrumentId).name.toLowerCase())
    .join(', ');

/** How loud it may get, and what the limiter takes off while it plays. */
const Ceiling = ({ beat }: { beat: Beat }) => {
  const act = useDo();
  const [off, setOff] = useState(0);
  useEffect(
    () =>
      hearPeaks((_, left) => {
        const decibels = Math.round(-200 * Math.log10(left)) / 10;
        setOff((now) => (decibels === now ? now : decibels));
      }),
    [],
  );
  const value = beat.ceiling ?? 0;
  return (
    <>
      <Range
        label={words.ceilingOf}
        short={words.ceiling}
        value={value}
        least={RANGES.ceiling.least}
        most={RANGES.ceiling.most}
        step={0.5}
        shown={value ? words.decibels(value) : words.justBelow}
        onChange={(to, gesture) =>
          act(beatEdited({ edit: { edit: 'setCeiling', args: { ceiling: to || null } }, gesture }))
        }
      />
      <Para quiet>{words.takesOff(words.decibels(off))}</Para>
    </>
  );
};

/** Kits that are kept for all beats. */
const useKept = () => {
  const [kept, setKept] = useState<KeptKit[]>([]);
  const look = useCallback(
    () =>
      void keptKits(storage)
        .then(setKept)
        .catch(() => undefined),
    [],
  );
  useEffect(look, [look]);
  return { kept, look };
};

/** Files that were just given to the kit, the beat they were given to, and what its kit played before. */
interface Given {
  beat: string;
  before: Own['voices'];
  files: VoiceFile[];
}

/** What each file that was given is for, to be changed at once. */
const GivenFiles = ({
  given: { before, files },
  onGive,
}: {
  given: Given;
  onGive: (at: number, drum: InstrumentId | null) => void;
}) => {
  const left = new Set(voicesGiven(before, files).left);
  return (
    <Items label={words.givenFiles}>
      {files.map(({ sample, drum }, at) => (
        <Item key={`${at} ${sample.id}`} ruled>
          <Line>
            <Words style={styles.file}>{sample.file}</Words>
            <InstrumentChoice
              label={words.drumOf(sample.file)}
              value={drum}
              none={words.noDrumYet}
              onChange={(to) => onGive(at, to)}
            />
            {drum && left.has(at) ? <Words quiet>{words.leftOut}</Words> : null}
          </Line>
        </Item>
      ))}
    </Items>
  );
};

/** Sounds of one's own over the kit: from files, kept, opened, saved. */
export const OwnKitPart = ({ beat }: { beat: Beat }) => {
  const act = useDo();
  const store = useAppStore();
  const { kept, look } = useKept();
  const { own, kit } = beat;
  const setKit = (base: string, next: Own | null) =>
    act(beatEdited({ edit: { edit: 'setKit', args: { kit: base, own: next } } }));
  const [following, setFollowing] = useState(false);
  const [given, setGiven] = useState<Given | null>(null);
  const take = async (chosen: File[]) => {
    const samples = await takeSounds(chosen);
    if (!samples.length) return;
    // Taking them in takes a while: they go to what the kit is by now, and to none of another beat.
    const now = selectBeat(store.getState());
    if (now?.id !== beat.id) return tell(words.beatIsGone(beat.name), true);
    const files = samples.map((sample) => ({ sample, drum: instrumentOfFile(sample.file) }));
    const before = now.own?.voices ?? {};
    const { voices, left } = voicesGiven(before, files);
    const unnamed = files.filter(({ drum }) => !drum);
    setGiven({ beat: beat.id, before, files });
    if (unnamed.length) tell(words.notTold(unnamed.map(({ sample }) => `“${sample.file}”`).join(', ')));
    const beyond = left.length - unnamed.length;
    if (beyond) tell(words.beyond(beyond, SOUND.layers), true);
    if (left.length === files.length) return;
    if (following)
      for (const lane of now.lanes) {
        const first = files.find(({ drum }) => drum === lane.instrument);
        const name = first?.sample.file.replace(/\.[^.]+$/, '').slice(0, 40);
        if (name) act(laneChanged({ laneId: lane.id, change: { name } }));
      }
    setKit(now.kit, { name: now.own?.name ?? words.ownKit, voices });
    tell(words.spread(files.length - left.length));
  };
  /** What a file is for, said by hand: the kit plays it at once. */
  const giveTo = (at: number, drum: InstrumentId | null) => {
    if (!given) return;
    const files = given.files.map((one, place) => (place === at ? { ...one, drum } : one));
    setGiven({ ...given, files });
    const { voices } = voicesGiven(given.before, files);
    const now = selectBeat(store.getState())!;
    setKit(now.kit, Object.keys(voices).length ? { name: now.own?.name ?? words.ownKit, voices } : null);
  };
  const { field, choose } = useFileField({
    label: words.filesForKit,
    accept: AUDIO_FILES,
    multiple: true,
    onFiles: (files) => void take(files),
  });
  const save = async () => {
    const bytes = await askDesk<Uint8Array>((far) => far.saveKit({ kit, own: own! }) as Promise<Uint8Array>);
    if (bytes) saveBytes(bytes, `${fileName(own!.name)}.ruddik-kit.zip`, 'application/zip');
    else tell(words.noAnswer, true);
  };
  const openFile = async (bytes: Uint8Array) => {
    const opened = await askDesk<KitOpened>((far) => far.openKit(bytes) as Promise<KitOpened>);
    if (!opened) return tell(words.noAnswer, true);
    if (!opened.ok) return tell(opened.error, true);
    opened.said.forEach((text) => tell(text, true));
    setKit(opened.kit, opened.own);
    tell(words.openedKit(opened.own.name));
  };
  const keep = async () => {
    try {
      await keepKit(storage, { id: nanoid(), kit, own: own! });
      tell(words.keptKit(own!.name));
      look();
    } catch {
      tell(words.noRoom, true);
    }
  };
  const forget = async (one: KeptKit) => {
    try {
      const bringBack = await forgetKit(storage, one);
      const back = () =>
        void bringBack()
          .then(look)
          .catch(() => tell(words.noRoom, true));
      store.dispatch(
        noticed({
          text: words.kitForgotten(one.own.name),
          subject: 'kept kit',
          lasting: true,
          action: { label: words.bringKitBack, does: offerUndo(back, selectBeat(store.getState())) },
        }),
      );
      look();
    } catch {
      tell(words.noRoom, true);
    }
  };
  const suggested = kitFor({ tempo: beat.tempo, instruments: beat.lanes.map((lane) => lane.instrument) });
  return (
    <DropFiles onFiles={(files) => void take(files)}>
      {suggested && suggested.kit !== kit ? (
        <Chips>
          <Words quiet>{words.suggested(kitToldOf(suggested.kit).name, suggested.why)}</Words>
          <Chip onPress={() => act(kitSet({ kit: suggested.kit }))}>
            {words.playKept(kitToldOf(suggested.kit).name)}
          </Chip>
        </Chips>
      ) : null}
      <Group title={words.ownKit}>
        {field}
        {own ? (
          <>
            <NameInput
              label={words.nameOfKit}
              value={own.name}
              onName={(name) => act(beatEdited({ edit: { edit: 'nameKit', args: { name } } }))}
            />
            <Para quiet>{words.voicesOf(own.name, namesOf(own), kitToldOf(kit).name)}</Para>
          </>
        ) : (
          <Para quiet>{words.ownKitAbout}</Para>
        )}
        <Chips>
          <Chip onPress={choose}>{words.spreadFiles}</Chip>
          <Chip pressed={following} onPress={() => setFollowing(!following)}>
            {words.namesFollow}
          </Chip>
          <FilePick label={words.kitFile} accept=".zip" onFile={(_, bytes) => void openFile(bytes)}>
            {words.openKit}
          </FilePick>
          {own ? (
            <>
              <Chip onPress={() => void save()}>{words.saveKit}</Chip>
              <Chip onPress={() => void keep()}>{words.keepKit}</Chip>
              <Chip onPress={() => setKit(kit, null)}>{words.dropKit}</Chip>
            </>
          ) : null}
        </Chips>
        {given?.beat === beat.id ? <GivenFiles given={given} onGive={giveTo} /> : null}
        {kept.length ? (
          <Items label={words.keptKits}>
            {kept.map((one) => (
              <Item key={one.id} ruled>
                <Line>
                  <Chip onPress={() => setKit(one.kit, one.own)}>{words.playKept(one.own.name)}</Chip>
                  <Chip label={words.forgetKept(one.own.name)} onPress={() => void forget(one)}>
                    {words.forget}
                  </Chip>
                </Line>
              </Item>
            ))}
          </Items>
        ) : null}
        <Ceiling beat={beat} />
      </Group>
    </DropFiles>
  );
};
