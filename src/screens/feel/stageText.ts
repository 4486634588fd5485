import { figure, percent } from '../../ui/figures';
import type { Stage } from '../../../core/beat/choices';
import type { Feel, LaneFeel } from '../../../core/beat/feelSchema';
import type { Grid } from '../../../core/beat/grid';
import type { Lane } from '../../../core/beat/schema';

/** What each stage of a feel does now, in one line. */

export const STAGE_NAMES: Record<Stage, string> = {
  quantize: 'Quantize',
  base: 'Base feel',
  ahead: 'Ahead and behind',
  dynamics: 'Dynamics',
  humanize: 'Humanize',
};

const PLAIN: Record<string, string> = {
  '1/4': 'quarters',
  '1/8': 'eighths',
  '1/16': 'sixteenths',
  '1/32': 'thirty-seconds',
  '1/64': 'sixty-fourths',
};
const BENT = { T: 'triplet ', D: 'dotted ', Q: 'quintuplet ' } as const;

/** @example gridText('1/8T') // "triplet eighths" */
export const gridText = (grid: Grid): string => {
  const [, base, bend] = /^(1\/\d+)([TDQ]?)$/.exec(grid)!;
  return `${bend ? BENT[bend as keyof typeof BENT] : ''}${PLAIN[base!]}`;
};

/** @example offsetText(-4.2) // "4.2 ms ahead" */
export const offsetText = (ms: number): string =>
  ms === 0 ? 'on time' : `${figure(Math.abs(ms))} ms ${ms < 0 ? 'ahead' : 'behind'}`;

const quantizeText = ({ quantize }: Feel): string => {
  if (!quantize.strength || quantize.lanes?.length === 0) return 'Hits stay where they were played';
  const window = quantize.window < 1 ? `, within ${percent(quantize.window)}` : '';
  const lanes = quantize.lanes
    ? `, ${quantize.lanes.length} lane${quantize.lanes.length === 1 ? '' : 's'}`
    : '';
  return `${percent(quantize.strength)} towards ${gridText(quantize.grid)}${window}${lanes}`;
};

const ownLanes = (feel: Feel, lanes: Lane[], has: (lane: LaneFeel) => boolean): Lane[] =>
  lanes.filter(({ id }) => feel.lanes[id] && has(feel.lanes[id]));

const baseText = (feel: Feel, lanes: Lane[]): string => {
  const own = ownLanes(feel, lanes, (lane) => lane.base !== undefined).length;
  const besides = own ? `; ${own} lane${own === 1 ? ' has its' : 's have their'} own` : '';
  const { template, timing, velocity } = feel.template;
  if (feel.base === 'template' && template)
    return `${template.name}, timing ${percent(timing)}, velocity ${percent(velocity)}${besides}`;
  if (feel.base === 'swing' && feel.swing.withTempo !== undefined)
    return `Swing with the tempo, ${percent(feel.swing.withTempo)}, on ${gridText(feel.swing.grid)}${besides}`;
  if (feel.base === 'swing' && feel.swing.percent !== 50)
    return `Swing ${figure(feel.swing.percent)} % on ${gridText(feel.swing.grid)}${besides}`;
  return `Straight${besides}`;
};

const aheadText = (feel: Feel, lanes: Lane[]): string => {
  const moved = ownLanes(feel, lanes, ({ offset }) => !!offset);
  if (!moved.length) return 'Every lane on time';
  const told = moved.slice(0, 2).map(({ id, name }) => `${name} ${offsetText(feel.lanes[id]!.offset!)}`);
  return told.join(', ') + (moved.length > 2 ? ` and ${moved.length - 2} more` : '');
};

const dynamicsText = (feel: Feel, lanes: Lane[]): string => {
  const own = ownLanes(feel, lanes, ({ contrast = 1, level = 1 }) => contrast !== 1 || level !== 1).map(
    ({ name }) => name,
  );
  const kit = feel.level === 1 ? '' : `The kit at ${percent(feel.level)}`;
  const some = own.length
    ? `${own.slice(0, 2).join(', ')}${own.length > 2 ? ` and ${own.length - 2} more` : ''}`
    : '';
  if (!kit && !some) return 'Velocities as they are';
  return [kit, some && `${kit ? 'own for' : 'Own for'} ${some}`].filter(Boolean).join(', ');
};

const humanizeText = ({ humanize }: Feel): string => {
  const { timing, velocity, drift, anew } = humanize;
  if (!timing && !velocity) return 'The same to the sample every time';
  const spread = [timing && `± ${figure(timing)} ms`, velocity && `± ${figure(velocity)} of velocity`];
  const drifting = timing ? `, ${percent(drift)} of it drift` : '';
  return `${spread.filter(Boolean).join(', ')}${drifting}${anew ? ', new on each pass' : ''}`;
};

/** What a stage does now, or that it is passed by. */
export const stageText = (stage: Stage, feel: Feel, lanes: Lane[]): string => {
  if (feel.off.includes(stage)) return 'Passed by';
  switch (stage) {
    case 'quantize':
      return quantizeText(feel);
    case 'base':
      return baseText(feel, lanes);
    case 'ahead':
      return aheadText(feel, lanes);
    case 'dynamics':
      return dynamicsText(feel, lanes);
    case 'humanize':
      return humanizeText(feel);
  }
};

/** Where a spread of timing lies, in words (feel of players: about 3 to 10 ms; above some 20 it reads as sloppy). */
export const spreadText = (ms: number): string => {
  if (ms === 0) return 'A machine: no spread at all.';
  if (ms < 3) return 'Closer than anyone plays: below 3 ms.';
  if (ms <= 6) return 'A tight session player: 3 to 6 ms.';
  if (ms <= 10) return 'A good player at ease: 6 to 10 ms.';
  if (ms <= 20) return 'Loose, late at night: 10 to 20 ms.';
  return 'Sloppy to most ears: above 20 ms.';
};
