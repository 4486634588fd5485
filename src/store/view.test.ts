import { newBeat } from '../../core/document/defaults';
import { beatOpened } from './doc';
import {
  cursorMoved,
  editedTogether,
  focusEnded,
  hitsSelected,
  laneOpened,
  laneShown,
  patternShown,
  scopeChosen,
  selectionEnded,
  selectionMoved,
  trialBegun,
} from './focus';
import { drawerTurned, hintDone } from './look';
import { KEPT, settingsRead } from './settings';
import { createStore } from './store';
import {
  auditionBegan,
  auditionEnded,
  metronomeSet,
  playBegan,
  playEnded,
  songLooped,
  songPlaceSet,
  songShown,
  songTried,
} from './transport';

const beat = newBeat('b', 'Quay', 1);
const box = { laneIds: ['kick'], from: 0, to: 480 };
const spots = [{ laneId: 'kick', step: 1 }];

/** A store where all is selected, tried and edited together that can be. */
const busy = () => {
  const store = createStore();
  store.dispatch(beatOpened({ beat }));
  for (const action of [
    patternShown('a'),
    laneOpened('kick'),
    hitsSelected({ spots, box, cursor: spots[0]!, pasteAt: spots[0]! }),
    editedTogether(['n']),
    trialBegun({
      name: 'Fewer',
      patternId: 'a',
      edit: { kind: 'beat', edit: { edit: 'dropFeel', args: { id: 'x' } } },
    }),
  ])
    store.dispatch(action);
  return { store, focus: () => store.getState().focus };
};

describe('what the hand is on', () => {
  test('another pattern, or another beat, ends what was selected, tried and edited together', () => {
    const nothing = { selection: [], box: null, cursor: null, pasteAt: null, also: [], trial: null };
    const one = busy();
    one.store.dispatch(patternShown('n', 'beat'));
    expect(one.focus()).toMatchObject({ ...nothing, patternId: 'n', openLane: 'kick', scope: 'hits' });
    expect(one.store.getState().transport.beginsAt).toBe('beat');
    one.store.dispatch(patternShown('a'));
    expect(one.store.getState().transport.beginsAt).toBeNull();
    const other = busy();
    other.store.dispatch(beatOpened({ beat: { ...beat, id: 'c' } }));
    expect(other.focus()).toMatchObject(nothing);
  });

  test('the same pattern once more ends the selection alone', () => {
    const { store, focus } = busy();
    store.dispatch(patternShown('a'));
    expect(focus()).toMatchObject({ selection: [], box: null, cursor: null, also: ['n'], pasteAt: spots[0] });
    expect(focus().trial?.name).toBe('Fewer');
  });

  test('a lane that is opened keeps the selection, one that is shown does not and turns the drawer', () => {
    const { store, focus } = busy();
    store.dispatch(scopeChosen('all'));
    const before = focus();
    store.dispatch(laneOpened('kick'));
    expect(focus()).toBe(before);
    store.dispatch(laneOpened('snare'));
    expect(focus()).toMatchObject({ openLane: 'snare', selection: spots, box, scope: 'hits', trial: null });
    store.dispatch(laneShown('hat.closed', 'sound'));
    expect(focus()).toMatchObject({ openLane: 'hat.closed', selection: [], box: null, cursor: null });
    expect(store.getState().look.drawer).toBe('sound');
    store.dispatch(laneShown(null));
    expect([focus().openLane, store.getState().look.drawer]).toEqual([null, 'sound']);
  });

  test('hits that are chosen are what the controls are for; where they go the box does not go along', () => {
    const { store, focus } = busy();
    store.dispatch(scopeChosen('lane'));
    store.dispatch(selectionMoved([{ laneId: 'kick', step: 3 }]));
    expect(focus()).toMatchObject({ selection: [{ laneId: 'kick', step: 3 }], box: null, scope: 'lane' });
    store.dispatch(hitsSelected({ spots }));
    expect(focus()).toMatchObject({ selection: spots, box: null, scope: 'hits', cursor: spots[0] });
    store.dispatch(cursorMoved({ cursor: { laneId: 'snare', step: 2 } }));
    store.dispatch(selectionEnded());
    expect(focus()).toMatchObject({ selection: [], cursor: { laneId: 'snare', step: 2 }, pasteAt: spots[0] });
    store.dispatch(focusEnded());
    expect(focus()).toMatchObject({ selection: [], cursor: null, openLane: 'kick' });
  });
});

describe('what plays', () => {
  const transport = (store: ReturnType<typeof createStore>) => store.getState().transport;

  test('play that ends takes along what was tried; the song’s place and its screen stay', () => {
    const store = createStore();
    store.dispatch(songShown(true));
    store.dispatch(songLooped({ from: 960, to: 1920 }));
    expect(transport(store).song.from).toBe(0);
    store.dispatch(songPlaceSet(960));
    store.dispatch(songTried({ tried: beat }));
    store.dispatch(playBegan(true));
    expect(transport(store)).toMatchObject({
      playing: true,
      song: { playing: true, tried: beat, from: 960 },
    });
    store.dispatch(playEnded());
    expect(transport(store)).toMatchObject({ playing: false, audition: null });
    expect(transport(store).song).toEqual({
      shown: true,
      playing: false,
      from: 960,
      loop: { from: 960, to: 1920 },
      tried: null,
    });
    store.dispatch(songPlaceSet(480));
    store.dispatch(songLooped(null));
    expect(transport(store).song).toMatchObject({ from: 480, loop: null });
  });

  test('what is tried by ear ends by itself, or hands back to the beat', () => {
    const store = createStore();
    for (const goesOn of [true, false]) {
      store.dispatch(auditionBegan({ beat, patternId: 'a' }));
      expect(transport(store).playing).toBe(true);
      store.dispatch(auditionEnded(goesOn));
      expect(transport(store)).toMatchObject({ audition: null, playing: goesOn });
    }
  });
});

test('settings that are read go each to its own slice, and nothing else comes along', () => {
  const store = createStore();
  store.dispatch(drawerTurned('pads'));
  const before = store.getState();
  const all = { zoom: 2, latency: 31, ports: true, exportHow: null, drawer: 'make', playing: true };
  store.dispatch(settingsRead(all));
  const { look, transport, input, exporting, focus } = store.getState();
  expect(look).toEqual({ ...before.look, zoom: 2 });
  expect(transport).toEqual({ ...before.transport, latency: 31 });
  expect(input).toEqual({ ...before.input, ports: true });
  expect([exporting, focus]).toEqual([before.exporting, before.focus]);
  for (const [slice, keys] of Object.entries(KEPT))
    for (const key of keys) expect(before[slice as keyof typeof KEPT]).toHaveProperty(key);
});

test('of a metronome one part is set; a hint is found once', () => {
  const store = createStore();
  store.dispatch(metronomeSet({ level: 0.2 }));
  expect(store.getState().transport.metronome).toEqual({
    on: false,
    level: 0.2,
    accent: true,
    onlyRecording: false,
  });
  store.dispatch(hintDone('box'));
  store.dispatch(hintDone('box'));
  expect(store.getState().look.hintsDone).toEqual(['box']);
});
