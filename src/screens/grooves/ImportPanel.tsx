import { Page } from '../../ui/Page';
import { Progress } from '../../ui/Progress';
import { useFileField } from '../../web/fileField';
import { hireImporter } from '../../workers/makers';
import { Disclosure } from '../../ui/Disclosure';
import { Items, Item } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import type { FileWithPath } from 'file-selector';
import { useRef, useState, type ReactNode } from 'react';
import type { LeftOut, TakenIn } from '../../../core/groove/importing';
import { useApp, useAppStore } from '../../store/store';
import type { FromImport } from '../../workers/importer';
import { Chip } from '../../ui/Chip';
import { shelf } from './shelf';
import { runImport, type ImportHearer } from './importRun';
import { takeOff } from './takeOff';
import { words } from '../../words/grooves';

/** How far an import is, and what came of it. */
interface Import {
  done: number;
  total: number;
  running: boolean;
  cancelled: boolean;
  full: boolean;
  /** What reads the files did not come. */
  broken: boolean;
  /** The ids of what was taken in. */
  taken: string[];
  /** So many files were on the list before, byte for byte: they are kept once, and taken off with none of these. */
  again: number;
  notes: number;
  doubles: number;
  cut: number;
  left: LeftOut[];
  warned: { path: string; warnings: string[] }[];
}

const NOTHING: Import = {
  done: 0,
  total: 0,
  running: true,
  cancelled: false,
  full: false,
  broken: false,
  taken: [],
  again: 0,
  notes: 0,
  doubles: 0,
  cut: 0,
  left: [],
  warned: [],
};

const sum = (taken: TakenIn[], of: (one: TakenIn) => number) => taken.reduce((all, one) => all + of(one), 0);

const further = (
  now: Import,
  { done, total, taken, left }: Extract<FromImport, { type: 'progress' }>,
  again: number,
): Import => ({
  ...now,
  done,
  total,
  again: now.again + again,
  taken: [...now.taken, ...taken.map(({ indexed }) => indexed.row.id)],
  notes: now.notes + sum(taken, ({ indexed }) => indexed.hits),
  doubles: now.doubles + sum(taken, ({ doubles }) => doubles),
  cut: now.cut + sum(taken, ({ cut }) => cut),
  left: [...now.left, ...left],
  warned: [
    ...now.warned,
    ...taken
      .filter(({ warnings }) => warnings.length)
      .map(({ indexed, warnings }) => ({ path: indexed.row.id.slice('imported/'.length), warnings })),
  ],
});

export interface Importing {
  now: Import | null;
  cancel: () => void;
  close: () => void;
  chooseFiles: () => void;
  chooseFolder: () => void;
  /** What is dropped onto the list. */
  take: (files: FileWithPath[]) => void;
  fields: ReactNode;
}

const pathOf = (file: File | FileWithPath): string =>
  (file.webkitRelativePath || ('path' in file && file.path) || file.name).replace(/^\.?\//, '');

/** Files, folders and archives taken in, in a worker. */
export const useImport = (): Importing => {
  const store = useAppStore();
  const [now, setNow] = useState<Import | null>(null);
  const running = useRef<ReturnType<typeof runImport> | null>(null);

  const begin = (chosen: (File | FileWithPath)[]) => {
    if (!chosen.length) return;
    running.current?.cancel();
    const added: TakenIn[] = [];
    const seen = new Set<string>();
    let mine: typeof running.current = null;
    const hear: ImportHearer = (message) => {
      if (mine && running.current !== mine) return;
      if (message.type === 'progress') {
        const taken = message.taken.filter(({ indexed }) => {
          const { id } = indexed.row;
          const isNew = !seen.has(id) && !shelf.indexed(id);
          seen.add(id);
          return isNew;
        });
        added.push(...message.taken);
        setNow((before) =>
          further(before ?? NOTHING, { ...message, taken }, message.taken.length - taken.length),
        );
        return;
      }
      // The list is built anew once, not at every hundred files.
      shelf.add(added.map(({ indexed }) => indexed));
      const { cancelled, full, broken = false } = message;
      setNow((before) => ({ ...(before ?? NOTHING), running: false, cancelled, full, broken }));
    };
    setNow({ ...NOTHING, total: chosen.length });
    mine = running.current = runImport({
      chosen: chosen.map((file) => ({ path: pathOf(file), file })),
      map: shelf.mapNamed(store.getState().grooves.readWith),
      hire: hireImporter,
      hear,
    });
  };
  const files = useFileField({
    label: words.midiFiles,
    accept: '.mid,.midi,.zip,audio/midi,application/zip',
    multiple: true,
    onFiles: begin,
  });
  const folder = useFileField({
    label: words.folderOfMidiFiles,
    multiple: true,
    folder: true,
    onFiles: begin,
  });
  return {
    now,
    cancel: () => running.current?.cancel(),
    close: () => setNow(null),
    chooseFiles: files.choose,
    chooseFolder: folder.choose,
    take: begin,
    fields: (
      <>
        {files.field}
        {folder.field}
      </>
    ),
  };
};

const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** So many files that were taken in with a word are named; of those left out every one is. */
const MOST_WARNED = 200;

interface NamedProps {
  title: string;
  files: { path: string; why: string }[];
  open: boolean;
}

/** Files and what is said of them; made only when it is looked at, since it may be long. */
const Named = ({ title, files, open }: NamedProps) => (
  <Disclosure title={title} open={open} style={styles.whole}>
    <Items>
      {files.map(({ path, why }, at) => (
        <Item key={`${at} ${path}`}>
          <Words small>
            <Words inline bold>
              {path}
            </Words>
            {` ${why}`}
          </Words>
        </Item>
      ))}
    </Items>
  </Disclosure>
);

const Lists = ({ now }: { now: Import }) => {
  const more = now.warned.length - MOST_WARNED;
  const warned = now.warned
    .slice(0, MOST_WARNED)
    .map(({ path, warnings }) => ({ path, why: warnings.join(' ') }));
  if (more > 0) warned.push({ path: '', why: words.andMoreMore(more) });
  return (
    <>
      {now.left.length ? (
        <Named title={words.leftOut(now.left.length)} files={now.left} open={now.left.length < 12} />
      ) : null}
      {now.warned.length ? (
        <Named
          title={words.importedWithAWarning(now.warned.length)}
          files={warned}
          open={warned.length < 4}
        />
      ) : null}
    </>
  );
};

const told = (now: Import): string => {
  const head = now.taken.length ? words.imported(now.taken.length, now.notes) : words.nothingWasImported;
  const doubles = now.doubles ? words.stoodTwiceOnOneTick(now.doubles) : '';
  const cut = now.cut ? words.soundedOnIntoTheNext(now.cut) : '';
  const again = now.again ? words.wereHereBefore(now.again) : '';
  const ended = now.cancelled ? words.youCancelledIt : '';
  const full = now.full ? words.theBrowsersStorageIsFull : '';
  const broken = now.broken ? words.whatReadsDidNotCome : '';
  return `${head}${again}${doubles}${cut}${ended}${full}${broken}`;
};

/** How far an import is; then what came of it, file by file where something is to be said. */
export const ImportPanel = ({ importing }: { importing: Importing }) => {
  const { now, cancel, close, chooseFiles, chooseFolder } = importing;
  const any = useApp((state) => state.grooves.view === 'folders');
  if (!now)
    return any ? (
      <View style={styles.importWays}>
        <Chip onPress={chooseFiles}>{words.openMidiFilesOrA}</Chip>
        <Chip onPress={chooseFolder}>{words.openAFolder}</Chip>
        <Words quiet>{words.orDropThemHere}</Words>
      </View>
    ) : null;
  return (
    <Page role="region" style={styles.importPanel} inner={styles.importInner} label={words.import}>
      {now.running ? (
        <>
          <Progress label={words.filesRead} done={now.done / Math.max(1, now.total)} />
          <Words live>{words.doneOfRead(now.done, now.total)}</Words>
          <Chip onPress={cancel}>{words.cancel}</Chip>
        </>
      ) : (
        <>
          <Para live>{told(now)}</Para>
          <Lists now={now} />
          <Chip onPress={close}>{words.closeTheSummary}</Chip>
          {now.taken.length ? (
            <Chip
              tone="danger"
              onPress={() => {
                close();
                void takeOff(now.taken, plural(now.taken.length, 'groove'));
              }}
            >
              {now.taken.length === 1 ? words.takeItOffAgain : words.takeAllManyOffAgain(now.taken.length)}
            </Chip>
          ) : null}
        </>
      )}
    </Page>
  );
};
