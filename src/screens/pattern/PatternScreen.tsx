import { Card } from '../../ui/Card';
import { Hint } from '../../ui/Hint';
import { hintDone } from '../../store/look';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { showBar } from '../../strings/showBar';
import { ScreenHead, Chips } from '../../ui/Layout';
import { Para, Words } from '../../ui/Words';
import { Press } from '../../ui/Press';
import { buttonRow } from '../../ui/row';
import { View } from 'react-native';
import { styles } from './styles';
import { useRouter } from 'expo-router';
import { use, useEffect, useLayoutEffect, useState } from 'react';
import { barTicks } from '../../../core/document/meter';
import { MOST } from '../../../core/document/choices';
import { listed } from '../../../core/document/text';
import type { KitId } from '../../../core/document/schema';
import { KIT_LIST, kitNamed, kitToldOf } from '../../../core/synthesis/kitList';
import { kitSet, redone, undone } from '../../store/doc';
import { loadEdits } from '../../store/deferredEdits';
import { editedTogether } from '../../store/focus';
import {
  ZOOMS,
  drawerTurned,
  glassSet,
  mixToggled,
  sheetClosed,
  sheetOpened,
  zoomSet,
} from '../../store/look';
import { readBackBy } from '../../keeping/readingAside';
import { selectBeat, selectPattern, useApp, useDo, useAppStore } from '../../store/store';
import { HelpContext } from '../../ui/help';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { ownSoundsFrom } from '../../audio/player';
import { Later } from '../../ui/Later';
import { useNarrow, useWide } from '../../ui/useWide';
import { TrialBar } from './TrialBar';
import { leaveTrial } from '../../store/trial';
import { replayEarly } from '../../strings/earlyTaps';
import { dropEarly } from '../../web/early';
import { Strings } from '../../strings/Strings';
import { words } from '../../words/pattern';

const Head = ({ onPatterns }: { onPatterns: () => void }) => {
  const title = useApp((state) => selectBeat(state)?.name);
  const name = useApp((state) => selectPattern(state)?.name);
  const canUndo = useApp((state) => state.doc.past.length > 0);
  const canRedo = useApp((state) => state.doc.future.length > 0);
  const act = useDo();
  const router = useRouter();
  const help = use(HelpContext);
  return (
    <ScreenHead
      title={title ?? words.ruddik}
      before={<IconButton label={words.beats2} icon="beats" onPress={() => router.push('/beats')} />}
      under={
        name !== undefined && name !== null ? (
          <Press style={styles.choice} label={words.namePatternShown(name)} onPress={onPatterns}>
            <Words lines={1} style={styles.choiceWords}>
              {name}
            </Words>
          </Press>
        ) : null
      }
    >
      <IconButton label={words.undo} icon="undo" disabled={!canUndo} onPress={() => act(undone())} />
      <IconButton label={words.redo} icon="redo" disabled={!canRedo} onPress={() => act(redone())} />
      <IconButton label={words.findACommand} icon="search" onPress={help} />
    </ScreenHead>
  );
};

const GLASS = { 1: 2, 2: 4, 4: 1 } as const;

const Tools = ({ bar, wide }: { bar: number; wide: boolean }) => {
  const narrow = useNarrow();
  const bars = useApp((state) => selectPattern(state)!.bars);
  const inBar = useApp((state) => barTicks(selectPattern(state)!.meter));
  const zoom = useApp((state) => state.look.zoom);
  const mixOpen = useApp((state) => state.look.mixOpen);
  const glass = useApp((state) => state.look.glass);
  const act = useDo();
  const zooms = ZOOMS.filter((one) => wide || one >= 1);
  const at = zooms.indexOf(zoom as (typeof zooms)[number]);
  const steps = Math.round(inBar / zoom / 240);
  const turn = (by: number) => showBar(Math.max(0, (bar + by) * Math.max(1, zoom)));
  return (
    <View style={styles.tools} {...buttonRow}>
      <IconButton label={words.previousBar} icon="left" disabled={bar <= 0} onPress={() => turn(-1)} />
      <Words small live lines={1}>
        {narrow ? words.barOfBars(bar + 1, bars) : words.barBarOfBars(bar + 1, bars)}
      </Words>
      <IconButton label={words.nextBar} icon="right" disabled={bar >= bars - 1} onPress={() => turn(1)} />
      <View style={styles.gap} />
      <Button
        label={words.glassGlassPartingsDrawnGlass(glass)}
        style={styles.tool}
        onPress={() => act(glassSet(GLASS[glass]))}
      >
        {narrow ? `${glass}×` : words.glassGlass(glass)}
      </Button>
      <IconButton
        label={words.moreStepsThanSteps(steps)}
        icon="zoomOut"
        disabled={at <= 0}
        onPress={() => act(zoomSet(zooms[at - 1]!))}
      />
      <IconButton
        label={words.fewerStepsThanSteps(steps)}
        icon="zoomIn"
        disabled={at >= zooms.length - 1}
        onPress={() => act(zoomSet(zooms[at + 1]!))}
      />
      <Button
        label={words.mSMuteAndSolo}
        style={styles.tool}
        pressed={mixOpen}
        onPress={() => act(mixToggled())}
      >
        {words.mS}
      </Button>
    </View>
  );
};

const KIT_OPTIONS = KIT_LIST.map(({ id, name }) => ({ value: id, name }));

const kitSheet = async () => (await import('../later')).KitSheet;

const KitChoice = ({ kit }: { kit: KitId }) => {
  const act = useDo();
  const open = useApp(({ look }) => look.sheet === 'kits');
  return (
    <View style={styles.kit}>
      <Choice
        label={words.kit}
        short={words.kit}
        value={kit}
        options={KIT_OPTIONS}
        onChange={(to) => act(kitSet({ kit: to }))}
      />
      <Chip onPress={() => act(sheetOpened('kits'))}>{words.kitsAndDrums}</Chip>
      <Words small quiet style={styles.kitAbout}>
        {kitNamed(kit) ? kitToldOf(kit).about : words.kitIsNotHere(kit, kitToldOf(kit).name)}
      </Words>
      {open ? (
        <Later
          of={kitSheet}
          what={words.theSheetOfKits}
          waiting={null}
          given={{ onClose: () => act(sheetClosed()) }}
        />
      ) : null}
    </View>
  );
};

/** What is seen before the beat is there: the strings without their beads. */
const Skeleton = () => (
  <View style={styles.skeleton} aria-busy aria-label={words.loadingTheBeat} role="group">
    <View style={styles.skeletonTools} />
    <View style={styles.skeletonLanes} nativeID="strings-to-come">
      {Array.from({ length: 10 }, (_, at) => (
        <View key={at} style={styles.skeletonLane}>
          <View style={styles.skeletonName} />
        </View>
      ))}
    </View>
  </View>
);

ownSoundsFrom(async () => (await import('../later')).heardOwn);
readBackBy(async (text) => {
  const answer = await (await import('../later')).askAside('checkBeat', text);
  return answer.ok ? answer.value : null;
});

const drawer = async () => (await import('../later')).Drawer;
const patternsSheet = async () => (await import('../later')).PatternsSheet;

const loopSheet = async () => (await import('../later')).LoopSheet;

const newLane = async () => (await import('../later')).NewLane;

const bringSheet = async () => (await import('../later')).BringSheet;

/** The drawer is fetched once the strings can be played; the other screens with it, so that each comes at once. */
const LATER_MS = 600;
const SCREENS_MS = 1500;
const useLater = (): boolean => {
  const [later, setLater] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => {
      setLater(true);
      // Where they cannot be fetched now, the first edit that needs them asks again, and says so.
      loadEdits().catch(() => undefined);
    }, LATER_MS);
    // Where they cannot be fetched now, whoever opens one asks again.
    const rest = setTimeout(() => void drawer().catch(() => undefined), SCREENS_MS);
    return () => {
      clearTimeout(timer);
      clearTimeout(rest);
    };
  }, []);
  return later;
};

/** Several patterns that are edited together are named, and one tap ends it. */
const Together = () => {
  const also = useApp((state) => state.focus.also);
  const patterns = useApp((state) => selectBeat(state)?.patterns);
  const shown = useApp(selectPattern);
  const act = useDo();
  const others = patterns?.filter(({ id }) => also.includes(id) && id !== shown?.id) ?? [];
  if (!others.length || !shown) return null;
  return (
    <View style={styles.together}>
      <Words small live style={styles.togetherWords}>
        {words.everyEditGoesTo(listed([shown, ...others].map(({ name }) => name)))}
      </Words>
      <Chip onPress={() => act(editedTogether([]))}>{words.onlyShown(shown.name)}</Chip>
    </View>
  );
};

interface TrialProps {
  /** Whether the list of patterns is open, and the drawer. */
  patterns: boolean;
  drawer: boolean;
}

/**
 * What is tried is said wherever the strings show it, though what it was begun in is shut. It stands below the strings: what
 * is under the finger stays there when it comes.
 */
const StillTried = ({ patterns, drawer }: TrialProps) => {
  const edit = useApp(({ focus }) => focus.trial?.edit.edit.edit);
  const page = useApp(({ look }) => look.drawer);
  const saidThere =
    edit === 'patternPreset'
      ? patterns
      : drawer && ((edit === 'lanePreset' && page === 'lane') || (edit === 'recall' && page === 'make'));
  if (!edit || saidThere) return null;
  return (
    <View style={styles.tried}>
      <TrialBar />
    </View>
  );
};

/** What is not plain on the strings, one at a time. */
const HINTS = {
  open: words.pressALanesNameIts,
  drag: words.inTheOpenStringDrag,
  box: words.holdAFingerOnThe,
} as const;

const PatternHint = () => {
  const store = useAppStore();
  const open = useApp(({ focus }) => focus.openLane !== null);
  const pitched = useApp(({ focus }) => focus.heights !== null);
  const done = useApp(({ look }) => look.hintsDone);
  useEffect(() => {
    if (open) store.dispatch(hintDone('open'));
  }, [open, store]);
  const next = (['open', 'drag', 'box'] as const).find((id) => !done.includes(id));
  // What is for the open string is said while one is open.
  if (!next || (next === 'drag' && !open)) return null;
  const text = next === 'drag' && pitched ? words.inTheOpenStringPitch : HINTS[next];
  return <Hint onDone={() => store.dispatch(hintDone(next))}>{text}</Hint>;
};

/** What a pattern without a hit can begin with. */
const Offer = ({ onPresets }: { onPresets: () => void }) => {
  const act = useDo();
  const router = useRouter();
  const empty = useApp((state) => {
    const pattern = selectPattern(state);
    return !!pattern && Object.values(pattern.parts).every(({ hits }) => !hits.length);
  });
  if (!empty) return null;
  return (
    <Card label={words.waysToBegin}>
      <Para>{words.nothingSoundsYetTapSteps}</Para>
      <Chips>
        <Chip onPress={onPresets}>{words.chooseAPreset}</Chip>
        <Chip onPress={() => router.push('/grooves')}>{words.bringInAGroove}</Chip>
        <Chip onPress={() => act(drawerTurned('pads'))}>{words.playItIn}</Chip>
      </Chips>
    </Card>
  );
};

const Foot = ({ kit, onPresets }: { kit: KitId; onPresets: () => void }) => {
  const [bringing, setBringing] = useState(false);
  const looping = useApp(({ look }) => look.sheet === 'loop');
  const act = useDo();
  const full = useApp((state) => (selectBeat(state)?.lanes.length ?? 0) >= MOST.lanes);
  const [adding, setAdding] = useState(false);
  return (
    <View style={styles.foot}>
      <Offer onPresets={onPresets} />
      <PatternHint />
      <KitChoice kit={kit} />
      <Chips>
        <Chip disabled={full} pressed={adding} onPress={() => setAdding(!adding)}>
          {full ? words.lanesLanesNoRoomFor(MOST.lanes) : words.addALane}
        </Chip>
        {adding && !full ? (
          <Later of={newLane} waiting={null} given={{ onDone: () => setAdding(false) }} />
        ) : null}
        <Chip onPress={() => setBringing(true)}>{words.lanesOfAnotherBeat}</Chip>
        <Chip onPress={() => act(drawerTurned('pads'))}>{words.pads}</Chip>
        <Chip onPress={() => act(sheetOpened('loop'))}>{words.cutALoop}</Chip>
      </Chips>
      {looping ? (
        <Later
          of={loopSheet}
          what={words.theSheetOfLoops}
          waiting={null}
          given={{ onClose: () => act(sheetClosed()) }}
        />
      ) : null}
      {bringing ? (
        <Later
          of={bringSheet}
          what={words.theSheetOfLanes}
          waiting={null}
          given={{ onClose: () => setBringing(false) }}
        />
      ) : null}
    </View>
  );
};

interface BoardProps {
  wide: boolean;
  onBar: (bar: number) => void;
  onPresets: () => void;
}

/** What changes with every edit: the rest of the screen stands still then. */
const Board = ({ wide, onBar, onPresets }: BoardProps) => {
  const beat = useApp(selectBeat)!;
  const pattern = useApp(selectPattern)!;
  useLayoutEffect(() => {
    replayEarly();
    dropEarly();
  }, []);
  return (
    <Strings
      key={pattern.id}
      beat={beat}
      pattern={pattern}
      wide={wide}
      onBar={onBar}
      foot={<Foot kit={beat.kit} onPresets={onPresets} />}
    />
  );
};

/** The pattern, programmed on its strings. */
export const PatternScreen = () => {
  const ready = useApp((state) => !!selectPattern(state));
  const openLane = useApp((state) => state.focus.openLane);
  const asked = useApp((state) => state.look.drawer === 'pads' || state.focus.selection.length > 0);
  const wide = useWide();
  const [bar, setBar] = useState(0);
  const [patterns, setPatterns] = useState(false);
  const drawn = useLater() && (wide || openLane !== null || asked);
  // Elsewhere nothing says that something is tried.
  const store = useAppStore();
  useEffect(() => () => leaveTrial(store), [store]);
  return (
    <>
      <Head onPatterns={() => setPatterns(true)} />
      {ready ? (
        <>
          <Tools bar={bar} wide={wide} />
          <Together />
          <View style={[styles.patternBody, !wide && styles.narrow]}>
            <View style={styles.boardColumn}>
              <Board wide={wide} onBar={setBar} onPresets={() => setPatterns(true)} />
              <StillTried patterns={patterns} drawer={drawn} />
            </View>
            {drawn ? (
              <Later
                of={drawer}
                what={words.theDrawer}
                waiting={<View style={[styles.drawerRoom, wide && styles.drawerWide]} />}
                given={{ wide }}
              />
            ) : wide ? (
              // Its room is kept from the start, so that the strings keep their width.
              <View style={[styles.drawerRoom, styles.drawerWide]} />
            ) : null}
          </View>
          {patterns ? (
            <Later
              of={patternsSheet}
              what={words.theListOfPatterns}
              waiting={null}
              given={{ onClose: () => setPatterns(false) }}
            />
          ) : null}
        </>
      ) : (
        <Skeleton />
      )}
    </>
  );
};
