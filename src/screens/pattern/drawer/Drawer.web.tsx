import { viewChanged, type ViewState } from '../../../state/slices';
import { selectBeat, useApp, useDo } from '../../../state/store';
import { backToStrings } from '../../../strings/stepKeys';
import { Icon } from '../../../ui/Icon';
import { ChancePage } from './ChancePage';
import { HitPage } from './HitPage';
import { LanePage } from './LanePage';
import { PadsPage } from './PadsPage';
import { SoundPage } from './SoundPage';
import './drawer.css';

type Page = NonNullable<ViewState['drawer']>;

const PAGES: { page: Page; name: string }[] = [
  { page: 'hits', name: 'Hits' },
  { page: 'lane', name: 'Lane' },
  { page: 'sound', name: 'Sound' },
  { page: 'chance', name: 'Chance' },
  { page: 'pads', name: 'Pads' },
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
      <div className="drawer-tabs" role="tablist" aria-label="Work on">
        {PAGES.map(({ page: one, name }) => (
          <button
            key={one}
            type="button"
            role="tab"
            id={`drawer-tab-${one}`}
            aria-selected={one === shown}
            aria-controls="drawer-page"
            onClick={() => show(one)}
          >
            {name}
          </button>
        ))}
        {!wide && shown ? (
          <button
            type="button"
            aria-label="Fold the drawer"
            onClick={() => act(viewChanged({ drawer: null }))}
          >
            <Icon name="close" size={18} />
          </button>
        ) : null}
      </div>
      {shown ? (
        <div className="drawer-page" id="drawer-page" role="tabpanel" aria-labelledby={`drawer-tab-${shown}`}>
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
