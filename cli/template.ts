import path from 'node:path';
import { Command } from 'commander';
import { gridTicks, type Grid } from '../core/document/grid';
import { findGrid, extractTemplate } from '../core/analysis/extractTemplate';
import { writeTemplate } from '../core/feel/templateText';
import { laneOfNote, performanceOf, wholeBars } from '../core/midi/read/midiFile';

import { InputFault, UsageFault } from './fault';
import { midiFileOf, writeOut } from './files';
import { aGrid, aNote, aWhole, numbersIn, within } from './numbers';

interface Given {
  grid?: Grid;
  bars?: number;
  note?: number[];
}

const someNotes = (text: string, before: number[] = []): number[] => [...before, aNote(text)];

const MOST_SLOTS = 1024;

const run = async (input: string, output: string, given: Given): Promise<void> => {
  if (!/\.json$/i.test(output))
    throw new UsageFault(`A template is written as JSON: “${output}” is to end in .json.`);
  const file = await midiFileOf(input);
  if (!file.notes.length)
    throw new InputFault(`“${input}” has no notes, so no template can be taken from it.`);
  const wanted = file.notes.filter(({ note }) => !given.note || given.note.includes(note));
  if (!wanted.length)
    throw new InputFault(
      `“${input}” has no note ${given.note!.join(' or ')}; it has ${numbersIn(file.notes)}.`,
    );
  const performance = performanceOf(file);
  const { bar } = file.bars.at(0);
  const all = Math.max(1, Math.round(wholeBars(file) / bar));
  const bars = given.bars === undefined ? null : within('--bars', given.bars, 1, all);
  const lanes = new Set(wanted.map(laneOfNote));
  const grid =
    given.grid ??
    findGrid({ ...performance, notes: performance.notes.filter(({ lane }) => lanes.has(lane)) });
  const length = bars === null ? wholeBars(file) : bars * bar;
  if (length / gridTicks(grid) > MOST_SLOTS)
    throw new InputFault(
      `A template has at most ${MOST_SLOTS} slots; ask for fewer --bars of “${input}”, or for a wider --grid.`,
    );
  const shape = extractTemplate(path.parse(input).name, performance, { grid, length, lanes })!;
  await writeOut(output, writeTemplate(shape));
  const open = shape.slots.filter((slot) => !slot).length;
  process.stdout.write(
    `${path.basename(output)}: ${shape.slots.length} slots of ${grid} from ${wanted.length} notes${open ? `, ${open} of them open` : ''}.\n`,
  );
};

/** `ruddik template IN.mid OUT.json`. */
export const templateCommand = (): Command =>
  new Command('template')
    .description('Takes a groove template from a MIDI file.')
    .argument('<in>', 'the MIDI file')
    .argument('<out>', 'the template to write, a .json file')
    .option('--grid <g>', 'the grid of its slots (default: found in the notes)', aGrid)
    .option('--bars <n>', 'how long it is (default: all whole bars)', aWhole)
    .option('--note <n...>', 'only these note numbers or instruments', someNotes)
    .action(run);
