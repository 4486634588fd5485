import { Command } from 'commander';
import type { Grid } from '../core/document/grid';
import type { DrumGroup } from '../core/document/choices';
import { GROUP_NAMES } from '../core/document/drumGroups';
import { gridTicks } from '../core/document/grid';
import { beatTicks } from '../core/document/meter';
import { count } from '../core/document/text';
import { reportFeel, type FeelReport } from '../core/analysis/measure';
import { shapePerformance } from '../core/analysis/patternPerformance';
import { playedFeel } from '../core/analysis/playedFeel';
import { playersLines } from '../core/analysis/playedText';
import {
  aheadText,
  compareLines,
  oneFigure,
  reportLines,
  summaryLines,
  tightness,
} from '../core/analysis/reportText';
import { bandFigures, followsMost } from '../core/feel/bandFigures';
import { readPlayers } from '../core/feel/playersFile';
import { readTemplate } from '../core/feel/templateFile';
import { sticking, unplayable } from '../core/hands/sticking';
import { drumStrokes } from '../core/midi/read/drumStrokes';
import { ticksPerMs } from '../core/units';
import { drumGroupOfFile, performanceOf } from '../core/midi/read/midiFile';
import { instrumentOf } from '../core/document/instruments';
import { InputFault } from './fault';
import { midiFileOf, fileTextOf } from './files';

const laneName = (lane: string): string => {
  const [channel, note] = lane.split('/');
  if (note === undefined) return 'The template';
  const known = channel === '10' ? instrumentOf(Number(note)) : null;
  return known ? `${known} (${note})` : `note ${note} on channel ${channel}`;
};

const isTriplet = (grid: Grid): boolean => grid.endsWith('T');

/** What a file of a template or of players says, in words. */
const fileLines = async (file: string): Promise<string[]> => {
  const text = await fileTextOf(file);
  const players = readPlayers(text);
  if (players.ok) {
    const { players: all } = players.value.band;
    const { spread, drift } = bandFigures(all, players.value.seed ?? 1);
    const name = new Map(all.map((one) => [one.id, one.name]));
    return [
      `${count(all.length, 'player')}: ${oneFigure(spread)} ms apart (${tightness(spread)}), ${oneFigure(drift)} ms off the click after 16 bars.`,
      ...all.map((player) => {
        const most = followsMost(player);
        const whom = most
          ? `${most.id ? (name.get(most.id) ?? most.id) : 'the click'} by ${Math.round(100 * most.share)} %`
          : 'nobody';
        return `${player.name} follows ${whom}; clock ${player.clock} ms, touch ${player.touch} ms.`;
      }),
    ];
  }
  const template = readTemplate(text);
  // A players file that has a fault is one all the same.
  if (!template.ok && /"kind"\s*:\s*"ruddik\.players"/.test(text))
    throw new InputFault(`“${file}” could not be read. ${players.error}`);
  if (!template.ok)
    throw new InputFault(`“${file}” is no MIDI file, template or players file. ${template.error}`);
  const shape = template.value;
  return [
    `Template “${shape.name}”: ${shape.slots.length} slots of ${shape.grid}${shape.about ? `. ${shape.about}` : '.'}`,
    ...summaryLines(reportFeel(shapePerformance(shape))).slice(1, 3),
    ...Object.entries(shape.groups ?? {}).map(([group, slots]) => {
      const late = slots.flatMap((slot) => (slot ? [slot.offset] : []));
      const ms =
        (late.reduce((sum, one) => sum + one, 0) / Math.max(1, late.length)) *
        (gridTicks(shape.grid) / ticksPerMs(120));
      return `${GROUP_NAMES[group as DrumGroup]}: a curve of its own, ${aheadText(ms)} on the whole at 120 BPM.`;
    }),
  ];
};

/** A template is measured as one that plays it would be, at the tempo of what it is set against. */
const ofTemplate = async (file: string, like?: FeelReport): Promise<FeelReport> => {
  const template = readTemplate(await fileTextOf(file));
  if (!template.ok) throw new InputFault(`“${file}” could not be read as a template. ${template.error}`);
  const performance = shapePerformance(template.value);
  return like
    ? reportFeel({ ...performance, ticksPerMs: () => ticksPerMs(like.bpm) })
    : reportFeel(performance);
};

/** @param like the report that it is set against: both are measured on one grid where that can be */
const read = async (file: string, like?: FeelReport): Promise<FeelReport> => {
  if (file.endsWith('.json')) return ofTemplate(file, like);
  const midi = await midiFileOf(file);
  if (!midi.notes.length) throw new InputFault(`“${file}” has no notes, so there is no feel to measure.`);
  const performance = performanceOf(midi);
  const own = reportFeel(performance);
  const { strokes } = drumStrokes(midi);
  const counts = unplayable(sticking(strokes, { beat: beatTicks(midi.meter) }));
  const played = playedFeel('', performance, drumGroupOfFile);
  const alike = like && like.grid !== own.grid && isTriplet(like.grid) === isTriplet(own.grid);
  return {
    ...(alike ? reportFeel(performance, { grid: like.grid, bpm: own.bpm }) : own),
    ...(strokes.length && { hands: { ...counts, strokes: strokes.length } }),
    ...(played?.players && { players: playersLines(played) }),
  };
};

const run = async (file: string, other: string | undefined, given: { json: boolean }): Promise<void> => {
  if (file.endsWith('.json') && other === undefined && !given.json) {
    process.stdout.write(`${(await fileLines(file)).join('\n')}\n`);
    return;
  }
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
    .description(
      'Measures how a MIDI file is played: swing, ahead or behind, tightness, accents, hands, players; or tells what a template or players file says.',
    )
    .argument('<file>', 'the MIDI file, or a .json file of a template or of players')
    .argument('[other]', 'another one, or a template, to set it against')
    .option('--json', 'print the figures as JSON', false)
    .action(run);
