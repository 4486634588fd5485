import fc from 'fast-check';
import {
  LAYOUTS,
  learntLayout,
  LIGHTS,
  noteBlock,
  placeOfNote,
  plainLayout,
  readLayout,
  USUAL_BLOCKS,
  writeLayout,
} from './gridLayout';
import { GRID_AT_FIRST, GRID_MODES, gridLights, gridPress, type GridBeat, type GridView } from './gridModel';

const beats = fc
  .record({
    lanes: fc.array(
      fc.record({
        mute: fc.boolean(),
        solo: fc.boolean(),
        steps: fc.array(fc.integer({ min: 0, max: 127 }), { minLength: 1, maxLength: 40 }),
      }),
      { maxLength: 20 },
    ),
    patterns: fc.integer({ min: 1, max: 20 }),
    swing: fc.double({ min: 50, max: 75, noNaN: true }),
    at: fc.option(fc.nat(48_000)),
  })
  .map(({ lanes, patterns, swing, at }): GridBeat => ({
    lanes: lanes.map((lane, index) => ({ id: `l${index}`, ticks: 240, ...lane })),
    patterns: Array.from({ length: patterns }, (_, index) => ({ id: `p${index}` })),
    patternId: 'p0',
    swing,
    at,
    accent: 108,
    soft: 60,
  }));
const sizes = fc.constantFrom({ columns: 8, rows: 8 }, { columns: 16, rows: 16 });
const presses = fc.array(fc.tuple(fc.nat(15), fc.nat(15)), { maxLength: 40 });

test('every press leaves a surface that can be shown, and does only what there is', () => {
  fc.assert(
    fc.property(beats, sizes, presses, (beat, size, all) => {
      let view: GridView = GRID_AT_FIRST;
      for (const [x, y] of all) {
        const { view: next, action } = gridPress(beat, view, size, x % size.columns, y % size.rows);
        view = next;
        const lights = gridLights(beat, view, size);
        expect(lights.map((row) => row.length)).toEqual(Array(size.rows).fill(size.columns));
        expect(lights.at(-1)!.filter((light) => light === 'chosen')).toHaveLength(1);
        if (!action) continue;
        if ('laneId' in action) expect(beat.lanes.some(({ id }) => id === action.laneId)).toBe(true);
        if ('patternId' in action) expect(beat.patterns.some(({ id }) => id === action.patternId)).toBe(true);
        if (action.do === 'swing') expect(action.percent >= 50 && action.percent <= 75).toBe(true);
      }
    }),
    { seed: 19 },
  );
});

const market: GridBeat = {
  lanes: [
    { id: 'kick', mute: false, solo: false, steps: [120, 0, 80, 0, 40, 0, 0, 0, 0, 0], ticks: 240 },
    { id: 'snare', mute: true, solo: false, steps: [0, 0, 90, 0], ticks: 240 },
  ],
  patterns: [{ id: 'a' }, { id: 'b' }],
  patternId: 'a',
  swing: 58,
  at: 500,
  accent: 108,
  soft: 60,
};
const size = { columns: 8, rows: 8 };

test('steps show how hard they are and where it plays; what is muted is told at a glance; patterns, swing', () => {
  const lights = (view: Partial<GridView>) => gridLights(market, { ...GRID_AT_FIRST, ...view }, size);
  expect(lights({})[0]!.slice(0, 5)).toEqual(['accent', 'off', 'here', 'off', 'soft']);
  expect(
    lights({ mode: 'mute' })
      .map(([first]) => first)
      .slice(0, 3),
  ).toEqual(['on', 'muted', 'off']);
  expect(
    gridLights(
      { ...market, lanes: [{ ...market.lanes[0]!, solo: true }, market.lanes[1]!] },
      { ...GRID_AT_FIRST, mode: 'solo' },
      size,
    )[0]![0],
  ).toBe('solo');
  expect(lights({ mode: 'patterns' })[0]!.slice(0, 3)).toEqual(['chosen', 'step', 'off']);
  expect(lights({ mode: 'swing' })[0]!.filter((light) => light === 'on').length).toBe(3);
  const press = (x: number, y: number, view: Partial<GridView> = {}) =>
    gridPress(market, { ...GRID_AT_FIRST, ...view }, size, x, y);
  expect(press(2, 0).action).toEqual({ do: 'step', laneId: 'kick', step: 2, on: false });
  expect(press(7, 7).view.step).toBe(8);
  expect(press(GRID_MODES.indexOf('duplicate'), 7).view.mode).toBe('duplicate');
  expect(press(1, 0, { mode: 'duplicate' })).toEqual({
    view: { ...GRID_AT_FIRST, mode: 'patterns' },
    action: { do: 'duplicate', patternId: 'b' },
  });
});

test('blocks of notes: each place its own, in the scale where one is given', () => {
  for (const { block } of USUAL_BLOCKS) {
    const notes = noteBlock({ columns: 8, rows: 8, ...block });
    expect(notes.flat().every((one) => one === null || (one >= 0 && one <= 127))).toBe(true);
  }
  expect(noteBlock({ columns: 3, rows: 2, first: 60, column: 1, row: 3, scale: 'C major' })).toEqual([
    [65, 67, 69],
    [60, 62, 64],
  ]);
});

test('pads are learnt as they are pressed, each once', () => {
  const learnt = learntLayout(plainLayout(4, 4), [5, 9, 5, 7, 3, 1]);
  expect(learnt.notes).toEqual([
    [5, 9, 7, 3],
    [1, null, null, null],
    Array(4).fill(null),
    Array(4).fill(null),
  ]);
  expect(placeOfNote(learnt, 1)).toEqual({ x: 0, y: 1 });
});

test('layouts are written and read the same; what is wrong with one is said', () => {
  for (const layout of LAYOUTS) {
    expect(readLayout(writeLayout(layout))).toEqual({ ok: true, value: layout });
    layout.notes.forEach((row, y) =>
      row.forEach((one, x) => one !== null && expect(placeOfNote(layout, one)).toEqual({ x, y })),
    );
    expect(Object.keys(layout.lights).sort()).toEqual([...LIGHTS].sort());
  }
  const errorOf = (text: string) => {
    const read = readLayout(text);
    return read.ok ? '' : read.error;
  };
  expect(errorOf('x')).toBe('It is no JSON.');
  expect(errorOf('[]')).toBe('It is JSON, but no layout of a grid.');
  expect(errorOf(JSON.stringify({ ...plainLayout(8, 8), rows: 7 }))).toBe('Its notes are to be 7 rows of 8.');
  expect(errorOf(JSON.stringify({ ...plainLayout(8, 8), channel: 17 }))).toBe(
    'Its channel is to be 1 to 16.',
  );
  const lights = { ...plainLayout(8, 8).lights, step: 200 };
  expect(errorOf(JSON.stringify({ ...plainLayout(8, 8), lights }))).toBe(
    'Its light “step” is to be a number from 0 to 127.',
  );
  expect(errorOf(JSON.stringify({ ...plainLayout(8, 8), tide: 1 }))).toContain('“tide”');
});
