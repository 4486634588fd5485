import { positionOf } from '../../core/document/position';
import { INSTRUMENTS } from '../../core/document/instruments';
import './pictures.css';
import { Words } from '../ui/Words';
import { barTicks, beatTicks } from '../../core/document/meter';
import { grooveTicks, type Groove, type GrooveLane } from '../../core/groove/groove';
import { words } from '../words/strings';

const ROW = 20;
const WIDTH = 300;
const LEFT = 92;
/** Longer grooves show how they begin. */
const MOST_BARS = 4;
const MOST_ROWS = 16;

const nameOf = ({ instrument, note, unknown }: GrooveLane): string =>
  unknown ? words.noteNote(note) : INSTRUMENTS[instrument].name;

const Bead = ({ x, y, r, material }: { x: number; y: number; r: number; material: string }) => {
  if (material === 'metal') return <ellipse cx={x} cy={y} rx={r * 0.6} ry={r} />;
  if (material === 'wood') return <path d={`M${x} ${y - r}l${r} ${r * 1.8}h${-2 * r}Z`} />;
  return <circle cx={x} cy={y} r={r} />;
};

/** A groove as beads on strings, each where it was played and as large as its velocity. */
export const GroovePicture = ({ groove }: { groove: Groove }) => {
  const bar = barTicks(groove.meter);
  const total = Math.min(grooveTicks(groove), MOST_BARS * bar);
  const lanes = groove.lanes.filter(({ part }) => part.hits.length).slice(0, MOST_ROWS);
  const height = lanes.length * ROW + 4;
  const beats = Math.round(total / beatTicks(groove.meter));
  const at = (tick: number) => LEFT + 6 + (tick / total) * (WIDTH - 12);
  const more = groove.lanes.length - lanes.length;
  return (
    <figure className="groove-picture">
      <svg
        viewBox={`0 0 ${LEFT + WIDTH} ${height}`}
        role="img"
        aria-label={words.theStringsOfGroove(groove.name)}
      >
        {Array.from({ length: beats + 1 }, (_, beat) => {
          const tick = beat * beatTicks(groove.meter);
          return (
            <path
              key={beat}
              className={tick % bar === 0 ? 'rule-line bar' : 'rule-line'}
              d={`M${at(tick)} 0V${height}`}
            />
          );
        })}
        {lanes.map((lane, row) => {
          const y = (row + 0.5) * ROW + 2;
          const { material, pigment } = INSTRUMENTS[lane.instrument];
          return (
            <g key={`${lane.channel} ${lane.note} ${lane.instrument}`} style={{ fill: `var(--${pigment})` }}>
              <text x={0} y={y + 4} className={lane.unknown ? 'unknown' : undefined}>
                {nameOf(lane)}
              </text>
              <path className="string-line" d={`M${LEFT} ${y}H${LEFT + WIDTH}`} />
              {lane.part.hits.map((hit, index) => {
                const tick = positionOf(hit, lane.part.grid);
                if (tick > total) return null;
                return (
                  <Bead
                    key={index}
                    x={at(tick)}
                    y={y}
                    r={1.6 + (hit.velocity / 127) * 4.6}
                    material={material}
                  />
                );
              })}
            </g>
          );
        })}
      </svg>
      {groove.bars > MOST_BARS || more > 0 ? (
        <figcaption>
          <Words small quiet>
            {[
              groove.bars > MOST_BARS && words.theFirstMostBarsOf(MOST_BARS, groove.bars),
              more > 0 && words.moreMoreStrings(more),
            ]
              .filter(Boolean)
              .join('; ')}
          </Words>
        </figcaption>
      ) : null}
    </figure>
  );
};
