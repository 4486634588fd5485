import { memo, useEffect, useLayoutEffect, useMemo, useRef, useState, type CSSProperties } from 'react';
import { instrument } from '../../core/document/instruments';
import type { Lane } from '../../core/document/schema';
import { noteName } from '../../core/document/noteName';
import type { Ticks } from '../../core/units';
import { strikeLane } from '../audio/player';
import { laneChanged } from '../store/doc';
import { type Heights, laneOpened } from '../store/focus';
import { useApp, useDo } from '../store/store';
import { onlyMoved, type Cell, type Part } from './drawing';
import { chosenSteps, markedSteps } from './drawings';
import { noteHeight } from './geometry';
import { heightsOf, pitchScale } from './heights';
import type { Ink } from './ink';
import { useHandLetters } from './handsShown';
import type { Look } from './paint';
import { picturesOf } from './pictures';
import { stepCell } from './StepCell';
import { useLaneDrawing } from './useLaneDrawing';
import type { Board } from './board';
import { words } from '../words/strings';

/** The velocity at which a name sounds its lane. */
const TRY_VELOCITY = 100;

const Switches = ({ lane }: { lane: Lane }) => {
  const act = useDo();
  return (
    <span className="switches">
      <button
        type="button"
        className="mute"
        aria-label={words.muteLane(lane.name)}
        aria-pressed={lane.mute}
        onClick={() => act(laneChanged({ laneId: lane.id, change: { mute: !lane.mute } }))}
      >
        {words.m}
      </button>
      <button
        type="button"
        className="solo"
        aria-label={words.soloLane(lane.name)}
        aria-pressed={lane.solo}
        onClick={() => act(laneChanged({ laneId: lane.id, change: { solo: !lane.solo } }))}
      >
        {words.s}
      </button>
    </span>
  );
};

const GUIDES = [127, 96, 64, 32];

const heightOf = (velocity: number) => ({ '--v': velocity }) as CSSProperties;

const Name = ({ lane, open, heights }: { lane: Lane; open: boolean; heights: Heights | null }) => {
  const act = useDo();
  const names = useApp(({ look }) => look.noteNames);
  const pitched = heights && pitchScale(heights);
  const guides = pitched
    ? pitched.guides.map((note) => ({
        at: noteHeight(note, pitched),
        name: noteName(note, names) || String(note),
      }))
    : GUIDES.map((velocity) => ({ at: velocity, name: String(velocity) }));
  const mark = [lane.mute && 'muted', lane.solo && 'solo'].filter(Boolean).join(', ');
  return (
    <div className="name">
      <button
        type="button"
        className="name-button"
        aria-expanded={open}
        onClick={() => {
          void strikeLane(lane.id, TRY_VELOCITY);
          act(laneOpened(open ? null : lane.id));
        }}
      >
        <i className={`material ${instrument(lane.instrument).material}`} aria-hidden />
        {lane.name}
        {mark ? <small>{mark}</small> : null}
      </button>
      <Switches lane={lane} />
      <i className="meter" aria-hidden />
      {open ? (
        <>
          <span className="reading figure" aria-live="off" />
          {guides.map(({ at, name }) => (
            <span key={name} className="guide-figure figure" aria-hidden style={heightOf(at)}>
              {name}
            </span>
          ))}
        </>
      ) : null}
    </div>
  );
};

/** While a feel is dragged, the cells under the hand wait so long for it to come to rest: hundreds of them move. */
const REST_MS = 150;

const NO_CELLS: Cell[] = [];

/** The cells for the hand: those that only move do so once they are at rest, the beads meanwhile being painted. */
const useResting = (hands: Cell[]): Cell[] => {
  const [rested, setRested] = useState(hands);
  const moving = hands !== rested && onlyMoved(hands, rested);
  if (hands !== rested && !moving) setRested(hands);
  useEffect(() => {
    if (!moving) return;
    const timer = setTimeout(() => setRested(hands), REST_MS);
    return () => clearTimeout(timer);
  }, [hands, moving]);
  return moving ? rested : hands;
};

/** What of the pattern is on the page. */
const partInSight = (board: Board, bar: Ticks): Part | null => {
  const bars = board.inSight();
  return bars && { from: bars.first * bar, to: (bars.last + 1) * bar };
};

interface LaneRowProps {
  lane: Lane;
  index: number;
  open: boolean;
  /** False where it is muted, or another lane is soloed. */
  sounding: boolean;
  /** Up to which tick its steps are drawn yet. */
  upTo: Ticks;
  /** The length of a bar, of a beat and of the pattern. */
  bar: Ticks;
  beat: Ticks;
  total: Ticks;
  /** Points for a tick. */
  points: number;
  /** Its height while it is closed, in points. */
  tall: number;
  ink: Ink | null;
  board: Board;
  /** What the ids of its steps begin with. */
  own: string;
}

/** A lane as a string with its beads; the open one is taller, and height is velocity there. */
export const LaneRow = memo((props: LaneRowProps) => {
  const { lane, index, open, sounding, upTo, bar, beat, total, points, tall, ink, board, own } = props;
  const row = useRef<HTMLDivElement>(null);
  const drawing = useLaneDrawing(lane, row, () => partInSight(board, bar));
  const { material } = instrument(lane.instrument);
  const pigment = lane.pigment ?? instrument(lane.instrument).pigment;
  const heights = useApp((state) => (open ? heightsOf(state, lane.id) : null));
  const chosen = useApp((state) => chosenSteps(state, lane.id));
  const marked = useApp((state) => markedSteps(state, lane.id));
  const letters = useHandLetters(lane.id);
  const look = useMemo(
    (): Look | null =>
      ink && points > 0
        ? {
            ink,
            dye: ink[pigment],
            material,
            open,
            tall,
            silent: !sounding,
            points,
            heights: heights && pitchScale(heights),
            chosen,
            marked,
            letters,
          }
        : null,
    [ink, pigment, material, open, tall, sounding, points, heights, chosen, marked, letters],
  );
  useLayoutEffect(() => {
    if (drawing && look) board.setLane(index, picturesOf(drawing, { bar, beat, total }), look);
  }, [board, index, drawing, look, bar, beat, total]);
  useLayoutEffect(() => () => board.dropLane(index), [board, index]);
  const hands = useResting(drawing?.hands ?? NO_CELLS);
  const steps = useMemo(
    () =>
      hands.map((cell, at) =>
        cell.left < upTo ? stepCell(cell, index, lane.name, at === 0, own, letters) : null,
      ),
    [hands, upTo, index, lane.name, own, letters],
  );
  return (
    <div
      ref={row}
      className={`lane${open ? ' open' : ''}`}
      role="group"
      aria-label={lane.name}
      data-lane={lane.id}
      data-index={index}
      style={{ '--dye': `var(--${pigment})` } as CSSProperties}
    >
      <Name lane={lane} open={open} heights={heights} />
      <div className="string">{steps}</div>
    </div>
  );
});
LaneRow.displayName = 'LaneRow';
