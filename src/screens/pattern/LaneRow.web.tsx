import { memo, type CSSProperties } from 'react';
import { instrument } from '../../../core/beat/instruments';
import type { Lane } from '../../../core/beat/schema';
import type { Ticks } from '../../../core/units';
import { strikeLane } from '../../audio/player';
import { laneChanged } from '../../state/doc';
import { viewChanged } from '../../state/slices';
import { selectPattern, useApp, useDo, type RootState } from '../../state/store';
import { createDrawings, type Cell } from './drawing';
import { LaneSound } from './LaneSound';
import { BeadMark, Measure } from './StepCell';

const drawingOf = createDrawings();

const selectDrawing = (lane: Lane) => (state: RootState) => {
  const pattern = selectPattern(state);
  return pattern && state.doc.beat ? drawingOf(state.doc.beat, pattern, lane, state.view.glass) : null;
};

/** The velocity at which a name sounds its lane. */
const TRY_VELOCITY = 100;

const Switches = ({ lane }: { lane: Lane }) => {
  const act = useDo();
  return (
    <span className="switches">
      <button
        type="button"
        className="mute"
        aria-label={`Mute ${lane.name}`}
        aria-pressed={lane.mute}
        onClick={() => act(laneChanged({ laneId: lane.id, change: { mute: !lane.mute } }))}
      >
        M
      </button>
      <button
        type="button"
        className="solo"
        aria-label={`Solo ${lane.name}`}
        aria-pressed={lane.solo}
        onClick={() => act(laneChanged({ laneId: lane.id, change: { solo: !lane.solo } }))}
      >
        S
      </button>
    </span>
  );
};

const GUIDES = [127, 96, 64, 32];

const heightOf = (velocity: number) => ({ '--v': velocity }) as CSSProperties;

const Name = ({ lane, open }: { lane: Lane; open: boolean }) => {
  const act = useDo();
  const mark = [lane.mute && 'muted', lane.solo && 'solo'].filter(Boolean).join(', ');
  return (
    <div className="name">
      <button
        type="button"
        className="name-button"
        aria-expanded={open}
        onClick={() => {
          void strikeLane(lane.id, TRY_VELOCITY);
          act(viewChanged({ openLane: open ? null : lane.id }));
        }}
      >
        {lane.name}
        {mark ? <small>{mark}</small> : null}
      </button>
      <Switches lane={lane} />
      {open ? (
        <>
          <span className="reading figure" aria-live="off" />
          {GUIDES.map((velocity) => (
            <span key={velocity} className="guide-figure figure" aria-hidden style={heightOf(velocity)}>
              {velocity}
            </span>
          ))}
        </>
      ) : null}
    </div>
  );
};

/** The steps of each bar, up to a tick. A step belongs to the bar that its place on the straight grid lies in. */
const measuresOf = (cells: Cell[], bar: Ticks, upTo: Ticks): Cell[][] => {
  const measures: Cell[][] = [];
  for (const cell of cells) {
    if (cell.left >= upTo) break;
    const at = Math.max(0, Math.floor((cell.left + cell.right) / 2 / bar + 1e-6));
    while (measures.length <= at) measures.push([]);
    measures[at]!.push(cell);
  }
  return measures;
};

interface LaneRowProps {
  lane: Lane;
  index: number;
  open: boolean;
  /** False where it is muted, or another lane is soloed. */
  sounding: boolean;
  /** Level and pan below the open string, where there is no panel for them. */
  withSound: boolean;
  /** Up to which tick its steps are drawn yet. */
  upTo: Ticks;
  /** The length of a bar. */
  bar: Ticks;
}

/** A lane as a string with its beads; the open one is taller, and height is velocity there. */
export const LaneRow = memo(({ lane, index, open, sounding, withSound, upTo, bar }: LaneRowProps) => {
  const drawing = useApp(selectDrawing(lane));
  const { material, pigment } = instrument(lane.instrument);
  const classes = `lane ${material}${open ? ' open' : ''}${sounding ? '' : ' silent'}`;
  return (
    <div
      className={classes}
      role="group"
      aria-label={lane.name}
      data-lane={lane.id}
      style={{ '--dye': `var(--${pigment})` } as CSSProperties}
    >
      <Name lane={lane} open={open} />
      <div className="string">
        {open
          ? GUIDES.map((velocity) => (
              <span key={velocity} className="guide" aria-hidden style={heightOf(velocity)} />
            ))
          : null}
        {measuresOf(drawing?.cells ?? [], bar, upTo).map((cells, at) => (
          <Measure
            key={at}
            cells={cells}
            from={at * bar}
            length={bar}
            laneIndex={index}
            laneName={lane.name}
          />
        ))}
        {drawing?.repeats.length ? (
          <span className="repeats" aria-hidden>
            {drawing.repeats.map((bead, at) => (
              <BeadMark key={at} bead={bead} left={0} />
            ))}
          </span>
        ) : null}
        {drawing?.knot != null ? (
          <span className="knot" aria-hidden style={{ left: `calc(var(--ppt) * ${drawing.knot})` }} />
        ) : null}
      </div>
      {open && withSound ? (
        <div className="below">
          <LaneSound lane={lane} />
        </div>
      ) : null}
    </div>
  );
});
LaneRow.displayName = 'LaneRow';
