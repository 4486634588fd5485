import { capital } from '../../../core/capital';
import { act, edits, hits, lane, ofLane, ofReady, place, seed, type Command } from './commandParts';
import { LANE_COMMANDS } from './laneCommands';
import { nanoid } from '@reduxjs/toolkit';
import { GRACES } from '../../../core/document/rolls';
import { strikeLane } from '../../audio/player';
import { beatEdited, laneChanged, redone, swingSet, undone } from '../../store/doc';
import { store } from '../../keeping/session';
import { selectBeat, selectPattern } from '../../store/store';
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
import { words } from '../../words/commands';
import { words as drawer } from '../../words/drawer';
import { words as pattern } from '../../words/pattern';
import { words as made } from '../../words/make';
import { words as portWords } from '../../words/ports';
import { words as handWords } from '../../words/hands';
import { focusEnded, laneOpened, patternShown } from '../../store/focus';
import { eraserToggled, hearEditsToggled } from '../../store/input';
import {
  type DrawerPage,
  drawerTurned,
  handsToggled,
  mixToggled,
  sheetOpened,
  themeSet,
} from '../../store/look';
import { countInToggled, metronomeSet } from '../../store/transport';

const ofHits: Command[] = [
  hits(handWords.alternate, (spots) => edits('stickBy', { spots, rule: 'alternate' }), {
    also: handWords.alsoShown,
  }),
  hits(handWords.asRudiments, (spots) => edits('stickBy', { spots, rule: 'rudiment' }), {
    also: handWords.alsoShown,
  }),
  hits(handWords.leadingHand, (spots) => edits('stickBy', { spots, rule: 'lead' }), {
    also: handWords.alsoShown,
  }),
  hits(drawer.n2Strokes, ofReady('twoStrokes'), {
    also: words.rollDouble,
  }),
  hits(drawer.n3Strokes, ofReady('threeStrokes'), {
    also: words.rollTriplet,
  }),
  hits(drawer.n4Rising, ofReady('fourRising'), {
    also: words.rollCrescendo,
  }),
  hits(drawer.pressRoll, ofReady('pressRoll'), { also: words.buzz }),
  hits(drawer.noRoll, ofReady('noRoll')),
  ...GRACES.map(({ name, grace }) =>
    hits(name, (spots) => edits('setGraces', { spots, grace }), { also: words.graceStrokes }),
  ),
  hits(drawer.noGraceStrokes, ofReady('noGrace'), {
    also: words.flamDragRuff,
  }),
  ...(['ghost', 'normal', 'accent'] as const).map((level) =>
    hits(
      capital(level),
      (spots) => edits('setVelocities', { spots, to: selectBeat(store.getState())!.levels[level] }),
      { also: words.velocityLevel, key: 'velocity' },
    ),
  ),
  hits(drawer.softer, ofReady('softer'), { also: words.velocity }),
  hits(drawer.harder, ofReady('harder'), {
    also: words.velocityLouder,
  }),
  hits(
    drawer.rampUp,
    (spots) => {
      const { ghost, accent } = selectBeat(store.getState())!.levels;
      edits('rampVelocities', { spots, from: ghost, to: accent });
    },
    { also: words.velocityCrescendo },
  ),
  hits(
    drawer.rampDown,
    (spots) => {
      const { ghost, accent } = selectBeat(store.getState())!.levels;
      edits('rampVelocities', { spots, from: accent, to: ghost });
    },
    { also: words.velocityDecrescendo },
  ),
  hits(words.velocitiesCloserTogether, ofReady('closerTogether'), {
    also: words.compress,
  }),
  hits(words.velocitiesFurtherApart, ofReady('furtherApart'), {
    also: words.expand,
  }),
  hits(drawer.n1MsEarlier, ofReady('msEarlier'), {
    also: words.nudgeAhead,
    key: 'nudge',
  }),
  hits(drawer.n1MsLater, ofReady('msLater'), {
    also: words.nudgeBehind,
    key: 'nudge',
  }),
  hits(drawer.onTheGrid, ofReady('onTheGrid'), { also: words.nudgeQuantizeReset }),
  hits(drawer.ringsOut2, ofReady('ringsOut'), { also: words.length }),
  hits(drawer.upToTheNextHit, ofReady('upToTheNext'), { also: words.lengthLegato }),
  hits(drawer.copy, (spots) => void copyChosen(store, spots), { key: 'copy' }),
  hits(
    drawer.cut,
    (spots) => {
      if (copyChosen(store, spots)) removeChosen(store, spots);
    },
    { key: 'cut' },
  ),
  hits(drawer.duplicate, (spots) => duplicateChosen(store, spots), { key: 'duplicate' }),
  hits(drawer.delete, (spots) => removeChosen(store, spots), {
    key: 'remove',
    also: words.removeErase,
  }),
  hits(drawer.stepEarlier, (spots) => moveChosen(store, spots, -1, 0), {
    key: 'move',
    also: words.move,
  }),
  hits(drawer.stepLater, (spots) => moveChosen(store, spots, 1, 0), {
    key: 'move',
    also: words.move,
  }),
  hits(drawer.laneUp, (spots) => moveChosen(store, spots, 0, -1), { key: 'move', also: words.move }),
  hits(drawer.laneDown, (spots) => moveChosen(store, spots, 0, 1), { key: 'move', also: words.move }),
  {
    name: drawer.paste,
    of: drawer.hits,
    on: '/',
    key: 'paste',
    run: () => {
      const { pasteAt: line, cursor, openLane } = store.getState().focus;
      const first = selectBeat(store.getState())?.lanes[0]?.id;
      const laneId = openLane ?? first;
      const at = line ?? cursor ?? (laneId ? { laneId, step: 0 } : null);
      if (at) pasteAt(store, at);
    },
  },
  lane(drawer.selectTheLane, (laneId) => selectLane(store, laneId), {
    of: drawer.hits,
    key: 'selectLane',
  }),
  {
    name: drawer.selectThePattern,
    of: drawer.hits,
    on: '/',
    key: 'selectAll',
    also: words.all,
    run: () => selectAll(store),
  },
  {
    name: drawer.deselect,
    of: drawer.hits,
    on: '/',
    key: 'deselect',
    run: () => act(focusEnded()),
  },
  {
    name: drawer.eraser,
    of: drawer.hits,
    on: '/',
    also: words.deleteRemove,
    run: () => {
      act(eraserToggled());
      act(drawerTurned('hits'));
    },
  },
  {
    name: words.hearHitsThatArePut,
    of: drawer.hits,
    on: '/',
    also: words.soundPreview,
    run: () => act(hearEditsToggled()),
  },
  {
    name: handWords.showing,
    of: words.view,
    on: '/',
    also: handWords.alsoShown,
    run: () => act(handsToggled()),
  },
];

const ofLanes: Command[] = [
  lane(drawer.stepLeft, ofLane('stepLeft'), { also: words.shift }),
  lane(drawer.stepRight, ofLane('stepRight'), { also: words.shift }),
  lane(drawer.rotateLeft, ofLane('rotateLeft')),
  lane(drawer.rotateRight, ofLane('rotateRight')),
  lane(drawer.reverse, ofLane('reverse'), { also: words.backward }),
  lane(drawer.mirror, ofLane('mirror')),
  lane(drawer.double, ofLane('double'), { also: words.twiceAsLongRepeat }),
  lane(drawer.halve, ofLane('halve'), { also: words.halfAsLong }),
  lane(drawer.halfTime, ofLane('halfTime'), {
    also: words.slower,
  }),
  lane(drawer.doubleTime, ofLane('doubleTime'), {
    also: words.faster,
  }),
  lane(drawer.thinOut, ofLane('thinOut'), { also: words.fewer }),
  lane(drawer.thicken, ofLane('thicken'), { also: words.moreDenser }),
  lane(words.clearTheLane, ofLane('clear'), {
    also: words.emptyDelete,
  }),
  lane(words.hearTheLane, (laneId) => void strikeLane(laneId, 100), { key: 'hear' }),
  lane(words.mute, (laneId) => flip(laneId, 'mute'), { key: 'mute', also: words.silent }),
  lane(words.solo, (laneId) => flip(laneId, 'solo'), { key: 'solo', also: words.alone }),
  lane(
    drawer.randomize,
    (laneId) => edits('randomize', { laneIds: [laneId], seed: seed(), id: nanoid(), keep: NOTHING }),
    {
      of: drawer.chance,
      also: words.randomRandomize,
    },
  ),
  ...(
    [
      [words.varyALittle, 0.1],
      [drawer.varyAQuarter, 0.25],
      [words.varyAHalf, 0.5],
    ] as const
  ).map(([name, share]) =>
    lane(name, (laneId) => edits('vary', { laneIds: [laneId], seed: seed(), id: nanoid(), share }), {
      of: drawer.chance,
      also: words.randomVariation,
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
  of: words.feel,
  on: '/feel',
  also: words.swingShuffleAlso(also),
  run: () => {
    keep('feel page', 'stages');
    act(swingSet({ patternId: null, change: { percent } }));
  },
});

const ofAll: Command[] = [
  { name: words.playAndStop, of: words.play, key: 'play', also: words.startTransport, run: togglePlay },
  {
    name: words.metronome,
    of: words.play,
    also: words.click,
    run: () => {
      const { metronome } = store.getState().transport;
      act(metronomeSet({ on: !metronome.on }));
    },
  },
  {
    name: words.countIn,
    of: words.play,
    also: words.clickBar,
    run: () => act(countInToggled()),
  },
  { name: words.undo, of: words.edit, key: 'undo', run: () => act(undone()) },
  { name: words.redo, of: words.edit, key: 'redo', run: () => act(redone()) },
  {
    name: words.muteAndSoloForAll,
    of: drawer.pattern,
    on: '/',
    run: () => act(mixToggled()),
  },
  {
    name: words.newPattern,
    of: drawer.pattern,
    on: '/',
    also: words.addEmpty,
    run: () => {
      const like = selectPattern(store.getState());
      if (!like) return;
      const id = nanoid();
      act(beatEdited({ edit: { edit: 'addPattern', args: { id, like } } }));
      if (selectBeat(store.getState())?.patterns.some((one) => one.id === id)) act(patternShown(id));
    },
  },
  swing(words.noSwingStraight, 50, 'even'),
  swing(words.lightSwing, 55, 'septuplet'),
  swing(words.quintupletSwing, 60, ''),
  swing(words.tripletSwing, 66.67, ''),
  swing(words.hardSwing, 75, 'dotted'),
  { name: words.themeDay, of: words.view, also: words.lightBright, run: () => act(themeSet('day')) },
  { name: words.themeNight, of: words.view, also: words.dark, run: () => act(themeSet('night')) },
  { name: words.themeAsTheSystem, of: words.view, run: () => act(themeSet('system')) },
];

const openDrawer = (page: DrawerPage) => () => {
  const { openLane } = store.getState().focus;
  act(drawerTurned(page));
  act(laneOpened(openLane ?? selectBeat(store.getState())?.lanes[0]?.id ?? null));
};

const openMaker = (maker: string) => () => {
  keep('maker', maker);
  openDrawer('make')();
};

const places: Command[] = [
  place(drawer.pattern, '/', undefined, words.stepsStringsProgram),
  place(words.hitsOfTheOpenLane, '/', openDrawer('hits'), words.velocityRollFlamDrawer),
  place(words.theOpenLane, '/', openDrawer('lane'), words.stepsGridDirectionRatePreset),
  place(words.soundOfTheOpenLane, '/', openDrawer('sound'), words.levelPanTuneDecayDrawer),
  place(words.chanceAndTakes, '/', openMaker('chance'), words.randomVaryDrawer),
  place(made.ring, '/', openMaker('ring'), words.ringEuclidean),
  place(made.bands, '/', openMaker('bands'), words.bandsRandom),
  place(made.chords, '/', openMaker('chords'), words.chordsHarmony),
  place(made.wholeBeat, '/', openMaker('beat'), words.beatGenerate),
  place(made.moves, '/', openDrawer('moves'), words.movesEcho),
  place(portWords.ports, '/ports', undefined, portWords.also),
  place(pattern.kitsAndDrums, '/', () => act(sheetOpened('kits')), words.soundsSamples),
  place(pattern.cutALoop, '/', () => act(sheetOpened('loop')), words.sliceChop),
  place(drawer.pads, '/', openDrawer('pads'), words.recordPlayInMidiInput),
  ...(
    [
      [words.feelStages, 'stages', words.swingQuantizeHumanizeAheadBehind],
      [words.feelCompare, 'compare', words.blindTestAB],
      [words.feelCharts, 'charts', words.timingVelocity],
      [words.feelReport, 'report', words.measureSwingSpread],
      [words.feelTemplates, 'templates', words.grooveTemplate],
      [words.feels, 'feels', words.blendWriteInKept],
    ] as const
  ).map(([name, page, also]) => place(name, '/feel', () => keep('feel page', page), also)),
  place(words.grooves, '/grooves', () => keep('grooves page', 'list'), words.libraryImportMidiFiles),
  place(words.drumMaps, '/grooves', () => keep('grooves page', 'maps'), words.notesGeneralMidi),
  place(words.songSections, '/song', () => keep('song page', 'sections'), words.arrangeFormVerseChorus),
  place(words.songTray, '/song', () => keep('song page', 'tray'), ''),
  place(words.songPlayLive, '/song', () => keep('song page', 'live'), words.performSwitch),
  place(words.exportMidi, '/export', undefined, words.saveFileDownloadMidi),
  place(words.exportAudio, '/export', undefined, words.wavBounceRender),
  place(words.exportStems, '/export', undefined, words.lanesTracksSplitZip),
  place(words.beats, '/beats', undefined, words.openNewSaveRenameDuplicate),
];

export type { Command, Screen } from './commandParts';

/** All that can be done by name. */
export const COMMANDS: readonly Command[] = [...ofAll, ...ofHits, ...ofLanes, ...LANE_COMMANDS, ...places];
