import path from 'node:path';
import { Command } from 'commander';
import { strToU8, zipSync } from 'fflate';
import { RANGES } from '../core/document/ranges';
import { SOUND } from '../core/document/choices';
import { count } from '../core/document/text';
import { madeFile } from '../core/midi/write/madeFile';
import { bpmOf, loopTempos } from '../core/samples/loopTempo';
import { evenMarks, marksAt } from '../core/samples/loops';
import { onsetsOf, SENSITIVITY } from '../core/samples/onsets';
import { sliceFiles } from '../core/files/sliceFiles';
import { sliceName } from '../core/samples/sliceName';
import { sampleSecondsOf, type Audio } from '../core/samples/sample';
import { TEMPO } from '../core/units';
import { InputFault, UsageFault } from './fault';
import { writeOut } from './files';
import { aWhole, within } from './numbers';
import { audioOf } from './sounds';

interface Given {
  bars?: number;
  sensitivity?: number;
  even?: number;
  firstNote: number;
}

/** What is found in a loop. */
interface Cut {
  audio: Audio;
  seconds: number;
  bpm: number;
  bars: number;
  onsets: number[];
  marks: number[];
}

const cutOf = (audio: Audio, { bars, sensitivity, even }: Given, file: string): Cut => {
  const seconds = sampleSecondsOf(audio);
  const found = onsetsOf(audio, sensitivity ?? SENSITIVITY);
  const likely = bars ? { bars, bpm: bpmOf(seconds, bars) } : loopTempos(found, seconds, 4, { file })[0];
  if (!likely)
    throw new InputFault(
      `“${file}” lasts ${seconds.toFixed(2)} s: no whole number of bars makes a tempo of that. Say how many bars it has, by --bars.`,
    );
  const marks = even ? evenMarks(seconds, even) : marksAt(found, seconds);
  return { audio, seconds, ...likely, onsets: even ? marks : found.map(({ at }) => at), marks };
};

const jsonOf = ({ seconds, bpm, bars, onsets }: Cut): string =>
  `${JSON.stringify({ seconds, bpm, bars, onsets }, null, 1)}\n`;

const LOUD = 100;

/** The notes that play the slices as they were, at the loop's own tempo. */
const midiOf = ({ seconds, bpm, bars, marks }: Cut, first: number): Uint8Array => {
  const ticks = (at: number) => (at / seconds) * bars * 3840;
  const notes = marks.map((mark, at) => ({
    tick: Math.round(ticks(mark)),
    length: Math.max(1, Math.round(ticks(marks[at + 1] ?? seconds)) - Math.round(ticks(mark))),
    velocity: LOUD,
    note: first + at,
  }));
  return madeFile('Slices', notes, bars * 3840, { beats: 4, unit: 4 }, bpm);
};

const zipOf = (cut: Cut, first: number): Uint8Array => {
  const slices = sliceFiles(cut.audio, { marks: cut.marks, end: cut.seconds }).map(
    (bytes, at) => [sliceName(at), bytes] as const,
  );
  return zipSync(
    {
      ...Object.fromEntries(slices),
      'slices.mid': midiOf(cut, first),
      'slices.json': strToU8(jsonOf(cut)),
    },
    { level: 0 },
  );
};

const WRITERS: Record<string, (cut: Cut, first: number) => Uint8Array | string> = {
  json: jsonOf,
  mid: midiOf,
  zip: zipOf,
};

const run = async (input: string, output: string, given: Given): Promise<void> => {
  const write = WRITERS[path.extname(output).slice(1).toLowerCase()];
  if (!write) throw new UsageFault(`“${path.basename(output)}” is to end in .json, .mid or .zip.`);
  if (given.even !== undefined && given.sensitivity !== undefined)
    throw new UsageFault('--even divides the loop whatever is in it: --sensitivity does not go with it.');
  const held: Given = {
    firstNote: within('--first-note', given.firstNote, 0, 127),
    ...(given.bars !== undefined && {
      bars: within('--bars', given.bars, RANGES.loopBars.least, RANGES.loopBars.most),
    }),
    ...(given.sensitivity !== undefined && {
      sensitivity: within('--sensitivity', given.sensitivity, 0, 100),
    }),
    ...(given.even !== undefined && { even: within('--even', given.even, 1, SOUND.marks) }),
  };
  const cut = cutOf(await audioOf(input), held, path.basename(input));
  if (held.firstNote + cut.marks.length > 128)
    throw new InputFault(
      `${count(cut.marks.length, 'slice')} from note ${held.firstNote} on pass note 127: take a lower --first-note.`,
    );
  if (cut.bpm < TEMPO.least || cut.bpm > TEMPO.most)
    throw new InputFault(
      `${count(cut.bars, 'bar')} in ${cut.seconds.toFixed(2)} s would be ${cut.bpm.toFixed(1)} BPM, which is not from ${TEMPO.least} to ${TEMPO.most}.`,
    );
  await writeOut(output, write(cut, held.firstNote));
  process.stdout.write(
    `${path.basename(output)}: ${count(cut.marks.length, 'slice')} in ${count(cut.bars, 'bar')} at ${cut.bpm.toFixed(2)} BPM.\n`,
  );
};

/** `ruddik slice LOOP.wav OUT`. */
export const sliceCommand = (): Command =>
  new Command('slice')
    .description(
      'Cuts a loop of audio at its hits: as JSON, as MIDI that plays the slices, or as the slices themselves.',
    )
    .argument('<loop>', 'a WAV, AIFF, FLAC, MP3 or OGG file')
    .argument('<out>', 'a .json, .mid or .zip file')
    .option('--bars <n>', 'how many bars it has (default: the likeliest)', aWhole)
    .option(
      '--sensitivity <n>',
      `0 finds the strongest hits only, 100 the faintest (default: ${SENSITIVITY})`,
      aWhole,
    )
    .option('--even <n>', 'cut into so many even parts instead', aWhole)
    .option('--first-note <n>', 'the note of the first slice', aWhole, 36)
    .action(run);
