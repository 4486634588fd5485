import fc from 'fast-check';
import { newBeat } from '../../core/document/defaults';
import {
  docReducer,
  initialDoc,
  beatOpened,
  stepSet,
  tempoSet,
  undone,
  redone,
  velocitySet,
  type DocState,
} from './doc';
import { beatWith, logEntryOf, type LogEntry } from '../keeping/entry';
import { difference, patched } from './patch';

const json = fc.jsonValue({ maxDepth: 4 }) as fc.Arbitrary<unknown>;

test('what one value becomes is told so that it comes out of the other', () => {
  fc.assert(
    fc.property(json, json, (from, to) => {
      expect(patched(from, difference(from, to))).toEqual(to);
    }),
  );
});

test('what did not change is not told, and stays the same object', () => {
  const from = { a: { b: [1, 2] }, c: { d: 1 } };
  const to = { ...from, c: { d: 2 } };
  const patch = difference(from, to);
  expect(patch).toEqual([{ path: ['c', 'd'], value: 2 }]);
  expect(patched(from, patch).a).toBe(from.a);
});

test('a place that is there no more is passed over; no name of an object’s own making is reached', () => {
  expect(
    patched({ a: 1 }, [
      { path: ['x', 'y'], value: 1 },
      { path: ['a'], gone: true },
    ]),
  ).toEqual({});
  const out = patched<Record<string, unknown>>({}, [{ path: ['__proto__'], value: { bad: 1 } }]);
  expect(({} as { bad?: number }).bad).toBeUndefined();
  expect(Object.getPrototypeOf(out)).toBe(Object.prototype);
});

const action = fc.oneof(
  fc
    .record({ step: fc.nat(15), on: fc.boolean() })
    .map(({ step, on }) => stepSet({ patternId: 'a', laneId: 'kick', step, on })),
  fc
    .record({ step: fc.nat(15), velocity: fc.integer({ min: 1, max: 127 }) })
    .map(({ step, velocity }) => velocitySet({ patternId: 'a', laneId: 'kick', step, velocity })),
  fc.integer({ min: 40, max: 200 }).map((tempo) => tempoSet({ tempo })),
  fc.constant(undone()),
  fc.constant(redone()),
);

test('whatever is done here, undo and redo among it, its entries do the same to a beat with no history', () => {
  fc.assert(
    fc.property(fc.array(action, { maxLength: 40 }), (actions) => {
      const beat = newBeat('b', 'Quay', 1);
      let doc: DocState = docReducer(initialDoc, beatOpened({ beat }));
      const entries: LogEntry[] = [];
      for (const one of actions) {
        const after = docReducer(doc, one);
        if (after.beat !== doc.beat) entries.push(logEntryOf(doc, one, after));
        doc = after;
      }
      const sent = JSON.parse(JSON.stringify(entries)) as LogEntry[];
      expect(beatWith(beat, sent)).toEqual(doc.beat);
    }),
  );
});

test('an undo here leaves what was done elsewhere to the same lane', () => {
  const beat = newBeat('b', 'Quay', 1);
  const tap = (step: number) => stepSet({ patternId: 'a', laneId: 'kick', step, on: true });
  const one = [tap(1), tap(3)].reduce(docReducer, docReducer(initialDoc, beatOpened({ beat })));
  const back = docReducer(one, undone());
  const entry = logEntryOf(one, undone(), back);
  const out = beatWith(one.beat!, [tap(9) as unknown as LogEntry, entry]);
  expect(out.patterns[0]!.parts['kick']!.hits.map(({ step }) => step)).toEqual([1, 9]);
});

test('a lane’s first hit taken back leaves what others put into the lane meanwhile', () => {
  const hit = (step: number) => ({ step, nudge: 0, velocity: 96 });
  const bare = { parts: {} };
  const first = { parts: { kick: { hits: [hit(0)] } } };
  const both = { parts: { kick: { hits: [hit(0), hit(4)] } } };
  expect(patched(both, difference(first, bare))).toEqual({ parts: { kick: { hits: [hit(4)] } } });
  expect(patched(first, difference(first, bare))).toEqual(bare);
  const other = { parts: { kick: { hits: [hit(4)] } } };
  expect(patched(other, difference(bare, first))).toEqual(both);
});
