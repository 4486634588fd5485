import { numbered } from '../../../core/document/numbered';
import { Page } from '../../ui/Page';
import { Chips } from '../../ui/Layout';
import { Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { useState } from 'react';
import { useKept } from '../../ui/useKept';
import type { Groove } from '../../../core/groove/groove';
import {
  drumMapText,
  GENERAL_MIDI,
  isPlayable,
  shifted,
  type DrumMap,
} from '../../../core/midi/drumMap/drumMap';
import { midnamText } from '../../../core/midi/drumMap/mapFiles';
import type { MapPreview } from '../../../core/midi/drumMap/mapPreview';
import { fileName } from '../../../core/document/text';
import { groovesChanged } from '../../store/grooves';
import { offer } from '../../store/offers';
import { noticed } from '../../store/slices';
import { useApp, useDo, useAppStore } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { FilePick } from '../../web/FilePick';
import { saveBytes, saveText } from '../../ui/files';
import { NameField } from '../../ui/NameField';
import { Tabs } from '../../ui/Tabs';
import { readAside } from '../../workers/aside';
import { GuessMap } from './GuessMap';
import { MapEditor } from './MapEditor';
import { MapPreviewTable } from './MapPreviewTable';
import { WriteWith } from './WriteWith';
import { shelf } from './shelf';
import { words } from '../../words/grooves';

const freeName = (maps: DrumMap[], wanted: string): string =>
  numbered(
    wanted,
    [GENERAL_MIDI, ...maps].map(({ name }) => name),
  );

const PAGES = [
  { id: 'edit', name: words.notes },
  { id: 'write', name: words.writeTheBeat },
  { id: 'guess', name: words.guess },
] as const;
type Page = (typeof PAGES)[number]['id'];

/** Drum maps: what note numbers mean, made and changed, and the beat written with one. */
export const MapsPage = ({ heard }: { heard: Groove | null }) => {
  const store = useAppStore();
  const { maps, readWith } = useApp((state) => state.grooves);
  const act = useDo();
  const [name, setName] = useKept('map that is edited', GENERAL_MIDI.name);
  const [page, setPage] = useKept<Page>('page of the maps', 'edit');
  const [preview, setPreview] = useState<MapPreview | null>(null);
  const all = [GENERAL_MIDI, ...maps];
  const map = all.find((one) => one.name === name) ?? GENERAL_MIDI;
  const own = map !== GENERAL_MIDI;

  const add = (made: DrumMap) => {
    const named = { ...made, name: freeName(maps, made.name) };
    act(groovesChanged({ maps: [...maps, named] }));
    setName(named.name);
    setPage('edit');
    return named.name;
  };
  const change = (changed: DrumMap, told?: string) => {
    if (!own) return void add({ ...changed, name: words.myMap });
    act(groovesChanged({ maps: maps.map((one) => (one === map ? changed : one)) }));
    if (!told) return;
    const before = () => {
      const { maps: now } = store.getState().grooves;
      act(groovesChanged({ maps: now.map((one) => (one.name === map.name ? map : one)) }));
    };
    act(noticed({ text: told, subject: 'maps', action: { label: words.undo, does: offer(before) } }));
  };
  const shift = (by: number) => {
    const changed = shifted(map, by);
    const beyond = changed.notes.filter((one) => !isPlayable(one)).length;
    const kept = beyond ? words.beyondOfThemBeyond0(beyond) : '';
    change(changed, words.allNotesWereShiftedBy(by, kept));
  };
  const remove = () => {
    const bringBack = () => {
      const { maps: now } = store.getState().grooves;
      const back = { ...map, name: freeName(now, map.name) };
      act(groovesChanged({ maps: [...now, back], ...(readWith === map.name && { readWith: back.name }) }));
    };
    act(
      groovesChanged({
        maps: maps.filter((one) => one !== map),
        ...(readWith === map.name && { readWith: GENERAL_MIDI.name }),
      }),
    );
    setName(GENERAL_MIDI.name);
    act(
      noticed({
        text: words.theDrumMapMapIs(map.name),
        subject: 'maps',
        action: { label: words.undo, does: offer(bringBack) },
      }),
    );
  };
  const refuse = (file: string, why: string) =>
    act(noticed({ text: words.fileWasNotTakenIn(file, why), tone: 'danger', subject: 'maps' }));
  const open = async (file: string, bytes: Uint8Array) => {
    const text = new TextDecoder().decode(bytes);
    if (/\.json$/i.test(file)) {
      const read = await readAside('readDrumMap', text);
      if (read.ok) add(read.value);
      else refuse(file, read.error);
      return;
    }
    const plain = file.replace(/\.\w+$/, '');
    const read = /\.(midnam|xml)$/i.test(file)
      ? await readAside('readMidnam', text)
      : await readAside('readMapCsv', text, plain);
    if (read.ok) setPreview(read.value);
    else refuse(file, read.error);
  };
  const saveMidnam = () => {
    saveBytes(new TextEncoder().encode(midnamText(map)), `${fileName(map.name)}.midnam`, 'application/xml');
  };

  if (preview)
    return (
      <MapPreviewTable
        preview={preview}
        onCancel={() => setPreview(null)}
        onTake={(made) => {
          add(made);
          setPreview(null);
        }}
      />
    );
  return (
    <Page inner={styles.mapsPage}>
      <View style={styles.choices}>
        <Choice
          label={words.drumMap}
          short={words.drumMap}
          value={map.name}
          options={all.map((one) => ({ value: one.name, name: `${one.name} (${one.notes.length})` }))}
          onChange={setName}
        />
        <Choice
          label={words.newFilesAreReadWith}
          short={words.forNewFiles}
          value={readWith}
          options={all.map((one) => ({ value: one.name, name: one.name }))}
          onChange={(value) => act(groovesChanged({ readWith: value }))}
        />
      </View>
      <Chips>
        <Chip onPress={() => add({ ...map, name: words.mapCopy(map.name) })}>{words.copyIt}</Chip>
        <Chip onPress={() => add({ ...GENERAL_MIDI, name: words.emptyMap, notes: [] })}>
          {words.newEmptyMap}
        </Chip>
        <FilePick
          label={words.drumMapFile}
          accept=".json,.midnam,.xml,.csv,.txt"
          onFile={(file, bytes) => void open(file, bytes)}
        >
          {words.openAMap}
        </FilePick>
        <Chip onPress={() => saveText(drumMapText(map), `${fileName(map.name)}.map.json`)}>
          {words.saveAsJson}
        </Chip>
        <Chip onPress={saveMidnam}>{words.saveAsMidnam}</Chip>
        <Chip onPress={() => shift(-12)}>{words.octaveDown}</Chip>
        <Chip onPress={() => shift(12)}>{words.octaveUp}</Chip>
        {own ? (
          <Chip tone="danger" onPress={remove}>
            {words.delete}
          </Chip>
        ) : null}
      </Chips>
      {own ? (
        <NameField
          label={words.newNameOfTheMap}
          action={words.rename}
          onGive={(given) => {
            const named = freeName(
              maps.filter((one) => one !== map),
              given,
            );
            act(
              groovesChanged({
                maps: maps.map((one) => (one === map ? { ...map, name: named } : one)),
                // What is read with it follows its name.
                ...(readWith === map.name && { readWith: named }),
              }),
            );
            void shelf.renameMap(map.name, named);
            setName(named);
          }}
        />
      ) : (
        <Para quiet>{words.generalMidiIsBuiltIn}</Para>
      )}
      <Tabs label={words.drumMap} tabs={PAGES} value={page} onChange={setPage} />
      {page === 'edit' ? <MapEditor map={map} onChange={change} /> : null}
      {page === 'write' ? <WriteWith map={map} /> : null}
      {page === 'guess' ? <GuessMap heard={heard} onMake={add} /> : null}
    </Page>
  );
};
