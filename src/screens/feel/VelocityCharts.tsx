import { Fitted } from '../../ui/Fitted';
import { Para } from '../../ui/Words';
import { styles } from './chartStyles';
import { BarChart } from 'react-native-gifted-charts';
import { steadyBars } from '../../../core/feel/bars';
import type { Pattern } from '../../../core/document/schema';
import type { TimingDot } from '../../../core/analysis/patternPerformance';
import { colour, font } from '../../ui/tokens';
import { words } from '../../words/feelCharts';

const STEP = 240;
const BIN = 8;
/** No wider than that, in points. */
const MOST = 480;
/** The width of the figures on the left. */
const FIGURES = 30;
const GAP = 4;

const LABEL = { color: colour.quiet, fontSize: 10, fontFamily: font.words };

interface Bar {
  value: number;
  label: string;
}

const chart = (name: string, bars: Bar[], most: number, sections: number) => (
  <Fitted most={MOST} style={styles.bars} more={{ role: 'img', 'aria-label': name }}>
    {(room) => (
      <BarChart
        data={bars}
        width={room - FIGURES}
        height={110}
        barWidth={Math.max(3, (room - FIGURES - 2 * GAP) / bars.length - GAP)}
        spacing={GAP}
        initialSpacing={GAP}
        endSpacing={0}
        maxValue={most}
        noOfSections={sections}
        frontColor={colour.woad}
        color={colour.woad}
        rulesColor={colour.line}
        yAxisColor={colour.line}
        xAxisColor={colour.line}
        yAxisTextStyle={LABEL}
        xAxisLabelTextStyle={LABEL}
        yAxisLabelWidth={FIGURES}
        disableScroll
        disablePress
      />
    )}
  </Fitted>
);

/** The mean velocity on each sixteenth of the bar. */
const accents = (pattern: Pattern, dots: TimingDot[]): Bar[] => {
  const { bar } = steadyBars(pattern.meter).at(0);
  const count = Math.max(1, Math.round(bar / STEP));
  return Array.from({ length: count }, (_, step) => {
    const here = dots.filter(({ at }) => Math.floor(at / STEP + 0.5) % count === step);
    return {
      value: Math.round(here.reduce((sum, { velocity }) => sum + velocity, 0) / Math.max(1, here.length)),
      label: step % 4 ? '' : String(step / 4 + 1),
    };
  });
};

const histogram = (dots: TimingDot[]): Bar[] =>
  Array.from({ length: 128 / BIN }, (_, bin) => ({
    value: dots.filter(({ velocity }) => Math.floor(velocity / BIN) === bin).length,
    label: bin % 4 ? '' : String(bin * BIN),
  }));

/** The accents over the bar, and how often each velocity is played. */
export const VelocityCharts = ({ pattern, dots }: { pattern: Pattern; dots: TimingDot[] }) => {
  const counts = histogram(dots);
  const most = Math.max(4, ...counts.map(({ value }) => value));
  return (
    <>
      <Para quiet>{words.meanVelocityOnEachSixteenth}</Para>
      {chart(words.accentsOverTheBar, accents(pattern, dots), 128, 4)}
      <Para quiet>{words.howOftenEachVelocityIs}</Para>
      {chart(words.histogramOfVelocities, counts, Math.ceil(most / 4) * 4, 4)}
    </>
  );
};
