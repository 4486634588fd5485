import fc from 'fast-check';
import { XMLParser } from 'fast-xml-parser';
import { EMPTY_LANE_PATTERN, newBeat, newHit, newLane, newPattern } from '../document/defaults';
import { gridTicks, type Grid } from '../document/grid';
import type { Meter } from '../document/meter';
import type { Beat, Hit, LanePattern } from '../document/schema';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from './choice';
import { exported } from './exporting';
import { staffPlace } from './staff';
import { letterStep, writtenBars } from './written';

type Xml = Record<string, unknown>;
const list = (value: unknown): Xml[] =>
  Array.isArray(value) ? (value as Xml[]) : value === undefined ? [] : [value === '' ? {} : (value as Xml)];

const at = (steps: number[], change: Partial<Hit> = {}): Hit[] =>
  steps.map((step) => ({ ...newHit(step), ...change }));

const beatOf = (parts: Record<string, Partial<LanePattern>>, meter: Meter = { beats: 4, unit: 4 }): Beat => {
  const beat = newBeat('b', 'Quay', 1);
  const full = Object.entries(parts).map(([id, part]) => [id, { ...EMPTY_LANE_PATTERN, ...part }] as const);
  return {
    ...beat,
    lanes: [...beat.lanes, newLane('hat.pedal', 'hat.pedal')],
    patterns: [{ ...newPattern('a', 'A'), meter, parts: Object.fromEntries(full) }],
  };
};

const partOf = (beat: Beat) => {
  const out = exported(beat, { ...HOW_DEFAULTS, kind: 'paper' }, WHAT_DEFAULTS);
  if (!out.ok) throw new Error(out.error);
  return out.value;
};

const measureOf = (beat: Beat): Xml => {
  const parser = new XMLParser({ ignoreAttributes: false });
  const score = parser.parse(partOf(beat).files[0]!.data as string)['score-partwise'] as Xml;
  return list((score['part'] as Xml)['measure'])[0]!;
};

const SHORT: Record<string, string> = {
  whole: 'w',
  half: 'h',
  quarter: 'q',
  eighth: 'e',
  '16th': 's',
  '32nd': 't',
};

/** One voice of the first bar in short: q a quarter, e an eighth …, a point behind it, r a rest, 3 of a triplet. */
const inShort = (beat: Beat, voice = 1): string =>
  list(measureOf(beat)['note'])
    .filter((note) => Number(note['voice']) === voice && !('chord' in note) && !('grace' in note))
    .map((note) => {
      const type = SHORT[String(note['type'])] ?? 'bar';
      const dot = 'dot' in note ? '.' : '';
      const time = note['time-modification'] as Xml | undefined;
      const uneven = time ? String(time['actual-notes']) : '';
      return `${'rest' in note ? 'r' : ''}${type}${dot}${uneven}`;
    })
    .join(' ');

type Node = Record<string, Node[]> & { '#text'?: unknown };
const inside = (nodes: Node[], name: string): Node[][] =>
  nodes.flatMap((node) => (node[name] ? [node[name]] : []));
const durationIn = (nodes: Node[]): number => Number(inside(nodes, 'duration')[0]?.[0]?.['#text'] ?? 0) * 2;

/** The ticks at which notes begin in the first bar, read in order; a voice that does not fill the bar is a fault. */
const readPlaces = (beat: Beat, length: number): number[] => {
  const parser = new XMLParser({ preserveOrder: true });
  const score = parser.parse(partOf(beat).files[0]!.data as string) as Node[];
  const measure = inside(inside(inside(score, 'score-partwise')[0]!, 'part')[0]!, 'measure')[0]!;
  const places: number[] = [];
  let [now, begun] = [0, 0];
  for (const node of measure) {
    if (node['backup']) {
      expect(now).toBe(length);
      now -= durationIn(node['backup']);
    } else if (node['forward']) now += durationIn(node['forward']);
    else if (node['note'] && !inside(node['note'], 'grace').length) {
      const chord = inside(node['note'], 'chord').length > 0;
      if (!chord) begun = now;
      if (!inside(node['note'], 'rest').length) places.push(begun);
      if (!chord) now += durationIn(node['note']);
    }
  }
  expect(now).toBe(length);
  return places;
};

const hats = (steps: number[], grid: Grid = '1/16') => beatOf({ 'hat.closed': { grid, hits: at(steps) } });

describe('rhythms as they are written', () => {
  test.each([
    ['a hit on every beat', '1/4', [0, 1, 2, 3], 'q q q q'],
    ['eighths', '1/8', [0, 1, 2, 3, 4, 5, 6, 7], 'e e e e e e e e'],
    ['sixteenths of one beat', '1/16', [0, 1, 2, 3], 's s s s rq rq rq'],
    ['a dotted eighth', '1/16', [0, 3], 'e. s rq rq rq'],
    ['a rest before an off-beat', '1/16', [2, 6], 're e re e rq rq'],
    ['the last sixteenth alone', '1/16', [3], 're. s rq rq rq'],
    ['triplets', '1/8T', [0, 1, 2], 'e3 e3 e3 rq rq rq'],
    ['a long and a short of a triplet', '1/8T', [0, 2], 'q3 e3 rq rq rq'],
    ['sextuplets', '1/16T', [0, 1, 2, 3, 4, 5], 's6 s6 s6 s6 s6 s6 rq rq rq'],
    ['quintuplets', '1/16Q', [0, 1, 2, 3, 4], 's5 s5 s5 s5 s5 rq rq rq'],
    ['thirty-seconds', '1/32', [0, 1, 4], 't s. e rq rq rq'],
  ] as const)('%s', (_, grid, steps, written) => {
    expect(inShort(hats([...steps], grid))).toBe(written);
  });

  test('in 6/8 beats are dotted quarters', () => {
    const six = (grid: Grid, steps: number[]) =>
      inShort(beatOf({ 'hat.closed': { grid, hits: at(steps) } }, { beats: 6, unit: 8 }));
    expect(six('1/8', [0, 1, 2, 3, 4, 5])).toBe('e e e e e e');
    expect(six('1/8', [0, 2, 3])).toBe('q e q.');
    expect(six('1/4D', [0])).toBe('q. rq.');
    expect(six('1/16', [0, 1, 2, 3, 4, 5])).toBe('s s s s s s rq.');
  });

  test('in 7/8 beats are eighths', () => {
    const beat = beatOf({ snare: { hits: at([0, 4, 5, 8]) } }, { beats: 7, unit: 8 });
    expect(inShort(beat)).toBe('e re s s re e re re');
  });

  test('a swing is said and not drawn, a nudge is left to the player', () => {
    const straight = hats([0, 1, 2, 3]);
    const swung: Beat = {
      ...straight,
      feel: { ...straight.feel, base: 'swing', swing: { percent: 62, grid: '1/16' } },
    };
    expect(inShort(swung)).toBe(inShort(straight));
    const said = JSON.stringify(measureOf(swung)['direction']);
    expect(said).toContain('sixteenths swung 62 %');
    const nudged = beatOf({ 'hat.closed': { hits: at([0, 1, 2, 3], { nudge: 0.3 }) } });
    expect(inShort(nudged)).toBe(inShort(straight));
  });
});

describe('what stands on the staff', () => {
  test('feet have a voice of their own, with their stems down; hands that meet are a chord', () => {
    const beat = beatOf({
      kick: { hits: at([0, 8]) },
      'hat.pedal': { hits: at([4]) },
      snare: { hits: at([4]) },
      'hat.closed': { hits: at([0, 4]) },
    });
    expect(inShort(beat, 1)).toBe('q q rq rq');
    expect(inShort(beat, 2)).toBe('q q q rq');
    const notes = list(measureOf(beat)['note']);
    const feet = notes.filter((note) => Number(note['voice']) === 2 && 'unpitched' in note);
    expect(feet.map((note) => note['stem'])).toEqual(['down', 'down', 'down']);
    expect(notes.filter((note) => 'chord' in note)).toHaveLength(1);
  });

  test('a bar without hands rests whole; one without feet has no second voice', () => {
    expect(inShort(beatOf({ kick: { hits: at([0]) } }), 1)).toBe('rbar');
    expect(inShort(hats([0]), 2)).toBe('');
  });

  test('ghost notes stand in brackets, accents have their sign, flams a grace note, rolls their strokes', () => {
    const beat = beatOf({
      snare: {
        hits: [
          { ...newHit(0), velocity: 30 },
          { ...newHit(4), velocity: 120 },
          { ...newHit(8), grace: [{ before: 25, level: 0.5 }] },
          { ...newHit(12), roll: { curve: 0, levels: [1, 1, 1, 1] } },
        ],
      },
    });
    const notes = list(measureOf(beat)['note']).filter((note) => 'unpitched' in note);
    expect(notes).toHaveLength(5);
    expect(notes[0]!['notehead']).toMatchObject({ '@_parentheses': 'yes' });
    expect(notes[1]!['notations']).toMatchObject({ articulations: { accent: '' } });
    expect('grace' in notes[2]! && !('duration' in notes[2])).toBe(true);
    expect(JSON.stringify(notes[4]!['notations'])).toContain('tremolo');
  });

  test('drums stand where printed parts have them', () => {
    expect(staffPlace('snare')).toMatchObject({ step: 'C', octave: 5, head: 'normal', foot: false });
    expect(staffPlace('kick')).toMatchObject({ step: 'F', octave: 4, foot: true });
    expect(staffPlace('hat.closed')).toMatchObject({ step: 'G', octave: 5, head: 'x' });
    expect(staffPlace('hat.open').head).toBe('circle-x');
    expect(staffPlace('snare.sideStick')).toMatchObject({ step: 'C', head: 'x' });
    expect(staffPlace('shaker').head).toBe('triangle');
    expect(staffPlace('conga.low')).not.toEqual(staffPlace('conga.open'));
  });

  test('each lane is an instrument with its number, counted from one as the format does', () => {
    const xml = partOf(beatOf({ snare: { hits: at([0]) } })).files[0]!.data as string;
    expect(xml).toContain('<instrument-name>Snare</instrument-name>');
    expect(xml).toContain('<midi-unpitched>39</midi-unpitched>');
    expect(xml).not.toContain('<instrument-name>Kick</instrument-name>');
  });

  test('beams join what is within a beat', () => {
    const notes = list(measureOf(hats([0, 2, 3, 4, 8]))['note']).filter((note) => 'unpitched' in note);
    const beams = notes.map((note) =>
      list(note['beam']).map((beam) => `${String(beam['@_number'])} ${String(beam['#text'])}`),
    );
    expect(beams).toEqual([['1 begin'], ['1 continue', '2 begin'], ['1 end', '2 end'], [], []]);
  });
});

describe('bars as they are divided', () => {
  test('each beat is divided as coarsely as its own hits allow', () => {
    const [piece] = partOf(hats([0, 4, 6, 8, 9])).pieces;
    const [bar] = writtenBars(piece!);
    const rows = bar!.beats.map((beat) => beat.rows(() => true));
    expect(rows.map((row) => row.map(({ parts }) => parts))).toEqual([[1], [2], [4], []]);
    expect(rows[2]![0]!.onsets.map(({ at: place }) => place)).toEqual([0, 1]);
  });

  test.each([
    [[0, 480, 960], 480],
    [[0, 320, 640], 320],
    [[0, 240], 240],
    [[0, 160], 160],
    [[0, 120], 120],
    [[0, 320, 240], 80],
    [[0, 320, 120], 40],
    [[0, 192], 192],
    [[0, 192, 240], 48],
    [[0, 101], 60],
  ] as const)('letters for hits at %j stand %d ticks apart', (ticks, step) => {
    expect(letterStep(ticks)).toBe(step);
  });
});

describe('triplets beside sixteenths', () => {
  const against = () =>
    beatOf({
      'hat.closed': { grid: '1/8T', hits: at([0, 1, 2, 3]) },
      snare: { grid: '1/16', hits: at([1, 3, 8]) },
      kick: { grid: '1/16', hits: at([0, 3]) },
    });

  test('each division has a voice of its own, written as what it is', () => {
    expect([1, 3, 2].map((voice) => inShort(against(), voice))).toEqual([
      'e3 e3 e3 q q rq',
      'rs e s',
      'e. s rq rq rq',
    ]);
  });

  test('a helping voice is passed over where it has nothing, and its stems point as its side does', () => {
    const measure = measureOf(against());
    expect(list(measure['forward']).map(({ duration }) => Number(duration))).toEqual([480, 480, 480]);
    const helping = list(measure['note']).filter((note) => Number(note['voice']) === 3);
    expect(helping.map(({ stem }) => stem)).toEqual([undefined, 'up', 'up']);
  });

  test('one lane that mixes them is written exactly, twelve in the time of eight', () => {
    const mixed = (ticks: number[]) =>
      beatOf({ 'hat.closed': { grid: '1/32T', hits: at(ticks.map((tick) => tick / 80)) } });
    expect(inShort(mixed([0, 320, 720]))).toBe('e12 e12 rt12 s.12 rq rq rq');
  });

  const GRID = fc.constantFrom<Grid>(
    ...(['1/8', '1/16', '1/32', '1/8T', '1/16T', '1/32T', '1/16Q', '1/4T', '1/16D', '1/4'] as const),
  );
  const METER = fc.constantFrom<Meter>(
    { beats: 4, unit: 4 },
    { beats: 3, unit: 4 },
    { beats: 7, unit: 8 },
    { beats: 6, unit: 8 },
    { beats: 12, unit: 8 },
  );

  test('whatever grids meet: every hit stands at its tick, and every voice fills its bar', () => {
    const PART = fc.record({ grid: GRID, steps: fc.uniqueArray(fc.nat(11), { minLength: 1, maxLength: 8 }) });
    fc.assert(
      fc.property(METER, fc.tuple(PART, PART, PART), (meter, parts) => {
        const ids = ['hat.closed', 'snare', 'kick'];
        const limit = (meter.beats * 3840) / meter.unit;
        const beat = beatOf(
          Object.fromEntries(
            parts.map(({ grid, steps }, index) => [
              ids[index]!,
              { grid, hits: at(steps.filter((step) => step * gridTicks(grid) < limit - 1)) },
            ]),
          ),
          meter,
        );
        const places = readPlaces(beat, limit);
        const meant = parts.flatMap(({ grid, steps }) =>
          steps.map((step) => step * gridTicks(grid)).filter((tick) => tick < limit - 1),
        );
        const sorted = (ticks: number[]) => ticks.map((tick) => Math.round(tick / 2)).sort((a, b) => a - b);
        expect(sorted(places)).toEqual(sorted(meant));
      }),
    );
  });

  test('a tab has every hit, on places fine enough for both', () => {
    const text = exported(against(), { ...HOW_DEFAULTS, kind: 'tab' }, WHAT_DEFAULTS);
    if (!text.ok) throw new Error(text.error);
    const tab = text.value.files[0]!.data as string;
    const row = (name: string) =>
      tab
        .split('\n')
        .find((line) => line.startsWith(name))!
        .slice(name.length);
    expect(row('Closed hat').replace(/[^o]/g, '')).toHaveLength(4);
    expect(row('Closed hat').indexOf('o---o---o---o')).toBeGreaterThan(0);
    expect(row('Snare').replace(/[^o]/g, '')).toHaveLength(3);
    expect(tab).toContain('from one place to the next is a thirty-second triplet');
    expect(tab).not.toContain('share a letter');
  });
});

test('a lane that plays pitches has a part of its own below the drums, spelled as its scale', () => {
  const made = newBeat('b', 'B', 1);
  const lane = { ...newLane('logs', 'logDrum'), tuning: { root: 'C', scale: 'minor', low: 40, high: 60 } };
  const hit = (step: number, pitch: number) => ({ ...newHit(step), ...(pitch && { pitch }) });
  const beat: Beat = {
    ...made,
    lanes: [made.lanes[0]!, lane],
    patterns: [
      {
        ...made.patterns[0]!,
        parts: {
          kick: { ...EMPTY_LANE_PATTERN, hits: [newHit(0)] },
          // C, E flat and a chord of C, E flat and G.
          logs: { ...EMPTY_LANE_PATTERN, hits: [hit(0, 0), hit(4, 3), hit(8, 0), hit(8, 3), hit(8, 7)] },
        },
      },
    ],
  };
  const xml = partOf(beat).files[0]!.data as string;
  const score = new XMLParser({ ignoreAttributes: false }).parse(xml)['score-partwise'] as Xml;
  const names = list((score['part-list'] as Xml)['score-part']).map((part) => part['part-name']);
  expect(names).toEqual(['Drums', 'Log drum']);
  const [drums, logs] = list(score['part']).map((part) => list(list(part['measure'])[0]!['note']));
  expect(drums!.filter((note) => 'unpitched' in note)).toHaveLength(1);
  const pitches = logs!
    .filter((note) => 'pitch' in note)
    .map((note) => {
      const { step, alter = 0, octave } = note['pitch'] as Record<string, string | number>;
      return `${step}${alter} ${octave}${'chord' in note ? ' with it' : ''}`;
    });
  expect(pitches).toEqual(['C0 3', 'E-1 3', 'C0 3', 'E-1 3 with it', 'G0 3 with it']);
  expect(xml).toContain('<sign>F</sign>');
});
