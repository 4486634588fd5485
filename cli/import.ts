import path from 'node:path';
import { Command, Option } from 'commander';
import { count, writeBeat } from '../core/document/text';
import type { Beat } from '../core/document/schema';
import { beatFromMidi } from '../core/bring/beatFromMidi';
import { grooveOfFile } from '../core/groove/importing';
import { InputFault } from './fault';
import { bytesOf, warn, writeOut } from './files';
import { beatOfGroove } from './grooveBeat';
import { mapNamed } from './maps';

interface Given {
  as: 'beat' | 'groove';
  map: string;
}

/** How a document begins that a command makes: the same file gives the same beat. */
export const SCRIPT_SEED = 1;

const read = async (
  input: string,
  { as, map: named }: Given,
): Promise<{ beat: Beat; warnings: string[] }> => {
  const [bytes, map] = [await bytesOf(input), await mapNamed(named)];
  const { name } = path.parse(input);
  const refused = (why: string) => new InputFault(`“${input}” could not be read. ${why}`);
  if (as === 'beat') {
    const made = beatFromMidi(bytes, name, 'imported', SCRIPT_SEED, map);
    if (!made.ok) throw refused(made.error);
    return made.value;
  }
  const groove = grooveOfFile(bytes, { path: path.basename(input), source: 'imported', map, only: 'drums' });
  if (!groove.ok) throw refused(groove.error);
  const { warnings, doubles, cut } = groove.taken;
  const { beat, told } = beatOfGroove(groove.groove);
  return {
    beat,
    warnings: [
      ...warnings,
      ...(doubles ? [`${count(doubles, 'note')} that stood twice became one.`] : []),
      ...(cut ? [`${count(cut, 'note')} ended where the next of its number began.`] : []),
      ...told,
    ],
  };
};

const run = async (input: string, output: string, given: Given): Promise<void> => {
  const { beat, warnings } = await read(input, given);
  await writeOut(output, writeBeat(beat));
  warnings.forEach(warn);
  const { sections } = beat.song;
  process.stdout.write(
    `${path.basename(output)}: “${beat.name}”, ${count(beat.lanes.length, 'lane')}, ${count(beat.patterns.length, 'pattern')}${sections.length ? `, ${count(sections.length, 'section')}` : ''}, ${beat.tempo} BPM.\n`,
  );
};

/** `ruddik import IN.mid OUT.ruddik.json`. */
export const importCommand = (): Command =>
  new Command('import')
    .description('Makes a beat of a MIDI file, as the app does.')
    .argument('<in>', 'the MIDI file')
    .argument('<out>', 'the beat to write, a .ruddik.json file')
    .addOption(
      new Option('--as <what>', 'a beat with its song, or a groove as it is brought into a beat')
        .choices(['beat', 'groove'])
        .default('beat'),
    )
    .option('--map <map>', 'what its numbers mean: gm, or a drum map file', 'gm')
    .action(run);
