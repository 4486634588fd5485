import { Chips } from '../../../../ui/Layout';
import { Para } from '../../../../ui/Words';
import { styles } from '../styles';
import { lanePatternOf } from '../../../../../core/document/defaults';
import { gridTicks } from '../../../../../core/document/grid';
import { barTicks } from '../../../../../core/document/meter';
import type { Lane, Pattern } from '../../../../../core/document/schema';
import type { Spot } from '../../../../../core/edit/spots';
import type { Target } from '../../../../store/editing';
import { type FocusState, focusEnded, pasteMoved, scopeChosen } from '../../../../store/focus';
import { eraserToggled, hearEditsToggled } from '../../../../store/input';
import { selectBeat, selectPattern, useApp, useDo, useAppStore } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import {
  copyChosen,
  duplicateChosen,
  moveChosen,
  pasteAt,
  removeChosen,
  selectAll,
  selectBar,
  selectLane,
} from '../../../../strings/chosen';
import { words } from '../../../../words/drawer';

const hitsText = (count: number): string => words.countHit(count);

/** What the controls are for, in words. */
const about = (target: Target, lane: Lane | undefined, count: number): string => {
  if (target.kind === 'all') return words.allHitsOfAllLanes(hitsText(count));
  if (target.kind === 'lane') return words.allHitsOf(hitsText(count), lane?.name);
  if (target.kind === 'one' && count === 1)
    return words.laneStepStep(lane?.name ?? '', target.spots[0]!.step + 1);
  return words.hitsSelected(hitsText(count));
};

/** Where the line stands, counted as people do. */
const placeText = (pattern: Pattern, { laneId, step }: Spot): string => {
  const g = gridTicks(lanePatternOf(pattern, laneId).grid);
  const bar = barTicks(pattern.meter);
  const tick = step * g;
  const inBar = (tick % bar) / g;
  return words.barFloorStepInBar(Math.floor(tick / bar + 1e-9) + 1, Math.round(inBar * 100) / 100 + 1);
};

/** Copying and pasting: the line on the strings shows where. */
export const Clipboard = ({ spots }: { spots: Spot[] }) => {
  const store = useAppStore();
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const clip = useApp(({ copied }) => copied.clip);
  const openLane = useApp(({ focus }) => focus.openLane);
  const line = useApp(({ focus }) => focus.pasteAt);
  const cursor = useApp(({ focus }) => focus.cursor);
  const known = (at: Spot | null) => (at && lanes.some(({ id }) => id === at.laneId) ? at : null);
  const at = known(line) ?? known(cursor) ?? { laneId: openLane ?? lanes[0]!.id, step: 0 };
  const bar = barTicks(pattern.meter) / gridTicks(lanePatternOf(pattern, at.laneId).grid);
  const move = (by: number) => act(pasteMoved({ laneId: at.laneId, step: Math.max(0, at.step + by) }));
  return (
    <>
      {spots.length ? (
        <Chips>
          <Chip onPress={() => copyChosen(store, spots)}>{words.copy}</Chip>
          <Chip
            onPress={() => {
              if (copyChosen(store, spots)) removeChosen(store, spots);
            }}
          >
            {words.cut}
          </Chip>
          <Chip onPress={() => duplicateChosen(store, spots)}>{words.duplicate}</Chip>
          <Chip tone="danger" onPress={() => removeChosen(store, spots)}>
            {words.delete}
          </Chip>
          <Chip onPress={() => moveChosen(store, spots, -1, 0)}>{words.stepEarlier}</Chip>
          <Chip onPress={() => moveChosen(store, spots, 1, 0)}>{words.stepLater}</Chip>
          <Chip onPress={() => moveChosen(store, spots, 0, -1)}>{words.laneUp}</Chip>
          <Chip onPress={() => moveChosen(store, spots, 0, 1)}>{words.laneDown}</Chip>
        </Chips>
      ) : null}
      {clip ? (
        <Chips label={words.paste}>
          <Chip onPress={() => pasteAt(store, at)}>{words.pasteAtPlace(placeText(pattern, at))}</Chip>
          <Chip label={words.lineAStepEarlier} onPress={() => move(-1)}>
            {words.step}
          </Chip>
          <Chip label={words.lineAStepLater} onPress={() => move(1)}>
            {words.step2}
          </Chip>
          <Chip label={words.lineABarEarlier} onPress={() => move(-bar)}>
            {words.bar}
          </Chip>
          <Chip label={words.lineABarLater} onPress={() => move(bar)}>
            {words.bar2}
          </Chip>
        </Chips>
      ) : null}
    </>
  );
};

/** The one place that says what the controls are for, and where that is changed. */
export const ScopeChoice = ({
  target,
  lane,
  count,
}: {
  target: Target;
  lane: Lane | undefined;
  count: number;
}) => {
  const act = useDo();
  const scope = useApp(({ focus }) => focus.scope);
  const openLane = useApp(({ focus }) => focus.openLane);
  const pick = (to: FocusState['scope']) => act(scopeChosen(to));
  return (
    <>
      <Chips label={words.theseControlsAreFor}>
        <Chip pressed={scope === 'hits'} onPress={() => pick('hits')}>
          {words.selectedHits}
        </Chip>
        <Chip pressed={scope === 'lane'} disabled={!openLane} onPress={() => pick('lane')}>
          {words.wholeLane}
        </Chip>
        <Chip pressed={scope === 'all'} onPress={() => pick('all')}>
          {words.allLanes}
        </Chip>
      </Chips>
      <Para style={styles.target} live>
        {count ? about(target, lane, count) : words.noHitSelected}
      </Para>
    </>
  );
};

/** Selecting without drawing a box, and how the hand works. */
export const Selecting = () => {
  const store = useAppStore();
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const spots = useApp(({ focus }) => focus.selection);
  const openLane = useApp(({ focus }) => focus.openLane);
  const cursor = useApp(({ focus }) => focus.cursor);
  const eraser = useApp(({ input }) => input.eraser);
  const hearEdits = useApp(({ input }) => input.hearEdits);
  const g = cursor ? gridTicks(lanePatternOf(pattern, cursor.laneId).grid) : 0;
  const bar = cursor ? Math.floor((cursor.step * g) / barTicks(pattern.meter) + 1e-9) : 0;
  return (
    <Chips label={words.select}>
      <Chip label={words.selectBarBar(bar + 1)} onPress={() => selectBar(store, bar)}>
        {words.barBar(bar + 1)}
      </Chip>
      <Chip
        label={words.selectTheLane}
        disabled={!openLane}
        onPress={() => openLane && selectLane(store, openLane)}
      >
        {words.lane}
      </Chip>
      <Chip label={words.selectThePattern} onPress={() => selectAll(store)}>
        {words.pattern}
      </Chip>
      {spots.length ? <Chip onPress={() => act(focusEnded())}>{words.deselect}</Chip> : null}
      <Chip pressed={eraser} onPress={() => act(eraserToggled())}>
        {words.eraser}
      </Chip>
      <Chip label={words.hearEdits} pressed={hearEdits} onPress={() => act(hearEditsToggled())}>
        {words.hear}
      </Chip>
    </Chips>
  );
};
