import { looked } from '../../store/looked.mock';
import { findCommands } from './findCommand';
import { COMMANDS } from './commands';
import { store } from '../../keeping/session';
import { newBeat, newPattern, lanePatternOf, patternOf } from '../../../core/document/defaults';
import { beatOpened } from '../../store/doc';
import { loadEdits } from '../../store/deferredEdits';

jest.mock('../../audio/player', () => ({ strikeLane: () => Promise.resolve() }));
jest.mock('./sound', () => ({ togglePlay: jest.fn() }));
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});

const names = (asked: string) => findCommands(asked).map(({ name }) => name);
const run = (name: string) => COMMANDS.find((one) => one.name === name)!.run();

test.each([
  ['flam', 'Tight flam'],
  ['double', 'Double'],
  ['swing', 'No swing, straight'],
  ['stems', 'Export stems'],
  ['humanize', 'Feel: stages'],
  ['wav', 'Export audio'],
  ['crescendo', '4 rising'],
])('“%s” finds “%s”', (asked, wanted) => {
  expect(names(asked)).toContain(wanted);
});

test('what is called so comes first, and no two commands are called the same', () => {
  expect(names('double')[0]).toBe('Double');
  expect(names('undo')[0]).toBe('Undo');
  const all = COMMANDS.map(({ name }) => name);
  expect(new Set(all).size).toBe(all.length);
  expect(names('')).toHaveLength(all.length);
  expect(names('kaleidoscope')).toEqual([]);
});

describe('done', () => {
  beforeEach(async () => {
    await loadEdits();
    const beat = newBeat('b', 'B', 1);
    const pattern = newPattern('p', 'A');
    const lane = beat.lanes[0]!.id;
    const hit = { step: 0, nudge: 0, velocity: 96 };
    const filled = { ...pattern, parts: { [lane]: { ...lanePatternOf(pattern, lane), hits: [hit] } } };
    store.dispatch(beatOpened({ beat: { ...beat, patterns: [filled] } as typeof beat }));
    store.dispatch(looked({ selection: [], cursor: null, openLane: null, patternId: 'p', scope: 'hits' }));
  });
  const hits = () => {
    const { beat } = store.getState().doc;
    return lanePatternOf(patternOf(beat!, 'p'), beat!.lanes[0]!.id).hits;
  };

  test('with no hit selected, it is said what to do first, and nothing is changed', () => {
    run('Open flam');
    expect(hits()[0]!.grace).toBeUndefined();
    expect(store.getState().notices.at(-1)!.text).toMatch(/tap a hit first/);
  });

  test('on the selected hit alone', () => {
    const laneId = store.getState().doc.beat!.lanes[0]!.id;
    store.dispatch(looked({ openLane: laneId, cursor: { laneId, step: 0 } }));
    run('Open flam');
    expect(hits()[0]!.grace).toHaveLength(1);
    run('Undo');
    expect(hits()[0]!.grace).toBeUndefined();
    run('Clear the lane');
    expect(hits()).toEqual([]);
  });

  test('what the drawer does to whole lanes and takes, with a word where it cannot be done', () => {
    const beat = () => store.getState().doc.beat!;
    const [first, second] = beat().lanes.map(({ id }) => id);
    const open = (laneId: string) => store.dispatch(looked({ openLane: laneId }));
    const told = () => store.getState().notices.at(-1)!.text;
    open(first!);
    run('Fill one step in 4');
    expect(hits().map(({ step }) => step)).toEqual([0, 4, 8, 12]);
    run('Group with the lane above');
    expect(told()).toMatch(/no lane above/);
    open(second!);
    run('Group with the lane above');
    expect(
      beat()
        .lanes.filter(({ group }) => group)
        .map(({ id }) => id),
    ).toEqual([first, second]);
    run('Take the group apart');
    expect(beat().groups).toEqual([]);
    run('Shift all notes by 12 semitones');
    expect(beat().lanes[0]!.note).toBe(48);
    run('Keep the take');
    expect(told()).toMatch(/No take is played yet/);
    open(first!);
    run('Randomize');
    run('Keep the take');
    expect(patternOf(beat(), 'p').takes!.at(-1)!.kept).toBe(true);
    run('Drop the take');
    expect(patternOf(beat(), 'p').takes!.some(({ kept }) => kept)).toBe(false);
    run('Clear all lanes');
    expect(hits()).toEqual([]);
    const many = beat().lanes.length;
    run('Remove lane');
    expect(beat().lanes).toHaveLength(many - 1);
    expect(store.getState().focus.openLane).toBeNull();
  });
});
