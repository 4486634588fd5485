import { Chips } from '../../../ui/Layout';
import { Para } from '../../../ui/Words';
import { styles } from './styles';
import { partOf } from '../../../../core/beat/defaults';
import { gridTicks } from '../../../../core/beat/grid';
import { barTicks } from '../../../../core/beat/meter';
import type { Lane, Pattern } from '../../../../core/beat/schema';
import type { Spot } from '../../../../core/pattern/spots';
import type { Target } from '../../../state/editing';
import { viewChanged, type ViewState } from '../../../state/slices';
import { store } from '../../../state/session';
import { selectBeat, selectPattern, useApp, useDo } from '../../../state/store';
import { Chip } from '../../../ui/Chip';
import {
  copyChosen,
  duplicateChosen,
  moveChosen,
  pasteAt,
  removeChosen,
  selectAll,
  selectBar,
  selectLane,
} from '../../../strings/chosen';

const hitsText = (count: number): string => `${count} hit${count === 1 ? '' : 's'}`;

/** What the controls are for, in words. */
const about = (target: Target, lane: Lane | undefined, count: number): string => {
  if (target.kind === 'all') return `All ${hitsText(count)} of all lanes`;
  if (target.kind === 'lane') return `All ${hitsText(count)} of ${lane?.name ?? 'the lane'}`;
  if (target.kind === 'one' && count === 1) return `${lane?.name ?? ''}, step ${target.spots[0]!.step + 1}`;
  return `${hitsText(count)} selected`;
};

/** Where the line stands, counted as people do. */
const placeText = (pattern: Pattern, { laneId, step }: Spot): string => {
  const g = gridTicks(partOf(pattern, laneId).grid);
  const bar = barTicks(pattern.meter);
  const tick = step * g;
  const inBar = (tick % bar) / g;
  return `bar ${Math.floor(tick / bar + 1e-9) + 1}, step ${Math.round(inBar * 100) / 100 + 1}`;
};

/** Copying and pasting: the line on the strings shows where. */
export const Clipboard = ({ spots }: { spots: Spot[] }) => {
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const { clip, openLane, pasteAt: line, cursor } = useApp((state) => state.view);
  const known = (at: Spot | null) => (at && lanes.some(({ id }) => id === at.laneId) ? at : null);
  const at = known(line) ?? known(cursor) ?? { laneId: openLane ?? lanes[0]!.id, step: 0 };
  const bar = barTicks(pattern.meter) / gridTicks(partOf(pattern, at.laneId).grid);
  const move = (by: number) =>
    act(viewChanged({ pasteAt: { laneId: at.laneId, step: Math.max(0, at.step + by) } }));
  return (
    <>
      {spots.length ? (
        <Chips>
          <Chip onPress={() => copyChosen(store, spots)}>Copy</Chip>
          <Chip
            onPress={() => {
              if (copyChosen(store, spots)) removeChosen(store, spots);
            }}
          >
            Cut
          </Chip>
          <Chip onPress={() => duplicateChosen(store, spots)}>Duplicate</Chip>
          <Chip tone="danger" onPress={() => removeChosen(store, spots)}>
            Delete
          </Chip>
          <Chip onPress={() => moveChosen(store, spots, -1, 0)}>Step earlier</Chip>
          <Chip onPress={() => moveChosen(store, spots, 1, 0)}>Step later</Chip>
          <Chip onPress={() => moveChosen(store, spots, 0, -1)}>Lane up</Chip>
          <Chip onPress={() => moveChosen(store, spots, 0, 1)}>Lane down</Chip>
        </Chips>
      ) : null}
      {clip ? (
        <Chips label="Paste">
          <Chip onPress={() => pasteAt(store, at)}>{`Paste at ${placeText(pattern, at)}`}</Chip>
          <Chip label="Line a step earlier" onPress={() => move(-1)}>
            ‹ Step
          </Chip>
          <Chip label="Line a step later" onPress={() => move(1)}>
            Step ›
          </Chip>
          <Chip label="Line a bar earlier" onPress={() => move(-bar)}>
            ‹ Bar
          </Chip>
          <Chip label="Line a bar later" onPress={() => move(bar)}>
            Bar ›
          </Chip>
        </Chips>
      ) : null}
    </>
  );
};

/** The one place that says what the controls are for, and where that is changed. */
export const Scope = ({ target, lane, count }: { target: Target; lane: Lane | undefined; count: number }) => {
  const act = useDo();
  const { scope, openLane } = useApp((state) => state.view);
  const pick = (to: ViewState['scope']) => act(viewChanged({ scope: to }));
  return (
    <>
      <Chips label="These controls are for">
        <Chip pressed={scope === 'hits'} onPress={() => pick('hits')}>
          Selected hits
        </Chip>
        <Chip pressed={scope === 'lane'} disabled={!openLane} onPress={() => pick('lane')}>
          Whole lane
        </Chip>
        <Chip pressed={scope === 'all'} onPress={() => pick('all')}>
          All lanes
        </Chip>
      </Chips>
      <Para style={styles.target} live>
        {count ? about(target, lane, count) : 'No hit selected'}
      </Para>
    </>
  );
};

/** Selecting without drawing a box, and how the hand works. */
export const Selecting = () => {
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const { spots, openLane, cursor, eraser, hearEdits } = useApp((state) => state.view);
  const g = cursor ? gridTicks(partOf(pattern, cursor.laneId).grid) : 0;
  const bar = cursor ? Math.floor((cursor.step * g) / barTicks(pattern.meter) + 1e-9) : 0;
  return (
    <Chips label="Select">
      <Chip label={`Select bar ${bar + 1}`} onPress={() => selectBar(store, bar)}>
        {`Bar ${bar + 1}`}
      </Chip>
      <Chip
        label="Select the lane"
        disabled={!openLane}
        onPress={() => openLane && selectLane(store, openLane)}
      >
        Lane
      </Chip>
      <Chip label="Select the pattern" onPress={() => selectAll(store)}>
        Pattern
      </Chip>
      {spots.length ? (
        <Chip onPress={() => act(viewChanged({ spots: [], cursor: null, scope: 'hits' }))}>Deselect</Chip>
      ) : null}
      <Chip pressed={eraser} onPress={() => act(viewChanged({ eraser: !eraser }))}>
        Eraser
      </Chip>
      <Chip
        label="Hear edits"
        pressed={hearEdits}
        onPress={() => act(viewChanged({ hearEdits: !hearEdits }))}
      >
        Hear
      </Chip>
    </Chips>
  );
};
