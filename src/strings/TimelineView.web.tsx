import { keyOf } from '../ui/keys';
import {
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
} from 'react';
import type { Beat } from '../../core/document/schema';
import { barTicks } from '../../core/document/meter';
import { barAt, spanAt, type Timeline, type Span } from '../../core/play/timeline';
import { secondsAt } from '../../core/play/tempoMap';
import type { Ticks } from '../../core/units';
import { playedSongTick } from '../audio/player';
import { timeWords } from '../../core/play/time';
import { useInk, type Ink } from './ink';
import type { Measures } from './songPicture';
import type { SongPicture } from '../workers/pictureWorker';
import { askTile } from './tiles';
import './timeline.css';
import { words } from '../words/strings';

const TILE = 512;
const RULER = 20;
const BAND = 28;
const STRINGS = 96;
const TIMES = 18;
const HEIGHT = RULER + BAND + STRINGS + TIMES;
const MOVED_POINTS = 6;

interface TileProps {
  picture: SongPicture;
  index: number;
  seen: boolean;
  onFail: () => void;
}

/** One image of the song; the one before it stays until it is there. */
const Tile = ({ picture, index, seen, onFail }: TileProps) => {
  const image = useRef<HTMLImageElement>(null);
  const shown = useRef<string | null>(null);
  useEffect(
    () => () => {
      if (shown.current) URL.revokeObjectURL(shown.current);
    },
    [],
  );
  const painted = useRef<SongPicture | null>(null);
  const ask = useCallback(() => {
    if (painted.current === picture) return undefined;
    const show = (blob: Blob) => {
      // It may have been taken away while its picture was on its way.
      if (!image.current) return;
      if (shown.current) URL.revokeObjectURL(shown.current);
      shown.current = URL.createObjectURL(blob);
      painted.current = picture;
      image.current.src = shown.current;
    };
    return askTile(picture, index, show, onFail);
  }, [picture, index, onFail]);
  // What is in sight is asked for first: effects of layout come before the others.
  useLayoutEffect(() => (seen ? ask() : undefined), [ask, seen]);
  useEffect(() => (seen ? undefined : ask()), [ask, seen]);
  return (
    <img
      ref={image}
      alt=""
      aria-hidden
      decoding="async"
      draggable={false}
      className="song-tile"
      style={{ left: index * TILE, width: TILE, height: HEIGHT }}
    />
  );
};

/** How many tiles are kept on either side: what was painted once need not be painted again. */
const KEPT = 10;

interface TilesProps {
  beat: Beat;
  ink: Ink;
  measures: Measures;
  first: number;
  width: number;
  /** How much of the width is in sight. */
  inSight: number;
}

/** The picture of the song, tile by tile around what is in sight. */
const Tiles = ({ beat, ink, measures, first, width, inSight }: TilesProps) => {
  const [tries, setTries] = useState(0);
  const [failed, setFailed] = useState(false);
  const onFail = useCallback(() => setFailed(true), []);
  const picture = useMemo(
    () => ({
      // Tried again, it is another picture.
      tries,
      beat,
      ink,
      measures,
      width: TILE,
      height: HEIGHT,
      ratio: Math.min(2, window.devicePixelRatio || 1),
    }),
    [beat, ink, measures, tries],
  );
  const tiles = Math.ceil(width / TILE);
  const last = first + Math.ceil(inSight / TILE);
  const from = Math.max(0, first - KEPT);
  const count = Math.min(tiles, last + KEPT + 1) - from;
  const again = () => {
    setFailed(false);
    setTries(tries + 1);
  };
  return (
    <>
      {Array.from({ length: Math.max(0, count) }, (_, n) => from + n).map((index) => (
        <Tile
          key={index}
          index={index}
          seen={index >= first && index <= last}
          picture={picture}
          onFail={onFail}
        />
      ))}
      {failed ? (
        <div role="alert" className="song-undrawn" style={{ left: first * TILE }}>
          {words.songCouldNotBeDrawn}{' '}
          <button type="button" onClick={again}>
            {words.drawItAgain}
          </button>
        </div>
      ) : null}
    </>
  );
};

/** The hairline, where playback stands; the page follows it. */
const Hairline = ({ scale, playing, at }: { scale: number; playing: boolean; at: Ticks }) => {
  const line = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let frame = 0;
    const show = () => {
      const tick = playing ? playedSongTick() : null;
      const x = (tick ?? at) * scale;
      const element = line.current;
      if (element) element.style.transform = `translateX(${x}px)`;
      const scroller = element?.closest('.song-scroll');
      if (playing && tick !== null && scroller) {
        const inside = x - scroller.scrollLeft;
        if (inside < 0 || inside > scroller.clientWidth - 24) scroller.scrollLeft = Math.max(0, x - 48);
      }
      if (playing) frame = requestAnimationFrame(show);
    };
    show();
    return () => cancelAnimationFrame(frame);
  }, [scale, playing, at]);
  return <div ref={line} className="song-hairline" aria-hidden />;
};

const nameOf = (span: Span): string => span.section?.name ?? '';

/** Names of the sections over their bars. One that is dragged is put at another place. */
const Bands = ({
  layout,
  scale,
  chosen,
  onChoose,
  onMove,
}: {
  layout: Timeline;
  scale: number;
  chosen: string | null;
  onChoose: (span: Span) => void;
  onMove: (span: Span, to: Ticks) => void;
}) => {
  const drag = useRef<{ span: Span; x: number; moved: boolean } | null>(null);
  const [by, setBy] = useState<{ index: number; x: number } | null>(null);
  const press = (span: Span) => (event: PointerEvent<HTMLDivElement>) => {
    // A finger scrolls here; sections are put in order with a finger in the list.
    if (event.pointerType === 'touch') return;
    drag.current = { span, x: event.clientX, moved: false };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const now = drag.current;
    if (!now) return;
    const x = event.clientX - now.x;
    if (Math.abs(x) > MOVED_POINTS) now.moved = true;
    if (now.moved) setBy({ index: now.span.index, x });
  };
  const release = (event: PointerEvent<HTMLDivElement>) => {
    const now = drag.current;
    drag.current = null;
    setBy(null);
    if (now?.moved) onMove(now.span, now.span.from + now.span.length / 2 + (event.clientX - now.x) / scale);
  };
  return (
    <>
      {layout.spans.map((span) => (
        <div
          key={span.index}
          className={span.place?.id === chosen ? 'song-band chosen' : 'song-band'}
          style={{
            left: span.from * scale,
            width: Math.max(2, span.length * scale - 2),
            top: RULER,
            height: BAND - 4,
            borderLeftColor: `var(--${span.section?.pigment ?? 'walnut'})`,
            ...(by?.index === span.index && { transform: `translateX(${by.x}px)`, zIndex: 3 }),
          }}
          aria-hidden
          onPointerDown={press(span)}
          onPointerMove={move}
          onPointerUp={release}
          onPointerCancel={release}
          onClick={() => onChoose(span)}
        >
          {nameOf(span)}
        </div>
      ))}
    </>
  );
};

interface TimelineProps {
  beat: Beat;
  layout: Timeline;
  /** How many times as wide as the page the whole song is drawn. */
  zoom: number;
  /** Where play begins. */
  at: Ticks;
  loop: { from: Ticks; to: Ticks } | null;
  playing: boolean;
  chosen: string | null;
  onSeek: (tick: Ticks, play: boolean) => void;
  onLoop: (range: { from: Ticks; to: Ticks } | null) => void;
  onChoose: (span: Span) => void;
  onMove: (span: Span, to: Ticks) => void;
}

const MOST_WIDTH = 200_000;

/** A place in words. @example "bar 9, Verse, 0:21" */
export const placeWords = (layout: Timeline, tick: Ticks): string =>
  words.barBarAtSectionTime(
    barAt(layout, tick) + 1,
    spanAt(layout, tick)?.section?.name ?? '',
    timeWords(secondsAt(layout.tempos, tick)),
  );

/** Where a bar begins, its end where the position lies beyond its middle. */
const nearestLine = (layout: Timeline, tick: Ticks): Ticks => {
  const bar = layout.bars[barAt(layout, tick)];
  if (!bar) return 0;
  const end = bar.from + barTicks(bar.meter);
  return tick - bar.from > end - tick ? end : bar.from;
};

const useScroll = () => {
  const scroller = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(360);
  const [first, setFirst] = useState(0);
  useLayoutEffect(() => {
    const element = scroller.current;
    if (!element) return;
    let now = 0;
    const look = () => {
      const at = Math.floor(element.scrollLeft / TILE);
      // Most scrolling stays on one tile: then there is nothing to draw.
      if (at === now) return;
      now = at;
      setFirst(at);
    };
    const measure = () => setWidth(element.clientWidth || 360);
    measure();
    const watcher = typeof ResizeObserver === 'undefined' ? null : new ResizeObserver(measure);
    watcher?.observe(element);
    element.addEventListener('scroll', look, { passive: true });
    return () => {
      watcher?.disconnect();
      element.removeEventListener('scroll', look);
    };
  }, []);
  return { scroller, width, first };
};

/** The whole song at a glance. A tap plays from there; a drag along the bar numbers chooses what is repeated. */
export const TimelineView = (props: TimelineProps) => {
  const { beat, layout, zoom, at, loop, playing, chosen, onSeek, onLoop, onChoose, onMove } = props;
  const ink = useInk();
  const { scroller, width: inSight, first } = useScroll();
  const [range, setRange] = useState<{ from: Ticks; to: Ticks } | null>(null);
  const drag = useRef<{ tick: Ticks; x: number; moved: boolean } | null>(null);
  const width = Math.min(MOST_WIDTH, Math.max(1, (inSight - 16) * zoom));
  const scale = width / Math.max(1, layout.length);
  const measures = useMemo(() => ({ scale, top: RULER + BAND, height: STRINGS }), [scale]);
  const tickOf = (event: { clientX: number; currentTarget: Element }): Ticks => {
    const box = event.currentTarget.getBoundingClientRect();
    return Math.min(layout.length - 1, Math.max(0, (event.clientX - box.left) / scale));
  };
  const seek = (tick: Ticks) => onSeek(layout.bars[barAt(layout, tick)]?.from ?? 0, true);

  const press = (event: PointerEvent<HTMLDivElement>) => {
    const tick = nearestLine(layout, tickOf(event));
    drag.current = { tick, x: event.clientX, moved: false };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const now = drag.current;
    if (!now) return;
    if (Math.abs(event.clientX - now.x) > MOVED_POINTS) now.moved = true;
    if (!now.moved) return;
    const tick = nearestLine(layout, tickOf(event));
    setRange({ from: Math.min(tick, now.tick), to: Math.max(tick, now.tick) });
  };
  const release = () => {
    const now = drag.current;
    drag.current = null;
    if (now && !now.moved) seek(now.tick);
    else if (range && range.to > range.from) onLoop(range);
    setRange(null);
  };

  const keys = (event: KeyboardEvent) => {
    const bar = barAt(layout, at);
    const span = spanAt(layout, at);
    const spans = layout.spans;
    const to = {
      ArrowLeft: layout.bars[Math.max(0, bar - 1)]?.from,
      ArrowRight: layout.bars[Math.min(layout.bars.length - 1, bar + 1)]?.from,
      Home: 0,
      End: layout.bars[layout.bars.length - 1]?.from,
      PageUp: spans[Math.max(0, (span?.index ?? 0) - 1)]?.from,
      PageDown: spans[Math.min(spans.length - 1, (span?.index ?? 0) + 1)]?.from,
    }[event.key];
    if (to !== undefined) {
      event.preventDefault();
      onSeek(to, false);
    }
    if (keyOf(event, ['playHere'])) {
      event.preventDefault();
      onSeek(at, true);
    }
  };
  const marked = range ?? loop;
  return (
    <div className="song-scroll" ref={scroller}>
      <div
        className="song-sheet"
        style={{ width, height: HEIGHT }}
        role="slider"
        tabIndex={0}
        aria-label={words.placeInTheSong}
        aria-valuemin={1}
        aria-valuemax={layout.bars.length}
        aria-valuenow={barAt(layout, at) + 1}
        aria-valuetext={placeWords(layout, at)}
        onKeyDown={keys}
      >
        {ink ? (
          <Tiles beat={beat} ink={ink} measures={measures} first={first} width={width} inSight={inSight} />
        ) : null}
        {/* eslint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/no-static-element-interactions -- the slider around it goes by keys */}
        <div
          className="song-strings"
          style={{ top: RULER + BAND, height: STRINGS }}
          onClick={(event) => seek(tickOf(event))}
        />
        <div
          className="song-ruler"
          style={{ height: RULER }}
          onPointerDown={press}
          onPointerMove={move}
          onPointerUp={release}
          onPointerCancel={() => {
            drag.current = null;
            setRange(null);
          }}
        />
        {marked ? (
          <div
            className="song-loop"
            aria-hidden
            style={{ left: marked.from * scale, width: (marked.to - marked.from) * scale }}
          />
        ) : null}
        <Bands layout={layout} scale={scale} chosen={chosen} onChoose={onChoose} onMove={onMove} />
        <Hairline scale={scale} playing={playing} at={at} />
      </div>
    </div>
  );
};
