import {
  Fragment,
  memo,
  startTransition,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type CSSProperties,
  type FocusEvent,
  type RefObject,
  type ReactNode,
} from 'react';
import { lanePatternOf, patternTicks, soundingLanes } from '../../core/document/defaults';
import { gridTicks } from '../../core/document/grid';
import { barTicks, beatTicks } from '../../core/document/meter';
import type { Beat, Pattern } from '../../core/document/schema';
import { planLane, type LanePlan } from '../../core/play/plan';
import { readingOrder } from '../../core/play/reading';
import type { Ticks } from '../../core/units';
import { cursorMoved } from '../store/focus';
import { selectPattern, useApp, type Store, useAppStore } from '../store/store';
import { countBar } from './count';
import { createBoard, type Board } from './board';
import { AROUND, INSET, LANE_HEIGHT, namesWidth, tallOf } from './geometry';
import { useInk } from './ink';
import { GroupRow } from './GroupRow';
import { LaneRow } from './LaneRow';
import { stepKeys } from './stepKeys';
import { useMeters } from './meters';
import { startSweep } from './sweep';
import { Threads } from './Threads';
import { createTouch } from './touch';
import './strings.css';
import { words } from '../words/strings';

/** The velocities by name, for the steps to refer to. */
const Velocities = ({ own }: { own: string }) => (
  <div hidden>
    {Array.from({ length: 127 }, (_, at) => (
      <span key={at} id={`${own}velocity-${at + 1}`}>
        {words.velocityVelocity(at + 1)}
      </span>
    ))}
    <span id={`${own}hand-R`}>{words.rightHand}</span>
    <span id={`${own}hand-L`}>{words.leftHand}</span>
  </div>
);

interface CountProps extends Pick<Pattern, 'meter' | 'bars'> {
  children?: ReactNode;
}

const Count = memo(({ meter, bars, children }: CountProps) => {
  const bar = barTicks(meter);
  const counts = countBar(meter);
  return (
    <div className="count">
      <div className="corner" />
      <div className="string">
        {children}
        {Array.from({ length: bars }, (_, at) => (
          <span key={at} className="bar" aria-hidden style={{ left: `calc(var(--ppt) * ${at * bar})` }}>
            {counts.map(({ at: place, text, strong }) => (
              <span
                key={place}
                className={strong ? 'strong' : ''}
                style={{ left: `calc(var(--ppt) * ${place})` }}
              >
                {text}
              </span>
            ))}
          </span>
        ))}
      </div>
    </div>
  );
});
Count.displayName = 'Count';

/** One tab stop for all steps: the one that had the focus last. */
const rove = (store: Store, event: FocusEvent<HTMLElement>): void => {
  if (!(event.target instanceof HTMLElement) || event.target.dataset['step'] === undefined) return;
  event.currentTarget.querySelectorAll('[data-step][tabindex="0"]').forEach((cell) => {
    if (cell !== event.target) cell.setAttribute('tabindex', '-1');
  });
  event.target.setAttribute('tabindex', '0');
  const laneId = event.target.closest<HTMLElement>('[data-lane]')!.dataset['lane']!;
  const step = Number(event.target.dataset['step']);
  const { cursor } = store.getState().focus;
  if (cursor?.laneId !== laneId || cursor.step !== step)
    store.dispatch(cursorMoved({ cursor: { laneId, step }, pasteAt: { laneId, step } }));
};

/** How long the page that is seen is there alone before the others are put beside it. */
const STAGE_MS = 250;

/** Up to which tick steps are put on the page: the first page at once, so that it can be played, then all. */
const useStaged = (page: Ticks): Ticks => {
  const [all, setAll] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => startTransition(() => setAll(true)), STAGE_MS);
    return () => clearTimeout(timer);
  }, []);
  return all ? Infinity : page;
};

let ownPlans: { beat: Beat; pattern: Pattern; plans: LanePlan[] } | null = null;

/** The lanes that have a length, a rate or a direction of their own, made ready: asked for many times a second. */
const plansOfOwn = (beat: Beat, pattern: Pattern): LanePlan[] => {
  if (ownPlans?.beat === beat && ownPlans.pattern === pattern) return ownPlans.plans;
  const own = beat.lanes.filter(({ id }) => {
    const part = lanePatternOf(pattern, id);
    return part.hits.length && (part.steps !== null || part.rate !== '1' || part.direction !== 'forward');
  });
  ownPlans = { beat, pattern, plans: own.map((lane) => planLane(beat, pattern, lane)) };
  return ownPlans.plans;
};

/** Where those lanes stand. */
const ownPlaces = (store: Store, tick: Ticks): { lane: number; step: number }[] | null => {
  const state = store.getState();
  const [beat, pattern] = [state.doc.beat, selectPattern(state)];
  if (!beat || !pattern) return null;
  const plans = plansOfOwn(beat, pattern);
  if (!plans.length) return null;
  return plans.map((plan) => {
    const round = Math.floor(tick / plan.cycleTicks);
    const order = readingOrder(plan.direction, plan.steps, round, plan.seed, plan.key);
    const turn = Math.floor((tick - round * plan.cycleTicks) / plan.step);
    return { lane: plan.index, step: order[Math.min(turn, order.length - 1)]! };
  });
};

/** After this long the drawer has its height. */
const SETTLED_MS = 250;

interface BarCanvasProps {
  /** Which bar, from 0. */
  at: number;
  from: Ticks;
  length: Ticks;
  board: Board;
}

/** What the strings of one bar are painted on. */
const BarCanvas = memo(({ at, from, length, board }: BarCanvasProps) => {
  const canvas = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => board.attach(at, length, canvas.current!), [board, at, length]);
  return (
    <canvas
      ref={canvas}
      className="leaf"
      aria-hidden
      width={0}
      height={0}
      style={{ left: `calc(var(--names) + var(--ppt) * ${from})` }}
    />
  );
});
BarCanvas.displayName = 'BarCanvas';

/** Tells the board where each lane's string stands, whenever the sheet changes its height. */
const useTops = (
  root: RefObject<HTMLDivElement | null>,
  board: Board,
  openLane: string | null,
  lanes: number,
) => {
  useLayoutEffect(() => {
    const sheet = root.current!.querySelector<HTMLElement>('.sheet')!;
    const measure = () => {
      const strings = [...sheet.querySelectorAll<HTMLElement>('[data-lane]')];
      const last = strings[strings.length - 1];
      const tops: (number | null)[] = Array.from({ length: lanes }, () => null);
      for (const lane of strings) tops[Number(lane.dataset['index'])] = lane.offsetTop;
      board.setTops(tops, last ? last.offsetTop + last.offsetHeight : 0);
    };
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(sheet);
    return () => watcher.disconnect();
  }, [root, board, openLane, lanes]);
};

/** Where what was copied would be pasted. */
const PasteLine = ({ beat, pattern }: { beat: Beat; pattern: Pattern }) => {
  const at = useApp(({ copied, focus }) => (copied.clip ? focus.pasteAt : null));
  if (!at || !beat.lanes.some(({ id }) => id === at.laneId)) return null;
  const tick = at.step * gridTicks(lanePatternOf(pattern, at.laneId).grid);
  if (tick > patternTicks(pattern)) return null;
  return (
    <span
      className="paste-line"
      aria-hidden
      style={{ left: `calc(var(--names) + var(--ppt) * ${tick + INSET})` }}
    />
  );
};

interface StringsProps {
  beat: Beat;
  pattern: Pattern;
  wide: boolean;
  /** Told which bar the page begins with, from 0. */
  onBar: (bar: number) => void;
  /** Stands below the last string. */
  foot?: ReactNode;
  /** Stands among the count. */
  hinge?: ReactNode;
  /** What its ids begin with: other pages have strings too. */
  own?: string;
}

/** What the count, the groups and what stands below leave for the lanes themselves, in points. */
const roomForLanes = (scroller: HTMLElement): number =>
  [...scroller.querySelector('.sheet')!.children].reduce(
    (room, child) =>
      child instanceof HTMLElement && child.matches('div:not([data-lane])')
        ? room - child.offsetHeight
        : room,
    scroller.clientHeight,
  );

/** What is left for the strings on this window: measured after the first paint, and mostly found right. */
const likelyWidth = (wide: boolean): number => {
  const room = document.querySelector('main')?.clientWidth ?? 0;
  return Math.max(0, wide ? room - PANEL : room);
};
/** The width of the panel beside the strings, as in the style sheet. */
const PANEL = 300;

/** The strings of a pattern, one a lane, with the count above and the playing position over them. */
export const Strings = ({ beat, pattern, wide, onBar, foot, hinge, own = '' }: StringsProps) => {
  const store = useAppStore();
  const openLane = useApp((state) => state.focus.openLane);
  const zoom = useApp((state) => state.look.zoom);
  const mixOpen = useApp((state) => state.look.mixOpen);
  const playing = useApp((state) => state.transport.playing);
  const root = useRef<HTMLDivElement>(null);
  const line = useRef<HTMLDivElement>(null);
  const [touch] = useState(() => createTouch(store));
  const [keys] = useState(() => stepKeys(store));
  const bar = barTicks(pattern.meter);
  const length = patternTicks(pattern);
  const patternId = pattern.id;
  const page = Math.min(bar / zoom, length);
  const sounding = new Set(soundingLanes(beat));
  const upTo = useStaged(page);
  const ink = useInk();
  const [board] = useState(createBoard);
  const lanesShown = beat.lanes.length;
  const [width, setWidth] = useState(() => likelyWidth(wide));
  const [tall, setTall] = useState(LANE_HEIGHT);
  const points = Math.max(0, (width - namesWidth(mixOpen)) / (page + AROUND));

  useEffect(() => {
    const first = root.current?.querySelector('[data-step]');
    if (!root.current?.querySelector('[data-step][tabindex="0"]')) first?.setAttribute('tabindex', '0');
  });

  useTops(root, board, openLane, lanesShown);

  useLayoutEffect(() => {
    const scroller = root.current!;
    const measure = () => {
      setWidth(scroller.clientWidth);
      setTall(wide ? tallOf(roomForLanes(scroller), lanesShown) : LANE_HEIGHT);
    };
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(scroller);
    return () => watcher.disconnect();
  }, [wide, lanesShown]);

  useEffect(() => {
    const scroller = root.current!;
    const turned = () => onBar(points ? Math.round(scroller.scrollLeft / points / bar) : 0);
    turned();
    line.current!.dataset['points'] = String(points);
    scroller.addEventListener('scroll', turned, { passive: true });
    return () => scroller.removeEventListener('scroll', turned);
  }, [bar, onBar, points]);

  useMeters(playing && mixOpen, root);

  useEffect(() => {
    // A held finger goes on to choose; without this the browser would scroll instead and take the finger away.
    const keep = (event: TouchEvent) => touch.holds() && event.cancelable && event.preventDefault();
    const scroller = root.current!;
    scroller.addEventListener('touchmove', keep, { passive: false });
    return () => scroller.removeEventListener('touchmove', keep);
  }, [touch]);

  useEffect(() => {
    // The open string stays in sight when the drawer comes up under it.
    if (!openLane) return;
    const timer = setTimeout(() => {
      const lane = root.current?.querySelector(`[data-lane="${CSS.escape(openLane)}"]`);
      lane?.scrollIntoView?.({ block: 'nearest', inline: 'nearest' });
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [openLane]);

  useEffect(() => {
    if (!playing) return;
    const tempo = () => store.getState().doc.beat?.tempo ?? 0;
    return startSweep({
      line: line.current!,
      scroller: root.current!,
      board,
      patternId,
      length,
      page,
      tempo,
      places: (tick) => ownPlaces(store, tick),
    });
  }, [playing, board, patternId, length, page, store]);

  const style = {
    '--page': page,
    '--total': length,
    '--tall': `${tall}px`,
  } as CSSProperties;

  return (
    <div className="strings-frame">
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- the steps in it are worked, and heard here */}
      <div
        ref={root}
        className={mixOpen ? 'strings mixing' : 'strings'}
        role="group"
        aria-label={words.strings}
        style={style}
        onPointerDown={(event) => touch.down(event.nativeEvent)}
        onPointerMove={(event) => touch.move(event.nativeEvent)}
        onPointerUp={(event) => touch.up(event.nativeEvent)}
        onPointerCancel={touch.cancel}
        onPointerLeave={touch.cancel}
        onMouseDown={(event) => touch.mouseDown(event.nativeEvent)}
        onClick={(event) => touch.click(event.nativeEvent)}
        onKeyDown={keys}
        onFocus={(event) => rove(store, event)}
      >
        <Velocities own={own} />
        <div className="sheet">
          <Count meter={pattern.meter} bars={pattern.bars}>
            {hinge}
          </Count>
          {beat.lanes.map((lane, index) => {
            const group = beat.groups.find(({ id }) => id === lane.group);
            const first = group && beat.lanes[index - 1]?.group !== group.id;
            return (
              <Fragment key={lane.id}>
                {first ? <GroupRow group={group} lanes={beat.lanes} /> : null}
                {group?.folded ? null : (
                  <LaneRow
                    lane={lane}
                    index={index}
                    open={openLane === lane.id}
                    sounding={sounding.has(lane)}
                    upTo={upTo}
                    bar={bar}
                    beat={beatTicks(pattern.meter)}
                    total={length}
                    points={points}
                    tall={tall}
                    ink={ink}
                    board={board}
                    own={own}
                  />
                )}
              </Fragment>
            );
          })}
          {Array.from({ length: pattern.bars }, (_, at) => (
            <BarCanvas
              key={at}
              at={at}
              from={at * bar}
              length={at === pattern.bars - 1 ? bar + AROUND : bar}
              board={board}
            />
          ))}
          <Threads patternId={patternId} points={points} openLane={openLane} />
          <PasteLine beat={beat} pattern={pattern} />
          {foot}
          {Array.from({ length: Math.ceil(length / page - 1e-9) }, (_, at) => (
            <span key={at} className="stop" aria-hidden style={{ left: `calc(var(--ppt) * ${at * page})` }} />
          ))}
        </div>
      </div>
      <div className="sweep" aria-hidden>
        <div ref={line} className="hairline" hidden />
      </div>
    </div>
  );
};
