import path from 'node:path';
import { Command, CommanderError, InvalidArgumentError } from 'commander';
import { MOVES, SWING } from '../core/document/choices';
import { RANGES } from '../core/document/ranges';
import type { Stagger } from '../core/document/schema';
import { someNotes } from './moves';
import { newFeel } from '../core/document/feelDefaults';
import type { LaneFeel, PlainFeel, Shape } from '../core/document/feelSchema';
import type { Band } from '../core/document/playersSchema';
import { readPlayers } from '../core/feel/playersFile';
import type { Grid } from '../core/document/grid';
import { readTemplate } from '../core/feel/templateFile';
import { findGrid, extractTemplate } from '../core/analysis/extractTemplate';
import { feelFile, type FeelFileOptions } from '../core/midi/convert/feelFile';
import { performanceOf, wholeBars, type MidiFile } from '../core/midi/read/midiFile';
import type { MidiNote, Ms } from '../core/units';
import { InputFault } from './fault';
import { bytesOf, isFolder, makeFolder, midiFilesIn, midiFileOf, fileTextOf, warn, writeOut } from './files';
import { aGrid, aNote, aNumber, aSwingGrid, aWhole, numbersIn, within } from './numbers';

interface Given {
  grid?: Grid;
  quantize?: number;
  window?: number;
  swing?: number;
  swingGrid?: '1/8' | '1/16';
  template?: string;
  timing?: number;
  velocity?: number;
  offset: [MidiNote, Ms][];
  humanizeTiming?: number;
  humanizeVelocity?: number;
  drift?: number;
  seed?: number;
  staggerCount?: { count: number; each: Ms };
  staggerList?: Ms[];
  staggerRandom?: Ms;
  randomFirst: boolean;
  staggerNote?: MidiNote[];
  players?: string;
  tempoMap: boolean;
  contrast?: number;
  level?: number;
  swingNote: [MidiNote, number][];
  templateNote: [MidiNote, string][];
  spreadNote: [MidiNote, number][];
  flams: boolean;
  wrap: boolean;
  json: boolean;
}

const MOST_OFFSET = 1000;

/** `--offset snare=+9`, as often as one likes. */
const anOffset = (text: string, before: [MidiNote, Ms][]): [MidiNote, Ms][] => {
  const at = text.lastIndexOf('=');
  if (at < 1) throw new InvalidArgumentError('It is to be NOTE=MS, such as 38=+9.');
  return [...before, [aNote(text.slice(0, at)), aNumber(text.slice(at + 1))]];
};

/** `4x20`: so many, each so many ms later. */
const aStaggerCount = (text: string): { count: number; each: Ms } => {
  const [, count, each] = /^(\d+)x([\d.]+)(?:ms)?$/.exec(text) ?? [];
  if (!count || !Number.isFinite(Number(each)))
    throw new InvalidArgumentError('It is to be a count and so many ms, such as 4x20.');
  return { count: Number(count), each: Number(each) };
};

const aStaggerList = (text: string): Ms[] => {
  const list = text.split(',').map((one) => Number(one.replace(/ms$/, '')));
  if (list.some((ms) => !Number.isFinite(ms)) || text.trim() === '')
    throw new InvalidArgumentError('It is to be delays in ms, such as 0,20,40.');
  if (list.length > MOVES.delays)
    throw new InvalidArgumentError(`It has ${list.length} delays; ${MOVES.delays} are the most.`);
  return list;
};

/** `--swing-note hat=62`, as often as one likes. */
const aNumberByNote = (text: string, before: [MidiNote, number][]): [MidiNote, number][] => {
  const at = text.lastIndexOf('=');
  if (at < 1) throw new InvalidArgumentError('It is to be NOTE=NUMBER, such as 38=60.');
  return [...before, [aNote(text.slice(0, at)), aNumber(text.slice(at + 1))]];
};

const aFileByNote = (text: string, before: [MidiNote, string][]): [MidiNote, string][] => {
  const at = text.indexOf('=');
  if (at < 1 || at === text.length - 1)
    throw new InvalidArgumentError('It is to be NOTE=FILE, such as 42=late.template.json.');
  return [...before, [aNote(text.slice(0, at)), text.slice(at + 1)]];
};

const wrongUsage = (sentence: string): never => {
  throw new CommanderError(2, 'ruddik.usage', sentence);
};

const checkUsage = (given: Given): void => {
  if (given.swing !== undefined && given.template !== undefined)
    wrongUsage('A file is given either --swing or --template, not both.');
  if (
    given.template === undefined &&
    !given.templateNote.length &&
    (given.timing !== undefined || given.velocity !== undefined)
  )
    wrongUsage('--timing and --velocity say how much of a --template, and there is none.');
  if (given.tempoMap && given.players === undefined)
    wrongUsage('--tempo-map lets the tempo follow the --players, and there are none.');
  if (given.players !== undefined && (given.humanizeTiming !== undefined || given.drift !== undefined))
    wrongUsage('The timing comes either from --players or from --humanize-timing, not from both.');
};

const checkStagger = (given: Given): void => {
  if (given.staggerCount && given.staggerList)
    wrongUsage('A file is staggered either by a count or by a list, not both.');
  const none = !given.staggerCount && !given.staggerList && given.staggerRandom === undefined;
  if (none && (given.staggerNote || given.randomFirst))
    wrongUsage(
      '--random-first and --stagger-note need a --stagger-count, a --stagger-list or a --stagger-random.',
    );
};

const staggerOf = ({ staggerCount, staggerList, staggerRandom, randomFirst }: Given): Stagger | undefined => {
  if (!staggerCount && !staggerList && staggerRandom === undefined) return undefined;
  const ms = (value: number) => within('A delay', value, RANGES.staggerMs.least, RANGES.staggerMs.most);
  const { least, most } = RANGES.staggerCount;
  return {
    lanes: null,
    by: staggerCount
      ? {
          count: within('The count of a stagger', staggerCount.count, least, most),
          each: ms(staggerCount.each),
        }
      : // By chance alone is a way to stagger too.
        { list: (staggerList ?? [0]).map(ms) },
    unit: 'ms',
    random: ms(staggerRandom ?? 0),
    randomFirst,
  };
};

const fromMidi = async (file: string, grid: Grid | undefined): Promise<Shape> => {
  const midi = await midiFileOf(file);
  const performance = performanceOf(midi);
  const shape = extractTemplate(path.parse(file).name, performance, {
    grid: grid ?? findGrid(performance),
    length: wholeBars(midi),
  });
  if (!shape) throw new InputFault(`“${file}” has no notes, so no template can be taken from it.`);
  return shape;
};

const templateOf = async (file: string, grid: Grid | undefined): Promise<Shape> => {
  const bytes = await bytesOf(file);
  if (String.fromCharCode(...bytes.subarray(0, 4)) === 'MThd') return fromMidi(file, grid);
  const read = readTemplate(await fileTextOf(file));
  if (!read.ok) throw new InputFault(`“${file}” could not be read. ${read.error}`);
  return read.value;
};

const percent = (name: string, value: number, most = 100): number => within(name, value, 0, most) / 100;

const quantizeOf = (given: Given): PlainFeel['quantize'] | null =>
  given.quantize === undefined && given.window === undefined
    ? null
    : {
        grid: given.grid ?? '1/16',
        strength: percent('--quantize', given.quantize ?? 100),
        window: percent('--window', given.window ?? 100),
        flams: true,
        lanes: null,
      };

const humanizeOf = (given: Given): PlainFeel['humanize'] => {
  const seed = within('--seed', given.seed ?? 1, 0, 0xffffffff);
  return {
    timing: within('--humanize-timing', given.humanizeTiming ?? 0, 0, 100),
    velocity: within('--humanize-velocity', given.humanizeVelocity ?? 0, 0, 64),
    drift: percent('--drift', given.drift ?? 0),
    seed,
    takes: [seed],
    anew: false,
  };
};

const bandOf = async (file: string, tempo: boolean): Promise<{ seed: number | null; band: Band }> => {
  const read = readPlayers(await fileTextOf(file));
  if (!read.ok) throw new InputFault(`“${file}” could not be read. ${read.error}`);
  return { seed: read.value.seed, band: { ...read.value.band, tempo } };
};

/** What notes have of their own: a swing, a template, a share of the spread. */
const ownOf = async (given: Given): Promise<Map<MidiNote, LaneFeel>> => {
  const own = new Map<MidiNote, LaneFeel>();
  const add = (note: MidiNote, change: LaneFeel) => own.set(note, { ...own.get(note), ...change });
  for (const [note, percentage] of given.swingNote)
    add(note, {
      base: 'swing',
      swing: {
        percent: within('--swing-note', percentage, SWING.least, SWING.most),
        grid: given.swingGrid ?? '1/16',
      },
    });
  for (const [note, file] of given.templateNote)
    add(note, {
      base: 'template',
      template: {
        template: { ...(await templateOf(file, given.grid)), id: `template-${note}` },
        timing: percent('--timing', given.timing ?? 100, 150),
        velocity: percent('--velocity', given.velocity ?? 100, 150),
      },
    });
  for (const [note, scale] of given.spreadNote)
    add(note, { timing: within('--spread-note', scale, RANGES.scale.least, RANGES.scale.most) });
  return own;
};

const feelOf = async (given: Given): Promise<PlainFeel> => {
  const plain = newFeel();
  const template = given.template === undefined ? null : await templateOf(given.template, given.grid);
  const stagger = staggerOf(given);
  return {
    ...plain,
    quantize: { ...(quantizeOf(given) ?? plain.quantize), flams: given.flams },
    base: template ? 'template' : 'swing',
    swing: {
      percent: within('--swing', given.swing ?? 50, SWING.least, SWING.most),
      grid: given.swingGrid ?? '1/16',
    },
    template: {
      template: template && { ...template, id: 'template' },
      timing: percent('--timing', given.timing ?? 100, 150),
      velocity: percent('--velocity', given.velocity ?? 100, 150),
    },
    ...(stagger && { stagger }),
    level: within('--level', given.level ?? 1, RANGES.level.least, RANGES.level.most),
    ...(given.contrast !== undefined && {
      contrast: within('--contrast', given.contrast, RANGES.level.least, RANGES.level.most),
    }),
    humanize: await humanized(given),
  };
};

const humanized = async (given: Given): Promise<PlainFeel['humanize']> => {
  const plain = humanizeOf(given);
  if (given.players === undefined) return plain;
  const { band, seed } = await bandOf(given.players, given.tempoMap);
  return {
    ...plain,
    ...(given.seed === undefined && seed !== null && { seed, takes: [seed] }),
    anew: true,
    band,
  };
};

/** What is not asked for is not done: a file that nothing is asked of stays byte for byte. */
const asksNothing = (given: Given): boolean =>
  given.quantize === undefined &&
  given.window === undefined &&
  given.swing === undefined &&
  given.template === undefined &&
  !given.offset.length &&
  given.humanizeTiming === undefined &&
  given.humanizeVelocity === undefined &&
  !given.staggerCount &&
  !given.staggerList &&
  given.staggerRandom === undefined &&
  given.players === undefined &&
  given.contrast === undefined &&
  given.level === undefined &&
  !given.swingNote.length &&
  !given.templateNote.length &&
  !given.spreadNote.length &&
  !given.wrap;

const optionsOf = async (given: Given): Promise<FeelFileOptions> => ({
  feel: await feelOf(given),
  offsets: new Map(
    given.offset.map(([note, ms]) => [note, within('--offset', ms, -MOST_OFFSET, MOST_OFFSET)]),
  ),
  own: await ownOf(given),
  ...(given.staggerNote && { staggered: new Set(given.staggerNote) }),
  wrap: given.wrap,
});

/** An offset for a note that the file does not have is told, with what there is. */
const checkNotes = (name: string, file: MidiFile, offsets: ReadonlyMap<MidiNote, Ms>): void => {
  const missing = [...offsets.keys()].filter((wanted) => !file.notes.some(({ note }) => note === wanted));
  if (!missing.length) return;
  const has = file.notes.length ? `it has ${numbersIn(file.notes)}` : 'it has no notes';
  warn(`“${name}” has no note ${missing.join(' and no note ')} to move; ${has}.`);
};

interface Done {
  file: string;
  notes: number;
  moved: number;
  merged: number;
  dropped: number;
  carried: number;
}

const feelOne = async (
  input: string,
  output: string,
  options: FeelFileOptions,
  nothing: boolean,
): Promise<Done> => {
  const midi = await midiFileOf(input);
  checkNotes(input, midi, options.offsets);
  if (nothing) {
    await writeOut(output, await bytesOf(input));
    return { file: output, notes: midi.notes.length, moved: 0, merged: 0, dropped: 0, carried: 0 };
  }
  const { bytes, ...counts } = feelFile(midi, options);
  await writeOut(output, bytes);
  return { file: output, ...counts };
};

const plural = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

const sentence = ({ file, notes, moved, merged, dropped, carried }: Done): string =>
  [
    `${path.basename(file)}: ${plural(notes, 'note')}, ${moved} moved.`,
    merged ? `${merged} became one with a louder note less than 1 ms away.` : '',
    dropped ? `${dropped} found no room beside others of the same number.` : '',
    carried ? `${carried} would have sounded outside of the file and came in at its edge.` : '',
  ]
    .filter(Boolean)
    .join(' ');

const say = (done: Done[], options: FeelFileOptions, json: boolean): void => {
  if (!json) {
    for (const one of done) process.stdout.write(`${sentence(one)}\n`);
    return;
  }
  const { feel, offsets, own, wrap } = options;
  const asked = {
    quantize: feel.quantize,
    base: feel.base,
    swing: feel.swing,
    template: feel.template.template && {
      name: feel.template.template.name,
      timing: feel.template.timing,
      velocity: feel.template.velocity,
    },
    offsets: Object.fromEntries(offsets),
    ...(feel.stagger && { stagger: feel.stagger }),
    humanize: feel.humanize,
    ...(feel.contrast !== undefined && { contrast: feel.contrast }),
    ...(feel.level !== 1 && { level: feel.level }),
    ...(own?.size && { own: Object.fromEntries(own) }),
    wrap,
  };
  process.stdout.write(`${JSON.stringify({ feel: asked, files: done }, null, 1)}\n`);
};

/** The faulty files of a folder are named and the rest done. */
const feelFolder = async (
  input: string,
  output: string,
  options: FeelFileOptions,
  nothing: boolean,
): Promise<Done[]> => {
  const names = await midiFilesIn(input);
  if (!names.length) throw new InputFault(`“${input}” holds no MIDI files.`);
  // Where nothing can be written, that is said once and not for every file.
  await makeFolder(output);
  const done: Done[] = [];
  for (const name of names) {
    const out = path.join(output, name);
    try {
      await makeFolder(path.dirname(out));
      done.push(await feelOne(path.join(input, name), out, options, nothing));
    } catch (fault) {
      if (!(fault instanceof InputFault)) throw fault;
      warn(fault.message);
    }
  }
  if (!done.length) throw new InputFault(`None of the files in “${input}” could be done.`);
  return done;
};

const run = async (input: string, output: string, given: Given): Promise<void> => {
  checkUsage(given);
  checkStagger(given);
  const nothing = asksNothing(given);
  if (nothing && !given.flams)
    wrongUsage('--no-flams says how notes within 35 ms are moved, and nothing is asked for that moves any.');
  const options = await optionsOf(given);
  const done = (await isFolder(input))
    ? await feelFolder(input, output, options, nothing)
    : [await feelOne(input, output, options, nothing)];
  say(done, options, given.json);
};

/** `ruddik feel IN.mid OUT.mid`. */
export const feelCommand = (): Command =>
  new Command('feel')
    .description(
      'Gives the notes of a MIDI file, or of a folder of them, a feel. What is not asked for is not done.',
    )
    .argument('<in>', 'a MIDI file, or a folder of them')
    .argument('<out>', 'the file, or folder, to write')
    .option(
      '--grid <g>',
      'the grid to quantize to, and to read a MIDI --template at, such as 1/16, 1/8T (default: 1/16, of a template as found)',
      aGrid,
    )
    .option('--quantize <percent>', 'how strongly notes are drawn to the grid, 0 to 100', aNumber)
    .option('--window <percent>', 'how near to the grid a note must be, 0 to 100', aNumber)
    .option('--swing <percent>', `${SWING.least} (early) over 50 (straight) to ${SWING.most}`, aNumber)
    .option('--swing-grid <g>', '1/8 or 1/16 (default: 1/16)', aSwingGrid)
    .option('--template <file>', 'a groove template, or a MIDI file to take it from')
    .option('--timing <percent>', 'how much of its timing, 0 to 150 (default: 100)', aNumber)
    .option('--velocity <percent>', 'how much of its velocities, 0 to 150 (default: 100)', aNumber)
    .option('--offset <note=ms>', 'moves a note number or an instrument, such as snare=+9', anOffset, [])
    .option('--humanize-timing <ms>', 'the spread of timing', aNumber)
    .option('--humanize-velocity <n>', 'the spread of velocity', aNumber)
    .option('--drift <percent>', 'how much of the timing hangs together, 0 to 100', aNumber)
    .option('--seed <n>', 'what is drawn at random follows from it', aWhole)
    .option('--stagger-count <NxMS>', 'each next stroke later, N and again: 4x20', aStaggerCount)
    .option('--stagger-list <ms,ms>', 'each next stroke later by the next of a list', aStaggerList)
    .option('--stagger-random <ms>', 'at random up to so much, by itself or besides', aNumber)
    .option('--random-first', 'the random part before the counting', false)
    .option('--stagger-note <n...>', 'only these note numbers or instruments', someNotes)
    .option('--swing-note <note=percent>', 'a swing of its own for a note or instrument', aNumberByNote, [])
    .option('--template-note <note=file>', 'a template of its own for a note or instrument', aFileByNote, [])
    .option('--spread-note <note=times>', 'how much of the spread a note has, 0 to 3', aNumberByNote, [])
    .option('--no-flams', 'notes within 35 ms need not stay together')
    .option('--contrast <times>', 'how far velocities lie apart, 0 to 2', aNumber)
    .option('--level <times>', 'how hard all is played, 0 to 2', aNumber)
    .option('--players <file>', 'players who follow one another, a .json file')
    .option('--tempo-map', 'the drift of the players becomes the tempo of the file', false)
    .option('--wrap', 'what would start before 0 comes in at the end of the last bar', false)
    .option('--json', 'print what was done as JSON', false)
    .action(run);
