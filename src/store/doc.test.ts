import fc from 'fast-check';
import type { PatternEdit } from '../../core/edit/edits';
import { newBeat } from '../../core/document/defaults';
import { isOn } from '../../core/edit/hits';
import { lanePatternOf } from '../../core/document/defaults';
import {
  beatEdited,
  beatOpened,
  beatRenamed,
  docReducer,
  HISTORY,
  kitSet,
  laneChanged,
  patternsEdited,
  redone,
  stepSet,
  swingSet,
  tempoSet,
  undone,
  velocitySet,
  type DocState,
} from './doc';
import { loadEdits } from './deferredEdits';

beforeAll(loadEdits);

const start = (): DocState => docReducer(undefined, beatOpened({ beat: newBeat('b', 'B', 1) }));
const on = { patternId: 'a', laneId: 'kick' };

const actions = fc.oneof(
  fc.record({ step: fc.nat({ max: 15 }), on: fc.boolean() }).map((one) => stepSet({ ...on, ...one })),
  fc
    .record({ step: fc.nat({ max: 15 }), velocity: fc.integer({ min: 1, max: 127 }) })
    .map((one) => velocitySet({ ...on, ...one })),
  fc.integer({ min: 20, max: 300 }).map((tempo) => tempoSet({ tempo })),
  fc.integer({ min: 50, max: 75 }).map((percent) => swingSet({ patternId: null, change: { percent } })),
  fc.boolean().map((mute) => laneChanged({ laneId: 'snare', change: { mute } })),
  fc.constantFrom('quay' as const, 'lantern' as const).map((kit) => kitSet({ kit })),
  fc.string({ minLength: 1 }).map((name) => beatRenamed({ name })),
  fc.nat().map((seed) =>
    patternsEdited({
      patternIds: ['a'],
      edit: { edit: 'vary', args: { laneIds: ['kick'], seed, id: `t${seed}`, share: 0.5 } },
    }),
  ),
  fc.integer({ min: -9, max: 9 }).map((by) =>
    patternsEdited({
      patternIds: ['a'],
      edit: { edit: 'rotate', args: { laneIds: ['kick', 'snare'], by } },
    }),
  ),
  fc.nat({ max: 9 }).map((to) => beatEdited({ edit: { edit: 'moveLane', args: { laneId: 'kick', to } } })),
  fc.uuid().map((id) => beatEdited({ edit: { edit: 'duplicatePattern', args: { id, from: 'a' } } })),
);

test('any 100 actions can be undone to the first beat and redone to the last', () => {
  fc.assert(
    fc.property(fc.array(actions, { minLength: 100, maxLength: 100 }), (list) => {
      const first = start();
      const last = list.reduce(docReducer, first);
      const back = last.past.reduce((state) => docReducer(state, undone()), last);
      expect(back.beat).toEqual(first.beat);
      const again = last.past.reduce((state) => docReducer(state, redone()), back);
      expect(again.beat).toEqual(last.beat);
    }),
  );
});

test('a gesture is one step, a new one begins another, and at least 200 are kept', () => {
  let state = start();
  for (let step = 0; step < 8; step++)
    state = docReducer(state, stepSet({ ...on, step, on: true, gesture: 'one' }));
  state = docReducer(state, stepSet({ ...on, step: 0, on: false, gesture: 'two' }));
  expect(state.past).toHaveLength(2);
  state = docReducer(docReducer(state, undone()), undone());
  expect(lanePatternOf(state.beat!.patterns[0]!, 'kick').hits).toEqual([]);
  for (let i = 0; i < HISTORY + 50; i++) state = docReducer(state, tempoSet({ tempo: 100 + (i % 2) }));
  expect(HISTORY).toBeGreaterThanOrEqual(200);
  expect(state.past).toHaveLength(HISTORY);
});

test('what changes nothing is no step, and a new edit ends what could be redone', () => {
  let state = docReducer(start(), stepSet({ ...on, step: 3, on: true }));
  expect(docReducer(state, stepSet({ ...on, step: 3, on: true }))).toBe(state);
  state = docReducer(state, undone());
  expect(state.future).toHaveLength(1);
  state = docReducer(state, stepSet({ ...on, step: 4, on: true }));
  expect(state.future).toEqual([]);
  expect(isOn(lanePatternOf(state.beat!.patterns[0]!, 'kick'), 4)).toBe(true);
});

test('nothing is edited while no beat is open', () => {
  const empty = docReducer(undefined, { type: 'start' });
  expect(docReducer(empty, tempoSet({ tempo: 90 }))).toBe(empty);
  expect(docReducer(empty, undone())).toBe(empty);
});

test('hits that are deleted together and put back by tapping have all they had', () => {
  const soft = [0, 4].reduce(
    (state, step) => docReducer(state, velocitySet({ ...on, step, velocity: 33 + step })),
    [0, 4].reduce((state, step) => docReducer(state, stepSet({ ...on, step, on: true })), start()),
  );
  const spots = [0, 4].map((step) => ({ laneId: 'kick', step }));
  const gone = docReducer(
    soft,
    patternsEdited({ patternIds: ['a'], edit: { edit: 'removeHits', args: { spots } } }),
  );
  expect(lanePatternOf(gone.beat!.patterns[0]!, 'kick').hits).toEqual([]);
  const back = [4, 0].reduce((state, step) => docReducer(state, stepSet({ ...on, step, on: true })), gone);
  expect(back.beat).toEqual(soft.beat);
});

test('of several hits on a step only what was taken off last comes back by tapping', () => {
  const hit = (velocity: number, nudge: number) => ({ step: 0, velocity, nudge, length: null, chance: 1 });
  const hits = [hit(90, 0), hit(50, 0.3)];
  const clip = { length: 240, rows: [{ down: 0, grid: '1/16' as const, hits }] };
  const edit = (args: PatternEdit) => patternsEdited({ patternIds: ['a'], edit: args });
  const both = docReducer(
    start(),
    edit({ edit: 'pasteHits', args: { at: { laneId: 'kick', step: 0 }, clip } }),
  );
  const spot = (place: number) => ({ laneId: 'kick', step: 0, place });
  const one = docReducer(both, edit({ edit: 'removeHits', args: { spots: [spot(0)] } }));
  // The other goes elsewhere: it was not taken off.
  const moved = docReducer(
    one,
    edit({ edit: 'moveHits', args: { spots: [{ laneId: 'kick', step: 0 }], by: 960, lanes: 0 } }),
  );
  const back = docReducer(moved, stepSet({ ...on, step: 0, on: true }));
  const velocities = lanePatternOf(back.beat!.patterns[0]!, 'kick').hits.map(({ step, velocity }) => [
    step,
    velocity,
  ]);
  expect(velocities).toEqual([
    [0, 90],
    [4, 50],
  ]);
});
