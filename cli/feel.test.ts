import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseMidi, writeMidi, type MidiEvent } from 'midi-file';
import { readNotes } from '../core/midi/read/readBack.mock';

const ROOT = path.resolve(__dirname, '..');
const folder = mkdtempSync(path.join(tmpdir(), 'ruddik-feel-'));
const at = (name: string) => path.join(folder, name);

const ruddik = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(path.join(ROOT, 'bin', 'ruddik'), args, { encoding: 'utf8' });
  return { status, stdout, stderr };
};

type Note = [tick: number, velocity?: number, note?: number];

interface Song {
  ppq?: number;
  bpm?: number;
  length?: number;
  others?: MidiEvent[];
}

/** A file of one track: notes of 24 ticks, 38 where nothing is said. */
const fileOf = (name: string, notes: Note[], { ppq = 960, bpm = 120, length, others = [] }: Song = {}) => {
  const events = notes.flatMap(([tick, velocity = 96, noteNumber = 38]) => [
    { tick, event: { type: 'noteOn', channel: 9, noteNumber, velocity } },
    { tick: tick + 24, event: { type: 'noteOff', channel: 9, noteNumber, velocity: 0 } },
  ]);
  events.sort((a, b) => a.tick - b.tick);
  const end = Math.max(length ?? 0, ...events.map(({ tick }) => tick));
  let now = 0;
  const timed = events.map(({ tick, event }) => {
    const deltaTime = tick - now;
    now = tick;
    return { ...event, deltaTime } as MidiEvent;
  });
  const track: MidiEvent[] = [
    { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: Math.round(60e6 / bpm) },
    ...others,
    ...timed,
    { deltaTime: end - now, meta: true, type: 'endOfTrack' },
  ];
  const bytes = writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: ppq }, tracks: [track] });
  writeFileSync(at(name), Uint8Array.from(bytes));
  return at(name);
};

const notesIn = (file: string) => readNotes(new Uint8Array(readFileSync(file))).notes;

const felt = (notes: Note[], ...options: string[]) => {
  const done = ruddik('feel', fileOf('in.mid', notes), at('out.mid'), ...options);
  expect(done).toMatchObject({ status: 0, stderr: '' });
  return notesIn(at('out.mid'));
};

const templateFile = (slots: unknown[], grid = '1/16') => {
  writeFileSync(
    at('template.json'),
    JSON.stringify({ kind: 'ruddik.template', version: 1, name: 'Wet planks', grid, slots }),
  );
  return at('template.json');
};

const level = (offset: number) => ({ offset, velocity: 0.5 });
const steady = Array.from({ length: 16 }, (_, slot) => level(slot === 1 ? 0.1 : 0));

describe('the worked figures, through the command line', () => {
  test.each([
    ['swing 60 on sixteenths', [240, 120, 360], ['--swing', '60'], [144, 288, 384]],
    ['swing 66.6667 on eighths', [480], ['--swing', '66.6667', '--swing-grid', '1/8'], [640]],
    ['swing 54, third pair', [1200], ['--swing', '54'], [1219]],
    ['quantize 50 %', [250], ['--quantize', '50'], [245]],
    ['quantize within a quarter', [250], ['--quantize', '100', '--window', '25'], [240]],
    ['not beyond a quarter', [275], ['--quantize', '100', '--window', '25'], [275]],
    ['quantize to triplets', [300], ['--quantize', '100', '--grid', '1/8T'], [320]],
    ['dotted steps begin anew with the bar', [3845], ['--quantize', '100', '--grid', '1/8D'], [3840]],
    ['10 ms behind', [0], ['--offset', '38=10'], [19]],
    ['10 ms behind, by instrument', [0], ['--offset', 'snare=+10'], [19]],
    ['10 ms ahead is held at 0', [0, 960], ['--offset', 'snare=-10'], [0, 941]],
  ] as const)('%s', (_, from, options, to) => {
    const ticks = felt(
      from.map((tick): Note => [tick]),
      ...options,
    ).map(({ tick }) => tick);
    expect(ticks).toEqual(to);
  });

  test('a flam stays a flam', () => {
    const quantized = felt(
      [
        [440, 40],
        [490, 110],
      ],
      '--quantize',
      '100',
    );
    expect(quantized.map(({ tick }) => tick)).toEqual([430, 480]);
    const swung = felt(
      [
        [192, 40],
        [240, 110],
      ],
      '--swing',
      '60',
    );
    expect(swung.map(({ tick, velocity }) => [tick, velocity])).toEqual([
      [240, 40],
      [288, 110],
    ]);
  });

  test('10 ms behind at 90 BPM, and half of a template', () => {
    ruddik('feel', fileOf('slow.mid', [[0]], { bpm: 90 }), at('out.mid'), '--offset', '38=10');
    expect(notesIn(at('out.mid'))[0]!.tick).toBe(14);
    const half = felt([[240], [120]], '--template', templateFile(steady), '--timing', '50');
    expect(half.map(({ tick }) => tick)).toEqual([126, 252]);
  });

  test("a template's velocities", () => {
    const slots = [
      { offset: 0, velocity: 0.9 },
      { offset: 0, velocity: 0.45 },
    ];
    const notes = felt(
      [
        [0, 90],
        [240, 90],
      ],
      '--template',
      templateFile(slots),
    );
    expect(notes.map(({ velocity }) => velocity)).toEqual([120, 60]);
  });
});

describe('ruddik feel', () => {
  test('leaves all else in the file as it was', () => {
    const others: MidiEvent[] = [
      { deltaTime: 0, meta: true, type: 'text', text: 'rain on tarps' },
      { deltaTime: 0, type: 'controller', channel: 9, controllerType: 7, value: 90 },
    ];
    const input = fileOf('all.mid', [[0], [480], [960, 30, 42]], { ppq: 480, length: 3840, others });
    ruddik(
      'feel',
      input,
      at('all-out.mid'),
      '--swing',
      '60',
      '--humanize-timing',
      '5',
      '--humanize-velocity',
      '4',
    );
    const [before, after] = [input, at('all-out.mid')].map((file) => parseMidi(readFileSync(file)));
    const rest = (midi: typeof before) =>
      midi!.tracks.map((events) => events.filter(({ type }) => type !== 'noteOn' && type !== 'noteOff'));
    const untimed = (midi: typeof before) =>
      rest(midi).map((events) => events.map(({ deltaTime: _, ...event }) => event));
    expect(untimed(after)).toEqual(untimed(before));
    expect(after!.header).toEqual(before!.header);
    const ends = [before, after].map((midi) =>
      midi!.tracks[0]!.reduce((sum, { deltaTime }) => sum + deltaTime, 0),
    );
    expect(ends[1]).toBe(ends[0]);
  });

  test('does nothing where nothing is asked for', () => {
    const input = fileOf('same.mid', [[7], [250]]);
    expect(ruddik('feel', input, at('same-out.mid'), '--grid', '1/8').status).toBe(0);
    expect(readFileSync(at('same-out.mid'))).toEqual(readFileSync(input));
  });

  test('takes early notes around the end of the last bar', () => {
    const input = fileOf('loop.mid', [[0], [960]], { length: 3840 });
    ruddik('feel', input, at('loop-out.mid'), '--offset', '38=-10', '--wrap');
    expect(notesIn(at('loop-out.mid')).map(({ tick }) => tick)).toEqual([941, 3821]);
  });

  test('a seed gives the same result again, another one another', () => {
    const notes = Array.from({ length: 16 }, (_, step): Note => [step * 240]);
    const take = (seed: string) =>
      felt(notes, '--humanize-timing', '8', '--seed', seed).map(({ tick }) => tick);
    expect(take('3')).toEqual(take('3'));
    expect(take('3')).not.toEqual(take('4'));
  });

  test('does a folder, names what is at fault and does the rest', () => {
    mkdirSync(at('set/deep'), { recursive: true });
    fileOf('set/one.mid', [[240]]);
    fileOf('set/deep/two.mid', [[240]]);
    writeFileSync(at('set/three.mid'), 'no music');
    const done = ruddik('feel', at('set'), at('set-out'), '--swing', '60', '--json');
    expect(done.status).toBe(0);
    expect(done.stderr).toMatch(/three\.mid” could not be read\. It is not a MIDI file\.\n$/);
    expect(readdirSync(at('set-out'), { recursive: true }).sort()).toEqual([
      'deep',
      'deep/two.mid',
      'one.mid',
    ]);
    expect(notesIn(at('set-out/deep/two.mid'))[0]!.tick).toBe(288);
    const told = JSON.parse(done.stdout) as { files: { moved: number }[] };
    expect(told.files.map(({ moved }) => moved)).toEqual([1, 1]);
  });

  test('holds what is out of range and says so', () => {
    const done = ruddik('feel', fileOf('far.mid', [[240]]), at('far-out.mid'), '--swing', '90');
    expect(done).toMatchObject({ status: 0, stderr: '--swing runs from 40 to 75: 90 became 75.\n' });
    expect(notesIn(at('far-out.mid'))[0]!.tick).toBe(360);
  });

  test('reads a MIDI template at the grid that is named, or at its own', () => {
    const eighths = fileOf('eighths.mid', [[20], [500], [980], [1460]]);
    const target = fileOf('target.mid', [[240]]);
    const tick = (...more: string[]) => {
      ruddik('feel', target, at('like.mid'), '--template', eighths, ...more);
      return notesIn(at('like.mid'))[0]!.tick;
    };
    expect(tick()).toBe(260);
    // On quarters its slots are 20 and 20 late; halfway between them an eighth goes along.
    expect(tick('--grid', '1/4')).not.toBe(240);
    expect(tick('--grid', '1/32')).toBe(260);
  });

  test('an output folder that is a file, and a folder to be measured, are told in words', () => {
    mkdirSync(at('here'), { recursive: true });
    for (const name of ['one', 'two', 'three']) fileOf(`here/${name}.mid`, [[240]]);
    const taken = ruddik('feel', at('here'), fileOf('taken.mid', [[0]]), '--swing', '60');
    expect(taken.status).toBe(1);
    expect(taken.stderr).toBe(`“${at('taken.mid')}” could not be made: there is a file of that name.\n`);
    const folder = ruddik('report', at('here'));
    expect(folder).toMatchObject({
      status: 1,
      stderr: `“${at('here')}” could not be read: it is a folder, and a file is wanted.\n`,
    });
    expect(ruddik('--help').stdout).toMatch(/Exit codes:\n {2}0 .*those that could be/);
  });

  test('warns where no note of the file is meant', () => {
    const done = ruddik('feel', fileOf('map.mid', [[0]]), at('map-out.mid'), '--offset', 'kick=5');
    expect(done.status).toBe(0);
    expect(done.stderr).toMatch(/has no note 36 to move; it has 38\.\n$/);
  });

  const file = fileOf('plain.mid', [[0]]);
  const empty = fileOf('empty.mid', []);
  const badSlot = () => templateFile([level(0), { offset: 0.7, velocity: 0.5 }]);
  test.each([
    [2, () => ['feel', file, 'x.mid', '--swing', 'much'], 'It is to be a number'],
    [2, () => ['feel', file, 'x.mid', '--grid', '1/12'], 'It is to be one of 1/4'],
    [2, () => ['feel', file, 'x.mid', '--swing', '60', '--template', file], 'either --swing or --template'],
    [2, () => ['feel', file, 'x.mid', '--offset', 'oboe=3'], '“oboe” is neither a note number'],
    [1, () => ['feel', at('none.mid'), at('x.mid'), '--swing', '60'], 'there is no such file'],
    [
      1,
      () => ['feel', file, at('x.mid'), '--template', badSlot()],
      'Its slot 2 has the offset 0.7; it goes from',
    ],
    [1, () => ['feel', file, at('x.mid'), '--template', empty], 'has no notes, so no template'],
    [1, () => ['template', empty, at('x.json')], 'has no notes, so no template'],
    [1, () => ['template', file, at('x.json'), '--note', '36'], 'has no note 36; it has 38.'],
    [1, () => ['report', empty], 'has no notes, so there is no feel'],
  ] as const)('exit code %i and one sentence', (code, args, sentence) => {
    const { status, stderr } = ruddik(...args());
    expect(stderr).toContain(sentence);
    expect(status).toBe(code);
    expect(stderr.trim().split('\n')).toHaveLength(1);
  });
});

describe('templates and reports', () => {
  /** Hats on every sixteenth, the second of each pair 20 ticks late, and now and then a little off. */
  const played = Array.from({ length: 32 }, (_, step): Note => [
    step * 240 + (step % 2 ? 30 : 0) + (step % 5) * 3,
    step % 4 ? 60 : 100,
    42,
  ]);

  test('a template taken from a performance brings its straightened self back', () => {
    const input = fileOf('played.mid', played, { length: 7680 });
    expect(ruddik('template', input, at('played.json'), '--grid', '1/16').stdout).toBe(
      'played.json: 32 slots of 1/16 from 32 notes.\n',
    );
    ruddik('feel', input, at('straight.mid'), '--quantize', '100');
    expect(notesIn(at('straight.mid')).map(({ tick }) => tick % 240)).toEqual(played.map(() => 0));
    ruddik('feel', at('straight.mid'), at('back.mid'), '--template', at('played.json'), '--velocity', '0');
    notesIn(at('back.mid')).forEach(({ tick }, note) =>
      expect(Math.abs(tick - played[note]![0])).toBeLessThanOrEqual(1),
    );
  });

  test('a report finds the swing that was put in', () => {
    const straight = Array.from({ length: 64 }, (_, step): Note => [step * 240]);
    ruddik('feel', fileOf('even.mid', straight), at('swung.mid'), '--swing', '58', '--humanize-timing', '2');
    const report = JSON.parse(ruddik('report', at('swung.mid'), '--json').stdout) as {
      swing: { grid: string; percent: number };
    };
    expect(report.swing.grid).toBe('1/16');
    expect(Math.abs(report.swing.percent - 58)).toBeLessThan(0.6);
    const words = ruddik('report', at('swung.mid'), at('even.mid')).stdout;
    expect(words).toContain('on sixteenths');
    expect(words).toMatch(/Snare \(38\) .* against/);
  });
});
