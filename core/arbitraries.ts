/** Random documents for property tests. */
import { inOrder } from './document/position';
import fc from 'fast-check';
import { newBeat } from './document/defaults';
import { newFeel } from './document/feelDefaults';
import { GRIDS } from './document/grid';
import { BASES, DIRECTIONS, RATES, SPACINGS, STAGES } from './document/choices';
import type { Band } from './document/playersSchema';
import type { Feel, LaneFeel, PlainFeel, Template } from './document/feelSchema';
import type { Beat, Hit, LanePattern, Pattern } from './document/schema';

/** Without -0, which JSON does not know. */
const real = (min: number, max: number) => fc.double({ min, max, noNaN: true }).map((value) => value + 0);

/** Hits on a lane of so many steps, at most one on each, for property tests. */
export const hits = (steps: number): fc.Arbitrary<Hit> =>
  fc
    .record({
      step: fc.nat({ max: steps - 1 }),
      nudge: fc.oneof(fc.constant(0), real(-0.5, 0.5)),
      velocity: fc.integer({ min: 1, max: 127 }),
      length: fc.oneof(fc.constant(null), real(0.1, 8)),
      chance: fc.constantFrom(1, 1, 0.5, 0),
      roll: fc.option(
        fc.record({
          curve: real(-1, 1),
          levels: fc.array(real(0.1, 1.5), { minLength: 2, maxLength: 6 }),
          spacing: fc.constantFrom(...SPACINGS),
        }),
        { nil: undefined, freq: 8 },
      ),
      grace: fc.option(
        fc.array(fc.record({ before: real(5, 60), level: real(0.2, 1) }), { minLength: 1, maxLength: 3 }),
        { nil: undefined, freq: 8 },
      ),
      passes: fc.option(
        fc.record({ of: fc.integer({ min: 2, max: 8 }), on: fc.uniqueArray(fc.nat(7), { minLength: 1 }) }),
        { nil: undefined, freq: 8 },
      ),
    })
    .map(({ roll, grace, passes, ...hit }) => ({
      ...hit,
      ...(passes && { passes }),
      ...(roll && { roll }),
      ...(grace && { grace }),
    }));

export const parts: fc.Arbitrary<LanePattern> = fc.record({
  grid: fc.constantFrom(...GRIDS),
  steps: fc.oneof(fc.constant(null), fc.integer({ min: 1, max: 24 })),
  rate: fc.constantFrom(...RATES),
  direction: fc.constantFrom(...DIRECTIONS),
  shift: fc.oneof(fc.constant(0), real(-0.5, 0.5)),
  offbeat: fc.oneof(fc.constant(0), real(-0.5, 0.5)),
  hits: fc.array(hits(24), { maxLength: 24 }).map(inOrder),
});

export const meters = fc.constantFrom(
  { beats: 4, unit: 4 as const },
  { beats: 7, unit: 8 as const },
  { beats: 6, unit: 8 as const },
  { beats: 5, unit: 4 as const },
);

const shapes: fc.Arbitrary<Template> = fc.record({
  id: fc.constant('t'),
  name: fc.constant('Wet planks'),
  grid: fc.constantFrom('1/8' as const, '1/16' as const, '1/8T' as const),
  slots: fc
    .array(fc.option(fc.record({ offset: real(-0.5, 0.5), velocity: real(0.05, 1) }), { nil: null }), {
      minLength: 1,
      maxLength: 16,
    })
    .map((slots) => (slots.some(Boolean) ? slots : [{ offset: 0.1, velocity: 0.5 }])),
  groups: fc.constantFrom({}, { kick: [{ offset: -0.2, velocity: 0.9 }, null] }),
});

const swings = fc
  .record({
    percent: real(40, 75),
    grid: fc.constantFrom('1/8' as const, '1/16' as const),
    withTempo: fc.option(real(0, 1), { nil: undefined, freq: 4 }),
  })
  .map(({ withTempo, ...swing }) => ({ ...swing, ...(withTempo !== undefined && { withTempo }) }));
const follows = fc.record({
  template: fc.option(shapes, { nil: null }),
  timing: real(0, 1.5),
  velocity: real(0, 1.5),
  runsOn: fc.boolean(),
});
const laneFeels: fc.Arbitrary<LaneFeel> = fc.record(
  {
    base: fc.constantFrom(...BASES),
    swing: swings,
    template: follows,
    offset: real(-60, 60),
    contrast: real(0, 2),
    level: real(0, 2),
    timing: real(0, 2),
    velocity: real(0, 2),
    apart: fc.boolean(),
  },
  { requiredKeys: [] },
);

/** Two or three players who go by one another and the click as far as they have attention for it. */
export const bands: fc.Arbitrary<Band> = fc
  .record({
    on: fc.boolean(),
    tempo: fc.boolean(),
    figures: fc.array(fc.tuple(real(0, 10), real(0, 40), real(0, 1), real(0, 1)), {
      minLength: 1,
      maxLength: 3,
    }),
    kick: fc.nat(2),
    snare: fc.nat(2),
  })
  .map(({ figures, kick, snare, ...band }) => ({
    ...band,
    players: figures.map(([clock, touch, click, follow], at) => {
      const others = figures.map((_, other) => other).filter((other) => other !== at);
      return {
        id: `p${at}`,
        name: `Player ${at}`,
        lanes: [...(kick === at ? ['kick'] : []), ...(snare === at ? ['snare'] : [])],
        clock,
        touch,
        click: click / 2,
        follows: Object.fromEntries(others.map((other) => [`p${other}`, follow / (2 * others.length)])),
      };
    }),
  }));

const plainFeels: fc.Arbitrary<PlainFeel> = fc.record(
  {
    off: fc.uniqueArray(fc.constantFrom(...STAGES), { maxLength: 2 }),
    quantize: fc.record({
      grid: fc.constantFrom(...GRIDS),
      strength: fc.oneof(fc.constant(0), real(0, 1)),
      window: real(0, 1),
      flams: fc.boolean(),
      lanes: fc.option(fc.subarray(['kick', 'snare', 'clap']), { nil: null }),
    }),
    base: fc.constantFrom(...BASES),
    swing: swings,
    template: follows,
    level: real(0, 2),
    lanes: fc.record({ kick: laneFeels, snare: laneFeels }, { requiredKeys: [] }),
    humanize: fc.record(
      {
        timing: fc.oneof(fc.constant(0), real(0, 30)),
        velocity: real(0, 20),
        drift: real(0, 1),
        seed: fc.nat(),
        takes: fc.constant([1]),
        anew: fc.boolean(),
        soft: real(0, 1),
        band: bands,
      },
      { requiredKeys: ['timing', 'velocity', 'drift', 'seed', 'takes', 'anew'] },
    ),
    contrast: real(0, 2),
    lean: fc.record({ phrase: real(-60, 60), fill: real(-60, 60) }),
  },
  { requiredKeys: ['off', 'quantize', 'base', 'swing', 'template', 'level', 'lanes', 'humanize'] },
);

/** A feel with anything set in any stage, now and then blended with another. */
export const feels: fc.Arbitrary<Feel> = fc
  .tuple(plainFeels, fc.option(fc.tuple(plainFeels, real(0, 1)), { nil: null, freq: 3 }))
  .map(([feel, other]) =>
    other ? { ...feel, blend: { with: other[0], name: 'Quay', amount: other[1] } } : feel,
  );

/** A beat of three lanes and one pattern. */
export const beats: fc.Arbitrary<Beat> = fc
  .record({
    seed: fc.nat(),
    tempo: real(20, 300),
    random: fc.constantFrom(1 as const, 2 as const),
    feel: fc.oneof(
      swings.map((swing): Feel => newFeel(swing)),
      feels,
    ),
    meter: meters,
    bars: fc.integer({ min: 1, max: 2 }),
    parts: fc.tuple(parts, parts, parts),
  })
  .map(({ seed, tempo, random, feel, meter, bars, parts: [kick, snare, clap] }) => {
    const beat = newBeat('b', 'Rain on tarps', seed);
    const pattern: Pattern = { id: 'a', name: 'A', meter, bars, parts: { kick, snare, clap } };
    return {
      ...beat,
      tempo,
      random,
      feel,
      lanes: beat.lanes.slice(0, 3),
      patterns: [pattern],
    };
  });
