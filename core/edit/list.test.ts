import fs from 'node:fs';
import fc from 'fast-check';
import { FEEL_EDITS } from './defined/feel';
import { beats } from '../arbitraries';
import { newLane } from '../document/defaults';
import { RANGES, heldToRange } from '../document/ranges';
import { beatSchema, type Beat, type Loop, type Voice } from '../document/schema';
import { FIXTURES } from '../examples.mock';
import { GENERAL_MIDI } from '../midi/drumMap/drumMap';
import { notesIn } from '../play/driver';
import { planLive } from '../play/timelinePlan';
import { argumentText } from './listText';
import { figure, heldAll, some, type About, type Arguments, type Existing } from './define';
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
import { editsPage } from './listText';
import { WHOLE_BEAT_EDITS } from './defined/beat';
import { KEPT_FEEL_EDITS } from './defined/keptFeels';
import { HIT_EDITS } from './defined/hits';
import { LANE_EDITS } from './defined/lanes';
import { WHOLE_PATTERN_EDITS } from './defined/patterns';
import { SONG_EDITS } from './defined/song';
import { SOUND_EDITS } from './defined/sounds';
import { existing } from './scripted';
import { newEntry } from './song';
import { GRACES, PRESS_ROLL, sloped } from '../document/rolls';

/** What an edit is given: made from its description, so that no edit and no argument is left out. */
type Lists = Record<string, { does: string; args: Arguments }>;
const LISTS: Record<'pattern' | 'beat' | 'feel', Lists> = {
  pattern: PATTERN_EDITS,
  beat: BEAT_EDITS,
  feel: FEEL_EDITS,
};

/** Numbers from 0 up to 1, one after the other. */
type Dice = () => number;
const dice = (rolled: number[]): Dice => {
  let at = 0;
  return () => rolled[at++ % rolled.length]!;
};
const pick = <T>(roll: Dice, from: readonly T[]): T => from[Math.floor(roll() * from.length)]!;

/** No id is given twice. */
let count = 0;

/** Now and then of something that is not there. */
const orGone = (beat: Beat, of: Existing): string[] => [...existing(beat, of), 'gone'];

const { beat: ferry, pattern, groove, shape, songBeat } = FIXTURES;
const template = { id: 't', ...shape };
const voiceOf = (kit: string): Voice => ({
  choose: 'velocity',
  layers: [{ source: { kit, drum: 'kick' }, low: 1, high: 127 }],
});
const LOOP: Loop = {
  sample: { id: 'a'.repeat(64), file: 'ferry.wav', seconds: 2 },
  marks: [0, 0.5, 1.25],
  end: 2,
  bars: 1,
  tempo: 120,
};
const THINGS: Record<string, (roll: Dice, beat: Beat) => unknown> = {
  band: (roll) => ({
    on: roll() > 0.2,
    tempo: roll() > 0.5,
    // More than anyone has attention for, now and then, and someone who is not there.
    players: ['a', 'b'].map((id, at) => ({
      id,
      name: id,
      lanes: at ? ['snare'] : ['kick'],
      clock: 5 * roll(),
      touch: 20 * roll(),
      click: roll(),
      follows: { [at ? 'a' : 'b']: roll(), gone: roll() },
    })),
  }),
  beat: () => ferry,
  blend: (roll) => ({ with: ferry.feel, name: 'Quay', amount: roll() }),
  bring: (roll, beat) =>
    pick(roll, [
      { how: 'new', id: `new ${(count += 1)}`, name: 'New' },
      { how: 'replace', patternId: beat.patterns[0]!.id },
      { how: 'over', patternId: beat.patterns[0]!.id, instruments: ['kick', 'hat.closed'] },
    ]),
  clip: () => ({
    length: 480,
    rows: [
      { down: 0, grid: '1/16', hits: pattern.parts['kick']!.hits.slice(0, 2) },
      { down: 1, grid: '1/16', hits: pattern.parts['snare']!.hits },
    ],
  }),
  'notes by lane': (roll, beat) =>
    Object.fromEntries(
      beat.lanes
        .filter(() => roll() > 0.3)
        .map(({ id }) => [id, Math.floor(132 * roll()) - (roll() > 0.9 ? 2 : 0)]),
    ),
  'drum map': () => GENERAL_MIDI,
  entry: (roll, beat) => newEntry(`new ${(count += 1)}`, beat.patterns[0]!.id),
  feel: () => ferry.feel,
  'fill offer': () => ({ id: 'o', name: 'Offer', about: '', agrees: 1, source: { kind: 'groove', groove } }),
  'grace strokes': (roll) => pick(roll, GRACES).grace,
  groove: () => groove,
  'ids by lane': (roll) => ({ kick: `kick ${roll()}`, snare: `snare ${roll()}` }),
  'map choice': (roll) => pick(roll, [{ keep: 'notes' }, { keep: 'instruments', as: { kick: 'tom.low' } }]),
  meter: (roll) =>
    pick(roll, [
      { beats: 21, unit: 16 },
      { beats: 1, unit: 4 },
      { beats: 7, unit: 8 },
    ]),
  passes: () => ({ of: 4, on: [3] }),
  pattern: () => pattern,
  place: (roll, beat) => ({
    id: `new ${(count += 1)}`,
    sectionId: beat.song.sections[0]?.id ?? 'gone',
    times: 2,
  }),
  roll: (roll) => pick(roll, [PRESS_ROLL, sloped(3, 1, 0.5, 'dotted')]),
  stagger: (roll) =>
    pick(roll, [
      { lanes: null, by: { count: 3, each: 40 }, unit: 'ms', random: 0, randomFirst: false },
      { lanes: ['kick'], by: { list: [0, 20, 35] }, unit: 'percent', random: 9, randomFirst: true },
    ]),
  echoes: (roll) =>
    pick(roll, [
      { count: 3, rate: { grid: '1/8' }, slope: 0.8, interval: 0, withoutHit: false },
      { count: 9, rate: { ms: 125 }, slope: 1.2, interval: 7, withoutHit: true },
    ]),
  sparks: (roll, beat) => [
    {
      to: pick(roll, orGone(beat, 'lane')),
      of: 'all',
      gap: '1/8',
      chance: 0.5,
      factor: 1,
      delay: { ms: 30 },
      pitch: 3,
    },
  ],
  detour: (roll) => ({ over: pick(roll, ['bar', 'all']), route: [1, 1, 0, 4], chance: 0.7, lanes: null }),
  route: () => [4, 3, 2, 1],
  lanes: (roll) => (roll() > 0.5 ? [newLane(`new ${(count += 1)}`, 'clap')] : []),
  'lane patterns': () => ({ kick: pattern.parts['snare'] }),
  key: (roll) => ({ code: pick(roll, ['KeyZ', 'Digit1']), at: 'beat', held: false }),
  voice: (roll) => pick(roll, [voiceOf('quay'), { ...voiceOf('lantern'), choose: 'stacked', held: true }]),
  loop: () => LOOP,
  'own kit': () => ({ name: 'Crates', voices: { kick: voiceOf('attic') } }),
  'told slices': () => [
    { instrument: 'kick', velocity: 100 },
    null,
    { instrument: 'hat.closed', velocity: 60 },
  ],
  'switched routes': (roll) => [
    { at: 0, detour: null },
    {
      at: 1920,
      detour: { over: pick(roll, ['bar', 'all']), route: [2, 1, 4, 0], chance: 1, lanes: null },
    },
  ],
  maker: () => ({ maker: 'ring', settings: { slots: 8, strikes: 3 } }),
  section: () => ({
    ...songBeat.song.sections[0]!,
    id: `new ${(count += 1)}`,
    entries: [newEntry(`new ${(count += 1)}`, 'a')],
  }),
  'section change': (roll) =>
    pick(roll, [
      { tempo: 900 },
      { level: -1 },
      { name: 'Bridge', feel: null },
      { silent: ['kick'] },
      { into: { ms: -12, bars: 2 } },
      { change: { tempo: 90, bars: 1 }, into: null },
    ]),
  song: () => songBeat.song,
  template: () => template,
  swing: (roll) => ({ percent: 40 + 35 * roll(), grid: pick(roll, ['1/8', '1/16']) }),
  'template with its amounts': () => ({ template, timing: 1, velocity: 0.5 }),
};

const given = (argument: About, roll: Dice, beat: Beat): unknown => {
  switch (argument.is) {
    case 'figure': {
      // Half of its range beyond either end too, and whole numbers or not.
      const { least, most } = argument.range;
      const span = Math.min(most - least, 4096);
      return least + span * (2 * roll() - 0.5);
    }
    case 'id':
      return pick(roll, orGone(beat, argument.of));
    case 'ids':
      return orGone(beat, argument.of).filter(() => roll() < 0.5);
    case 'hits':
      return beat.lanes.flatMap(({ id: laneId }) =>
        [0, 4, 7]
          .filter(() => roll() < 0.4)
          .map((step) => ({ laneId, step, ...(roll() < 0.2 && { place: 0 }) })),
      );
    case 'hit':
      return { laneId: pick(roll, orGone(beat, 'lane')), step: Math.floor(roll() * 20) };
    case 'new id':
      return `new ${(count += 1)}`;
    case 'seed':
      return Math.floor(roll() * 2 ** 32);
    case 'text':
      return pick(roll, ['Gangway', '  ', 'Rain on tarps']);
    case 'yes or no':
      return roll() < 0.5;
    case 'choice':
      return pick(roll, argument.of);
    case 'maybe':
      return roll() < 0.2 ? null : given(argument.of, roll, beat);
    case 'optional':
      return roll() < 0.5 ? undefined : given(argument.of, roll, beat);
    case 'some':
      return Object.fromEntries(
        Object.entries(argument.of)
          .filter(() => roll() < 0.4)
          .map(([name, one]) => [name, given(one, roll, beat)]),
      );
    case 'thing':
      return THINGS[argument.of]!(roll, beat);
  }
};

const argsOf = (args: Arguments, roll: Dice, beat: Beat): object =>
  Object.fromEntries(
    Object.entries(args).flatMap(([name, one]) => {
      const value = given(one, roll, beat);
      return value === undefined ? [] : [[name, value]];
    }),
  );

const EVERY = (Object.keys(LISTS) as (keyof typeof LISTS)[]).flatMap((kind) =>
  Object.keys(LISTS[kind]).map((edit) => ({ kind, edit })),
);

const made = (beat: Beat, { kind, edit }: (typeof EVERY)[number], roll: Dice): Beat => {
  const one = { edit, args: argsOf(LISTS[kind][edit]!.args, roll, beat) };
  if (kind === 'beat') return editBeat(beat, one as BeatEdit);
  if (kind === 'pattern')
    return editPatterns(beat, [pick(roll, orGone(beat, 'pattern'))], one as PatternEdit);
  return changeFeel(beat, null, (feel) => editFeel(feel, one as FeelEdit));
};

const rolls = fc.array(fc.double({ min: 0, max: 0.999999, noNaN: true }), { minLength: 37, maxLength: 37 });
const edits = fc.array(fc.tuple(fc.constantFrom(...EVERY), rolls), { minLength: 1, maxLength: 14 });

const holds = (beat: Beat): void => {
  const result = beatSchema.safeParse(beat);
  if (!result.success) throw new Error(JSON.stringify(result.error.issues[0]));
  for (const note of notesIn(planLive(beat, beat.patterns[0]!), 0, 4000))
    expect(Number.isFinite(note.tick) && note.length > 0).toBe(true);
};

test('every edit of the list, in any order and beyond its ranges, leaves a beat that its own schema takes and that plays', () => {
  const runs = Number(process.env['EXPLORE'] ?? 150);
  fc.assert(
    fc.property(beats, edits, (beat, all) => {
      holds(all.reduce((now, [edit, rolled]) => made(now, edit, dice(rolled)), beat));
    }),
    { numRuns: runs },
  );
});

test.each(EVERY)('$kind: $edit by itself, on a beat that has one of everything', ({ kind, edit }) => {
  const start: Beat = {
    ...songBeat,
    templates: [template],
    feels: [{ id: 'f', name: 'Wet', feel: ferry.feel }],
    tray: [{ id: 'r', name: 'Rain', patternId: 'a' }],
  };
  fc.assert(
    fc.property(rolls, (rolled) => {
      holds(made(start, { kind, edit }, dice(rolled)));
    }),
    { numRuns: 20 },
  );
});

test('figures are held wherever they stand, and nothing else is touched', () => {
  const args = { by: figure(RANGES.velocity), change: some({ to: figure(RANGES.pan) }) };
  const inside = { by: 4, change: { to: 0 }, other: 'stays' };
  expect(heldAll(args, inside)).toBe(inside);
  expect(heldAll(args, { by: 900.6, change: { to: -7 }, other: 'stays' })).toEqual({
    by: 127,
    change: { to: -1 },
    other: 'stays',
  });
  expect(heldToRange(RANGES.velocity, NaN)).toBe(1);
});

test('the page of the documentation is the list as it is', () => {
  expect(fs.readFileSync('docs/edits.md', 'utf8')).toBe(editsPage());
  expect(argumentText(figure(RANGES.swing))).toBe('a number from 40 to 75 %');
});

test('no two edits have one name, wherever they are described', () => {
  const parts = [
    HIT_EDITS,
    LANE_EDITS,
    WHOLE_PATTERN_EDITS,
    WHOLE_BEAT_EDITS,
    KEPT_FEEL_EDITS,
    SOUND_EDITS,
    SONG_EDITS,
    FEEL_EDITS,
  ];
  const names = parts.flatMap((part) => Object.keys(part));
  expect(new Set(names).size).toBe(names.length);
  expect(names.length).toBe(EVERY.length);
});
