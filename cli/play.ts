import { Command } from 'commander';
import { HOW_DEFAULTS } from '../core/export/choice';
import { exported } from '../core/export/exporting';
import { hitsOf } from '../core/export/list';
import { InputFault } from './fault';
import { beatOf, howOf, whatOf, withWhat, type ExportGiven } from './export';

/** What only matters for files. */
const NOTES = { names: HOW_DEFAULTS.names, channel: HOW_DEFAULTS.channel, channels: HOW_DEFAULTS.channels };

const run = async (input: string, given: ExportGiven & { json: boolean }): Promise<void> => {
  const beat = await beatOf(input);
  const how = { ...howOf('.csv', given, null), ...NOTES };
  const out = exported(beat, how, whatOf(beat, given));
  if (!out.ok) throw new InputFault(out.error);
  const hits = hitsOf(out.value.pieces[0]!, out.value.beat);
  if (given.json) {
    process.stdout.write(`${JSON.stringify(hits)}\n`);
    return;
  }
  for (const { bar, beat: at, ms, lane, velocity } of hits)
    process.stdout.write(`bar ${bar}, beat ${at}\t${ms} ms\t${lane}\t${velocity}\n`);
};

/** `ruddik play BEAT.json`. */
export const playCommand = (): Command =>
  withWhat(
    new Command('play')
      .description('Prints every note of a beat where it sounds: bar and beat, time, lane, velocity.')
      .argument('<beat>', 'the beat, a .ruddik.json file'),
  )
    .option('--json', 'as a JSON list', false)
    .action(run);
