import { deviation, mean } from '../../../core/analysis/statistics';
import { Table } from '../../ui/Table';
import { Heading, Para } from '../../ui/Words';
import { useMemo, useState } from 'react';
import { dyeOf, Point, shapeOf } from './lanePoint';
import type { Beat, Lane, Pattern } from '../../../core/document/schema';
import { aheadText, tightness } from '../../../core/analysis/reportText';
import { playedLanes, timingDots, type TimingDot } from '../../../core/analysis/patternPerformance';
import { Later } from '../../ui/Later';
import { words } from '../../words/feel';

const timingChart = async () => (await import('./charts')).TimingChart;
const velocityCharts = async () => (await import('./charts')).VelocityCharts;

/** So many passes are drawn: more would only thicken the cloud. */
const PASSES = 8;

/** @example signed(3.14) // "+3.1" */
const signed = (ms: number): string => `${ms > 0.05 ? '+' : ''}${ms.toFixed(1).replace('-0.0', '0.0')}`;

const summaryOf = (lanes: Lane[], lane: Lane, dots: TimingDot[]) => {
  const spread = deviation(dots.map((dot) => dot.left));
  return {
    key: lane.id,
    name: lane.name,
    mark: <Point shape={shapeOf(lanes, lane.id)} dye={dyeOf(lane)} size={10} pale={false} />,
    cells: [
      signed(mean(dots.map((dot) => dot.before))),
      signed(mean(dots.map((dot) => dot.after))),
      spread.toFixed(1),
      tightness(spread),
    ],
  };
};

const inWords = (dots: TimingDot[]): string => {
  if (!dots.length) return words.nothingSoundsInThisPattern;
  const [before, after] = [dots.map((dot) => dot.before), dots.map((dot) => dot.after)];
  const moved = mean(after.map((ms, at) => Math.abs(ms - before[at]!)));
  if (moved < 0.05) return words.theFeelMovesNothingEvery;
  return words.theFeelMovesHitsBy(
    moved.toFixed(1),
    aheadText(mean(before)),
    aheadText(mean(after)),
    deviation(dots.map((dot) => dot.left)).toFixed(1),
  );
};

/** Where each hit stands before the feel and after it, and how hard. */
export const ChartsPage = ({ beat, pattern }: { beat: Beat; pattern: Pattern }) => {
  const dots = useMemo(() => timingDots(beat, pattern, PASSES), [beat, pattern]);
  const lanes = playedLanes(beat, pattern);
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <>
      <Heading level={2}>{words.timing}</Heading>
      <Para>{inWords(dots)}</Para>
      <Later
        of={timingChart}
        what={words.theChartOfTiming}
        waiting={<Para quiet>{words.drawing}</Para>}
        given={{ pattern, lanes: beat.lanes, dots, chosen }}
      />
      <Para quiet>{words.paleBeforeTheFeelFull(PASSES)}</Para>
      <Table
        label={words.timingLaneByLane}
        columns={[words.lane, words.before, words.after, words.spread, { heard: words.inAWord }]}
        figures={[0, 1, 2]}
        chosen={chosen}
        onChoose={(id) => setChosen(id === chosen ? null : id)}
        rows={lanes.map((lane) =>
          summaryOf(
            beat.lanes,
            lane,
            dots.filter(({ laneId }) => laneId === lane.id),
          ),
        )}
      />
      <Para quiet>{words.inMsIsBehindThe}</Para>
      <Heading level={2}>{words.velocity}</Heading>
      <Later
        of={velocityCharts}
        what={words.theChartsOfVelocity}
        waiting={<Para quiet>{words.drawing}</Para>}
        given={{ pattern, dots }}
      />
    </>
  );
};
