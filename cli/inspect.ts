import path from 'node:path';
import { Command } from 'commander';
import { inspectMidi, type Inspected } from '../core/midi/read/inspect';
import { InputFault } from './fault';
import { isFolder, midiBytesOf, midiFilesIn } from './files';

type Found = ({ file: string; ok: true } & Inspected) | { file: string; ok: false; error: string };

const inspect = async (file: string): Promise<Found> => {
  const read = inspectMidi(await midiBytesOf(file));
  return read.ok ? { file, ok: true, ...read.value } : { file, ok: false, error: read.error };
};

const filesOf = async (place: string): Promise<string[]> =>
  (await isFolder(place)) ? (await midiFilesIn(place)).map((name) => path.join(place, name)) : [place];

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

const line = (found: Found): string => {
  if (!found.ok) return `${found.file}: ${found.error}`;
  const swing = !found.swing
    ? ''
    : found.swing.percent === 50
      ? `, straight ${found.swing.grid}`
      : `, swing ${found.swing.percent} % on ${found.swing.grid}`;
  const tempos = found.tempoChanges ? ` and ${count(found.tempoChanges, 'more tempo')}` : '';
  const told = `${count(found.bars, 'bar')} of ${found.timeSignature} at ${found.bpm} BPM${tempos}, ${count(found.notes, 'note')}${swing}`;
  return [`${found.file}: ${told}.`, ...found.warnings.map((warning) => `  ${warning}`)].join('\n');
};

const run = async (places: string[], given: { json: boolean }): Promise<void> => {
  const files = (await Promise.all(places.map(filesOf))).flat();
  if (!files.length) throw new InputFault(`There is no MIDI file in “${places.join('”, “')}”.`);
  const found: Found[] = [];
  for (const file of files) found.push(await inspect(file));
  process.stdout.write(
    given.json ? `${JSON.stringify(found, null, 1)}\n` : `${found.map(line).join('\n')}\n`,
  );
  const [only] = found;
  if (found.length === 1 && only && !only.ok && places[0] === only.file)
    throw new InputFault(`“${only.file}” could not be read. ${only.error}`);
};

/** `ruddik inspect FILE|FOLDER…`. */
export const inspectCommand = (): Command =>
  new Command('inspect')
    .description('Says what MIDI files hold: bars, tempo, meter, swing, instruments, and what is wrong.')
    .argument('<places...>', 'MIDI files, or folders of them')
    .option('--json', 'print it as a JSON list', false)
    .action(run);
