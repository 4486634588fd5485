import path from 'node:path';
import { Command, InvalidArgumentError, Option } from 'commander';
import { strToU8, zipSync } from 'fflate';
import { readBeat } from '../core/document/file';
import type { Beat } from '../core/document/schema';
import { count } from '../core/document/text';
import { bounce, type BounceHow } from '../core/export/bounce';
import { readBeatsWithSounds } from '../core/files/beatFile';
import { leadsOf } from '../core/mix/leads';
import { isZip } from '../core/files/samplePack';
import { soundsOfBeat } from '../core/samples/sounds';
import {
  DEPTHS,
  HOW_DEFAULTS,
  BOUNCE_RATES,
  type ExportHow,
  type ExportWhat,
  type ExportKind,
} from '../core/export/choice';
import { ENDINGS, exported, listOf, pathOf, type Exported, type OutFile } from '../core/export/exporting';
import { TOKENS } from '../core/export/names';
import type { DrumMap } from '../core/midi/drumMap/drumMap';
import { EXPORT_BOUNDS } from '../core/export/exportPattern.mock';
import { InputFault, UsageFault } from './fault';
import { bytesOf, isFolder, makeFolder, warn, writeOut } from './files';
import { mapNamed } from './maps';
import { kitFrom, missingOf, nameOf, soundsWith } from './sounds';

/** What the command's options give; the names are those of the options. */
export interface ExportGiven {
  pattern?: string;
  section?: string;
  song?: boolean;
  sections?: boolean;
  bars?: { from: number; to: number };
  patterns?: boolean;
  tray?: boolean;
  as?: ExportKind;
  passes: number;
  ppq: number;
  format: 0 | 1;
  channel: number;
  channels: ExportHow['channels'];
  split?: 'lanes' | 'groups';
  files: boolean;
  map?: string;
  straight: boolean;
  muted: boolean;
  hold: boolean;
  countIn: boolean;
  lead: boolean;
  sticking: boolean;
  names: string;
  depth: ExportHow['depth'];
  rate: ExportHow['rate'];
  stems: boolean;
  tail: boolean;
  kit?: string;
}

const whole =
  (what: keyof typeof EXPORT_BOUNDS) =>
  (text: string): number => {
    const { least, most } = EXPORT_BOUNDS[what];
    const value = Number(text);
    if (!Number.isInteger(value) || value < least || value > most)
      throw new InvalidArgumentError(`It is to be a whole number from ${least} to ${most}.`);
    return value;
  };

const barRange = (text: string): { from: number; to: number } => {
  const found = /^(\d+)(?:-(\d+))?$/.exec(text);
  const from = Number(found?.[1]);
  const to = Number(found?.[2] ?? found?.[1]);
  if (!found || from < 1 || to < from)
    throw new InvalidArgumentError('It is to be a bar or a range of bars, such as 9-16.');
  return { from, to };
};

/** A beat, and the samples that came with it. */
interface WithSounds {
  beat: Beat;
  samples: ReadonlyMap<string, Uint8Array>;
}

/** Reads the beat that a command is given, with its samples where the file is a ZIP that has them. */
const withSoundsOf = async (file: string): Promise<WithSounds> => {
  const bytes = await bytesOf(file);
  const refused = (why: string | undefined) =>
    new InputFault(`“${file}” could not be read. ${why ?? 'No beat is in it.'}`);
  if (!isZip(bytes)) {
    const read = readBeat(new TextDecoder().decode(bytes));
    if (!read.ok) throw refused(read.error);
    return { beat: read.value, samples: new Map() };
  }
  const read = await readBeatsWithSounds(bytes, nameOf);
  if (!read.ok) throw refused(read.error);
  const { beats, faults, samples } = read.value;
  const [beat, another] = beats;
  if (!beat) throw refused(faults[0]);
  if (another) warn(`“${file}” holds ${count(beats.length, 'beat')}: this is “${beat.name}”, the first.`);
  return { beat, samples };
};

/** Reads the beat that a command is given. */
export const beatOf = async (file: string): Promise<Beat> => (await withSoundsOf(file)).beat;

const listed = (names: string[]): string => names.map((name) => `“${name}”`).join(', ') || 'none';

const idOf = (beat: Beat, list: { id: string; name: string }[], name: string, what: string): string => {
  const found = list.find((one) => one.name === name || one.id === name);
  if (found) return found.id;
  throw new InputFault(
    `“${beat.name}” has no ${what} “${name}”; it has ${listed([...new Set(list.map((one) => one.name))])}.`,
  );
};

const SCOPES = ['song', 'sections', 'patterns', 'tray'] as const;

const scopeOf = (given: ExportGiven): ExportHow['scope'] => {
  const named = SCOPES.filter((scope) => given[scope]) as ExportHow['scope'][];
  if (given.section !== undefined) named.push('section');
  if (given.bars) named.push('range');
  if (given.pattern !== undefined) named.push('pattern');
  if (named.length > 1)
    throw new UsageFault(`Only one of what is to be written can be named, not ${named.length}.`);
  return named[0] ?? 'pattern';
};

/** What is chosen of a beat by the options that say what. */
export const whatOf = (beat: Beat, given: ExportGiven): ExportWhat => {
  const places = beat.song.order.map(({ id, sectionId }) => ({
    id,
    name: beat.song.sections.find((section) => section.id === sectionId)?.name ?? '',
  }));
  return {
    patternId: given.pattern === undefined ? null : idOf(beat, beat.patterns, given.pattern, 'pattern'),
    placeId: given.section === undefined ? null : idOf(beat, places, given.section, 'section'),
    bars: given.bars ?? { from: 1, to: 1 },
  };
};

const kindOf = (output: string, given: ExportGiven): ExportKind => {
  const ending = path.extname(output).slice(1).toLowerCase();
  const own = (Object.keys(ENDINGS) as ExportKind[]).find((kind) => ENDINGS[kind] === ending);
  if (own) return own;
  if (ending === 'xml') return 'paper';
  // Under a strange ending nobody would look for MIDI.
  if (!['', 'midi', 'zip'].includes(ending))
    throw new UsageFault(
      `“${path.basename(output)}” is to end in ${Object.values(ENDINGS)
        .map((one) => `.${one}`)
        .join(', ')} or .zip, or to be a folder (ending with /).`,
    );
  return given.as ?? 'midi';
};

/** How, by the options that say how. */
export const howOf = (output: string, given: ExportGiven, map: DrumMap | null): ExportHow => ({
  ...HOW_DEFAULTS,
  kind: kindOf(output, given),
  scope: scopeOf(given),
  passes: given.passes,
  split: given.split ?? 'none',
  as: given.files ? 'files' : 'tracks',
  format: given.format,
  ppq: given.ppq,
  channel: given.channel,
  channels: given.channels,
  map,
  straight: given.straight,
  edges: given.hold ? 'hold' : 'wrap',
  includeMuted: given.muted,
  countIn: given.countIn,
  lead: given.lead,
  hands: given.sticking,
  names: given.names,
  depth: given.depth,
  rate: given.rate,
  // Audio of each lane by itself is what stems are.
  stems: given.stems || (kindOf(output, given) === 'audio' && given.split !== undefined),
  tail: given.tail,
});

/** Attacks are looked for at this rate. */
const LEAD_RATE = 48000;

/** Renders what is audio, one file after the other. */
const rendered = async (
  { files, pieces, beat }: Exported,
  how: ExportHow,
  samples: ReadonlyMap<string, Uint8Array>,
): Promise<OutFile[]> => {
  if (files.every(({ data }) => data !== null)) return files;
  for (const name of missingOf(beat, samples))
    warn(
      `“${name}” is missing: give the beat with its sounds (.ruddik.zip), or the kit file that holds it by --kit. A stand-in sounds.`,
    );
  const sounds = await soundsOfBeat(soundsWith(how.rate, samples), beat);
  return files.map((file) => {
    if (file.data !== null) return file;
    const render = bounce(pieces[file.piece]!, beat, how as BounceHow, sounds, file.voice!);
    for (;;) {
      const step = render.next();
      if (step.done) return { ...file, data: step.value };
    }
  });
};

const bytesOfFile = ({ data }: OutFile): Uint8Array =>
  typeof data === 'string' ? strToU8(data) : (data ?? new Uint8Array());

const store = async (output: string, out: Exported, files: OutFile[]): Promise<void> => {
  const list = { name: 'list.txt', data: strToU8(listOf({ ...out, files })) };
  if (/\.zip$/i.test(output)) {
    const entries = Object.fromEntries([
      ...files.map((file) => [pathOf(file), bytesOfFile(file)] as const),
      [list.name, list.data] as const,
    ]);
    return writeOut(output, zipSync(entries));
  }
  if (output.endsWith('/') || (await isFolder(output))) {
    for (const file of files) {
      await makeFolder(path.join(output, file.folder));
      await writeOut(path.join(output, pathOf(file)), bytesOfFile(file));
    }
    return writeOut(path.join(output, list.name), list.data);
  }
  if (files.length > 1)
    throw new InputFault(
      `This writes ${files.length} files: name a .zip or a folder (ending with /) instead of “${path.basename(output)}”.`,
    );
  return writeOut(output, bytesOfFile(files[0]!));
};

/** What is asked for and could not be done is refused, and not passed over. */
const checkUsage = (kind: ExportKind, given: ExportGiven): void => {
  if (given.split && kind !== 'midi' && kind !== 'audio')
    throw new UsageFault('--split is for MIDI and audio; what is printed or listed is written whole.');
  if (given.files && !given.split)
    throw new UsageFault(
      '--files says what becomes of what is split: name --split lanes or --split groups too.',
    );
  if (given.lead && kind !== 'midi')
    throw new UsageFault('--lead is for MIDI: in audio every attack falls on its hit already.');
  if (given.sticking && kind !== 'paper')
    throw new UsageFault('--sticking is for a drum part: let OUT end in .musicxml, or add --as paper.');
  if (given.stems && kind !== 'audio')
    throw new UsageFault('--stems is for audio: let OUT end in .wav, or add --as audio.');
};

const run = async (input: string, output: string, given: ExportGiven): Promise<void> => {
  checkUsage(kindOf(output, given), given);
  const { beat: read, samples } = await withSoundsOf(input);
  const kit = given.kit === undefined ? null : await kitFrom(given.kit);
  // A kit that is named plays the beat, unless it only brings the samples of sounds that the beat has.
  const beat = kit && !read.own ? { ...read, kit: kit.kit, own: kit.own } : read;
  const how = howOf(output, given, given.map === undefined ? null : await mapNamed(given.map));
  const all = new Map([...samples, ...(kit?.samples ?? [])]);
  const leads = how.lead ? await leadsOf(soundsWith(LEAD_RATE, all), beat) : null;
  const out = exported(beat, how, whatOf(beat, given), leads);
  if (!out.ok) throw new InputFault(out.error);
  const files = await rendered(out.value, how, all);
  await store(output, out.value, files);
  out.value.warnings.forEach(warn);
  const { leftOut } = out.value;
  const left = leftOut.length ? ` Left out as muted: ${leftOut.join(', ')}.` : '';
  const notes = files.reduce((sum, file) => sum + file.notes, 0);
  const bars =
    out.value.pieces.length === 1 ? files[0]!.bars : files.reduce((sum, file) => sum + file.bars, 0);
  process.stdout.write(
    files.length === 1
      ? `${path.basename(output)}: ${count(notes, 'note')} in ${count(bars, 'bar')}.${left}\n`
      : `${path.basename(output)}: ${count(files.length, 'file')}, ${count(notes, 'note')}.${left}\n`,
  );
};

const oneOf = (flags: string, about: string, choices: readonly string[], value: string) =>
  new Option(flags, about).choices([...choices]).default(value);

/** The options that say what of a beat, and how, for every command that plays or writes one. */
export const withWhat = (command: Command): Command =>
  command
    .option('--pattern <name>', 'one pattern, by its name (default: the first one)')
    .option('--section <name>', 'one section of the song, by its name')
    .option('--song', 'the whole song')
    .option('--bars <from-to>', 'some bars of the song, such as 9-16', barRange)
    .option('--passes <n>', 'how many times a pattern plays, 1 to 64', whole('passes'), HOW_DEFAULTS.passes)
    .option('--straight', 'leave the feel out: hits where they were programmed', false)
    .option('--muted', 'write muted lanes too', false)
    .option(
      '--hold',
      'hold early notes at the start and late ones at the end, instead of carrying them round',
      false,
    );

/** `ruddik export BEAT.json OUT`. */
export const exportCommand = (): Command =>
  withWhat(
    new Command('export')
      .description(
        'Writes a beat as MIDI, audio, a drum part, a tab or a list; the ending of OUT says which.',
      )
      .argument('<beat>', 'the beat, a .ruddik.json file, or a .ruddik.zip with its sounds')
      .argument('<out>', 'a .mid, .wav, .musicxml, .txt or .csv file, a .zip, or a folder (ending with /)'),
  )
    .option('--sections', 'the song, each section by itself')
    .option('--patterns', 'all patterns, each by itself')
    .option('--tray', 'what lies in the tray, each by itself')
    .addOption(new Option('--as <kind>', 'what a .zip or folder holds').choices(Object.keys(ENDINGS)))
    .addOption(new Option('--split <by>', 'each lane or group by itself').choices(['lanes', 'groups']))
    .option('--files', 'what is split becomes files, not tracks', false)
    .option('--ppq <n>', 'ticks a quarter note, 96 to 1920', whole('ppq'), HOW_DEFAULTS.ppq)
    .option('--format <0|1>', 'the format of the MIDI file', formatNumber, HOW_DEFAULTS.format)
    .option('--channel <n>', 'the MIDI channel, 1 to 16', whole('channel'), HOW_DEFAULTS.channel)
    .addOption(
      oneOf(
        '--channels <how>',
        'lanes keep a channel of their own, all are on one, or each has one',
        ['lanes', 'whole', 'each'],
        HOW_DEFAULTS.channels,
      ),
    )
    .option('--map <map>', 'the drum map to write with: a map file, or gm for General MIDI')
    .option('--count-in', 'a bar is counted first', false)
    .option(
      '--lead',
      'MIDI notes come earlier by the attack of the sounds of one’s own, for samplers that do not see to it',
      false,
    )
    .option('--sticking', 'a drum part has R and L under its notes', false)
    .option(
      '--names <pattern>',
      `what files are called, from ${TOKENS.map((token) => `{${token}}`).join(' ')}`,
      HOW_DEFAULTS.names,
    )
    .addOption(oneOf('--depth <bits>', 'of audio', DEPTHS, HOW_DEFAULTS.depth))
    .option('--rate <44100|48000>', 'of audio, in Hz', rateNumber, HOW_DEFAULTS.rate)
    .option('--kit <file>', 'a kit file: what its samples sound like, in audio')
    .option('--stems', 'audio of each lane by itself, or of each group with --split groups', false)
    .option(
      '--no-tail',
      'cut audio at the last bar line, its end ringing into its start, to loop; a song is only cut',
    )
    .action(run);

function formatNumber(text: string): 0 | 1 {
  if (text !== '0' && text !== '1') throw new InvalidArgumentError('It is to be 0 or 1.');
  return text === '0' ? 0 : 1;
}

function rateNumber(text: string): ExportHow['rate'] {
  const rate = BOUNCE_RATES.find((one) => String(one) === text);
  if (!rate) throw new InvalidArgumentError('It is to be 44100 or 48000.');
  return rate;
}
