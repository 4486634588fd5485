import path from 'node:path';
import { Command, InvalidArgumentError } from 'commander';
import { DETOUR_SLOTS } from '../core/document/choices';
import { GRIDS, gridTicks } from '../core/document/grid';
import { RANGES } from '../core/document/ranges';
import { count } from '../core/document/text';
import { detourFile, echoFile, type FileEchoes, type MovedFile } from '../core/midi/convert/movesFile';
import type { MidiFile } from '../core/midi/read/midiFile';
import { KNOWN_ROUTES, knownRoute } from '../core/play/moves/detours';
import type { MidiNote } from '../core/units';
import { UsageFault } from './fault';
import { midiFileOf, warn, writeOut } from './files';
import { aNote, aNumber, aWhole, numbersIn, within } from './numbers';

/** `--note 36 --note snare`, or several after one. */
export const someNotes = (text: string, before: MidiNote[] = []): MidiNote[] => [...before, aNote(text)];

/** A note that the file does not have is told, with what there is. */
const chosen = (
  name: string,
  file: MidiFile,
  notes: MidiNote[] | undefined,
): ReadonlySet<MidiNote> | null => {
  if (!notes?.length) return null;
  const missing = notes.filter((wanted) => !file.notes.some(({ note }) => note === wanted));
  if (missing.length) {
    const has = file.notes.length ? `it has ${numbersIn(file.notes)}` : 'it has no notes';
    warn(`“${name}” has no note ${missing.join(' and no note ')}; ${has}.`);
  }
  return new Set(notes);
};

const say = (output: string, { before, notes, merged, dropped }: MovedFile): void => {
  const told = [
    `${path.basename(output)}: ${count(notes, 'note')}, ${before} before.`,
    merged ? `${merged} gave way to a louder one less than 1 ms away.` : '',
    dropped ? `${dropped} found no room beside others of the same number.` : '',
  ];
  process.stdout.write(`${told.filter(Boolean).join(' ')}\n`);
};

const aRate = (text: string): FileEchoes['rate'] => {
  const ms = /^([\d.]+)ms$/.exec(text);
  if (ms) return { ms: aNumber(ms[1]!) };
  const grid = GRIDS.find((one) => one === text);
  if (!grid)
    throw new InvalidArgumentError(`It is to be so many ms, such as 125ms, or one of ${GRIDS.join(', ')}.`);
  return { ticks: gridTicks(grid) };
};

interface EchoGiven {
  note?: MidiNote[];
  count: number;
  rate: FileEchoes['rate'];
  slope?: number;
  interval?: number;
  withoutHit: boolean;
}

const heldRate = (rate: FileEchoes['rate']): FileEchoes['rate'] =>
  'ms' in rate ? { ms: within('--rate', rate.ms, RANGES.echoMs.least, RANGES.echoMs.most) } : rate;

const echo = async (input: string, output: string, given: EchoGiven): Promise<void> => {
  const file = await midiFileOf(input);
  const { echoes, echoSlope, interval } = RANGES;
  const done = echoFile(file, {
    notes: chosen(input, file, given.note),
    count: within('--count', given.count, echoes.least, echoes.most),
    rate: heldRate(given.rate),
    slope: within('--slope', given.slope ?? 100, echoSlope.least * 100, echoSlope.most * 100) / 100,
    interval: within('--interval', given.interval ?? 0, interval.least, interval.most),
    withoutHit: given.withoutHit,
  });
  await writeOut(output, done.bytes);
  say(output, done);
};

/** `ruddik echo IN.mid OUT.mid`. */
export const echoCommand = (): Command =>
  new Command('echo')
    .description('Lets repeats follow the notes of a MIDI file.')
    .argument('<in>', 'a MIDI file')
    .argument('<out>', 'the file to write')
    .requiredOption(
      '--count <c>',
      `how many repeats, ${RANGES.echoes.least} to ${RANGES.echoes.most}`,
      aWhole,
    )
    .requiredOption('--rate <g|ms>', 'how far apart, such as 1/8, 1/16T or 125ms', aRate)
    .option('--note <n...>', 'only these note numbers or instruments', someNotes)
    .option(
      '--slope <percent>',
      'each has so much of the velocity of the one before, 10 to 150 (default: 100)',
      aNumber,
    )
    .option('--interval <n>', 'each is so many semitones higher than the one before', aWhole)
    .option('--without-hit', 'the note itself is silent', false)
    .action(echo);

interface DetourGiven {
  slots: number;
  over: 'bar' | 'all';
  route: string;
  note?: MidiNote[];
}

const aSpan = (text: string): 'bar' | 'all' => {
  if (text !== 'bar' && text !== 'all') throw new InvalidArgumentError('It is to be bar or all.');
  return text;
};

const routeOf = (text: string, slots: number): number[] => {
  const name = text.toLowerCase().replace(/[-_]/g, ' ');
  const known = KNOWN_ROUTES.find((one) => one === name);
  if (known) return knownRoute(known, slots);
  const route = text.split(',').map(Number);
  if (route.some((from) => !Number.isInteger(from) || from < 0))
    throw new UsageFault(`A route is ${slots} slots, such as 1,3,5,…, or one of ${KNOWN_ROUTES.join(', ')}.`);
  if (route.length !== slots)
    throw new UsageFault(`The route has ${route.length} slots, and ${slots} are wanted.`);
  const beyond = route.find((from) => from > slots);
  if (beyond !== undefined)
    throw new UsageFault(`The route leads to slot ${beyond}, and there are only ${slots}.`);
  return route;
};

const detour = async (input: string, output: string, given: DetourGiven): Promise<void> => {
  if (!DETOUR_SLOTS.some((slots) => slots === given.slots))
    throw new UsageFault(`--slots is to be one of ${DETOUR_SLOTS.join(', ')}.`);
  const route = routeOf(given.route, given.slots);
  const file = await midiFileOf(input);
  const done = detourFile(file, { notes: chosen(input, file, given.note), over: given.over, route });
  await writeOut(output, done.bytes);
  say(output, done);
};

/** `ruddik detour IN.mid OUT.mid`. */
export const detourCommand = (): Command =>
  new Command('detour')
    .description('Plays the slots of each bar of a MIDI file, or of all of it, in another order.')
    .argument('<in>', 'a MIDI file')
    .argument('<out>', 'the file to write')
    .requiredOption('--slots <n>', `into how many slots it is divided: ${DETOUR_SLOTS.join(', ')}`, aWhole)
    .requiredOption(
      '--route <slots>',
      `from which slot each plays, such as 1,3,2,4 (0 is silence), or a name: ${KNOWN_ROUTES.join(', ')}`,
    )
    .option('--over <bar|all>', 'what is divided', aSpan, 'bar')
    .option('--note <n...>', 'only these note numbers or instruments', someNotes)
    .action(detour);
