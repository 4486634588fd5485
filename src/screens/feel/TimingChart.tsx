import { StyleSheet, View } from 'react-native';
import { LineChart } from 'react-native-gifted-charts';
import { beatTicks } from '../../../core/document/meter';
import type { Lane, Pattern } from '../../../core/document/schema';
import { steadyBars } from '../../../core/feel/bars';
import type { Ms, Ticks } from '../../../core/units';
import type { TimingDot } from '../../../core/analysis/patternPerformance';
import { dyeOf, Point, shapeOf } from './lanePoint';
import { colour, font } from '../../ui/tokens';
import { Fitted } from '../../ui/Fitted';
import { Words } from '../../ui/Words';
import { words } from '../../words/feelCharts';

interface TimingChartProps {
  pattern: Pattern;
  lanes: Lane[];
  dots: TimingDot[];
  /** The one that is shown alone. */
  chosen: string | null;
}

/** Sections above the line on which a hit is on time, and as many below it. */
const SECTIONS = 2;
const HEIGHT = 160;
/** No wider than that, in points. */
const MOST = 480;
const EDGE = 12;
/** The width of the figures on the left. */
const FIGURES = 34;

const styles = StyleSheet.create({
  chart: { marginTop: 4 },
  axis: { fontSize: 12, lineHeight: 16 },
  // Each number stands under the rule of its beat.
  counts: { flexDirection: 'row', marginLeft: FIGURES + EDGE },
  count: { flex: 1, fontSize: 11, lineHeight: 14, marginLeft: -3 },
});

const LABEL = { color: colour.quiet, fontSize: 10, fontFamily: font.words };

/** What the chart reaches to, in ms: the farthest hit and a little more, by steps of ten. */
export const reachOf = (dots: TimingDot[]): number => {
  const most = dots.reduce((far, { before, after }) => Math.max(far, Math.abs(before), Math.abs(after)), 8);
  return Math.ceil((most * 1.1) / 10) * 10;
};

const Chart = ({ pattern, lanes, dots, chosen, width }: TimingChartProps & { width: number }) => {
  const { bar } = steadyBars(pattern.meter).at(0);
  const beat = beatTicks(pattern.meter);
  const reach = reachOf(dots);
  const byId = new Map(lanes.map((lane) => [lane.id, lane]));
  const x = (at: Ticks) => (at / bar) * (width - 2 * EDGE);
  const shown = chosen === null ? dots : dots.filter(({ laneId }) => laneId === chosen);
  const point = (dot: TimingDot, ms: Ms, pale: boolean) => ({
    at: dot.at,
    // Ahead is above.
    value: -ms,
    customDataPoint: () => (
      <Point
        shape={shapeOf(lanes, dot.laneId)}
        dye={dyeOf(byId.get(dot.laneId)!)}
        size={pale ? 6 : 4 + dot.velocity / 24}
        pale={pale}
      />
    ),
  });
  const inOrder = [
    // The bar begins here, whether something sounds there or not.
    { at: 0, value: 0, hideDataPoint: true },
    ...shown.map((dot) => point(dot, dot.before, true)),
    ...shown.map((dot) => point(dot, dot.after, false)),
  ].sort((a, b) => a.at - b.at);
  const data = inOrder.map((one, at) => ({ ...one, spacing: x((inOrder[at + 1]?.at ?? bar) - one.at) }));
  return (
    <>
      <Words quiet style={styles.axis}>
        {words.aheadMs}
      </Words>
      <LineChart
        data={data}
        width={width}
        height={HEIGHT / 2}
        thickness={0}
        color="transparent"
        maxValue={reach}
        noOfSections={SECTIONS}
        stepValue={reach / SECTIONS}
        mostNegativeValue={-reach}
        noOfSectionsBelowXAxis={SECTIONS}
        negativeStepValue={reach / SECTIONS}
        initialSpacing={EDGE}
        endSpacing={0}
        dataPointsWidth={8}
        dataPointsHeight={8}
        yAxisTextStyle={LABEL}
        rulesColor={colour.line}
        xAxisColor={colour.pip}
        yAxisColor={colour.line}
        yAxisLabelWidth={FIGURES}
        xAxisLabelsHeight={0}
        disableScroll
      />
      <View style={[styles.counts, { width: width - 2 * EDGE }]}>
        {Array.from({ length: Math.round(bar / beat) }, (_, at) => (
          <Words key={at} quiet style={styles.count}>
            {String(at + 1)}
          </Words>
        ))}
      </View>
      <Words quiet style={styles.axis}>
        {words.behindMs}
      </Words>
    </>
  );
};

/** How far each hit stands from its step over the bar, ahead above the line and behind below it. */
export const TimingChart = (props: TimingChartProps) => (
  <Fitted
    most={MOST}
    style={styles.chart}
    more={{
      role: 'img',
      'aria-label': words.distanceOfEachHitFrom,
    }}
  >
    {(width) => <Chart {...props} width={width - FIGURES} />}
  </Fitted>
);
