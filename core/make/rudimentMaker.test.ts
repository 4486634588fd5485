import fc from 'fast-check';
import { beats } from '../arbitraries';
import { newBeat, newHit, patternTicks, withLanePattern, lanePatternOf } from '../document/defaults';
import { GRIDS } from '../document/grid';
import { positionOf } from '../document/position';
import { beatSchema, type Beat, type Pattern } from '../document/schema';
import { editPatterns } from '../edit/edits';
import { fillsFor } from '../edit/fills';
import { newEntry } from '../edit/song';
import { spotsOf } from '../edit/spots';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from '../export/choice';
import { exported } from '../export/exporting';
import { RUDIMENTS } from '../hands/rudiments';
import { handLetters } from '../play/handLetters';
import { handStrokes } from '../play/plan';
import { relaid, RUDIMENT_DEFAULTS, rudimentParts, unlaid, type RudimentSettings } from './rudimentMaker';

const settings = fc.record({
  rudiment: fc.constantFrom(...RUDIMENTS.map(({ id }) => id)),
  grid: fc.constantFrom(...GRIDS),
  from: fc.integer({ min: 0, max: 40 }).map((half) => half / 2),
  long: fc.integer({ min: 0, max: 40 }).map((half) => half / 2),
  velocity: fc.integer({ min: 1, max: 127 }),
  accent: fc.integer({ min: 1, max: 127 }),
  left: fc.boolean(),
  accents: fc.constantFrom('', 'last'),
  lefts: fc.constantFrom('', 'last'),
});
const laid = (pattern: Pattern, laneId: string, s: RudimentSettings, id: string): Pattern =>
  editPatterns({ ...newBeat('b', 'Ferry', 7), patterns: [pattern] }, [pattern.id], {
    edit: 'make',
    args: {
      parts: relaid(pattern, laneId, s),
      how: 'Rudiment',
      made: { maker: 'rudiment', settings: { ...s } },
      seed: 1,
      id,
    },
  }).patterns[0]!;

const empty = (bars: number): Beat => {
  const beat = newBeat('b', 'Ferry', 7);
  return { ...beat, tempo: 80, patterns: [{ ...beat.patterns[0]!, bars }] };
};
const withParts = (beat: Beat, parts: Pattern['parts']): Beat => ({
  ...beat,
  patterns: [{ ...beat.patterns[0]!, parts: { ...beat.patterns[0]!.parts, ...parts } }],
});
/** The letters under a lane, in order of its steps. */
const lettersOf = (beat: Beat, laneId: string): string[] =>
  [...(handLetters(beat, beat.patterns[0]!).get(laneId) ?? [])]
    .sort(([a], [b]) => a - b)
    .map(([, text]) => text);

test('outside its span every hit stands where it stood, and what is given fits a beat', () => {
  fc.assert(
    fc.property(beats, settings, (beat, s) => {
      const pattern = beat.patterns[0]!;
      const laneId = beat.lanes[0]!.id;
      const last = beat.lanes.at(-1)!.id;
      const shared = { accents: s.accents && last, lefts: s.lefts && last };
      const parts = rudimentParts(pattern, laneId, { ...s, ...shared });
      expect(beatSchema.safeParse(withParts(beat, parts)).error?.issues[0]).toBeUndefined();
      const whole = patternTicks(pattern);
      const from = Math.min(whole, s.from * 960);
      const before = lanePatternOf(pattern, laneId);
      if (before.steps !== null) return;
      const places = (hits: Pattern['parts'][string]) =>
        hits.hits
          .map((hit) => Math.round(positionOf(hit, hits.grid)) + 0)
          .filter((tick) => tick < from - 30 && tick >= 0);
      // A grid that cannot take a place to within half a step has none such here: a nudge tells the rest.
      expect(places(parts[laneId]!)).toEqual(places(before).sort((a, b) => a - b));
    }),
    { seed: 19, numRuns: 150 },
  );
});

test('each is laid with the hands, grace strokes and bounces that it has, right and left handed', () => {
  for (const rudiment of RUDIMENTS)
    for (const left of [false, true]) {
      const beat = empty(8);
      const parts = rudimentParts(beat.patterns[0]!, 'snare', {
        ...RUDIMENT_DEFAULTS,
        rudiment: rudiment.id,
        grid: rudiment.grid,
        left,
      });
      const played = withParts(beat, parts);
      const hands = handStrokes(played, played.patterns[0]!)
        .filter(({ kind }) => kind !== 'grace')
        .sort((a, b) => a.at - b.at)
        .map(({ hand }) => hand);
      const turned = (hand: 'R' | 'L') => (left ? (hand === 'R' ? 'L' : 'R') : hand);
      if (rudiment.strokes.some(({ buzz }) => buzz)) continue;
      const wanted = rudiment.strokes.map(({ hand }) => turned(hand));
      expect([rudiment.name, hands.slice(0, wanted.length)]).toEqual([rudiment.name, wanted]);
      const first = rudiment.strokes.find(({ graces }) => graces);
      if (first)
        expect(lettersOf(played, 'snare')[0]).toMatch(first === rudiment.strokes[0] ? /^[rl]+[RL]/ : /^[RL]/);
    }
});

test('shared out: accents to one drum, the left hand to another, nothing twice and nothing lost', () => {
  const beat = empty(1);
  const plain = rudimentParts(beat.patterns[0]!, 'snare', RUDIMENT_DEFAULTS);
  const shared = rudimentParts(beat.patterns[0]!, 'snare', {
    ...RUDIMENT_DEFAULTS,
    accents: 'tom.low',
    lefts: 'clap',
  });
  const count = (parts: typeof plain) => Object.values(parts).reduce((sum, { hits }) => sum + hits.length, 0);
  expect(count(shared)).toBe(count(plain));
  expect(shared['tom.low']!.hits.every(({ velocity }) => velocity === 112)).toBe(true);
  expect(shared['clap']!.hits.every(({ hand, velocity }) => hand === 'L' && velocity === 70)).toBe(true);
  expect(shared['snare']!.hits.every(({ hand }) => hand === 'R')).toBe(true);
});

test('laid anew it takes the place of the one before: what was there comes back outside the new span', () => {
  const beat = empty(2);
  const written = withLanePattern(beat.patterns[0]!, 'snare', {
    ...lanePatternOf(beat.patterns[0]!, 'snare'),
    hits: [0, 4, 8, 20].map((step) => newHit(step)),
  });
  const first = laid(written, 'snare', { ...RUDIMENT_DEFAULTS, long: 4, accents: 'tom.low' }, 'one');
  const second = laid(first, 'snare', { ...RUDIMENT_DEFAULTS, from: 4, long: 2 }, 'two');
  expect(second.parts['tom.low']!.hits).toEqual([]);
  expect(second.parts['snare']!.hits.filter(({ hand }) => !hand).map(({ step }) => step)).toEqual([0, 4, 8]);
  expect(second.parts['snare']!.hits.filter(({ hand }) => hand)).toHaveLength(8);
  expect(unlaid(second, 'snare').parts['snare']!.hits).toEqual(written.parts['snare']!.hits);
  expect(unlaid(written, 'snare')).toBe(written);
});

test('hands are set one by one and by a rule, and taken back', () => {
  const beat = withParts(empty(1), {
    snare: {
      ...lanePatternOf(empty(1).patterns[0]!, 'snare'),
      hits: [0, 1, 2, 3, 4, 5, 6, 7].map((step) => newHit(step)),
    },
  });
  const spots = spotsOf(beat.patterns[0]!, 'snare');
  const edited = (from: Beat, edit: Parameters<typeof editPatterns>[2]) =>
    editPatterns(from, [beat.patterns[0]!.id], edit);
  const handsOf = (from: Beat) =>
    from.patterns[0]!.parts['snare']!.hits.map(({ hand }) => hand ?? '-').join('');
  const one = edited(beat, { edit: 'setHands', args: { spots: [spots[1]!], hand: 'R' } });
  expect(handsOf(one)).toBe('-R------');
  expect(lettersOf(one, 'snare')[1]).toBe('R');
  const alternate = edited(one, { edit: 'stickBy', args: { spots, rule: 'alternate' } });
  expect(handsOf(alternate)).toMatch(/^(RL){4}$|^(LR){4}$/);
  const lead = edited(alternate, { edit: 'stickBy', args: { spots: spots.slice(0, 4), rule: 'lead' } });
  expect(handsOf(lead).slice(4)).toBe(handsOf(alternate).slice(4));
  expect(handsOf(edited(lead, { edit: 'stickBy', args: { spots, rule: 'easiest' } }))).toBe('--------');
  const paradiddle = rudimentParts(beat.patterns[0]!, 'snare', RUDIMENT_DEFAULTS);
  const bare = edited(withParts(beat, paradiddle), {
    edit: 'setHands',
    args: { spots: spotsOf(withParts(beat, paradiddle).patterns[0]!, 'snare'), hand: null },
  });
  const all = spotsOf(bare.patterns[0]!, 'snare');
  expect(handsOf(edited(bare, { edit: 'stickBy', args: { spots: all, rule: 'rudiment' } }))).toBe(
    'RLRRLRLL'.repeat(2),
  );
});

test('a drum part has them under its notes where that is wanted, and only there', () => {
  const beat = withParts(empty(1), rudimentParts(empty(1).patterns[0]!, 'snare', RUDIMENT_DEFAULTS));
  const part = (hands: boolean) => {
    const out = exported(beat, { ...HOW_DEFAULTS, kind: 'paper', hands }, WHAT_DEFAULTS);
    return out.ok ? String(out.value.files[0]!.data) : '';
  };
  expect([...part(true).matchAll(/<text>(\w+)<\/text>/g)].map(([, text]) => text).join('')).toBe(
    'RLRRLRLL'.repeat(2),
  );
  expect(part(false)).not.toContain('<lyric');
});

test('rudiments are offered as fills, and fit the beat', () => {
  const beat: Beat = { ...empty(1), song: { sections: [], order: [] } };
  const section = {
    id: 's',
    name: 'Verse',
    pigment: 'weld' as const,
    entries: [newEntry('e', beat.patterns[0]!.id)],
    silent: [],
  };
  const offers = fillsFor(beat, section, []).filter(({ name }) => RUDIMENTS.some((one) => one.name === name));
  expect(offers.map(({ name }) => name)).toEqual(['Single paradiddle', 'Six stroke roll', 'Flam accent']);
  for (const { source } of offers) {
    const pattern = source.kind === 'own' ? source.pattern : null;
    expect(beatSchema.safeParse({ ...beat, patterns: [pattern] }).success).toBe(true);
    expect(pattern!.parts['snare']!.hits.length).toBeGreaterThan(3);
  }
});
