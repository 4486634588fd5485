import { Command } from 'commander';
import type { DrumMap } from '../core/midi/drumMap/drumMap';
import { INSTRUMENTS, type InstrumentId } from '../core/document/instruments';
import { readMidi } from '../core/midi/read/readMidi';
import { remapFile, type Remapped } from '../core/midi/convert/remap';
import { InputFault } from './fault';
import { bytesOf, warn, writeOut } from './files';
import { mapNamed } from './maps';

const named = (id: InstrumentId | null): string =>
  id ? INSTRUMENTS[id].name : 'no instrument of the first map';

/** A sentence for each note that does not come over as it was. */
const sentences = ({ crossings }: Remapped, to: DrumMap): string[] =>
  crossings.flatMap(({ note, instrument, kind, as, becomes, clash }) => {
    if (kind === 'same') return [];
    const head = `Note ${note} (${named(instrument)})`;
    if (kind === 'near')
      return [`${head} becomes ${becomes} (${named(as)}), the nearest that “${to.name}” has.`];
    const none = `${head} has no counterpart in “${to.name}”`;
    const other = clash ? `, where its number is ${named(clash)}` : '';
    return [`${none}${other}: ${becomes === null ? 'left out' : 'kept as it is'}.`];
  });

interface Given {
  from: string;
  to: string;
  drop: boolean;
  keepClashes: boolean;
}

const run = async (input: string, output: string, given: Given): Promise<void> => {
  const [from, to] = [await mapNamed(given.from), await mapNamed(given.to)];
  const opened = readMidi(await bytesOf(input), 'lenient');
  if (!opened.ok) throw new InputFault(`“${input}” could not be read. ${opened.error}`);
  const done = remapFile(opened.value, from, to, given);
  await writeOut(output, done.bytes);
  [...opened.value.warnings, ...sentences(done, to)].forEach(warn);
};

/** `ruddik remap IN OUT --from MAP --to MAP`. */
export const remapCommand = (): Command =>
  new Command('remap')
    .description('Gives the notes of a MIDI file the numbers of another drum map.')
    .argument('<in>', 'a MIDI file')
    .argument('<out>', 'the MIDI file to write')
    .requiredOption(
      '--from <map>',
      'the map that it is in: gm, a drum map, a .midnam, or a table of numbers and names',
    )
    .requiredOption('--to <map>', 'the map that it is wanted in, of the same kinds')
    .option('--drop', 'leave out notes without a counterpart', false)
    .option(
      '--keep-clashes',
      'keep notes without a counterpart even where their number is another drum',
      false,
    )
    .action(run);
