import fc from 'fast-check';
import { gridTicks } from '../document/grid';
import type { InstrumentId } from '../document/instruments';
import { newBeat, newHit } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import type { Beat } from '../document/schema';
import { allNotes } from '../play/driver';
import { handStrokes } from '../play/plan';
import { planPasses } from '../play/timelinePlan';
import { RUDIMENT_DEFAULTS, rudimentParts } from '../make/rudimentMaker';
import { recognized } from './recognized';
import { RUDIMENTS, type Rudiment } from './rudiments';
import { sticking, unplayable, type StickStroke } from './sticking';

const GRACE_MS = 28;

/** A rudiment twice through as plain notes on one snare, with the hands that it has. */
const played = (
  { strokes, steps, grid }: Rudiment,
  tempo: number,
): { plain: StickStroke[]; hands: string } => {
  const plain: StickStroke[] = [];
  let hands = '';
  const g = gridTicks(grid);
  for (let round = 0; round < 2; round++)
    for (const { at: step, hand, accent, graces } of strokes) {
      const at = (step + round * steps) * g;
      const ms = (at * 60000) / 960 / tempo;
      for (let grace = graces; grace > 0; grace--) {
        plain.push({ ms: ms - grace * GRACE_MS, at: at - 1, velocity: 45, instrument: 'snare' });
        hands += hand === 'R' ? 'L' : 'R';
      }
      plain.push({ ms, at, velocity: accent ? 115 : 80, instrument: 'snare' });
      hands += hand;
    }
  return { plain, hands };
};
const limbs = (strokes: StickStroke[], options = {}) =>
  sticking(strokes, options)
    .map(({ limb }) => limb ?? '-')
    .join('');

/** What cannot be told from another by rhythm, accents and grace strokes. */
const SAME_NOTES = new Set([
  'Triple stroke roll',
  'Double stroke roll',
  'Paradiddle-diddle',
  'Flammed mill',
  'Swiss triplet',
  'Inverted flam tap',
]);

/**
 * The stickings of the forty as they are taught, written down by hand apart from the list: R and L strokes, small letters grace
 * strokes, z a press. Those that lead from either hand are followed by the other way round.
 */
const TAUGHT: Record<string, string> = {
  'Single stroke roll': 'RLRLRLRL',
  'Single stroke four': 'RLRL LRLR',
  'Single stroke seven': 'RLRLRLR LRLRLRL',
  'Multiple bounce roll': 'zR zL zR zL',
  'Triple stroke roll': 'RRRLLL',
  'Double stroke roll': 'RRLL RRLL',
  'Five stroke roll': 'RRLLR LLRRL',
  'Six stroke roll': 'RLLRRL',
  'Seven stroke roll': 'RRLLRRL',
  'Nine stroke roll': 'RRLLRRLLR LLRRLLRRL',
  'Ten stroke roll': 'RRLLRRLLRL',
  'Eleven stroke roll': 'RRLLRRLLRRL',
  'Thirteen stroke roll': 'RRLLRRLLRRLLR LLRRLLRRLLRRL',
  'Fifteen stroke roll': 'RRLLRRLLRRLLRRL',
  'Seventeen stroke roll': 'RRLLRRLLRRLLRRLLR LLRRLLRRLLRRLLRRL',
  'Single paradiddle': 'RLRR LRLL',
  'Double paradiddle': 'RLRLRR LRLRLL',
  'Triple paradiddle': 'RLRLRLRR LRLRLRLL',
  'Paradiddle-diddle': 'RLRRLL',
  Flam: 'lR rL',
  'Flam accent': 'lRLR rLRL',
  'Flam tap': 'lRR rLL',
  Flamacue: 'lRLRLlR rLRLRrL',
  'Flam paradiddle': 'lRLRR rLRLL',
  'Flammed mill': 'lRRLR rLLRL',
  'Flam paradiddle-diddle': 'lRLRRLL rLRLLRR',
  Pataflafla: 'lRLRrL lRLRrL',
  'Swiss triplet': 'lRRL lRRL',
  'Inverted flam tap': 'lRLrLR',
  'Flam drag': 'lRLLR rLRRL',
  Drag: 'llR rrL',
  'Single drag tap': 'llRL rrLR',
  'Double drag tap': 'llRllRL rrLrrLR',
  'Lesson 25': 'llRLR',
  'Single dragadiddle': 'RRLRR LLRLL',
  'Drag paradiddle 1': 'RllRLRR LrrLRLL',
  'Drag paradiddle 2': 'RllRllRLRR LrrLrrLRLL',
  'Single ratamacue': 'llRLRL rrLRLR',
  'Double ratamacue': 'llRllRLRL rrLrrLRLR',
  'Triple ratamacue': 'llRllRllRLRL rrLrrLrrLRLR',
};

describe('the rudiments', () => {
  test('have the stickings that are taught, and one drummer can play each, laid on a drum at 60 to 120', () => {
    const small = { R: 'l', L: 'r' };
    const sticks = ({ strokes }: Rudiment) =>
      strokes.map(({ hand, graces, buzz }) => (buzz ? 'z' : '') + small[hand].repeat(graces) + hand).join('');
    expect(Object.fromEntries(RUDIMENTS.map((one) => [one.name, sticks(one)]))).toEqual(
      Object.fromEntries(Object.entries(TAUGHT).map(([name, text]) => [name, text.replaceAll(' ', '')])),
    );
    for (const tempo of [60, 90, 120])
      for (const rudiment of RUDIMENTS) {
        const beat = newBeat('b', 'B', 1);
        const bare = { ...beat.patterns[0]!, bars: 8, parts: {} };
        const parts = rudimentParts(bare, 'snare', {
          ...RUDIMENT_DEFAULTS,
          rudiment: rudiment.id,
          grid: rudiment.grid,
        });
        const pattern = { ...bare, parts };
        const strokes = handStrokes({ ...beat, tempo, patterns: [pattern] }, pattern);
        expect([rudiment.name, tempo, unplayable(sticking(strokes)).all]).toEqual([rudiment.name, tempo, 0]);
      }
  });

  test('two grace strokes in plain notes are one bounce of one hand; three single strokes as fast are not', () => {
    const notes = (velocities: number[]) =>
      velocities.map((velocity, at) => ({
        ms: 500 + at * 25,
        at: 0,
        velocity,
        instrument: 'snare' as const,
      }));
    expect(limbs(notes([40, 40, 90]))).toMatch(/^(LLR|RRL)$/);
    expect(unplayable(sticking(notes([40, 40, 90]))).all).toBe(0);
    expect(unplayable(sticking(notes([90, 90, 90]))).all).toBeGreaterThan(0);
  });

  test('are forty, each of its own name, none of whose hands strikes at once with itself', () => {
    expect(RUDIMENTS).toHaveLength(40);
    expect(new Set(RUDIMENTS.map(({ id }) => id)).size).toBe(40);
    for (const { strokes, steps } of RUDIMENTS) {
      expect(
        strokes.every(({ at }, place) => at >= 0 && at < steps && at > (strokes[place - 1]?.at ?? -1)),
      ).toBe(true);
      expect(strokes.length).toBeGreaterThan(1);
    }
  });

  test('played as plain notes they have their own hands wherever the notes say which they are, at several tempos', () => {
    for (const tempo of [60, 80, 100]) {
      const right = RUDIMENTS.filter((one) => {
        const { plain, hands } = played(one, tempo);
        return limbs(plain, { rule: 'rudiment', recognize: recognized }) === hands;
      });
      expect(right.map(({ name }) => name).sort()).toEqual(
        RUDIMENTS.map(({ name }) => name)
          .filter((name) => !SAME_NOTES.has(name))
          .sort(),
      );
    }
  });

  test('of a left-handed drummer all hands are exchanged', () => {
    const { plain, hands } = played(
      RUDIMENTS.find(({ id }) => id === 'flam-paradiddle')!,
      90,
    );
    const other = [...hands].map((hand) => (hand === 'R' ? 'L' : 'R')).join('');
    expect(limbs(plain, { rule: 'rudiment', recognize: recognized, leftHanded: true })).toBe(other);
  });
});

const snares = (count: number, ms: number): StickStroke[] =>
  Array.from({ length: count }, (_, at) => ({
    ms: at * ms,
    at: at * 240,
    velocity: 90,
    instrument: 'snare' as const,
  }));

describe('sticking', () => {
  test('sixteenths on one drum go from hand to hand, the leading one on the beat; by rule, by hand, left-handed', () => {
    expect(limbs(snares(8, 125))).toBe('RLRLRLRL');
    expect(limbs(snares(8, 125), { leftHanded: true })).toBe('LRLRLRLR');
    expect(limbs(snares(4, 500), { rule: 'lead' })).toBe('RRRR');
    expect(limbs(snares(5, 500), { rule: 'alternate' })).toBe('RLRLR');
    const byHand = snares(4, 200).map((stroke, at) =>
      at === 1 ? { ...stroke, hand: 'R' as const } : stroke,
    );
    expect(limbs(byHand)[1]).toBe('R');
  });

  test('feet take kicks and the pedal, the leading hand the hat over a backbeat', () => {
    const beat: StickStroke[] = [];
    const add = (instrument: InstrumentId, ...steps: number[]) =>
      steps.forEach((step) => beat.push({ ms: step * 125, at: step * 240, velocity: 90, instrument }));
    add('kick', 0, 8);
    add('hat.pedal', 4);
    add('snare', 4, 12);
    add('hat.closed', 0, 2, 6, 8, 10, 12, 14);
    const of = (instrument: InstrumentId) =>
      new Set(sticking(beat).flatMap(({ limb }, at) => (beat[at]!.instrument === instrument ? [limb] : [])));
    expect(of('kick')).toEqual(new Set(['RF']));
    expect(of('hat.pedal')).toEqual(new Set(['LF']));
    expect(of('hat.closed')).toEqual(new Set(['R']));
    expect(of('snare')).toContain('L');
    expect(unplayable(sticking(beat)).all).toBe(0);
  });

  test('what cannot be played is told, by why', () => {
    const at = (ms: number, instrument: InstrumentId, velocity = 90): StickStroke => ({
      ms,
      at: 0,
      velocity,
      instrument,
    });
    const three = sticking([at(0, 'snare', 50), at(2, 'crash', 110), at(3, 'ride')]);
    expect(three[0]).toEqual({ limb: null, fault: 'tooMany' });
    expect(unplayable(three)).toMatchObject({ tooMany: 1, all: 1 });
    const fast = sticking(snares(6, 25));
    expect(unplayable(fast).tooSoon).toBeGreaterThan(1);
    expect(sticking([at(0, 'kick'), at(40, 'kick')])[1]).toEqual({ limb: 'RF', fault: 'foot' });
    const far = [0, 70, 140, 210].map((ms, place) => at(ms, place % 2 ? 'ride' : 'hat.closed'));
    const both = sticking([...far, ...far.map((one) => ({ ...one, instrument: 'tom.floor' as const }))]);
    expect(unplayable(both).tooFar + unplayable(both).tooSoon).toBeGreaterThan(0);
  });

  test('every stroke has a limb or a reason; a hand that can is never given what it cannot; the order does not matter', () => {
    const strokes = fc.array(
      fc.record({
        ms: fc.integer({ min: 0, max: 4000 }),
        at: fc.integer({ min: 0, max: 3840 }),
        velocity: fc.integer({ min: 1, max: 127 }),
        instrument: fc.constantFrom<InstrumentId>(
          'snare',
          'hat.closed',
          'ride',
          'kick',
          'tom.floor',
          'hat.pedal',
        ),
      }),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(strokes, fc.boolean(), (all, leftHanded) => {
        const stuck = sticking(all, { leftHanded });
        stuck.forEach(({ limb, fault }) => expect(limb !== null || fault === 'tooMany').toBe(true));
        for (const hand of ['L', 'R'] as const) {
          const own = all.flatMap(({ ms }, at) =>
            stuck[at]!.limb === hand ? [{ ms, fault: stuck[at]!.fault }] : [],
          );
          own.sort((a, b) => a.ms - b.ms);
          own.forEach(({ ms, fault }, at) => {
            if (at && ms - own[at - 1]!.ms > 0 && ms - own[at - 1]!.ms < 60) expect(fault).toBeDefined();
          });
        }
        expect(unplayable(stuck).all).toBe(stuck.filter(({ fault }) => fault).length);
      }),
      { numRuns: 200 },
    );
  });
});

describe('the weaker hand', () => {
  const beatOf = (hands: number, leftHanded = false): Beat => {
    const beat = newBeat('b', 'Quay', 3);
    const feel = newFeel();
    const [pattern] = beat.patterns;
    return {
      ...beat,
      tempo: 120,
      feel: { ...feel, humanize: { ...feel.humanize, hands, ...(leftHanded && { leftHanded }) } },
      patterns: [
        {
          ...pattern!,
          parts: {
            snare: {
              grid: '1/16',
              steps: null,
              rate: '1',
              direction: 'forward',
              hits: Array.from({ length: 16 }, (_, step) => newHit(step)),
            },
          },
        },
      ],
    };
  };
  const notes = (beat: Beat) => allNotes(planPasses(beat, beat.patterns[0]!, 2), 'hold');

  test('is later and softer, every second stroke of sixteenths; the other hand of a left-handed drummer', () => {
    const [even, uneven, other] = [notes(beatOf(0)), notes(beatOf(1)), notes(beatOf(1, true))];
    uneven.forEach(({ tick, velocity }, at) => {
      const weak = at % 2 === 1;
      expect(tick - even[at]!.tick > 1).toBe(weak);
      expect(velocity < even[at]!.velocity).toBe(weak);
      expect(other[at]!.tick - even[at]!.tick > 1).toBe(weak);
    });
    const half = notes(beatOf(0.5));
    expect(half[1]!.tick - even[1]!.tick).toBeCloseTo((uneven[1]!.tick - even[1]!.tick) / 2, 6);
  });

  test('a hand that is set goes before the one that is found', () => {
    const beat = beatOf(1);
    const [pattern] = beat.patterns;
    const { snare } = pattern!.parts;
    const hits = snare!.hits.map((hit) => (hit.step === 4 ? { ...hit, hand: 'L' as const } : hit));
    const set = { ...beat, patterns: [{ ...pattern!, parts: { snare: { ...snare!, hits } } }] };
    expect(handStrokes(set, set.patterns[0]!).filter(({ hand }) => hand)).toHaveLength(1);
    expect(notes(set)[4]!.tick).toBeGreaterThan(notes(beatOf(0))[4]!.tick + 1);
  });
});
