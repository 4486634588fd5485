import { Command } from 'commander';
import type { Grid } from '../core/document/grid';
import { reportFeel, type FeelReport } from '../core/analysis/measure';
import { compareLines, reportLines } from '../core/analysis/reportText';
import { performanceOf } from '../core/midi/read/midiFile';
import { instrumentOf } from '../core/document/instruments';
import { InputFault } from './fault';
import { midiOf } from './files';

const laneName = (lane: string): string => {
  const [channel, note] = lane.split('/');
  const known = channel === '10' ? instrumentOf(Number(note)) : null;
  return known ? `${known} (${note})` : `note ${note} on channel ${channel}`;
};

const isTriplet = (grid: Grid): boolean => grid.endsWith('T');

/** @param like the report that it is set against: both are measured on one grid where that can be */
const read = async (file: string, like?: FeelReport) => {
  const midi = await midiOf(file);
  if (!midi.notes.length) throw new InputFault(`“${file}” has no notes, so there is no feel to measure.`);
  const performance = performanceOf(midi);
  const own = reportFeel(performance);
  return like && like.grid !== own.grid && isTriplet(like.grid) === isTriplet(own.grid)
    ? reportFeel(performance, { grid: like.grid, bpm: own.bpm })
    : own;
};

const run = async (file: string, other: string | undefined, given: { json: boolean }): Promise<void> => {
  const first = await read(file);
  const second = other === undefined ? null : await read(other, first);
  if (given.json) {
    const all = second ? [first, second] : first;
    process.stdout.write(`${JSON.stringify(all, null, 1)}\n`);
    return;
  }
  const lines = reportLines(first, laneName);
  if (second)
    lines.push(
      '',
      `${other}:`,
      ...reportLines(second, laneName),
      '',
      ...compareLines(first, second, laneName),
    );
  process.stdout.write(`${(second ? [`${file}:`, ...lines] : lines).join('\n')}\n`);
};

/** `ruddik report FILE.mid [OTHER.mid]`. */
export const reportCommand = (): Command =>
  new Command('report')
    .description('Measures how a MIDI file is played: swing, ahead or behind, tightness, accents.')
    .argument('<file>', 'the MIDI file')
    .argument('[other]', 'another one to set it against')
    .option('--json', 'print the figures as JSON', false)
    .action(run);
