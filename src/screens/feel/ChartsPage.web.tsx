import { Heading } from '../../ui/Words';
import { useMemo, type CSSProperties } from 'react';
import { INSTRUMENTS } from '../../../core/beat/instruments';
import { beatTicks } from '../../../core/beat/meter';
import type { Beat, Lane, Pattern } from '../../../core/beat/schema';
import { steadyBars } from '../../../core/feel/bars';
import { deviation, mean } from '../../../core/feel/performance';
import { aheadText, tightness } from '../../../core/feel/reportText';
import { playedLanes, timingDots, type TimingDot } from '../../../core/play/performance';
import { Later } from '../../ui/Later';

const velocityCharts = async () => (await import('./VelocityCharts')).VelocityCharts;

/** So many passes are drawn: more would only thicken the cloud. */
const PASSES = 8;
const WIDTH = 340;
const HEIGHT = 180;
const LEFT = 34;
const EDGE = 12;

const dyeOf = (lane: Lane): string => `var(--${lane.pigment ?? INSTRUMENTS[lane.instrument].pigment})`;

/** What the chart reaches to, in ms: the farthest hit and a little more, by steps of ten. */
const reachOf = (dots: TimingDot[]): number => {
  const most = dots.reduce((far, { before, after }) => Math.max(far, Math.abs(before), Math.abs(after)), 8);
  return Math.ceil((most * 1.1) / 10) * 10;
};

interface TimingChartProps {
  pattern: Pattern;
  lanes: Lane[];
  dots: TimingDot[];
}

const TimingChart = ({ pattern, lanes, dots }: TimingChartProps) => {
  const { bar } = steadyBars(pattern.meter).at(0);
  const beat = beatTicks(pattern.meter);
  const reach = reachOf(dots);
  const x = (at: number) => LEFT + ((at + bar / 64) / (bar * 1.02)) * (WIDTH - LEFT - EDGE);
  const y = (ms: number) => HEIGHT / 2 + (ms / reach) * (HEIGHT / 2 - EDGE);
  const byId = new Map(lanes.map((lane) => [lane.id, lane]));
  const beats = Array.from({ length: Math.round(bar / beat) }, (_, at) => at);
  return (
    <svg
      className="timing-chart"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label="Distance of each hit from the grid over one bar, behind below, ahead above"
    >
      {beats.map((at) => (
        <g key={at}>
          <path className="rule-line" d={`M${x(at * beat)} ${EDGE}V${HEIGHT - EDGE}`} />
          <text x={x(at * beat)} y={HEIGHT - 1} textAnchor="middle">
            {at + 1}
          </text>
        </g>
      ))}
      {[-reach, -reach / 2, 0, reach / 2, reach].map((ms) => (
        <g key={ms}>
          <path className={ms === 0 ? 'string-line' : 'rule-line'} d={`M${LEFT} ${y(ms)}H${WIDTH - EDGE}`} />
          <text x={LEFT - 4} y={y(ms) + 3} textAnchor="end">
            {ms > 0 ? `+${ms}` : ms}
          </text>
        </g>
      ))}
      {dots.map((dot, at) => (
        <g key={at} style={{ '--dye': dyeOf(byId.get(dot.laneId)!) } as CSSProperties}>
          <circle className="before" cx={x(dot.at)} cy={y(dot.before)} r={2.5} />
          <circle className="after" cx={x(dot.at)} cy={y(dot.after)} r={1.5 + dot.velocity / 50} />
        </g>
      ))}
    </svg>
  );
};

/** @example signed(3.14) // "+3.1" */
const signed = (ms: number): string => `${ms > 0.05 ? '+' : ''}${ms.toFixed(1).replace('-0.0', '0.0')}`;

const Summary = ({ lane, dots }: { lane: Lane; dots: TimingDot[] }) => {
  const spread = deviation(dots.map((dot) => dot.left));
  return (
    <tr style={{ '--dye': dyeOf(lane) } as CSSProperties}>
      <th scope="row">
        <i aria-hidden />
        {lane.name}
      </th>
      <td className="figure">{signed(mean(dots.map((dot) => dot.before)))}</td>
      <td className="figure">{signed(mean(dots.map((dot) => dot.after)))}</td>
      <td className="figure">{spread.toFixed(1)}</td>
      <td>{tightness(spread)}</td>
    </tr>
  );
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
  return (
    <>
      <Heading level={2}>Timing</Heading>
      <p>{inWords(dots)}</p>
      <TimingChart pattern={pattern} lanes={beat.lanes} dots={dots} />
      <p className="quiet">{`Pale before the feel, full after it, over ${PASSES} passes. Below the line is behind.`}</p>
      <div className="scrolling">
        <table className="lanes-table">
          <thead>
            <tr>
              <th scope="col">Lane</th>
              <th scope="col">Before</th>
              <th scope="col">After</th>
              <th scope="col">Spread</th>
              <th scope="col">
                <span className="hidden-text">In a word</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {lanes.map((lane) => (
              <Summary key={lane.id} lane={lane} dots={dots.filter(({ laneId }) => laneId === lane.id)} />
            ))}
          </tbody>
        </table>
      </div>
      <p className="quiet">
        In ms: + is behind the grid, − ahead. Spread is what is left beside the base feel.
      </p>
      <Heading level={2}>Velocity</Heading>
      <Later
        of={velocityCharts}
        what="The charts of velocity"
        waiting={<p className="quiet">Drawing…</p>}
        given={{ pattern, dots }}
      />
    </>
  );
};
