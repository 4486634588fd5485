import { viewChanged, type ViewState } from '../../../state/slices';
import { selectBeat, useApp, useDo } from '../../../state/store';
import { backToStrings } from '../../../strings/stepKeys';
import { IconButton } from '../../../ui/IconButton';
import { Tabs, tabId } from '../../../ui/Tabs';
import { ChancePage } from './ChancePage';
import { HitPage } from './HitPage';
import { LanePage } from './LanePage';
import { PadsPage } from './PadsPage';
import { SoundPage } from './SoundPage';
import './drawer.css';

type Page = NonNullable<ViewState['drawer']>;

const PAGES: { id: Page; name: string }[] = [
  { id: 'hits', name: 'Hits' },
  { id: 'lane', name: 'Lane' },
  { id: 'sound', name: 'Sound' },
  { id: 'chance', name: 'Chance' },
  { id: 'pads', name: 'Pads' },
];

/** What belongs to hits and lanes, below the strings on a phone and beside them on a wide screen. */
export const Drawer = ({ wide }: { wide: boolean }) => {
  const lane = useApp((state) => selectBeat(state)?.lanes.find(({ id }) => id === state.view.openLane));
  const page = useApp((state) => state.view.drawer);
  const act = useDo();
  const shown = page ?? (wide ? 'hits' : null);
  const show = (to: Page) => act(viewChanged({ drawer: to }));
  const none = <p className="quiet">Press a lane’s name to hear it and to open its string.</p>;
  return (
    <section
      className={wide ? 'drawer wide' : 'drawer'}
      aria-label="Work on hits and lanes"
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || event.defaultPrevented) return;
        event.preventDefault();
        backToStrings();
      }}
    >
      <div className="drawer-head">
        <Tabs label="Work on" tabs={PAGES} value={shown} onChange={show} panel="drawer-page" />
        {!wide && shown ? (
          <IconButton
            label="Fold the drawer"
            icon="close"
            onPress={() => act(viewChanged({ drawer: null }))}
          />
        ) : null}
      </div>
      {shown ? (
        <div
          className="drawer-page"
          id="drawer-page"
          role="tabpanel"
          aria-labelledby={tabId('drawer-page', shown)}
        >
          {shown === 'hits' ? <HitPage /> : null}
          {shown === 'lane' ? lane ? <LanePage key={lane.id} lane={lane} /> : none : null}
          {shown === 'sound' ? lane ? <SoundPage lane={lane} /> : none : null}
          {shown === 'chance' ? <ChancePage lane={lane} /> : null}
          {shown === 'pads' ? <PadsPage /> : null}
        </div>
      ) : null}
    </section>
  );
};
