import { playableText } from '../hands/playableText';
import { swingRatio } from '../feel/swing';
import type { FeelReport, LaneReport, MeasuredSwing, SharedTiming, SwingReading } from './measure';

/** A feel report in words: for the screen and for the command line. */

/** A figure with one place. @example oneFigure(9.25) // "9.3" */
export const oneFigure = (value: number): string =>
  (Math.round(value * 10) / 10).toFixed(1).replace(/^-0\.0$/, '0.0');

/** @example aheadText(9.2) // "9.2 ms behind" */
export const aheadText = (ms: number): string =>
  Math.abs(ms) < 0.05 ? 'on the grid' : `${oneFigure(Math.abs(ms))} ms ${ms < 0 ? 'ahead' : 'behind'}`;

const notesOf = ({ grid }: SwingReading): string => (grid === '1/16' ? 'sixteenths' : 'eighths');

const readingText = (reading: SwingReading): string => {
  const good = oneFigure(Math.max(0.1, reading.within));
  if (reading.straight) return `Straight ${notesOf(reading)}`;
  const figure = `${oneFigure(reading.percent)} % on ${notesOf(reading)}`;
  if (!reading.clear) return `The swing is not clear: ${figure}, give or take ${good}`;
  const ratio = reading.percent < 100 ? ` (${swingRatio(reading.percent).toFixed(2)} to 1)` : '';
  return `Swing ${figure}${ratio}, good to ${good}`;
};

/**
 * A measured swing in words, with its doubt and the other way to read it; null reads as none that can be measured.
 *
 * @example
 * swingText(null)
 * // "No swing can be measured: too few notes on the second of a pair, or too much between."
 */
export const swingText = (swing: MeasuredSwing | null): string => {
  if (!swing) return 'No swing can be measured: too few notes on the second of a pair, or too much between.';
  if (!swing.other) return `${readingText(swing)}.`;
  const share = Math.round(100 * swing.other.likelihood);
  const other = swing.other.straight
    ? `straight ${notesOf(swing.other)}`
    : `${oneFigure(swing.other.percent)} % on ${notesOf(swing.other)}`;
  return `${readingText(swing)}; ${share} % likely it is ${other}.`;
};

/** How tight a spread of timing is, in the words that people use. @example tightness(4) // "tight" */
export const tightness = (ms: number): string =>
  ms < 1 ? 'machine-tight' : ms < 6 ? 'tight' : ms < 12 ? 'relaxed' : ms < 20 ? 'loose' : 'sloppy';

const hundredths = (value: number): string =>
  value
    .toFixed(2)
    .replace(/^-0\.00$/, '0.00')
    .replace('-', '−');

/**
 * How closely lanes share one timing, in words; null reads as no shared timing.
 *
 * @example
 * togetherText(null)
 * // "No two lanes play together often enough, or move enough, to tell whether they share their timing."
 */
export const togetherText = (together: SharedTiming | null): string => {
  if (together === null)
    return 'No two lanes play together often enough, or move enough, to tell whether they share their timing.';
  const { correlation, least, most } = together;
  const figure = `correlation ${hundredths(correlation)}, between ${hundredths(least)} and ${hundredths(most)}`;
  return least <= 0 && most >= 0 ? `No shared timing found (${figure}).` : `Lanes share timing: ${figure}.`;
};

const laneLine = (lane: LaneReport, name: (lane: string) => string): string =>
  `${name(lane.lane)}: ${lane.notes} notes, ${aheadText(lane.meanSwung)}, spread ${oneFigure(lane.spreadSwung)} ms, velocity ${oneFigure(lane.velocity)} ± ${oneFigure(lane.velocitySpread)}`;

const placeText = (ms: number): string =>
  Math.abs(ms) < 0.05
    ? 'where the swing puts the grid'
    : `${aheadText(ms)}${ms < 0 ? ' of' : ''} where the swing puts the grid`;

/** So near the grid that no one put it elsewhere. */
const ON_GRID = 0.5;

const tightText = ({ mean, spread }: FeelReport): string =>
  Math.abs(mean) < ON_GRID && spread < ON_GRID
    ? 'Everything is on the grid.'
    : `All in all ${placeText(mean)}, spread ${oneFigure(spread)} ms: ${tightness(spread)}.`;

/** The sentences about a performance as a whole. */
export const summaryLines = (report: FeelReport): string[] => [
  `${report.notes} ${report.notes === 1 ? 'note' : 'notes'} in ${report.bars} ${report.bars === 1 ? 'bar' : 'bars'}, measured against ${report.grid} at ${oneFigure(report.bpm)} BPM.`,
  swingText(report.swing),
  tightText(report),
  report.programmed
    ? 'It is programmed: its lanes have no timing of their own to share.'
    : togetherText(report.together),
  `Velocity ${oneFigure(report.velocity)} ± ${oneFigure(report.velocitySpread)}; the strongest step of the bar has ${report.accent.toFixed(2)} times the mean.`,
  ...(report.hands ? [playableText(report.hands, report.hands.strokes)] : []),
  ...(report.players ?? []),
];

/** A whole report as lines of text. @param name what a lane is called */
export const reportLines = (report: FeelReport, name: (lane: string) => string): string[] => [
  ...summaryLines(report),
  ...report.lanes.map((lane) => laneLine(lane, name)),
];

/** One figure of two reports beside one another. */
export interface ReportsCompared {
  what: string;
  /** Null where one of them has none. */
  from: number | null;
  to: number | null;
  unit: string;
}

const percentOf = (shared: SharedTiming | null): number | null =>
  shared === null ? null : shared.correlation * 100;

/** The difference in how two reports were measured, a sentence; null where they were measured alike. */
export const unlikeTerms = (a: FeelReport, b: FeelReport): string | null => {
  const parts = [
    a.grid !== b.grid && `against ${a.grid} and ${b.grid}`,
    Math.abs(a.bpm - b.bpm) > 0.05 && `at ${oneFigure(a.bpm)} and ${oneFigure(b.bpm)} BPM`,
  ].filter(Boolean);
  return parts.length
    ? `They were measured ${parts.join(', and ')}: set figures in ms side by side with care.`
    : null;
};

/**
 * Two reports figure by figure, the lanes that both have last.
 *
 * @param key what lanes are matched by, where a beat's lanes are set against the notes of a file
 */
export const compareReports = (
  a: FeelReport,
  b: FeelReport,
  name: (lane: string) => string,
  key: (lane: string) => string = (lane) => lane,
): ReportsCompared[] => {
  const others = new Map(b.lanes.map((lane) => [key(lane.lane), lane]));
  return [
    { what: 'Swing', from: a.swing?.percent ?? null, to: b.swing?.percent ?? null, unit: ' %' },
    { what: 'Spread', from: a.spread, to: b.spread, unit: ' ms' },
    { what: 'Shared timing', from: percentOf(a.together), to: percentOf(b.together), unit: ' %' },
    { what: 'Velocity spread', from: a.velocitySpread, to: b.velocitySpread, unit: '' },
    { what: 'Strongest step', from: a.accent, to: b.accent, unit: ' ×' },
    ...a.lanes.flatMap((lane) => {
      const other = others.get(key(lane.lane));
      return other ? [{ what: name(lane.lane), from: lane.meanSwung, to: other.meanSwung, unit: ' ms' }] : [];
    }),
  ];
};

/** @example differenceText({ what: 'Spread', from: 5, to: 7.5, unit: ' ms' }) // "+2.5" */
export const differenceText = ({ from, to }: ReportsCompared): string =>
  from === null || to === null ? '' : `${to >= from ? '+' : '−'}${oneFigure(Math.abs(to - from))}`;

/** The differences between two reports, a line each. */
export const compareLines = (a: FeelReport, b: FeelReport, name: (lane: string) => string): string[] => [
  ...[unlikeTerms(a, b)].filter((line) => line !== null),
  ...compareReports(a, b, name).map((row) => {
    if (row.from === null || row.to === null) return `${row.what} is not measured in both.`;
    return `${row.what} ${oneFigure(row.from)} against ${oneFigure(row.to)}${row.unit} (${differenceText(row)})`;
  }),
];

/** The sentence where two have no lane in common: the lanes of the other one. */
export const nothingShared = (
  a: FeelReport,
  b: FeelReport,
  name: (lane: string) => string,
  key: (lane: string) => string,
): string | null => {
  const keys = new Set(a.lanes.map(({ lane }) => key(lane)));
  if (b.lanes.some(({ lane }) => keys.has(key(lane)))) return null;
  return `No note of the one is on a lane of the other, so lanes cannot be compared. There is: ${b.lanes.map(({ lane }) => name(lane)).join(', ')}.`;
};
