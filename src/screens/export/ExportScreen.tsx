import { Card } from '../../ui/Card';
import { Page } from '../../ui/Page';
import { Progress } from '../../ui/Progress';
import { useWide } from '../../ui/useWide';
import { DragOut } from '../../web/DragOut';
import { Disclosure } from '../../ui/Disclosure';
import { Para, Words } from '../../ui/Words';
import { ScreenHead } from '../../ui/Layout';
import { Skeleton } from '../../ui/Skeleton';
import { View } from 'react-native';
import { styles } from './styles';
import { useDeferredValue, useEffect, useMemo, useState, type DragEvent } from 'react';
import type { Beat } from '../../../core/document/schema';
import { count, listed } from '../../../core/document/text';
import {
  heldHow,
  HOW_DEFAULTS,
  WHAT_DEFAULTS,
  type ExportHow,
  type ExportWhat,
} from '../../../core/export/choice';
import {
  exported,
  leftOutOf,
  MIME,
  pathOf,
  type Exported,
  type OutFile,
} from '../../../core/export/exporting';
import { offer } from '../../store/offers';
import { noticed } from '../../store/slices';
import { exportHowSet } from '../../store/exporting';
import { selectBeat, useApp, useDo } from '../../store/store';
import { useRouter } from 'expo-router';
import type { Read } from '../../../core/document/reading';
import { Action } from '../../ui/Action';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { Icon } from '../../ui/Icon';
import { NameField } from '../../ui/NameField';
import { useBounce, type Bouncing } from './bouncing';
import {
  AudioChoices,
  MidiChoices,
  Names,
  PaperChoices,
  PlayChoices,
  What,
  type ChoicesProps,
} from './Choices';
import { download, dragOut, mayShare, parcel, readyFiles, share, type Ready } from './giving';
import { useLeads } from './leads';
import { keepChoices, readKept, withChoice, type KeptChoice } from './kept';
import { PartPreview } from './PartPreview';
import { Written } from './Written';
import { words } from '../../words/export';

const ACTIONS: Record<ExportHow['kind'], string> = {
  midi: words.exportMidi,
  audio: words.bounceToWav,
  paper: words.exportDrumPart,
  tab: words.exportDrumTab,
  list: words.exportList,
};

/** Choices kept by name. */
const Kept = ({ how, onTake }: { how: ExportHow; onTake: (how: ExportHow) => void }) => {
  const [kept, setKept] = useState<KeptChoice[]>([]);
  const act = useDo();
  useEffect(() => {
    let current = true;
    void readKept().then((read) => {
      if (current && read.length) setKept(read);
    });
    return () => {
      current = false;
    };
  }, []);
  const set = (now: KeptChoice[]) => {
    setKept(now);
    void keepChoices(now).then((done) => {
      if (!done)
        act(
          noticed({
            text: words.theChoiceCouldNotBe,
            tone: 'danger',
            subject: 'kept',
          }),
        );
    });
  };
  const same = kept.find((one) => JSON.stringify(one.how) === JSON.stringify(how));
  const forget = (one: KeptChoice) => {
    set(kept.filter(({ name }) => name !== one.name));
    const bringBack = () => void readKept().then((now) => set(withChoice(now, one)));
    act(
      noticed({
        text: words.oneIsNoLongerKept(one.name),
        subject: 'kept',
        action: { label: words.undo, does: offer(bringBack) },
      }),
    );
  };
  return (
    <Disclosure title={words.keptChoices(kept.length ? `: ${kept.length}` : '')} bold style={styles.ruled}>
      {kept.length ? (
        <>
          <Choice
            label={words.useAKeptChoice}
            short={words.use}
            value={same?.name ?? ''}
            options={[
              { value: '', name: words.chooseOne },
              ...kept.map(({ name }) => ({ value: name, name })),
            ]}
            onChange={(name) => {
              const found = kept.find((one) => one.name === name);
              if (found) onTake(found.how);
            }}
          />
          {same ? (
            <Chip tone="danger" onPress={() => forget(same)}>
              {words.forgetSame(same.name)}
            </Chip>
          ) : null}
        </>
      ) : (
        <Para quiet>{words.whatYouChooseHereCan}</Para>
      )}
      <NameField
        label={words.nameOfThisChoice}
        action={words.keepIt}
        onGive={(name) => set(withChoice(kept, { name, how }))}
      />
    </Disclosure>
  );
};

const BounceProgress = ({ bouncing, onStop }: { bouncing: Bouncing; onStop: () => void }) => {
  if (bouncing.state === 'failed')
    return (
      <Para danger alert>
        {bouncing.error}
      </Para>
    );
  if (bouncing.state !== 'running') return null;
  const percent = Math.round(bouncing.done * 100);
  return (
    <View style={styles.bounceProgress}>
      <Progress label={words.bounced} done={bouncing.done} />
      <Words figure live>{`${percent} %`}</Words>
      <Chip onPress={onStop}>{words.stopTheBounce}</Chip>
    </View>
  );
};

const NO_NAME = words.nothingToWrite;

interface OutProps extends ChoicesProps {
  out: Exported;
}

/** What is written, and the ways out. */
const Out = ({ beat, how, what, out }: OutProps) => {
  const act = useDo();
  const { bouncing, start, stop } = useBounce(beat);
  const wide = useWide();
  const told = (name: string, files: Ready[]) => {
    const notes = out.files.reduce((sum, file) => sum + file.notes, 0);
    const many = files.length > 1 ? `${count(files.length, 'file')}, ` : '';
    const left = out.leftOut.length ? words.leftOutAsMutedLeftOut(listed(out.leftOut)) : '';
    act(noticed({ text: words.nameWasWrittenManyLeft(name, many, notes, left), subject: 'export' }));
  };
  const give = (files: Ready[]) => told(download(out, how, files), files);
  const ready = how.kind !== 'audio' || bouncing.state === 'ready';
  const files = () => readyFiles(out, bouncing.state === 'ready' ? bouncing.files : null);
  const save = () => {
    if (ready) give(files());
    else start({ beat, how, what });
  };
  const onDrag = (file: OutFile, event: DragEvent) => {
    const found = files().find(({ path }) => path === pathOf(file));
    if (found)
      dragOut(event, file.name, new Blob([found.bytes as Uint8Array<ArrayBuffer>], { type: MIME[how.kind] }));
  };
  const dragAll = (event: DragEvent) => {
    const { name, blob } = parcel(out, how, files());
    dragOut(event, name, blob);
  };
  const shared = async () => {
    const done = await share(parcel(out, how, files()));
    if (!done)
      act(
        noticed({
          text: words.thisSystemDoesNotShare,
          subject: 'export',
          tone: 'danger',
        }),
      );
  };
  const name = out.files.length === 1 ? out.files[0]!.name : out.zipName;
  const ways = (
    <>
      <BounceProgress bouncing={bouncing} onStop={stop} />
      {how.kind === 'audio' && bouncing.state === 'ready' ? (
        <Para live>{words.renderedInSecondsSDownload(bouncing.seconds.toFixed(1))}</Para>
      ) : null}
      <View style={styles.waysOut}>
        {bouncing.state === 'running' ? null : (
          <Action
            label={how.kind === 'audio' && bouncing.state === 'ready' ? words.downloadWav : ACTIONS[how.kind]}
            kind="filled"
            icon={<Icon name="download" />}
            onPress={save}
          />
        )}
        {ready && mayShare() ? <Chip onPress={() => void shared()}>{words.share}</Chip> : null}
        {ready && wide ? (
          <DragOut onStart={dragAll}>
            <View style={styles.dragOut}>
              <Words small>{out.files.length > 1 ? words.dragTheZipOut : words.dragItOut}</Words>
            </View>
          </DragOut>
        ) : null}
      </View>
    </>
  );
  return (
    <>
      <Words figure style={styles.nameOfFile}>
        {name}
      </Words>
      <Written out={out} how={how} onDrag={onDrag}>
        {ways}
      </Written>
    </>
  );
};

interface OutcomeProps extends ChoicesProps {
  out: Read<Exported>;
}

/** What comes of a choice: its files, or why there are none. */
const Outcome = ({ out, ...props }: OutcomeProps) => {
  if (!out.ok) return <Para alert>{out.error}</Para>;
  if (!out.value.files.length) return <Para alert>{words.thereIsNothingToWrite}</Para>;
  const { how, what } = props;
  return (
    <>
      <Out key={JSON.stringify([how, what])} {...props} out={out.value} />
      {how.kind === 'paper' ? <PartPreview files={out.value.files} /> : null}
    </>
  );
};

const Chooser = ({ beat, shown }: { beat: Beat; shown: string | null }) => {
  const kept = useApp(({ exporting }) => exporting.exportHow);
  const how = useMemo(() => (kept ? heldHow(kept) : HOW_DEFAULTS), [kept]);
  const act = useDo();
  const setHow = (change: (now: ExportHow) => ExportHow) => act(exportHowSet(change(how)));
  const [chosen, setChosen] = useState<ExportWhat>(WHAT_DEFAULTS);
  // The pattern that is worked on, until another one is chosen.
  const what = useMemo(() => ({ ...chosen, patternId: chosen.patternId ?? shown }), [chosen, shown]);
  const asked = useMemo(() => ({ beat, how, what }), [beat, how, what]);
  // What takes long to write must not hold up what is typed, nor the screen when it is first shown.
  const writing = useDeferredValue(asked, null);
  const leads = useLeads(writing?.beat ?? beat, writing?.how ?? how);
  const out = useMemo(() => {
    if (!writing) return null;
    if (leads === 'coming') return { ok: false as const, error: words.lookingForAttacks };
    return exported(writing.beat, writing.how, writing.what, leads);
  }, [writing, leads]);
  const silent = useMemo(() => leftOutOf(beat), [beat]);
  const props: ChoicesProps = {
    beat,
    how,
    what,
    onHow: (change) => setHow((now) => ({ ...now, ...change })),
    onWhat: (change) => setChosen((now) => ({ ...now, ...change })),
  };
  const wide = useWide();
  const file = out?.ok ? out.value.files[0] : undefined;
  const written = (
    <Card style={wide && styles.summaryWide} label={words.whatWillBeWritten}>
      {out && writing ? <Outcome {...props} {...writing} out={out} /> : <Skeleton label={words.writingIt} />}
    </Card>
  );
  const choices = (
    <>
      {how.kind === 'midi' ? <MidiChoices {...props} /> : null}
      {how.kind === 'paper' ? <PaperChoices {...props} /> : null}
      {how.kind === 'audio' ? <AudioChoices {...props} /> : null}
      <PlayChoices {...props} silent={silent} />
      <Names {...props} preview={file ? pathOf(file) : out ? NO_NAME : '…'} />
      <Kept how={how} onTake={(taken) => setHow(() => taken)} />
    </>
  );
  return (
    <Page inner={[styles.inner, wide && styles.innerWide]}>
      <View style={[styles.exportChoices, wide && styles.choicesWide]}>
        <What {...props} />
        {wide ? choices : null}
      </View>
      {written}
      {wide ? null : choices}
    </Page>
  );
};

/** Every way out of Ruddik: what, how, and where to. */
export const ExportScreen = () => {
  const beat = useApp(selectBeat);
  const patternId = useApp((state) => state.focus.patternId);
  const router = useRouter();
  return (
    <>
      <ScreenHead
        title={words.export}
        style={styles.exportHead}
        under={<Words quiet>{beat?.name ?? ''}</Words>}
      >
        <Action label={words.ports} kind="outline" onPress={() => router.push('/ports')} />
      </ScreenHead>
      {beat ? <Chooser key={beat.id} beat={beat} shown={patternId} /> : null}
    </>
  );
};
