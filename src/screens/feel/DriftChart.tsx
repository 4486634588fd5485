import { View } from 'react-native';
import { LineChart } from 'react-native-gifted-charts';
import { figure } from '../../ui/figures';
import { Fitted } from '../../ui/Fitted';
import { colour, font } from '../../ui/tokens';
import { Words } from '../../ui/Words';
import { styles } from './chartStyles';

const HUES = [colour.woad, colour.weld, colour.lichen, colour.madder, colour.heather, colour.walnut];

interface DriftProps {
  names: string[];
  /** Each as it is drawn: ahead is up. */
  lines: { value: number }[][];
  label: string;
  ahead: string;
  behind: string;
}

/** Each player against the click. */
export const DriftChart = ({ names, lines, label, ahead, behind }: DriftProps) => {
  const most = Math.max(
    10,
    Math.ceil(Math.max(...lines.flat().map(({ value }) => Math.abs(value))) / 10) * 10,
  );
  return (
    <>
      <Fitted most={480} style={styles.bars} more={{ role: 'img', 'aria-label': label }}>
        {(room) => (
          <LineChart
            dataSet={lines.map((data, at) => ({
              data,
              color: HUES[at % HUES.length]!,
              strokeDashArray: at > 2 ? [5, 4] : [],
            }))}
            width={room - 44}
            height={120}
            spacing={(room - 52) / lines[0]!.length}
            initialSpacing={4}
            endSpacing={0}
            hideDataPoints
            thickness={2}
            maxValue={most}
            mostNegativeValue={-most}
            noOfSections={2}
            noOfSectionsBelowXAxis={2}
            yAxisLabelWidth={40}
            formatYLabel={(label) => {
              const value = Number(label);
              if (!value) return '0 ms';
              return `${figure(Math.abs(value))} ${value > 0 ? ahead : behind}`;
            }}
            yAxisTextStyle={{ color: colour.quiet, fontSize: 9, fontFamily: font.words }}
            rulesColor={colour.line}
            yAxisColor={colour.line}
            xAxisColor={colour.quiet}
            disableScroll
          />
        )}
      </Fitted>
      <View style={styles.names}>
        {names.map((name, at) => (
          <Words key={at} small style={{ color: HUES[at % HUES.length]! }}>
            {`${at > 2 ? '╌' : '—'} ${name}`}
          </Words>
        ))}
      </View>
    </>
  );
};
