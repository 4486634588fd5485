import { Command, CommanderError } from 'commander';
import { version } from '../package.json';
import { InputFault } from './fault';
import { exportCommand } from './export';

const program = new Command('ruddik')
  .description('Drum patterns that groove: exports a beat as MIDI, note for note as it is heard.')
  .version(version)
  .exitOverride()
  .configureOutput({
    // One sentence on standard error: the name of the kind of message is not part of it.
    outputError: (text, write) =>
      write(
        `${
          text
            .replace(/^error: /, '')
            .trim()
            .split('\n')[0]
        }\n`,
      ),
  })
  .addCommand(exportCommand());

for (const command of program.commands) command.exitOverride().copyInheritedSettings(program);

const run = async (): Promise<number> => {
  if (process.argv.length < 3) {
    program.outputHelp({ error: true });
    return 2;
  }
  try {
    await program.parseAsync();
    return 0;
  } catch (fault) {
    if (fault instanceof CommanderError) return fault.exitCode === 0 ? 0 : 2;
    if (!(fault instanceof InputFault)) throw fault;
    process.stderr.write(`${fault.message}\n`);
    return 1;
  }
};

void run().then((code) => {
  process.exitCode = code;
});
