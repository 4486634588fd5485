import { Command, CommanderError } from 'commander';
import { version } from '../package.json';
import { InputFault, UsageFault } from './fault';
import { plainly } from './plainly';
import { editCommand } from './edit';
import { exportCommand } from './export';
import { feelCommand } from './feel';
import { grooveCommand, groovesCommand } from './groove';
import { importCommand } from './import';
import { kitCommand } from './kit';
import { makeCommand } from './make';
import { detourCommand, echoCommand } from './moves';
import { inspectCommand } from './inspect';
import { playCommand } from './play';
import { remapCommand } from './remap';
import { reportCommand } from './report';
import { sliceCommand } from './slice';
import { stickingCommand } from './sticking';
import { templateCommand } from './template';

const program = new Command('ruddik')
  .description(
    'Drum patterns that groove: exports beats as MIDI, gives MIDI files a feel, measures and takes it.',
  )
  .version(version)
  .addHelpText(
    'after',
    `
Exit codes:
  0  it was done; of several files, those that could be, the others named on standard error
  1  what was given is at fault: a file that cannot be read or written, or none of several could be done
  2  wrong usage`,
  )
  .exitOverride()
  .configureOutput({
    // One sentence on standard error: the name of the kind of message is not part of it.
    outputError: (text, write) => write(`${plainly(text)}\n`),
  })
  .addCommand(exportCommand())
  .addCommand(playCommand())
  .addCommand(inspectCommand())
  .addCommand(remapCommand())
  .addCommand(importCommand())
  .addCommand(editCommand())
  .addCommand(groovesCommand())
  .addCommand(grooveCommand())
  .addCommand(feelCommand())
  .addCommand(makeCommand())
  .addCommand(echoCommand())
  .addCommand(detourCommand())
  .addCommand(sliceCommand())
  .addCommand(kitCommand())
  .addCommand(stickingCommand())
  .addCommand(templateCommand())
  .addCommand(reportCommand());

for (const command of program.commands) {
  command.exitOverride().copyInheritedSettings(program);
  for (const part of command.commands) part.exitOverride().copyInheritedSettings(program);
}

const run = async (): Promise<number> => {
  if (process.argv.length < 3) {
    program.outputHelp({ error: true });
    return 2;
  }
  try {
    await program.parseAsync();
    return 0;
  } catch (fault) {
    if (fault instanceof CommanderError) {
      if (fault.code === 'ruddik.usage') process.stderr.write(`${fault.message}\n`);
      return fault.exitCode === 0 ? 0 : 2;
    }
    if (fault instanceof UsageFault) {
      process.stderr.write(`${fault.message}\n`);
      return 2;
    }
    if (!(fault instanceof InputFault)) throw fault;
    process.stderr.write(`${fault.message}\n`);
    return 1;
  }
};

// Whoever reads may have seen enough.
process.stdout.on('error', (fault: NodeJS.ErrnoException) => {
  if (fault.code !== 'EPIPE') throw fault;
  process.exit(0);
});

void run().then((code) => {
  process.exitCode = code;
});
