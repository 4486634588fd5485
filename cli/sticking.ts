import { Command, Option } from 'commander';
import { HAND_RULES, type HandRule } from '../core/document/choices';
import { instrument } from '../core/document/instruments';
import { count } from '../core/document/text';
import { beatTicks } from '../core/document/meter';
import { recognized } from '../core/hands/recognized';
import { MENDS, sticking, unplayable } from '../core/hands/sticking';
import { drumStrokes } from '../core/midi/read/drumStrokes';
import { InputFault } from './fault';
import { midiFileOf } from './files';

interface Given {
  leftHanded: boolean;
  rule: HandRule;
  json: boolean;
}

const run = async (input: string, { leftHanded, rule, json }: Given): Promise<void> => {
  const file = await midiFileOf(input);
  const { strokes, left } = drumStrokes(file);
  if (!strokes.length)
    throw new InputFault(
      `“${input}” has no drums on channel 10${file.notes.length ? `, only ${count(file.notes.length, 'other note')}` : ''}.`,
    );
  const stuck = sticking(strokes, {
    leftHanded,
    rule,
    beat: beatTicks(file.meter),
    recognize: recognized,
  });
  const counts = unplayable(stuck);
  if (json) {
    const rows = strokes.map(({ ms, velocity, instrument: drum }, at) => ({
      seconds: Math.round(ms) / 1000,
      drum,
      velocity,
      limb: stuck[at]!.limb,
      ...(stuck[at]!.fault && { fault: stuck[at]!.fault, mend: MENDS[stuck[at]!.fault] }),
    }));
    process.stdout.write(`${JSON.stringify({ strokes: rows, unplayable: counts, left }, null, 1)}\n`);
    return;
  }
  const lines = strokes.map(({ ms, instrument: drum }, at) => {
    const { limb, fault } = stuck[at]!;
    return `${(ms / 1000).toFixed(3).padStart(9)}  ${(limb ?? '-').padEnd(2)}  ${instrument(drum).name}${fault ? `  ! ${MENDS[fault]}` : ''}`;
  });
  process.stdout.write(
    `${[
      ...lines,
      '',
      counts.all
        ? `${count(counts.all, 'stroke')} of ${strokes.length} cannot be played by one drummer.`
        : `All ${count(strokes.length, 'stroke')} can be played by one drummer.`,
      ...(left ? [`${count(left, 'note')} left out: no drum.`] : []),
    ].join('\n')}\n`,
  );
};

/** `ruddik sticking IN.mid`. */
export const stickingCommand = (): Command =>
  new Command('sticking')
    .description('Prints which hand or foot plays each stroke of a MIDI file, and what cannot be played.')
    .argument('<in>', 'a MIDI file; its drums are on channel 10')
    .option('--left-handed', 'the kit stands the other way round', false)
    .addOption(new Option('--rule <rule>', 'how hands are found').choices([...HAND_RULES]).default('easiest'))
    .option('--json', 'print it as JSON', false)
    .action(run);
