import fc from 'fast-check';
import {
  LAYOUTS,
  learntLayout,
  LIGHTS,
  noteBlock,
  mostOf,
  padAddress,
  padNumber,
  placeOfNote,
  plainLayout,
  readLayout,
  usualBlocks,
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
        const { view: next, action } = gridPress(beat, view, size, x % size.columns, y % size.rows, 90);
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
    gridPress(market, { ...GRID_AT_FIRST, ...view }, size, x, y, 83);
  expect(press(2, 0).action).toEqual({ do: 'step', laneId: 'kick', step: 2, on: false, velocity: 83 });
  expect(press(7, 7).view.step).toBe(8);
  expect(press(GRID_MODES.indexOf('duplicate'), 7).view.mode).toBe('duplicate');
  expect(press(1, 0, { mode: 'duplicate' })).toEqual({
    view: { ...GRID_AT_FIRST, mode: 'patterns' },
    action: { do: 'duplicate', patternId: 'b' },
  });
});

test('blocks of notes: each place its own, in the scale where one is given', () => {
  for (const columns of [8, 16])
    for (const { block } of usualBlocks(columns)) {
      const most = mostOf({ columns, rows: columns });
      const notes = noteBlock({ columns, rows: columns, ...block }, most);
      expect(notes.flat().every((one) => one === null || (one >= 0 && one <= most))).toBe(true);
    }
  expect(noteBlock({ columns: 3, rows: 2, first: 60, column: 1, row: 3, scale: 'C major' })).toEqual([
    [65, 67, 69],
    [60, 62, 64],
  ]);
});

test('pads are learnt as they are pressed, each once', () => {
  const learnt = learntLayout(
    plainLayout(4, 4),
    [5, 9, 5, 7, 3, 1].map((note) => ({ channel: 4, note })),
  );
  expect(learnt.channel).toBe(4);
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

describe('more pads than a channel has notes', () => {
  const large = plainLayout(16, 16);

  test('each of 256 has a number of its own, an address on one of two channels, and is found by it', () => {
    const addresses = new Set<string>();
    large.notes.forEach((row, y) =>
      row.forEach((pad, x) => {
        expect(placeOfNote(large, pad!)).toEqual({ x, y });
        const { channel, note } = padAddress(large, pad!);
        expect(note).toBeLessThan(128);
        expect(padNumber(large, channel, note)).toBe(pad);
        addresses.add(`${channel} ${note}`);
      }),
    );
    expect(addresses.size).toBe(256);
    expect(padAddress(large, 255)).toEqual({ channel: 2, note: 127 });
    expect(padNumber(large, 3, 0)).toBeNull();
    // The channel after the last is the first.
    expect(padAddress({ ...large, channel: 16 }, 128)).toEqual({ channel: 1, note: 0 });
    expect(padNumber({ ...large, channel: 16 }, 1, 0)).toBe(128);
  });

  test('they are numbered, learnt, written and read whole', () => {
    const heard = large.notes.flat().map((pad) => padAddress({ channel: 5 }, pad!));
    const learnt = learntLayout(large, [{ channel: 9, note: 3 }, ...heard]);
    expect(learnt).toEqual({ ...large, channel: 5 });
    expect(readLayout(writeLayout(large))).toEqual({ ok: true, value: large });
    const [byRow] = usualBlocks(16);
    expect(noteBlock({ columns: 16, rows: 16, ...byRow!.block }, mostOf(large))).toEqual(large.notes);
    expect(
      new Set(noteBlock({ columns: 16, rows: 16, ...byRow!.block, scale: 'C chromatic' }, 255).flat()).size,
    ).toBe(256);
  });

  test('a layout that was written before there was a light for the position is read', () => {
    const { passing, ...lights } = large.lights;
    const read = readLayout(JSON.stringify({ ...large, lights }));
    expect(read.ok && read.value.lights.passing).toBe(passing);
  });

  test('the position has a light of its own; every pad of the swing is lit, those up to it by another light', () => {
    const empty = { ...market.lanes[0]!, steps: Array<number>(16).fill(0) };
    const row = (beat: GridBeat, mode: GridView['mode'] = 'steps') =>
      gridLights(beat, { ...GRID_AT_FIRST, mode }, large)[0]!;
    expect(row({ ...market, lanes: [empty], at: 3 * 240 })).toEqual(
      Array.from({ length: 16 }, (_, x) => (x === 3 ? 'passing' : 'off')),
    );
    for (let x = 0; x < 16; x++) {
      const { action } = gridPress(market, { ...GRID_AT_FIRST, mode: 'swing' }, large, x, 0, 100);
      const swing = action?.do === 'swing' ? action.percent : NaN;
      expect(row({ ...market, swing }, 'swing')).toEqual(
        Array.from({ length: 16 }, (_, at) => (at <= x ? 'on' : 'button')),
      );
    }
  });
});
