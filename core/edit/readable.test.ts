/** Whatever an edit is given within what it takes, what comes of it can be written and read again. */
import fc from 'fast-check';
import { FEEL_EDITS } from './defined/feel';
import { DEMO_BEATS } from '../../demo/beats';
import { readBeat } from '../document/file';
import type { Beat } from '../document/schema';
import { writeBeat } from '../document/text';
import { type About, type Arguments } from './define';
import { changeFeel } from './beatEdits';
import {
  BEAT_EDITS,
  editBeat,
  editPatterns,
  PATTERN_EDITS,
  type BeatEdit,
  type PatternEdit,
  editFeel,
  type FeelEdit,
} from './edits';
import { existing } from './scripted';

type Listed = Record<string, { args: Arguments }>;

/** Whether all that it takes can be made up from what is said of it. */
const isPlain = (argument: About): boolean => {
  if (argument.is === 'thing') return false;
  if (argument.is === 'maybe' || argument.is === 'optional') return isPlain(argument.of);
  return argument.is !== 'some' || Object.values(argument.of).every(isPlain);
};

/** Names that every object has among them, as any of them may be given by a person or a file. */
const NAMES = ['Rain', '__proto__', 'constructor', 'toString', '0', 'x'.repeat(40), '🏮🏮', '=1+1', 'a/b'];

const valueOf = (beat: Beat, argument: About): fc.Arbitrary<unknown> => {
  const step = () =>
    fc.record({ laneId: fc.constantFrom(...existing(beat, 'lane')), step: fc.integer({ min: 0, max: 40 }) });
  switch (argument.is) {
    case 'figure': {
      const { least, most, whole } = argument.range;
      return whole
        ? fc.oneof(fc.constantFrom(least, most), fc.integer({ min: Math.ceil(least), max: Math.floor(most) }))
        : fc.oneof(fc.constantFrom(least, most), fc.double({ min: least, max: most, noNaN: true }));
    }
    case 'id':
    case 'ids': {
      const there = existing(beat, argument.of);
      if (!there.length) return fc.constant(argument.is === 'id' ? 'none' : []);
      const one = fc.constantFrom(...there);
      return argument.is === 'id' ? one : fc.uniqueArray(one, { minLength: 1, maxLength: 4 });
    }
    case 'hits':
      return fc.array(step(), { maxLength: 6 });
    case 'hit':
      return step();
    case 'new id':
      return fc.uuid();
    case 'seed':
      return fc.integer({ min: 0, max: 0xffffffff });
    case 'text':
      return fc.constantFrom(...NAMES);
    case 'yes or no':
      return fc.boolean();
    case 'choice':
      return fc.constantFrom(...argument.of);
    case 'maybe':
      return fc.option(valueOf(beat, argument.of));
    case 'optional':
      return fc.option(valueOf(beat, argument.of), { nil: undefined });
    case 'some':
      return fc.record(
        Object.fromEntries(Object.entries(argument.of).map(([name, one]) => [name, valueOf(beat, one)])),
        { requiredKeys: [] },
      );
    case 'thing':
      return fc.constant(null);
  }
};

const LISTS: [Listed, (beat: Beat, edit: string, args: unknown) => Beat][] = [
  [
    PATTERN_EDITS,
    (beat, edit, args) => editPatterns(beat, [beat.patterns[0]!.id], { edit, args } as PatternEdit),
  ],
  [BEAT_EDITS, (beat, edit, args) => editBeat(beat, { edit, args } as BeatEdit)],
  [
    FEEL_EDITS,
    (beat, edit, args) => changeFeel(beat, null, (feel) => editFeel(feel, { edit, args } as FeelEdit)),
  ],
];
const ALL = LISTS.flatMap(([list, make]) =>
  Object.entries(list)
    .filter(([, { args }]) => Object.values(args).every(isPlain))
    .map(([edit, { args }]) => ({ edit, args, make })),
);

/** Those that ask for something that a demo beat has none of are left as they are by it, or told by a throw. */
const made = (beat: Beat, edit: string, args: unknown, make: (typeof ALL)[number]['make']): Beat => {
  try {
    return make(beat, edit, args);
  } catch {
    return beat;
  }
};

test('most edits are tried', () => expect(ALL.length).toBeGreaterThan(80));

test.each(ALL)('$edit', ({ edit, args, make }) => {
  const beat = DEMO_BEATS[0]!;
  const given = fc.record(
    Object.fromEntries(Object.entries(args).map(([name, argument]) => [name, valueOf(beat, argument)])),
  );
  fc.assert(
    fc.property(given, (all) => {
      const next = made(beat, edit, all, make);
      expect(readBeat(writeBeat(next))).toEqual({ ok: true, value: next });
    }),
    { numRuns: 4 },
  );
});

test('edits of any kind one after the other', () => {
  const steps = fc.array(
    fc
      .constantFrom(...ALL)
      .chain(({ edit, args, make }) =>
        fc
          .record(
            Object.fromEntries(
              Object.entries(args).map(([name, argument]) => [name, valueOf(DEMO_BEATS[1]!, argument)]),
            ),
          )
          .map((all) => ({ edit, all, make })),
      ),
    { minLength: 2, maxLength: 10 },
  );
  fc.assert(
    fc.property(steps, (all) => {
      const next = all.reduce((beat, step) => made(beat, step.edit, step.all, step.make), DEMO_BEATS[1]!);
      expect(readBeat(writeBeat(next)).ok).toBe(true);
    }),
    { numRuns: 25 },
  );
});
