import fc from 'fast-check';
import { beats } from '../arbitraries';
import { DEMO_BEATS } from '../../demo/beats';
import { newBeat, stepsOf } from './defaults';
import { newFeel } from './feelDefaults';
import { readBeat, readBeats } from './file';
import { migrate } from './migrate';
import { fileName, writeBeat, writeBeats } from './text';
import { VERSION } from './version';

const whole = JSON.parse(writeBeat(newBeat('b', 'Night market', 1))) as Record<string, never>;
const errorOf = (change: object | string): string => {
  const read = readBeat(typeof change === 'string' ? change : JSON.stringify({ ...whole, ...change }));
  return read.ok ? 'no error' : read.error;
};

describe('the file of a beat', () => {
  test('every beat comes back as it was written', () => {
    fc.assert(
      fc.property(beats, (beat) => {
        const read = readBeat(writeBeat(beat));
        expect(read).toEqual({ ok: true, value: beat });
      }),
    );
  });

  test.each(DEMO_BEATS.map((beat) => [beat.name, beat] as const))('the demo beat %s is sound', (_, beat) => {
    expect(readBeat(JSON.stringify(beat))).toEqual({ ok: true, value: beat });
    for (const pattern of beat.patterns)
      for (const part of Object.values(pattern.parts))
        expect(part.hits.filter(({ step }) => step >= stepsOf(part, pattern))).toEqual([]);
  });

  test('there are at least five demo beats, one of them in 6/8 or 7/8, each at a tempo of its own', () => {
    expect(DEMO_BEATS.length).toBeGreaterThanOrEqual(5);
    expect(new Set(DEMO_BEATS.map(({ tempo }) => tempo)).size).toBe(DEMO_BEATS.length);
    expect(DEMO_BEATS.some(({ patterns }) => patterns[0]!.meter.unit === 8)).toBe(true);
  });

  test.each([
    ['', 'It is empty.'],
    ['{"kind":', 'It is not JSON, or was cut short'],
    ['[1, 2]', 'It is JSON, but not a beat of Ruddik.'],
    ['{"kind":"other"}', 'It is JSON, but not a beat of Ruddik.'],
  ])('of %j it says: %s', (text, sentence) => {
    expect(errorOf(text)).toContain(sentence);
  });

  test.each([
    [
      { version: VERSION + 1 },
      `saved by a newer Ruddik (format ${VERSION + 1}; this one reads up to ${VERSION})`,
    ],
    [{ version: undefined }, 'does not say which version'],
    [{ tempo: 900 }, 'Its tempo is 900, above the most there may be, 300.'],
    [{ tempo: 'fast' }, 'Its tempo is "fast" where a number is needed.'],
    [{ tempo: undefined }, 'Its tempo is missing.'],
    [{ kit: ' ' }, 'Its kit'],
    [{ name: '' }, 'Its name is 0 long, below the least there may be, 1.'],
    [{ colour: 'red' }, 'Its document has a part that is not known, “colour”.'],
    [{ lanes: [] }, 'Its lanes is 0 long'],
  ])('of %j it says: %s', (change, sentence) => {
    expect(errorOf(change)).toContain(sentence);
  });

  test('it says where in a list the fault lies, and refuses what refers to nothing', () => {
    const beat = newBeat('b', 'B', 1);
    expect(errorOf({ lanes: [beat.lanes[0], { ...beat.lanes[1], pan: 4 }] })).toContain(
      'The pan of lane 2 is 4',
    );
    expect(errorOf({ lanes: [{ ...beat.lanes[0], id: 'constructor' }] })).toContain(
      'The id of lane 1 is a name that no id may have',
    );
    const kick = {
      grid: '1/16',
      steps: null,
      rate: '1',
      direction: 'forward',
      hits: [{ step: 0, velocity: 300 }],
    };
    expect(errorOf({ patterns: [{ ...beat.patterns[0], parts: { kick } }] })).toMatch(
      /^The \w+ of hit 1 of kick of pattern 1 /,
    );
    expect(errorOf({ lanes: [beat.lanes[0], beat.lanes[0]] })).toContain('has the id of an earlier one');
    const parts = { ghost: { grid: '1/16', steps: null, rate: '1', direction: 'forward', hits: [] } };
    expect(errorOf({ patterns: [{ ...beat.patterns[0], parts }] })).toContain(
      'for a lane that the beat does not have',
    );
  });

  test('whatever is read, it answers with a sentence and never throws', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.json(),
          fc.object().map((o) => JSON.stringify({ ...whole, ...o })),
        ),
        (text) => {
          const read = readBeat(text);
          if (!read.ok) expect(read.error).toMatch(/\.$/);
        },
      ),
    );
  });

  test('all beats go into one file; a faulty one among them is named and keeps no other out', () => {
    const [one, two] = DEMO_BEATS;
    expect(readBeats(writeBeats([one!, two!]))).toEqual({ beats: [one, two], faults: [] });
    const read = readBeats(writeBeats([one!, { ...two!, tempo: 1 }]));
    expect(read.beats).toEqual([one]);
    expect(read.faults[0]).toContain('Beat 2 ("Rain on Tarps"): Its tempo is 1, below');
    expect(readBeats(writeBeat(one!)).beats).toEqual([one]);
  });
});

describe('migration', () => {
  const steps = {
    1: (raw: object) => ({ ...raw, one: true }),
    2: (raw: object) => ({ ...raw, two: true }),
  };

  test('goes through every version between', () => {
    expect(migrate({ version: 1 }, 3, steps)).toEqual({
      ok: true,
      raw: { version: 3, one: true, two: true },
    });
    expect(migrate({ version: 2 }, 3, steps)).toEqual({ ok: true, raw: { version: 3, two: true } });
  });

  test('a beat that any earlier version saved opens, and is written in this one', () => {
    const {
      levels: _l,
      groups: _g,
      feels: _f,
      templates: _t,
      tray: _y,
      song: _s,
      ...old
    } = newBeat('b', 'B', 1);
    const first = { ...old, feel: { swing: { percent: 58, grid: '1/16' } } };
    const saved: Record<number, object> = {
      1: first,
      2: { ...first, levels: { ghost: 30, normal: 90, accent: 120 }, groups: [] },
      3: { ...newBeat('b', 'B', 1), tray: undefined, song: undefined, random: 1 },
      4: { ...newBeat('b', 'B', 1), random: 1 },
      6: newBeat('b', 'B', 1),
      9: { ...newBeat('b', 'B', 1), lanes: [{ ...newBeat('b', 'B', 1).lanes[0]!, slide: 90 }] },
      8: { ...newBeat('b', 'B', 1), lanes: [{ ...newBeat('b', 'B', 1).lanes[0]!, instrument: 'marimba' }] },
      7: { ...newBeat('b', 'B', 1), lanes: [{ ...newBeat('b', 'B', 1).lanes[0]!, instrument: 'cowbell' }] },
      5: {
        ...newBeat('b', 'B', 1),
        patterns: [
          {
            ...newBeat('b', 'B', 1).patterns[0]!,
            takes: [{ id: 't', name: 'Take 1', how: 'Rolled anew', seed: 3, kept: true, parts: {} }],
          },
        ],
      },
    };
    for (const [version, raw] of Object.entries(saved)) {
      const read = readBeat(JSON.stringify({ ...raw, random: 1, version: Number(version) }));
      expect([version, read.ok || read.error]).toEqual([version, true]);
      if (!read.ok) continue;
      expect(JSON.parse(writeBeat(read.value)).version).toBe(VERSION);
      if (version === '5') expect(read.value.patterns[0]!.takes![0]).not.toHaveProperty('made');
      if (Number(version) < 3) expect(read.value.feel.swing.percent).toBe(58);
    }
  });

  test('a template that does not fit the bar goes on from where play began, as it did in format 4', () => {
    const slots = Array.from({ length: 16 }, () => ({ offset: 0.1, velocity: 0.5 }));
    const follow = { template: { id: 't', name: 'T', grid: '1/16', slots }, timing: 1, velocity: 1 };
    const feel = { ...newFeel(), base: 'template', template: follow, lanes: { kick: { template: follow } } };
    const saved = (beats: number) => {
      const beat = newBeat('b', 'B', 1);
      const [pattern] = beat.patterns;
      const patterns = [{ ...pattern!, meter: { beats, unit: 8 }, feel }];
      const read = readBeat(JSON.stringify({ ...beat, version: 4, random: 1, patterns }));
      if (!read.ok) throw new Error(read.error);
      return read.value;
    };
    const seven = saved(7).patterns[0]!.feel!;
    expect([seven.template.runsOn, seven.lanes['kick']!.template!.runsOn]).toEqual([true, true]);
    expect(saved(8).patterns[0]!.feel!.template.runsOn).toBeUndefined();
    expect(saved(7).random).toBe(1);
    // What is not as it should be is left for the check to name.
    expect(
      readBeat(JSON.stringify({ kind: 'ruddik.beat', version: 4, feel: 7, song: [], patterns: [3] })).ok,
    ).toBe(false);
  });

  test('says where there is no way', () => {
    expect(migrate({ version: 1 }, 3, {})).toEqual({
      ok: false,
      error: 'Its format, version 1, can no longer be read.',
    });
    expect(migrate({ version: 4 }, 3, steps).ok).toBe(false);
    expect(migrate({}, 3, steps).ok).toBe(false);
  });
});

test('a file is named after what it holds, without what a system does not take', () => {
  expect(fileName('Rain / tarps', 'A · slow')).toBe('Rain-tarps-A-slow');
  expect(fileName('../..')).toBe('beat');
  expect(fileName('Fähre 6')).toBe('Fähre-6');
});
