import type { KeyId } from '../../ui/keys';
import type { PatternEdit } from '../../../core/edit/edits';
import { readyForHits, readyForLanes, type ReadyForHits, type ReadyForLanes } from '../../../core/edit/ready';
import type { Spot } from '../../../core/edit/spots';
import { editShown, targetOf } from '../../store/editing';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { selectBeat } from '../../store/store';
import { words } from '../../words/commands';
import { words as drawer } from '../../words/drawer';

export type Screen = '/' | '/feel' | '/grooves' | '/song' | '/export' | '/beats' | '/ports';

export interface Command {
  name: string;
  /** What it belongs to, shown beside it. */
  of: string;
  /** Other words that it is looked for by. */
  also?: string;
  /** The key that does it too. */
  key?: KeyId;
  /** The screen where its outcome is seen. */
  on?: Screen;
  run: () => void;
}

export const act = (action: Parameters<typeof store.dispatch>[0]) => void store.dispatch(action);
export const say = (text: string) => act(noticed({ text, subject: 'command' }));

/** Works on the hits that the drawer works on; where there are none, it is said what to do first. */
export const onChosenHits = (edit: (spots: Spot[]) => void) => () => {
  const { spots } = targetOf(store.getState());
  if (spots.length) edit(spots);
  else say(words.openALaneAndTap);
};

/** Works on the open lane, or the one that the keys were on last. */
export const onLane = (edit: (laneId: string) => void) => () => {
  const { openLane, cursor } = store.getState().focus;
  const laneId = openLane ?? cursor?.laneId;
  if (laneId && selectBeat(store.getState())?.lanes.some(({ id }) => id === laneId)) edit(laneId);
  else say(words.pressALanesNameFirst);
};

export const edits = <E extends PatternEdit['edit']>(
  name: E,
  args: Extract<PatternEdit, { edit: E }>['args'],
) => editShown(store, { edit: name, args } as PatternEdit);

/** What is ready to be done, to hits or to a lane. */
export const ofReady = (name: ReadyForHits) => (spots: Spot[]) => editShown(store, readyForHits(name, spots));
export const ofLane = (name: ReadyForLanes) => (laneId: string) =>
  editShown(store, readyForLanes(name, [laneId]));

export const seed = () => crypto.getRandomValues(new Uint32Array(1))[0]!;

export const hits = (name: string, edit: (spots: Spot[]) => void, more: Partial<Command> = {}): Command => ({
  name,
  of: drawer.hits,
  on: '/',
  run: onChosenHits(edit),
  ...more,
});
export const lane = (name: string, edit: (laneId: string) => void, more: Partial<Command> = {}): Command => ({
  name,
  of: drawer.lane,
  on: '/',
  run: onLane(edit),
  ...more,
});
export const place = (name: string, on: Screen, run: () => void = () => undefined, also = ''): Command => ({
  name,
  of: words.goTo,
  on,
  run,
  also,
});
