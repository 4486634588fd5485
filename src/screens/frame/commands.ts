import { nanoid } from '@reduxjs/toolkit';
import type { PatternEdit } from '../../../core/pattern/edits';
import { GRACES, PRESS_ROLL, sloped } from '../../../core/pattern/strokes';
import type { Spot } from '../../../core/pattern/spots';
import { strikeLane } from '../../audio/player';
import { beatEdited, laneChanged, redone, swingSet, undone } from '../../state/doc';
import { editShown, targetOf } from '../../state/editing';
import { store } from '../../state/session';
import { noticed, viewChanged, type ViewState } from '../../state/slices';
import { selectBeat, selectPattern } from '../../state/store';
import {
  copyChosen,
  duplicateChosen,
  moveChosen,
  pasteAt,
  removeChosen,
  selectAll,
  selectLane,
} from '../../strings/chosen';
import { keep } from '../../ui/useKept';
import { togglePlay } from './sound';

export type Screen = '/' | '/feel' | '/grooves' | '/song' | '/export' | '/beats';

export interface Command {
  name: string;
  /** What it belongs to, shown beside it. */
  of: string;
  /** Other words that it is looked for by. */
  also?: string;
  /** The key that does it too. */
  keys?: string;
  /** The screen where its outcome is seen. */
  on?: Screen;
  run: () => void;
}

const act = (action: Parameters<typeof store.dispatch>[0]) => void store.dispatch(action);
const view = (change: Partial<ViewState>) => act(viewChanged(change));
const say = (text: string) => act(noticed({ text, subject: 'command' }));

/** Works on the hits that the drawer works on; where there are none, it is said what to do first. */
const onHits = (edit: (spots: Spot[]) => void) => () => {
  const { spots } = targetOf(store.getState());
  if (spots.length) edit(spots);
  else say('Open a lane and tap a hit first: this works on selected hits.');
};

/** Works on the open lane, or the one that the keys were on last. */
const onLane = (edit: (laneId: string) => void) => () => {
  const { openLane, cursor } = store.getState().view;
  const laneId = openLane ?? cursor?.laneId;
  if (laneId && selectBeat(store.getState())?.lanes.some(({ id }) => id === laneId)) edit(laneId);
  else say('Press a lane’s name first: this works on the open lane.');
};

const edits = <E extends PatternEdit['edit']>(name: E, args: Extract<PatternEdit, { edit: E }>['args']) =>
  editShown(store, { edit: name, args } as PatternEdit);

const seed = () => crypto.getRandomValues(new Uint32Array(1))[0]!;

const hits = (name: string, edit: (spots: Spot[]) => void, more: Partial<Command> = {}): Command => ({
  name,
  of: 'Hits',
  on: '/',
  run: onHits(edit),
  ...more,
});
const lane = (name: string, edit: (laneId: string) => void, more: Partial<Command> = {}): Command => ({
  name,
  of: 'Lane',
  on: '/',
  run: onLane(edit),
  ...more,
});
const place = (name: string, on: Screen, run: () => void = () => undefined, also = ''): Command => ({
  name,
  of: 'Go to',
  on,
  run,
  also,
});

const ofHits: Command[] = [
  hits('2 strokes', (spots) => edits('setRolls', { spots, roll: sloped(2, 0) }), { also: 'roll double' }),
  hits('3 strokes', (spots) => edits('setRolls', { spots, roll: sloped(3, 0) }), { also: 'roll triplet' }),
  hits('4 rising', (spots) => edits('setRolls', { spots, roll: sloped(4, 0.6) }), { also: 'roll crescendo' }),
  hits('Press roll', (spots) => edits('setRolls', { spots, roll: PRESS_ROLL }), { also: 'buzz' }),
  hits('No roll', (spots) => edits('setRolls', { spots, roll: null })),
  ...GRACES.map(({ name, grace }) =>
    hits(name, (spots) => edits('setGraces', { spots, grace }), { also: 'grace strokes' }),
  ),
  hits('No grace strokes', (spots) => edits('setGraces', { spots, grace: null }), { also: 'flam drag ruff' }),
  ...(['ghost', 'normal', 'accent'] as const).map((level) =>
    hits(
      level[0]!.toUpperCase() + level.slice(1),
      (spots) => edits('setVelocities', { spots, to: selectBeat(store.getState())!.levels[level] }),
      { also: 'velocity level', keys: '1 to 9' },
    ),
  ),
  hits('Softer', (spots) => edits('scaleVelocities', { spots, factor: 0.85 }), { also: 'velocity' }),
  hits('Harder', (spots) => edits('scaleVelocities', { spots, factor: 1 / 0.85 }), {
    also: 'velocity louder',
  }),
  hits(
    'Ramp up',
    (spots) => {
      const { ghost, accent } = selectBeat(store.getState())!.levels;
      edits('rampVelocities', { spots, from: ghost, to: accent });
    },
    { also: 'velocity crescendo' },
  ),
  hits(
    'Ramp down',
    (spots) => {
      const { ghost, accent } = selectBeat(store.getState())!.levels;
      edits('rampVelocities', { spots, from: accent, to: ghost });
    },
    { also: 'velocity decrescendo' },
  ),
  hits('Velocities closer together', (spots) => edits('compressVelocities', { spots, ratio: 0.5 }), {
    also: 'compress',
  }),
  hits('Velocities further apart', (spots) => edits('compressVelocities', { spots, ratio: 1.5 }), {
    also: 'expand',
  }),
  hits('1 ms earlier', (spots) => edits('nudgeByMs', { spots, ms: -1 }), { also: 'nudge ahead', keys: ',' }),
  hits('1 ms later', (spots) => edits('nudgeByMs', { spots, ms: 1 }), { also: 'nudge behind', keys: '.' }),
  hits('On the grid', (spots) => edits('setNudges', { spots, to: 0 }), { also: 'nudge quantize reset' }),
  hits('Rings out', (spots) => edits('setLengths', { spots, length: null }), { also: 'length' }),
  hits('Up to the next hit', (spots) => edits('lengthsToNext', { spots }), { also: 'length legato' }),
  hits('Copy', (spots) => void copyChosen(store, spots), { keys: 'Ctrl or Cmd + C' }),
  hits(
    'Cut',
    (spots) => {
      if (copyChosen(store, spots)) removeChosen(store, spots);
    },
    { keys: 'Ctrl or Cmd + X' },
  ),
  hits('Duplicate', (spots) => duplicateChosen(store, spots), { keys: 'Ctrl or Cmd + D' }),
  hits('Delete', (spots) => removeChosen(store, spots), { keys: 'Delete', also: 'remove erase' }),
  hits('Step earlier', (spots) => moveChosen(store, spots, -1, 0), { keys: 'Alt + Left', also: 'move' }),
  hits('Step later', (spots) => moveChosen(store, spots, 1, 0), { keys: 'Alt + Right', also: 'move' }),
  hits('Lane up', (spots) => moveChosen(store, spots, 0, -1), { keys: 'Alt + Up', also: 'move' }),
  hits('Lane down', (spots) => moveChosen(store, spots, 0, 1), { keys: 'Alt + Down', also: 'move' }),
  {
    name: 'Paste',
    of: 'Hits',
    on: '/',
    keys: 'Ctrl or Cmd + V',
    run: () => {
      const { pasteAt: line, cursor, openLane } = store.getState().view;
      const first = selectBeat(store.getState())?.lanes[0]?.id;
      const laneId = openLane ?? first;
      const at = line ?? cursor ?? (laneId ? { laneId, step: 0 } : null);
      if (at) pasteAt(store, at);
    },
  },
  lane('Select the lane', (laneId) => selectLane(store, laneId), { of: 'Hits', keys: 'Ctrl or Cmd + A' }),
  {
    name: 'Select the pattern',
    of: 'Hits',
    on: '/',
    keys: 'Shift + Ctrl or Cmd + A',
    also: 'all',
    run: () => selectAll(store),
  },
  {
    name: 'Deselect',
    of: 'Hits',
    on: '/',
    keys: 'Escape',
    run: () => view({ spots: [], cursor: null, scope: 'hits' }),
  },
  {
    name: 'Eraser',
    of: 'Hits',
    on: '/',
    also: 'delete remove',
    run: () => view({ eraser: !store.getState().view.eraser, drawer: 'hits' }),
  },
  {
    name: 'Hear hits that are put down',
    of: 'Hits',
    on: '/',
    also: 'sound preview',
    run: () => view({ hearEdits: !store.getState().view.hearEdits }),
  },
];

const ofLanes: Command[] = [
  lane('Step left', (laneId) => edits('shift', { laneIds: [laneId], by: -1 }), { also: 'shift' }),
  lane('Step right', (laneId) => edits('shift', { laneIds: [laneId], by: 1 }), { also: 'shift' }),
  lane('Rotate left', (laneId) => edits('rotate', { laneIds: [laneId], by: -1 })),
  lane('Rotate right', (laneId) => edits('rotate', { laneIds: [laneId], by: 1 })),
  lane('Reverse', (laneId) => edits('reverse', { laneIds: [laneId] }), { also: 'backward' }),
  lane('Mirror', (laneId) => edits('mirror', { laneIds: [laneId] })),
  lane('Double', (laneId) => edits('double', { laneIds: [laneId] }), { also: 'twice as long repeat' }),
  lane('Halve', (laneId) => edits('halve', { laneIds: [laneId] }), { also: 'half as long' }),
  lane('Half time', (laneId) => edits('stretch', { laneIds: [laneId], factor: 2 }), { also: 'slower' }),
  lane('Double time', (laneId) => edits('stretch', { laneIds: [laneId], factor: 0.5 }), { also: 'faster' }),
  lane('Thin out', (laneId) => edits('thin', { laneIds: [laneId] }), { also: 'fewer' }),
  lane('Thicken', (laneId) => edits('thicken', { laneIds: [laneId] }), { also: 'more denser' }),
  lane('Clear the lane', (laneId) => edits('clearLanes', { laneIds: [laneId] }), { also: 'empty delete' }),
  lane('Hear the lane', (laneId) => void strikeLane(laneId, 100), { keys: 'H' }),
  lane('Mute', (laneId) => flip(laneId, 'mute'), { keys: 'M', also: 'silent' }),
  lane('Solo', (laneId) => flip(laneId, 'solo'), { keys: 'S', also: 'alone' }),
  lane(
    'Roll anew',
    (laneId) => edits('randomize', { laneIds: [laneId], seed: seed(), id: nanoid(), keep: NOTHING }),
    {
      of: 'Chance',
      also: 'random randomize',
    },
  ),
  ...(
    [
      ['Vary a little', 0.1],
      ['Vary a quarter', 0.25],
      ['Vary a half', 0.5],
    ] as const
  ).map(([name, share]) =>
    lane(name, (laneId) => edits('vary', { laneIds: [laneId], seed: seed(), id: nanoid(), share }), {
      of: 'Chance',
      also: 'random variation',
    }),
  ),
];

function flip(laneId: string, what: 'mute' | 'solo'): void {
  const found = selectBeat(store.getState())?.lanes.find(({ id }) => id === laneId);
  if (found) act(laneChanged({ laneId, change: { [what]: !found[what] } }));
}
const NOTHING = { count: false, places: false, velocities: false };

const swing = (name: string, percent: number, also: string): Command => ({
  name,
  of: 'Feel',
  on: '/feel',
  also: `swing shuffle ${also}`,
  run: () => {
    keep('feel page', 'stages');
    act(swingSet({ patternId: null, change: { percent } }));
  },
});

const ofAll: Command[] = [
  { name: 'Play and stop', of: 'Play', keys: 'Space', also: 'start transport', run: togglePlay },
  {
    name: 'Metronome',
    of: 'Play',
    also: 'click',
    run: () => {
      const { metronome } = store.getState().view;
      view({ metronome: { ...metronome, on: !metronome.on } });
    },
  },
  {
    name: 'Count in',
    of: 'Play',
    also: 'click bar',
    run: () => view({ countIn: !store.getState().view.countIn }),
  },
  { name: 'Undo', of: 'Edit', keys: 'Ctrl or Cmd + Z', run: () => act(undone()) },
  { name: 'Redo', of: 'Edit', keys: 'Shift + Ctrl or Cmd + Z', run: () => act(redone()) },
  {
    name: 'Mute and solo for all lanes',
    of: 'Pattern',
    on: '/',
    run: () => view({ mixOpen: !store.getState().view.mixOpen }),
  },
  {
    name: 'New pattern',
    of: 'Pattern',
    on: '/',
    also: 'add empty',
    run: () => {
      const like = selectPattern(store.getState());
      if (!like) return;
      const id = nanoid();
      act(beatEdited({ edit: { edit: 'addPattern', args: { id, like } } }));
      if (selectBeat(store.getState())?.patterns.some((one) => one.id === id))
        view({ patternId: id, spots: [], cursor: null });
    },
  },
  swing('No swing, straight', 50, 'even'),
  swing('Light swing', 55, 'septuplet'),
  swing('Quintuplet swing', 60, ''),
  swing('Triplet swing', 66.67, ''),
  swing('Hard swing', 75, 'dotted'),
  { name: 'Theme: day', of: 'View', also: 'light bright', run: () => view({ theme: 'day' }) },
  { name: 'Theme: night', of: 'View', also: 'dark', run: () => view({ theme: 'night' }) },
  { name: 'Theme: as the system', of: 'View', run: () => view({ theme: 'system' }) },
];

const drawer = (page: NonNullable<ViewState['drawer']>) => () => {
  const { openLane } = store.getState().view;
  view({ drawer: page, openLane: openLane ?? selectBeat(store.getState())?.lanes[0]?.id ?? null });
};

const places: Command[] = [
  place('Pattern', '/', undefined, 'steps strings program'),
  place('Hits of the open lane', '/', drawer('hits'), 'velocity roll flam drawer'),
  place(
    'The open lane',
    '/',
    drawer('lane'),
    'steps grid direction rate preset note euclid polymeter drawer',
  ),
  place('Sound of the open lane', '/', drawer('sound'), 'level pan tune decay drawer'),
  place('Chance and takes', '/', drawer('chance'), 'random vary drawer'),
  place('Pads', '/', drawer('pads'), 'record play in midi input keys latency count'),
  ...(
    [
      ['Feel: stages', 'stages', 'swing quantize humanize ahead behind dynamics groove'],
      ['Feel: compare', 'compare', 'blind test a b'],
      ['Feel: charts', 'charts', 'timing velocity'],
      ['Feel: report', 'report', 'measure swing spread'],
      ['Feel: templates', 'templates', 'groove template'],
      ['Feels', 'feels', 'blend write in kept'],
    ] as const
  ).map(([name, page, also]) => place(name, '/feel', () => keep('feel page', page), also)),
  place('Grooves', '/grooves', () => keep('grooves page', 'list'), 'library import midi files'),
  place('Drum maps', '/grooves', () => keep('grooves page', 'maps'), 'notes general midi'),
  place('Song: sections', '/song', () => keep('song page', 'sections'), 'arrange form verse chorus'),
  place('Song: tray', '/song', () => keep('song page', 'tray'), ''),
  place('Song: play live', '/song', () => keep('song page', 'live'), 'perform switch'),
  place('Export MIDI', '/export', undefined, 'save file download midi'),
  place('Export audio', '/export', undefined, 'wav bounce render'),
  place('Export stems', '/export', undefined, 'lanes tracks split zip'),
  place('Beats', '/beats', undefined, 'open new save rename duplicate delete backup'),
];

/** All that can be done by name. */
export const COMMANDS: readonly Command[] = [...ofAll, ...ofHits, ...ofLanes, ...places];
