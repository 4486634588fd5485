import fc from 'fast-check';
import { beats } from '../../arbitraries';
import { withLanePattern } from '../../document/defaults';
import type { Beat, Detour, Echoes, Spark, Stagger } from '../../document/schema';

const LANES = ['kick', 'snare', 'clap'];

const grids = fc.constantFrom('1/8' as const, '1/16' as const, '1/8T' as const);
export const anyEchoes: fc.Arbitrary<Echoes> = fc.record({
  count: fc.integer({ min: 1, max: 6 }),
  rate: fc.oneof(
    grids.map((grid) => ({ grid })),
    fc.double({ min: 20, max: 300, noNaN: true }).map((ms) => ({ ms })),
  ),
  slope: fc.double({ min: 0.3, max: 1.3, noNaN: true }),
  interval: fc.integer({ min: -3, max: 5 }),
  withoutHit: fc.boolean(),
});
const anySpark: fc.Arbitrary<Spark> = fc.record({
  to: fc.constantFrom(...LANES),
  of: fc.constantFrom('all', 'first', 'last'),
  gap: grids,
  chance: fc.constantFrom(1, 0.5),
  factor: fc.double({ min: 0.2, max: 1.5, noNaN: true }),
  delay: fc.oneof(
    fc.constant(null),
    grids.map((grid) => ({ grid })),
    fc.double({ min: -30, max: 200, noNaN: true }).map((ms) => ({ ms })),
  ),
  pitch: fc.integer({ min: -5, max: 5 }),
});
const anyDetour: fc.Arbitrary<Detour> = fc.record({
  over: fc.constantFrom('bar', 'all'),
  route: fc
    .constantFrom(4, 8, 16)
    .chain((slots) => fc.array(fc.nat(slots), { minLength: slots, maxLength: slots })),
  chance: fc.constantFrom(1, 0.6),
  lanes: fc.constantFrom(null, ['kick', 'clap']),
});
const anyStagger: fc.Arbitrary<Stagger> = fc.record({
  lanes: fc.constantFrom(null, ['kick', 'snare']),
  by: fc.oneof(
    fc.record({ count: fc.integer({ min: 1, max: 5 }), each: fc.double({ min: 0, max: 80, noNaN: true }) }),
    fc
      .array(fc.double({ min: 0, max: 80, noNaN: true }), { minLength: 1, maxLength: 6 })
      .map((list) => ({ list })),
  ),
  unit: fc.constantFrom('ms', 'percent'),
  random: fc.constantFrom(0, 15),
  randomFirst: fc.boolean(),
});
/** Beats with any moves on: echoes, sparks, a detour and a stagger. */
export const movedBeats: fc.Arbitrary<Beat> = fc
  .record({
    beat: beats,
    echo: fc.option(anyEchoes, { nil: undefined }),
    sparks: fc.array(anySpark, { maxLength: 2 }),
    detour: fc.option(anyDetour, { nil: undefined }),
    stagger: fc.option(anyStagger, { nil: undefined }),
  })
  .map(({ beat, echo, sparks, detour, stagger }) => {
    const [pattern] = beat.patterns;
    const kick = pattern!.parts['kick']!;
    const own = sparks.filter(({ to }) => to !== 'kick');
    const with1 = withLanePattern(pattern!, 'kick', {
      ...kick,
      ...(echo && { echoes: echo }),
      ...(own.length && { sparks: own }),
    });
    return {
      ...beat,
      feel: { ...beat.feel, ...(stagger && { stagger }) },
      patterns: [{ ...with1, ...(detour && { detour }) }],
    };
  });
