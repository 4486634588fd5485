import path from 'node:path';
import { Command, InvalidArgumentError } from 'commander';
import { readBeat } from '../core/beat/file';
import type { Beat, Pattern } from '../core/beat/schema';
import {
  EXPORT_BOUNDS,
  EXPORT_DEFAULTS,
  exportPattern,
  type ExportOptions,
} from '../core/midi/exportPattern';
import { InputFault } from './fault';
import { textOf, writeOut } from './files';

/** What the command's options give; the names are those of the options. */
interface Given {
  pattern?: string;
  passes: number;
  ppq: number;
  format: 0 | 1;
  channel: number;
  muted: boolean;
  hold: boolean;
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

const formatNumber = (text: string): 0 | 1 => {
  if (text !== '0' && text !== '1') throw new InvalidArgumentError('It is to be 0 or 1.');
  return text === '0' ? 0 : 1;
};

const read = async (file: string): Promise<Beat> => {
  const beat = readBeat(await textOf(file));
  if (!beat.ok) throw new InputFault(`“${file}” could not be read. ${beat.error}`);
  return beat.value;
};

const patternNamed = (beat: Beat, name: string | undefined): Pattern => {
  const found =
    name === undefined ? beat.patterns[0] : beat.patterns.find((one) => one.name === name || one.id === name);
  if (found) return found;
  const names = beat.patterns.map((one) => `“${one.name}”`).join(', ');
  throw new InputFault(`“${beat.name}” has no pattern “${name}”; it has ${names}.`);
};

const optionsOf = (given: Given): ExportOptions => ({
  format: given.format,
  ppq: given.ppq,
  passes: given.passes,
  channel: given.channel,
  includeMuted: given.muted,
  edges: given.hold ? 'hold' : 'wrap',
});

const run = async (input: string, output: string, given: Given): Promise<void> => {
  const beat = await read(input);
  const file = exportPattern(beat, patternNamed(beat, given.pattern), optionsOf(given));
  await writeOut(output, file.bytes);
  const left = file.leftOut.length ? ` Left out as muted: ${file.leftOut.join(', ')}.` : '';
  const dropped = file.dropped ? ` ${file.dropped} found no room beside others of the same number.` : '';
  const merged = file.merged
    ? ` ${file.merged} within 1 ms of another on their lane became one with it.`
    : '';
  process.stdout.write(
    `${path.basename(output)}: ${file.notes} notes in ${file.bars} bars.${left}${dropped}${merged}\n`,
  );
};

/** `ruddik export BEAT.json OUT.mid`. */
export const exportCommand = (): Command =>
  new Command('export')
    .description('Writes a pattern of a beat as a Standard MIDI File.')
    .argument('<beat>', 'the beat, a .ruddik.json file')
    .argument('<out>', 'the MIDI file to write')
    .option('--pattern <name>', 'which pattern, by its name (default: the first one)')
    .option('--passes <n>', 'how many times it plays, 1 to 64', whole('passes'), EXPORT_DEFAULTS.passes)
    .option('--ppq <n>', 'ticks a quarter note, 96 to 1920', whole('ppq'), EXPORT_DEFAULTS.ppq)
    .option('--format <0|1>', 'the format of the file', formatNumber, EXPORT_DEFAULTS.format)
    .option('--channel <n>', 'the MIDI channel, 1 to 16', whole('channel'), EXPORT_DEFAULTS.channel)
    .option('--muted', 'write muted lanes too', false)
    .option(
      '--hold',
      'hold early notes at the start and late ones at the end, instead of carrying them round',
      false,
    )
    .action(run);
