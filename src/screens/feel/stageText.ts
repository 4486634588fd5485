import { figure, percent } from '../../ui/figures';
import type { Stage } from '../../../core/document/choices';
import type { Feel, LaneFeel } from '../../../core/document/feelSchema';
import type { Grid } from '../../../core/document/grid';
import type { Lane } from '../../../core/document/schema';
import { bandFigures, tightnessOf } from '../../../core/feel/bandFigures';
import { words } from '../../words/feel';
import { words as players } from '../../words/players';

/** What each stage of a feel does now, in one line. */

export const STAGE_NAMES: Record<Stage, string> = {
  quantize: words.quantize,
  base: words.baseFeel,
  stagger: words.stagger,
  ahead: words.aheadAndBehind,
  dynamics: words.dynamics,
  humanize: words.humanize,
};

const PLAIN: Record<string, string> = {
  '1/4': words.quarters,
  '1/8': words.eighths,
  '1/16': words.sixteenths,
  '1/32': words.thirtySeconds,
  '1/64': words.sixtyFourths,
};
const BENT = { T: words.tripletOf, D: words.dottedOf, Q: words.quintupletOf } as const;

/** @example gridText('1/8T') // "triplet eighths" */
export const gridText = (grid: Grid): string => {
  const [, base, bend] = /^(1\/\d+)([TDQ]?)$/.exec(grid)!;
  return `${bend ? BENT[bend as keyof typeof BENT] : ''}${PLAIN[base!]}`;
};

/** @example offsetText(-4.2) // "4.2 ms ahead" */
export const offsetText = (ms: number): string =>
  ms === 0 ? words.onTime : words.msMs(figure(Math.abs(ms)), ms);

/** What producers call an offset, after it. @example offsetName(8) // ", laid back" */
export const offsetName = (ms: number): string => {
  if (ms <= -3) return words.onTop;
  if (ms > 15) return words.wayBack;
  return ms >= 3 ? words.laidBack : '';
};

const quantizeText = ({ quantize }: Feel): string => {
  if (!quantize.strength || quantize.lanes?.length === 0) return words.hitsStayWhereTheyWere;
  const window = quantize.window < 1 ? words.withinWindow(percent(quantize.window)) : '';
  const lanes = quantize.lanes ? words.manyLane(quantize.lanes.length) : '';
  return words.strengthTowardsGridWindowLanes(
    percent(quantize.strength),
    gridText(quantize.grid),
    window,
    lanes,
  );
};

const ownLanes = (feel: Feel, lanes: Lane[], has: (lane: LaneFeel) => boolean): Lane[] =>
  lanes.filter(({ id }) => feel.lanes[id] && has(feel.lanes[id]));

const baseText = (feel: Feel, lanes: Lane[]): string => {
  const own = ownLanes(feel, lanes, (lane) => lane.base !== undefined).length;
  const besides = own ? words.ownLaneOwn(own) : '';
  const { template, timing, velocity } = feel.template;
  if (feel.base === 'template' && template)
    return words.templateTimingTimingVelocityVelocity(
      template.name,
      percent(timing),
      percent(velocity),
      besides,
    );
  if (feel.base === 'swing' && feel.swing.withTempo !== undefined)
    return words.swingWithTheTempoWithTempo(
      percent(feel.swing.withTempo),
      gridText(feel.swing.grid),
      besides,
    );
  if (feel.base === 'swing' && feel.swing.percent !== 50)
    return words.swingPercentOnGridBesides(figure(feel.swing.percent), gridText(feel.swing.grid), besides);
  return words.straightBesides(besides);
};

/** @example staggerText(feel, lanes) // "Each next of 4 20 ms later, all lanes" */
const staggerText = ({ stagger }: Feel, lanes: Lane[]): string => {
  if (!stagger) return words.noStrokeWaits;
  const unit = stagger.unit === 'ms' ? words.msUnit : words.percentUnit;
  const who = stagger.lanes
    ? words.manyLane(stagger.lanes.filter((id) => lanes.some((lane) => lane.id === id)).length)
    : words.onAllLanes;
  return 'list' in stagger.by
    ? words.staggerByList(stagger.by.list.length, unit, who)
    : words.staggerByCount(stagger.by.count, figure(stagger.by.each), unit, who);
};

const aheadText = (feel: Feel, lanes: Lane[]): string => {
  const moved = ownLanes(feel, lanes, ({ offset }) => !!offset);
  if (!moved.length) return words.everyLaneOnTime;
  const told = moved.slice(0, 2).map(({ id, name }) => `${name} ${offsetText(feel.lanes[id]!.offset!)}`);
  return told.join(', ') + (moved.length > 2 ? words.andManyMore(moved.length - 2) : '');
};

const dynamicsText = (feel: Feel, lanes: Lane[]): string => {
  const own = ownLanes(feel, lanes, ({ contrast = 1, level = 1 }) => contrast !== 1 || level !== 1).map(
    ({ name }) => name,
  );
  const kit = feel.level === 1 ? '' : words.theKitAtLevel(percent(feel.level));
  const some = own.length
    ? `${own.slice(0, 2).join(', ')}${own.length > 2 ? words.andManyMore(own.length - 2) : ''}`
    : '';
  if (!kit && !some) return words.velocitiesAsTheyAre;
  return [kit, some && `${kit ? words.ownFor : words.ownFor2} ${some}`].filter(Boolean).join(', ');
};

const humanizeText = ({ humanize }: Feel): string => {
  const { timing, velocity, drift, anew, band } = humanize;
  if (band?.on) {
    const how = players.how[tightnessOf(bandFigures(band.players, humanize.seed).spread)];
    return band.players.length > 1 ? players.stage(band.players.length, how) : players.stageOne(how);
  }
  if (!timing && !velocity) return words.theSameToTheSample;
  const spread = [
    timing && words.timingMs(figure(timing)),
    velocity && words.velocityOfVelocity(figure(velocity)),
  ];
  const drifting = timing ? words.driftOfItDrift(percent(drift)) : '';
  return `${spread.filter(Boolean).join(', ')}${drifting}${anew ? words.newOnEachPass : ''}`;
};

/** What a stage does now, or that it is passed by. */
export const stageText = (stage: Stage, feel: Feel, lanes: Lane[]): string => {
  if (feel.off.includes(stage)) return words.bypassed;
  switch (stage) {
    case 'quantize':
      return quantizeText(feel);
    case 'base':
      return baseText(feel, lanes);
    case 'stagger':
      return staggerText(feel, lanes);
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
  if (ms === 0) return words.aMachineNoSpreadAt;
  if (ms < 3) return words.closerThanAnyonePlaysBelow;
  if (ms <= 6) return words.aTightSessionPlayer3;
  if (ms <= 10) return words.aGoodPlayerAtEase;
  if (ms <= 20) return words.looseLateAtNight10;
  return words.sloppyToMostEarsAbove;
};
