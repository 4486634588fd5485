import { useHeights } from './heights';
import { useKept } from '../../../ui/useKept';
import { useWider } from '../../../ui/useWide';
import type { KeyboardEvent } from 'react';
import { Page as ScrolledPage } from '../../../ui/Page';
import { Para } from '../../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { type DrawerPage, drawerTurned } from '../../../store/look';
import { selectBeat, useApp, useDo } from '../../../store/store';
import { backToStrings } from '../../../strings/stepKeys';
import { IconButton } from '../../../ui/IconButton';
import { Tabs, tabId } from '../../../ui/Tabs';
import { MakePage } from './make/MakePage';
import { MovesPage } from './moves/MovesPage';
import { HitPage } from './hits/HitPage';
import { LanePage } from './lane/LanePage';
import { PadsPage } from './pads/PadsPage';
import { SoundPage } from './sound/SoundPage';
import { words } from '../../../words/drawer';
import { words as made } from '../../../words/make';

type Page = DrawerPage;

/** From so many points two panels stand side by side. */
const ROOMY = 1600;

const PAGES: { id: Page; name: string }[] = [
  { id: 'hits', name: words.hits },
  { id: 'lane', name: words.lane },
  { id: 'sound', name: words.sound },
  { id: 'make', name: made.make },
  { id: 'moves', name: made.moves },
  { id: 'pads', name: words.pads },
];

/** The lane that is worked on: the open one; where there is room, else the one that the hand was in last, or the first. */
const useLane = (wide: boolean) =>
  useApp((state) => {
    const { openLane, cursor } = state.focus;
    const lanes = selectBeat(state)?.lanes ?? [];
    const open = lanes.find(({ id }) => id === openLane);
    return open ?? (wide ? (lanes.find(({ id }) => id === cursor?.laneId) ?? lanes[0]) : undefined);
  });

interface PanelProps {
  /** What the panel is called. */
  label: string;
  tabs: string;
  /** Its own id, and that of the page in it. */
  own: string;
  id: string;
  page: Page | null;
  onPage: (page: Page) => void;
  wide: boolean;
  onFold?: () => void;
}

const Panel = ({ label, tabs, own, id, page, onPage, wide, onFold }: PanelProps) => {
  const lane = useLane(wide);
  // What clears and removes works on the lane that is open, and on none that nobody pointed at.
  const open = useLane(false);
  const back = (event: KeyboardEvent) => {
    if (event.key !== 'Escape' || event.defaultPrevented) return;
    event.preventDefault();
    backToStrings();
  };
  const none = <Para quiet>{words.pressALanesNameToHear}</Para>;
  return (
    <View
      style={[styles.drawer, wide && styles.wide]}
      {...({ id: own, role: 'region', 'aria-label': label, onKeyDown: back } as object)}
    >
      <View style={styles.drawerHead}>
        <View style={styles.drawerTabs}>
          <Tabs label={tabs} tabs={PAGES} value={page} onChange={onPage} panel={id} />
        </View>
        {onFold ? <IconButton label={words.foldTheDrawer} icon="close" onPress={onFold} /> : null}
      </View>
      {page ? (
        <ScrolledPage style={styles.drawerPage} id={id} role="tabpanel" labelledBy={tabId(id, page)}>
          {page === 'hits' ? <HitPage beside={wide ? lane : undefined} /> : null}
          {page === 'lane' ? open ? <LanePage key={open.id} lane={open} /> : none : null}
          {page === 'sound' ? lane ? <SoundPage lane={lane} /> : none : null}
          {page === 'make' ? <MakePage lane={lane} /> : null}
          {page === 'moves' ? <MovesPage lane={lane} /> : null}
          {page === 'pads' ? <PadsPage /> : null}
        </ScrolledPage>
      ) : null}
    </View>
  );
};

/** What belongs to hits and lanes, below the strings on a phone and beside them on a wide screen. */
export const Drawer = ({ wide }: { wide: boolean }) => {
  const page = useApp((state) => state.look.drawer);
  const act = useDo();
  const shown = page ?? (wide ? 'hits' : null);
  const roomy = useWider(ROOMY);
  useHeights();
  const [beside, setBeside] = useKept<Page>('second panel', 'lane');
  return (
    <>
      <Panel
        label={words.workOnHitsAndLanes}
        tabs={words.workOn}
        own="drawer"
        id="drawer-page"
        page={shown}
        onPage={(to) => act(drawerTurned(to))}
        wide={wide}
        {...(!wide && shown && { onFold: () => act(drawerTurned(null)) })}
      />
      {roomy ? (
        <Panel
          label={words.secondPanel}
          tabs={words.secondPanel}
          own="second-panel"
          id="second-page"
          // The same page twice would say nothing more.
          page={beside === shown ? (shown === 'lane' ? 'sound' : 'lane') : beside}
          onPage={setBeside}
          wide
        />
      ) : null}
    </>
  );
};
