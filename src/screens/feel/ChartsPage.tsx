import { Table } from '../../ui/Table';
import { Heading, Para } from '../../ui/Words';
import { useMemo, useState } from 'react';
import { dyeOf, Point, shapeOf } from './lanePoint';
import type { Beat, Lane, Pattern } from '../../../core/beat/schema';
import { deviation, mean } from '../../../core/feel/performance';
import { aheadText, tightness } from '../../../core/feel/reportText';
import { playedLanes, timingDots, type TimingDot } from '../../../core/play/performance';
import { Later } from '../../ui/Later';

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
  if (!dots.length) return 'Nothing sounds in this pattern yet.';
  const [before, after] = [dots.map((dot) => dot.before), dots.map((dot) => dot.after)];
  const moved = mean(after.map((ms, at) => Math.abs(ms - before[at]!)));
  if (moved < 0.05) return 'The feel moves nothing: every hit sounds where it was put.';
  return `The feel moves hits by ${moved.toFixed(1)} ms on the mean: ${aheadText(mean(before))} before, ${aheadText(mean(after))} after, and ${deviation(dots.map((dot) => dot.left)).toFixed(1)} ms of spread beside the base feel.`;
};

/** Where each hit stands before the feel and after it, and how hard. */
export const ChartsPage = ({ beat, pattern }: { beat: Beat; pattern: Pattern }) => {
  const dots = useMemo(() => timingDots(beat, pattern, PASSES), [beat, pattern]);
  const lanes = playedLanes(beat, pattern);
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <>
      <Heading level={2}>Timing</Heading>
      <Para>{inWords(dots)}</Para>
      <Later
        of={timingChart}
        what="The chart of timing"
        waiting={<Para quiet>Drawing…</Para>}
        given={{ pattern, lanes: beat.lanes, dots, chosen }}
      />
      <Para
        quiet
      >{`Pale before the feel, full after it, over ${PASSES} passes. Press a lane below to see it alone.`}</Para>
      <Table
        label="Timing lane by lane"
        columns={['Lane', 'Before', 'After', 'Spread', { heard: 'In a word' }]}
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
      <Para quiet>In ms: + is behind the grid, − ahead. Spread is what is left beside the base feel.</Para>
      <Heading level={2}>Velocity</Heading>
      <Later
        of={velocityCharts}
        what="The charts of velocity"
        waiting={<Para quiet>Drawing…</Para>}
        given={{ pattern, dots }}
      />
    </>
  );
};
