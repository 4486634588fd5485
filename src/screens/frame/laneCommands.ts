import { nanoid } from '@reduxjs/toolkit';
import { lanePatternOf } from '../../../core/document/defaults';
import { gridTicks } from '../../../core/document/grid';
import { barTicks } from '../../../core/document/meter';
import { splitOff } from '../../../core/edit/lanes';
import type { Beat, Lane } from '../../../core/document/schema';
import { beatEdited } from '../../store/doc';
import { persistence, store } from '../../keeping/session';
import { selectBeat, selectPattern } from '../../store/store';
import { selectBar } from '../../strings/chosen';
import { words } from '../../words/commands';
import { words as drawer } from '../../words/drawer';
import { act, edits, lane, ofLane, say, type Command } from './commandParts';
import { laneShown, scopeChosen } from '../../store/focus';
import { drawerTurned } from '../../store/look';

/** What the drawer does to lanes as a whole, to their order and to takes. */

const beatOf = (): Beat => selectBeat(store.getState())!;

const laneAbove = (laneId: string): Lane | undefined => {
  const { lanes } = beatOf();
  return lanes[lanes.findIndex(({ id }) => id === laneId) - 1];
};

const groupWithAbove = (laneId: string): void => {
  const above = laneAbove(laneId);
  if (!above) return say(words.noLaneAbove);
  const { lanes } = beatOf();
  const group = above.group ? lanes.filter((one) => one.group === above.group) : [above];
  const args = {
    id: nanoid(),
    name: drawer.aboveGroup(above.name).slice(0, 80),
    laneIds: [...group.map(({ id }) => id), laneId],
  };
  act(beatEdited({ edit: { edit: 'groupLanes', args } }));
};

const takeApart = (laneId: string): void => {
  const group = beatOf().lanes.find(({ id }) => id === laneId)?.group;
  if (!group) return say(words.inNoGroup);
  act(beatEdited({ edit: { edit: 'ungroup', args: { groupId: group } } }));
};

const remove = (laneId: string): void => {
  if (beatOf().lanes.length < 2) return say(words.theOnlyLane);
  act(laneShown(null));
  act(beatEdited({ edit: { edit: 'removeLane', args: { laneId } } }));
};

const shiftNotes = (by: number): void => {
  if (beatOf().lanes.some(({ note }) => note + by < 0 || note + by > 127))
    return say(drawer.noNoteWasShiftedOne);
  act(beatEdited({ edit: { edit: 'shiftNotes', args: { by } } }));
};

/** The bar that the keys were on last, from 0. */
const barOfCursor = (): number => {
  const pattern = selectPattern(store.getState())!;
  const { cursor } = store.getState().focus;
  if (!cursor) return 0;
  const tick = cursor.step * gridTicks(lanePatternOf(pattern, cursor.laneId).grid);
  return Math.floor(tick / barTicks(pattern.meter) + 1e-9);
};

/** Works on the take that is played. */
const onTake = (edit: (takeId: string) => void) => () => {
  const pattern = selectPattern(store.getState());
  const take = pattern?.takes?.find(({ id }) => id === pattern.take);
  if (take) edit(take.id);
  else say(words.noTakeYet);
};

const fill = (every: number): Command =>
  lane(every === 1 ? drawer.fillEveryStep : drawer.fillOneStepInEvery(every), (laneId) =>
    edits('fillEvery', { laneIds: [laneId], every, from: 0, to: beatOf().levels.normal }),
  );

export const LANE_COMMANDS: readonly Command[] = [
  lane(drawer.asLongAsThePattern, ofLane('asLongAsThePattern'), {
    also: words.length,
  }),
  ...[1, 2, 3, 4].map(fill),
  {
    name: drawer.clearAllLanes,
    of: drawer.lane,
    on: '/',
    also: words.emptyDelete,
    run: () => edits('clearLanes', { laneIds: Object.keys(selectPattern(store.getState())!.parts) }),
  },
  lane(drawer.groupWithTheLaneAbove, groupWithAbove),
  lane(words.takeTheGroupApart, takeApart),
  lane(drawer.splitOffIntoABeat, (laneId) => void persistence.takeIn(splitOff(beatOf(), laneId, nanoid()))),
  lane(drawer.removeLane, remove, { also: words.deleteRemove }),
  ...[-12, -1, 1, 12].map((by): Command => ({
    name: drawer.shiftAllNotesByBy(by),
    of: drawer.lane,
    on: '/',
    also: words.notesGeneralMidi,
    run: () => shiftNotes(by),
  })),
  {
    name: words.selectTheBar,
    of: drawer.hits,
    on: '/',
    run: () => selectBar(store, barOfCursor()),
  },
  ...(
    [
      [drawer.selectedHits, 'hits'],
      [drawer.wholeLane, 'lane'],
      [drawer.allLanes, 'all'],
    ] as const
  ).map(([name, scope]): Command => ({
    name: words.controlsAreFor(name),
    of: drawer.hits,
    on: '/',
    run: () => {
      act(scopeChosen(scope));
      act(drawerTurned('hits'));
    },
  })),
  {
    name: words.keepTheTake,
    of: drawer.chance,
    on: '/',
    run: onTake((takeId) => edits('changeTake', { takeId, change: { kept: true } })),
  },
  {
    name: words.dropTheTake,
    of: drawer.chance,
    on: '/',
    also: words.deleteRemove,
    run: onTake((takeId) => edits('dropTake', { takeId })),
  },
];
