import fc from 'fast-check';
import { lanePatternOf, newBeat, newHit, patternTicks } from '../document/defaults';
import { gridTicks } from '../document/grid';
import { beatSchema, type Pattern } from '../document/schema';
import { editPatterns } from '../edit/edits';
import { builtInGrooves } from '../groove/library';
import { arrangementCount, arrangements, arrangementSlots, rotatedSlots } from './ring';
import {
  CHORDS_DEFAULTS,
  chordsPart,
  RING_DEFAULTS,
  ringParts,
  type Made,
  type MadeSettings,
} from './makers';
import { partBandOf, BANDS_DEFAULTS, bandsParts, pointsOf } from './bandParts';
import { beatParts } from './beatParts';
import { STARTING_POINTS } from './startingPoints';
import { BEAT_DEFAULTS, beatModel, wholeBeat } from './wholeBeat';

const beat = newBeat('b', 'B', 1);
const pattern: Pattern = { ...beat.patterns[0]!, bars: 2 };
const full = { ...beat, patterns: [pattern] };
const steps = (parts: Made, lane: string) => parts[lane]!.hits.map(({ step }) => step);

/** What a maker gives, as a take of the pattern: a beat that can be read. */
const used = (parts: Made, maker: 'ring' | 'bands' | 'chords' | 'beat', settings: object) => {
  const made = { maker, settings: settings as MadeSettings };
  const out = editPatterns(full, [pattern.id], {
    edit: 'make',
    args: { parts, how: 'Made', made, seed: 7, id: 't' },
  });
  const read = beatSchema.safeParse(out);
  if (!read.success) throw new Error(JSON.stringify(read.error.issues[0]));
  return out.patterns[0]!;
};

test('a ring fills the pattern or loops by itself, gives the rest away and is dealt', () => {
  const ring = { ...RING_DEFAULTS, slots: 8, strikes: 3, struck: [0, 3, 6] };
  expect(steps(ringParts(pattern, 'kick', ring, 1), 'kick')).toEqual([
    0, 3, 6, 8, 11, 14, 16, 19, 22, 24, 27, 30,
  ]);
  const own = ringParts(pattern, 'kick', { ...ring, own: true, rotate: 1, rest: 'hat.closed' }, 1);
  expect(own['kick']).toMatchObject({ steps: 8, grid: '1/16' });
  expect(steps(own, 'kick')).toEqual([1, 4, 7]);
  expect(steps(own, 'hat.closed')).toEqual([0, 2, 3, 5, 6]);
  const shared = ringParts(pattern, 'kick', { ...ring, own: true, deal: 'snare,clap' }, 1);
  expect(['kick', 'snare', 'clap'].map((id) => steps(shared, id))).toEqual([[0], [3], [6]]);
  const doubled = ringParts(pattern, 'kick', { ...ring, doubling: 1, into: 3 }, 1);
  expect(doubled['kick']!.hits.every(({ roll }) => roll?.levels.length === 3)).toBe(true);
});

test('a take keeps what made it, and the same settings and seed make it again', () => {
  const settings = { ...RING_DEFAULTS, doubling: 0.4 };
  const parts = ringParts(pattern, 'kick', settings, 7);
  const out = used(parts, 'ring', settings);
  const take = out.takes!.find(({ id }) => id === 't')!;
  expect(take.made).toEqual({ maker: 'ring', settings });
  expect(ringParts(pattern, 'kick', take.made!.settings as unknown as typeof settings, take.seed)).toEqual(
    take.parts,
  );
});

test('bands make hits of a lane and shape those that are there; each lane draws by itself', () => {
  const lanes = full.lanes.slice(0, 2);
  const made = bandsParts(pattern, lanes, BANDS_DEFAULTS, 3);
  expect(steps(made, 'kick')).toHaveLength(16);
  expect(steps(made, 'kick')).not.toEqual(steps(made, 'snare'));
  const shaped = bandsParts(
    { ...pattern, parts: made },
    lanes,
    { ...BANDS_DEFAULTS, shape: true, velocity: [0, 30, 30, 1, 90, 90] },
    3,
  );
  expect(steps(shaped, 'kick')).toEqual(steps(made, 'kick'));
  for (const { step, velocity } of shaped['kick']!.hits)
    expect(velocity).toBe(Math.round(30 + (60 * step) / 32));
  expect(pointsOf(partBandOf([0, 1, 2, 1, 3, 4]))).toEqual([0, 1, 2, 1, 3, 4]);
  used(made, 'bands', BANDS_DEFAULTS);
});

test('shaping: each band drawn acts, and what has none stays: level, place, length, chance, step', () => {
  const lane = full.lanes[0]!;
  const row = bandsParts(pattern, [lane], { ...BANDS_DEFAULTS, fullness: [0, 1, 1] }, 5);
  const there = { ...pattern, parts: row };
  const flat: Record<string, number[]> = {
    velocity: [0, 77, 77],
    pitch: [0, 60, 60],
    length: [0, 0.5, 0.5],
    chance: [0, 0.25, 0.25],
    nudge: [0, 0.1, 0.1],
  };
  const none = { ...BANDS_DEFAULTS, shape: true, velocity: [], scale: 'C major' };
  const hitsBy = (some: object) => bandsParts(there, [lane], { ...none, ...some }, 9)['kick']!.hits;
  const was = row['kick']!.hits;
  expect(hitsBy({})).toEqual(was);
  const wanted: Record<string, object> = {
    velocity: { velocity: 77 },
    pitch: { pitch: 60 - lane.note },
    length: { length: 0.5 },
    chance: { chance: 0.25 },
    nudge: { nudge: 0.1 },
  };
  for (const one of Object.keys(flat)) {
    expect(hitsBy({ [one]: flat[one] })).toEqual(was.map((hit) => ({ ...hit, ...wanted[one] })));
    // A band of pitch stops none of the others.
    expect(hitsBy({ [one]: flat[one], pitch: flat['pitch'] })).toEqual(
      was.map((hit) => ({ ...hit, ...wanted[one], ...wanted['pitch'] })),
    );
  }
});

test('shaping a chord keeps its notes apart, and loses none', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 7 }), fc.nat(99), fc.constantFrom(1, 3, 24), (many, seed, wide) => {
      const chord = Array.from({ length: many }, (_, pitch) => ({
        ...newHit(4, 90),
        ...(pitch && { pitch }),
      }));
      const there = { ...pattern, parts: { kick: { ...lanePatternOf(pattern, 'kick'), hits: chord } } };
      const settings = { ...BANDS_DEFAULTS, shape: true, pitch: [0, 60, 60 + wide], scale: 'C chromatic' };
      const made = bandsParts(there, full.lanes.slice(0, 1), settings, seed);
      expect(new Set(made['kick']!.hits.map(({ pitch = 0 }) => pitch)).size).toBe(many);
      used(made, 'bands', settings);
    }),
  );
});

test('chords for which the pattern has no place are told, and notes beyond what MIDI has', () => {
  const lane = full.lanes[0]!;
  const row = (some: object) => chordsPart(pattern, lane, { ...CHORDS_DEFAULTS, every: 8, ...some });
  expect(row({ chords: 'C F G Am' })).toMatchObject({ ok: true, left: [], beyond: 0 });
  expect(row({ chords: 'C F G Am Dm - E7' })).toMatchObject({ ok: true, left: ['Dm', 'Dm', 'E7'] });
  const high = row({ chords: 'Bmaj13', low: 84, spread: 2 });
  expect(high.ok && high.beyond).toBeGreaterThan(0);
});

test('chords stand one after the other, each note a hit of its own pitch', () => {
  const lane = full.lanes[0]!;
  const made = chordsPart(pattern, lane, { ...CHORDS_DEFAULTS, chords: 'C - F', every: 8 });
  if (!made.ok) throw new Error(made.error);
  const { hits } = made.parts[lane.id]!;
  expect(hits.filter(({ step }) => step === 0).map(({ pitch = 0 }) => lane.note + pitch)).toEqual([
    60, 64, 67,
  ]);
  expect(hits.filter(({ step }) => step === 16).map(({ pitch = 0 }) => lane.note + pitch)).toEqual([
    65, 69, 72,
  ]);
  expect(chordsPart(pattern, lane, { ...CHORDS_DEFAULTS, chords: 'C wet' })).toMatchObject({ ok: false });
  expect(chordsPart(pattern, lane, { ...CHORDS_DEFAULTS, chords: ' ' })).toMatchObject({ ok: false });
  used(made.parts, 'chords', CHORDS_DEFAULTS);
});

test('a whole beat goes to the lanes of its instruments; lanes that are held stay', () => {
  const model = beatModel(builtInGrooves().filter(({ style }) => style === 'Boom-bap'))!;
  const groove = wholeBeat(model, BEAT_DEFAULTS, 4);
  const { parts } = beatParts(pattern, full.lanes, groove, {
    kept: ['hat.closed'],
    adds: false,
    oneDrummer: false,
    tempo: 100,
  });
  expect(parts['hat.closed']).toBeUndefined();
  expect(parts['kick']!.hits.length).toBeGreaterThan(0);
  expect(parts['clap']!.hits).toEqual([]);
  used(parts, 'beat', { style: 'Boom-bap', busy: 50 });
});

test.each(STARTING_POINTS)('the starting point $name gives hits that a pattern takes', (point) => {
  const lane = full.lanes[0]!;
  const parts =
    point.maker === 'ring'
      ? ringParts(pattern, lane.id, point.settings, 5)
      : bandsParts(pattern, [lane], point.settings, 5);
  expect(parts[lane.id]!.hits.length).toBeGreaterThan(0);
  used(parts, point.maker, point.settings);
  if (point.maker === 'bands') return;
  const { slots, strikes, struck } = point.settings;
  expect(struck).toHaveLength(strikes);
  // Whichever slots it strikes, they are a rotation of one in the list.
  const list = arrangements(slots, strikes);
  expect(list).toHaveLength(arrangementCount(slots, strikes));
  const found = [...list].some((mask) =>
    Array.from({ length: slots }, (_, by) =>
      rotatedSlots(arrangementSlots(mask, slots), slots, by).join(),
    ).includes(struck.join()),
  );
  expect(found).toBe(true);
});

test('there are thirty or more to begin with, no two of one name', () => {
  expect(STARTING_POINTS.length).toBeGreaterThanOrEqual(30);
  expect(new Set(STARTING_POINTS.map(({ name }) => name)).size).toBe(STARTING_POINTS.length);
});

test('whatever a ring is set to, its hits lie within the pattern', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 24 }),
      fc.nat(24),
      fc.boolean(),
      fc.constantFrom('1/8' as const, '1/16T' as const),
      (slots, rotate, own, grid) => {
        const parts = ringParts(
          pattern,
          'kick',
          { ...RING_DEFAULTS, slots, struck: [0], strikes: 1, rotate, own, grid },
          1,
        );
        const end = own ? slots : patternTicks(pattern) / gridTicks(grid);
        for (const step of steps(parts, 'kick')) expect(step).toBeLessThan(end);
      },
    ),
  );
});
