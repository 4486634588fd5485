import path from 'node:path';
import { Command } from 'commander';
import { newLane } from '../core/document/defaults';
import { DRUM_IDS, instrument, type InstrumentId } from '../core/document/instruments';
import { count } from '../core/document/text';
import { kitNamed } from '../core/synthesis/kitList';
import { samplesOf, type KitFile } from '../core/files/kitFile';
import { strikeOf } from '../core/mix/strike';
import { wavOf } from '../core/files/wav';
import { UsageFault } from './fault';
import { makeFolder, writeOut } from './files';
import { kitFrom, soundsWith } from './sounds';

interface Given {
  render?: string;
  all: boolean;
}

const RATE = 48000;
const HARD = 110;

const render = async ({ kit, own, samples }: KitFile, folder: string, all: boolean): Promise<number> => {
  const sounds = soundsWith(RATE, samples);
  const mine = Object.keys(own.voices) as InstrumentId[];
  const wanted = all || !mine.length ? DRUM_IDS : mine;
  await makeFolder(folder);
  for (const id of wanted) {
    const lane = newLane(id, id);
    const { channels } = strikeOf(lane, await sounds.soundsFor({ kit, own }, lane), HARD, RATE);
    await writeOut(path.join(folder, `${id}.wav`), wavOf(channels, RATE, 24));
  }
  return wanted.length;
};

const about = ({ kit, own, samples, missing }: KitFile): string => {
  const drums = Object.keys(own.voices).map((id) => instrument(id as InstrumentId).name);
  return [
    `“${own.name}” over ${kitNamed(kit)?.name ?? kit}: ${count(drums.length, 'drum')} of its own${drums.length ? ` (${drums.join(', ')})` : ''}`,
    `${count(samplesOf(own).length, 'sample')}, ${samples.size} there${missing.length ? `, missing: ${missing.join(', ')}` : ''}.`,
  ].join('; ');
};

const run = async (file: string, given: Given): Promise<void> => {
  if (given.all && given.render === undefined)
    throw new UsageFault('--all says what is rendered: name --render DIR too.');
  const shipped = kitNamed(file);
  const kit: KitFile = shipped
    ? { kit: shipped.id, own: { name: shipped.name, voices: {} }, samples: new Map(), missing: [] }
    : await kitFrom(file);
  if (given.render === undefined) {
    process.stdout.write(`${about(kit)}\n`);
    return;
  }
  const files = await render(kit, given.render, given.all);
  process.stdout.write(`${path.basename(given.render)}: ${count(files, 'file')}.\n`);
};

/** `ruddik kit FILE.zip --render DIR`. */
export const kitCommand = (): Command =>
  new Command('kit')
    .description('Tells what is in a kit, or writes one strike of each of its drums as a WAV.')
    .argument('<kit>', 'a kit file, or the id of a kit that ships, such as quay')
    .option('--render <dir>', 'write a WAV of each drum into a folder')
    .option('--all', 'every drum of General MIDI, not only those that the kit has of its own', false)
    .action(run);
