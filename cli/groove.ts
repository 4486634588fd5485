import path from 'node:path';
import { Command, InvalidArgumentError } from 'commander';
import { gridTicks } from '../core/document/grid';
import { meterText } from '../core/document/meter';
import { count, writeBeat } from '../core/document/text';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from '../core/export/choice';
import { exported } from '../core/export/exporting';
import { createFinder } from '../core/groove/finder';
import { atSpeed, finerGrid, MOST_BARS } from '../core/groove/fit';
import { feelWords, type Groove } from '../core/groove/groove';
import { builtInGrooves } from '../core/groove/library';
import { InputFault } from './fault';
import { warn, writeOut } from './files';
import { beatOfGroove } from './grooveBeat';
import { aWhole, within } from './numbers';

/** How much as fast, and as slow, a groove may be taken. */
const SPEED = { least: 0.25, most: 4 } as const;

const aSpeed = (text: string): number => {
  const [, over, under = '1'] = /^(\d+(?:\.\d+)?)(?:\/(\d+(?:\.\d+)?))?$/.exec(text.trim()) ?? [];
  const speed = Number(over) / Number(under);
  if (over === undefined || !Number.isFinite(speed) || speed < SPEED.least || speed > SPEED.most)
    throw new InvalidArgumentError(
      `It is to be a speed from ${SPEED.least} to ${SPEED.most}, such as 2, 3/2 or 0.75.`,
    );
  return speed;
};

/** The library as the screen lists it, narrowed to what some words find, the likeliest first. */
const foundBy = (query: string): { grooves: Groove[]; near: boolean } => {
  const all = builtInGrooves();
  const finder = createFinder();
  for (const _ of finder.steps(all));
  const found = finder.find(all, query);
  if (!found) return { grooves: all, near: false };
  const order = [...all.keys()]
    .filter((at) => found.scores[at]! > 0)
    .sort((a, b) => found.scores[b]! - found.scores[a]! || a - b);
  return { grooves: order.map((at) => all[at]!), near: found.near };
};

const list = (words: string[], given: { json: boolean }): void => {
  const query = words.join(' ');
  const { grooves, near } = foundBy(query);
  if (given.json) {
    const rows = grooves.map(({ name, style, kind, meter, bpm, bars }) => ({
      name,
      style,
      kind,
      meter: meterText(meter),
      bpm,
      bars,
      // A family goes by what its main is called; what follows the comma tells its members apart.
      family: name.split(', ')[0]!,
    }));
    process.stdout.write(`${JSON.stringify(rows, null, 1)}\n`);
    return;
  }
  if (near) warn(`Nothing matches “${query}”. These come close.`);
  if (!grooves.length) throw new InputFault(`Nothing in the library matches “${query}”.`);
  for (const groove of grooves)
    process.stdout.write(
      `${groove.name}\t${groove.style}, ${groove.kind}, ${meterText(groove.meter)}, ${groove.bpm} BPM, ${count(groove.bars, 'bar')}, ${feelWords(groove.feel)}\n`,
    );
};

const named = (name: string): Groove => {
  const all = builtInGrooves();
  const plain = name.trim().toLowerCase();
  const found = all.find((one) => one.name.toLowerCase() === plain || one.id === name);
  if (found) return found;
  const { grooves } = foundBy(name);
  const some = grooves.slice(0, 3).map((one) => `“${one.name}”`);
  throw new InputFault(
    `The library has no groove “${name}”${some.length ? `; the nearest are ${some.join(', ')}` : ''}.`,
  );
};

const write = async (name: string, out: string, given: { speed?: number; bars?: number }): Promise<void> => {
  const groove = named(name);
  const speed = given.speed ?? 1;
  const own = Math.max(1, Math.ceil(groove.bars / speed - 1e-9));
  const bars = given.bars === undefined ? own : within('--bars', given.bars, 1, 16 * MOST_BARS);
  const fitted = atSpeed(groove, speed, bars);
  const { beat, told } = beatOfGroove(fitted);
  if (/\.json$/i.test(out)) await writeOut(out, writeBeat(beat));
  else if (/\.midi?$/i.test(out)) {
    const scope = beat.song.order.length ? 'song' : 'pattern';
    const made = exported(beat, { ...HOW_DEFAULTS, scope }, WHAT_DEFAULTS);
    if (!made.ok) throw new InputFault(made.error);
    await writeOut(out, made.value.files[0]!.data!);
  } else throw new InputFault(`“${out}” is to end in .mid or .ruddik.json: that says what is written.`);
  told.forEach(warn);
  const finer = finerGrid(groove, fitted);
  const hits = fitted.lanes.reduce((sum, { part }) => sum + part.hits.length, 0);
  const grids = [...new Set(fitted.lanes.map(({ part }) => part.grid))].sort(
    (a, b) => gridTicks(b) - gridTicks(a),
  );
  process.stdout.write(
    `${path.basename(out)}: “${groove.name}”, ${count(bars, 'bar')}, ${count(hits, 'hit')}, ${finer ? `hits on ${finer} where ${grids[0]} is too coarse` : `hits on ${grids.join(' and ')}`}.\n`,
  );
};

/** `ruddik grooves [WORDS…]`. */
export const groovesCommand = (): Command =>
  new Command('grooves')
    .description('Lists the groove library, or what some words find in it.')
    .argument('[words...]', 'such as: swung fill 90, 7/8, side stick, 120-130 bpm')
    .option('--json', 'print it as a JSON list', false)
    .action(list);

/** `ruddik groove NAME OUT`. */
export const grooveCommand = (): Command =>
  new Command('groove')
    .description('Writes a groove of the library as a MIDI file or a beat, at any speed.')
    .argument('<name>', 'its name, as “ruddik grooves” lists it')
    .argument('<out>', 'the file to write: .mid or .ruddik.json')
    .option('--speed <r>', 'how many times as fast: 2, 3/2, 0.75 (default: 1)', aSpeed)
    .option('--bars <n>', 'how many bars (default: as many as it fills)', aWhole)
    .action(write);
