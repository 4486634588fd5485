import { whileHeld } from '../../web/held';
import { editShownFeel } from './edit';
import { ScreenHead } from '../../ui/Layout';
import { Page as Panel } from '../../ui/Page';
import { Pick } from '../../ui/Pick';
import { DropFiles } from '../../web/DropFiles';
import { Para, Words } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { isMidi } from '../../../core/midi/read/chunks';
import { useKept } from '../../ui/useKept';
import { FEEL_PAGES } from '../pages';
import { useEffect, useState } from 'react';
import { swingPercentAt } from '../../../core/feel/swing';
import { redone, undone } from '../../store/doc';
import { noticed } from '../../store/slices';
import { compared, comparingEnded, selectAgainst } from '../../store/comparing';
import { patternShown } from '../../store/focus';
import { selectBeat, selectFeel, selectPattern, useApp, useDo, useAppStore } from '../../store/store';
import { Strings } from '../../strings/Strings';
import { IconButton } from '../../ui/IconButton';
import { useWide } from '../../ui/useWide';
import { ChartsPage } from './ChartsPage';
import { ComparePage } from './ComparePage';
import { FeelsPage } from './FeelsPage';
import { SwingHandle } from '../../strings/SwingHandle';
import { ReportPage } from './ReportPage';
import { StagesPage } from './StagesPage';
import { TemplatesPage } from './TemplatesPage';
import { Tabs, tabId } from '../../ui/Tabs';
import { words } from '../../words/feel';

type Page = (typeof FEEL_PAGES)[number];

const NAMES: Record<Page, string> = {
  stages: words.stages,
  compare: words.compare,
  charts: words.charts,
  report: words.report,
  templates: words.templates,
  feels: words.feels,
};
const PAGES = FEEL_PAGES.map((id) => ({ id, name: NAMES[id] }));

interface Named {
  id: string;
  name: string;
}

const sameNames = (a: Named[] | undefined, b: Named[] | undefined): boolean =>
  a === b ||
  (!!a &&
    !!b &&
    a.length === b.length &&
    a.every(({ id, name }, at) => id === b[at]!.id && name === b[at]!.name));

const Head = () => {
  // Each turn of a control changes the patterns, and none of their names.
  const patterns = useApp((state): Named[] | undefined => selectBeat(state)?.patterns, sameNames);
  const shown = useApp((state) => selectPattern(state)?.id);
  const canUndo = useApp((state) => state.doc.past.length > 0);
  const canRedo = useApp((state) => state.doc.future.length > 0);
  const act = useDo();
  return (
    <ScreenHead
      title={words.feel}
      style={styles.head}
      under={
        patterns && shown ? (
          <Pick
            label={words.patternShown}
            value={shown}
            options={patterns.map(({ id, name }) => ({ value: id, name }))}
            onChange={(patternId) => act(patternShown(patternId))}
          />
        ) : null
      }
    >
      <IconButton label={words.undo} icon="undo" disabled={!canUndo} onPress={() => act(undone())} />
      <IconButton label={words.redo} icon="redo" disabled={!canRedo} onPress={() => act(redone())} />
    </ScreenHead>
  );
};

/** While C is held, the pattern is heard and seen without its feel, or with B. */
const useHeldKey = () => {
  const store = useAppStore();
  useEffect(() => {
    const hear = (on: boolean) => {
      const state = store.getState();
      if (!state.comparing.blind) store.dispatch(compared(on ? selectAgainst(state) : null));
    };
    const stop = whileHeld('compare', hear);
    return () => {
      stop();
      store.dispatch(comparingEnded());
    };
  }, [store]);
};

interface Dropped {
  name: string;
  bytes: Uint8Array;
}

const swingTo = (percent: number, gesture: string) =>
  editShownFeel({ edit: 'setSwing', args: { change: { percent } } }, gesture);

const noBar = () => undefined;

/** The strings, with the hinge of the swing; they change with each turn of a control, the screen around them does not. */
const Board = ({ wide }: { wide: boolean }) => {
  const beat = useApp(selectBeat)!;
  const pattern = useApp(selectPattern)!;
  const feel = useApp(selectFeel)!;
  const compare = useApp((state) => state.comparing.compare);
  const swung = feel.base === 'swing' && !feel.off.includes('base') && compare === null;
  return (
    <Strings
      key={pattern.id}
      beat={beat}
      pattern={pattern}
      wide={wide}
      onBar={noBar}
      own="feel-"
      hinge={
        swung ? (
          <SwingHandle
            swing={{ ...feel.swing, percent: swingPercentAt(feel.swing, beat.tempo) }}
            onSwing={swingTo}
          />
        ) : null
      }
    />
  );
};

/** What stands on the page that is open. */
const Shown = ({ page, dropped }: { page: Page; dropped: Dropped | null }) => {
  const beat = useApp(selectBeat)!;
  const pattern = useApp(selectPattern)!;
  const feel = useApp(selectFeel)!;
  const openLane = useApp((state) => state.focus.openLane);
  const lane = beat.lanes.find(({ id }) => id === openLane);
  switch (page) {
    case 'stages':
      return <StagesPage beat={beat} patternId={pattern.id} feel={feel} lane={lane} />;
    case 'compare':
      return <ComparePage />;
    case 'charts':
      return <ChartsPage beat={beat} pattern={pattern} />;
    case 'report':
      return <ReportPage beat={beat} pattern={pattern} dropped={dropped} />;
    case 'templates':
      return <TemplatesPage beat={beat} pattern={pattern} lane={lane} dropped={dropped} />;
    case 'feels':
      return <FeelsPage beat={beat} pattern={pattern} feel={feel} lane={lane} />;
  }
};

/** How the pattern is played: its feel, stage by stage, seen and heard while it is changed. */
export const FeelScreen = () => {
  const ready = useApp((state) => !!selectFeel(state));
  const compare = useApp((state) => state.comparing.compare);
  const blind = useApp((state) => state.comparing.blind);
  const b = useApp((state) => state.comparing.b);
  const act = useDo();
  const wide = useWide();
  const [page, setPage] = useKept<Page>('feel page', 'stages');
  const [dropped, setDropped] = useState<Dropped | null>(null);
  useHeldKey();
  if (!ready) return <Para style={styles.loading}>{words.loadingTheBeat}</Para>;

  const drop = ([file, ...more]: File[]) => {
    if (!file) return;
    if (more.length)
      act(
        noticed({
          text: words.aTemplateIsTakenFrom(file.name, more.length),
          subject: 'template',
        }),
      );
    void file.arrayBuffer().then((buffer) => {
      const bytes = new Uint8Array(buffer);
      if (!isMidi(bytes)) {
        act(noticed({ text: words.fileIsNotAMidi(file.name), tone: 'danger', subject: 'template' }));
        return;
      }
      setDropped({ name: file.name, bytes });
      if (page !== 'report') setPage('templates');
    });
  };

  return (
    <DropFiles onFiles={drop}>
      <View style={styles.feelScreen} testID="feel screen">
        <Head />
        <View style={[styles.feelBody, wide && styles.wide]}>
          <View style={styles.feelStrings}>
            {blind ? (
              <Para quiet style={styles.blindNote}>
                {words.nothingIsDrawnWhileYou}
              </Para>
            ) : (
              <Board wide={wide} />
            )}
            {compare !== null && !blind ? (
              <View style={styles.comparing}>
                <Words live style={styles.comparingWords}>
                  {compare === 'b' && b ? words.asB2(b.name) : words.withoutFeel}
                </Words>
              </View>
            ) : null}
          </View>
          <View style={[styles.feelPanel, wide && styles.panelWide]} role="region" aria-label={words.feel}>
            <Tabs
              label={words.feel}
              tabs={PAGES}
              value={page}
              onChange={setPage}
              panel="feel-page"
              shut={(one) => blind && one !== page}
            />
            <Panel key={page} id="feel-page" role="tabpanel" labelledBy={tabId('feel-page', page)}>
              <Shown page={page} dropped={dropped} />
            </Panel>
          </View>
        </View>
      </View>
    </DropFiles>
  );
};
