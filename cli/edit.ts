import { Command } from 'commander';
import { parsed } from '../core/document/reading';
import { patternNamed, scriptedEdits } from '../core/edit/scripted';
import { listed, writeBeat } from '../core/document/text';
import { InputFault } from './fault';
import { beatOf } from './export';
import { fileTextOf, warn, writeOut } from './files';

/** The edits of one argument: one as JSON, or those of a file that is named after an @. */
const editsIn = async (argument: string): Promise<unknown[]> => {
  const text = argument.startsWith('@') ? await fileTextOf(argument.slice(1)) : argument;
  const json = parsed(text);
  if (!json.ok)
    throw new InputFault(
      `${argument.startsWith('@') ? `“${argument.slice(1)}”` : 'An edit'} could not be read. ${json.error}`,
    );
  return Array.isArray(json.value) ? (json.value as unknown[]) : [json.value];
};

const run = async (
  input: string,
  output: string,
  given: string[],
  options: { pattern?: string },
): Promise<void> => {
  const beat = await beatOf(input);
  const pattern = patternNamed(beat, options.pattern);
  if (!pattern)
    throw new InputFault(
      `“${beat.name}” has no pattern “${options.pattern}”; it has ${listed(beat.patterns.map(({ name }) => `“${name}”`))}.`,
    );
  const edits = (await Promise.all(given.map(editsIn))).flat();
  const done = scriptedEdits(beat, pattern.id, edits);
  if (!done.ok) throw new InputFault(`${done.error} Nothing was written.`);
  await writeOut(output, writeBeat(done.value.beat));
  for (const number of done.value.idle) warn(`Edit ${number} changed nothing.`);
  process.stdout.write(`${output}: ${edits.length} ${edits.length === 1 ? 'edit' : 'edits'} made.\n`);
};

/** `ruddik edit IN.ruddik.json OUT.ruddik.json EDIT…`. */
export const editCommand = (): Command =>
  new Command('edit')
    .description('Makes edits of a beat, one after the other; docs/edits.md lists them all.')
    .argument('<in>', 'the beat, a .ruddik.json file')
    .argument('<out>', 'the beat to write, a .ruddik.json file')
    .argument('<edits...>', '{"edit":"rotate","args":{…}}, or @FILE with a list of them')
    .option('--pattern <name>', 'the pattern that is edited (default: the first)')
    .action(run);
