import type { Ticks } from '../../core/units';
import { AROUND, heightOf } from './geometry';
import { paintPicture, spansOf, type Look, type Painting, type PaintedSpan } from './paint';

/**
 * The canvases under the steps: one a bar, all lanes on it, each lane a band. A band is painted when what it shows
 * changes or a hit sounds, and only while its bar is on the page or next to it: many bars would fill the memory.
 */
export interface Board {
  /** What a lane shows, bar by bar, and how; `lane` is its place in the beat. */
  setLane(lane: number, pictures: Painting[], look: Look): void;
  dropLane(lane: number): void;
  /** Where each lane's string begins, in points from the top of the sheet; null while it is folded away. */
  setTops(tops: (number | null)[], height: number): void;
  /** Gives a bar its canvas; returns what takes it away again. */
  attach(bar: number, length: Ticks, canvas: HTMLCanvasElement): () => void;
  /** The first and the last bar on the page; null where none is known to be. */
  inSight(): { first: number; last: number } | null;
  /** Lights the beads of a step, or puts them out. */
  light(lane: number, step: number, on: boolean): void;
  /** Shows at which step a lane with a loop of its own stands; null where it does not play. */
  stand(lane: number, step: number | null): void;
  /** Paints what has changed. */
  paint(): void;
}

interface Row {
  pictures: Painting[];
  look: Look;
  lit: Set<number>;
  /** The step it stands at, for lanes that keep a time of their own. */
  at: number | null;
}

interface Leaf {
  canvas: HTMLCanvasElement;
  length: Ticks;
  /** On the page or next to it. */
  near: boolean;
  /** On the page. */
  seen: boolean;
  /**
   * Lanes to be painted anew; all of them where it is null. A lane is painted as a whole, or only around those of its steps
   * that were lit, put out or stood at.
   */
  dirty: Map<number, Set<number> | 'whole'> | null;
}

/** So long nothing changes before what stands beside the page is painted too. */
const REST_MS = 200;

const MOST_RATIO = 3;
/** Pixels of one canvas at the most; beyond it is painted coarser. */
const MOST_PIXELS = 6e6;

const NOTHING: Painting = { from: 0, length: 0, cells: [], beads: [], repeats: [], knot: null, beat: 0 };

const sameLists = <T>(a: T[], b: T[]): boolean =>
  a.length === b.length && a.every((one, at) => one === b[at]);

const samePicture = (a: Painting, b: Painting | undefined): boolean =>
  !!b &&
  a.length === b.length &&
  a.beat === b.beat &&
  a.knot === b.knot &&
  sameLists(a.cells, b.cells) &&
  sameLists(a.beads, b.beads) &&
  sameLists(a.repeats, b.repeats);

const sized = (canvas: HTMLCanvasElement, width: number, height: number): number => {
  const asked = Math.min(MOST_RATIO, window.devicePixelRatio || 1);
  const ratio = Math.min(asked, Math.sqrt(MOST_PIXELS / Math.max(1, width * height)));
  canvas.width = Math.round(width * ratio);
  canvas.height = Math.round(height * ratio);
  canvas.style.width = `${width}px`;
  canvas.style.height = `${height}px`;
  return ratio;
};

export const createBoard = (): Board => {
  const rows = new Map<number, Row>();
  const leaves = new Map<number, Leaf>();
  const barOf = new Map<Element, number>();
  let tops: (number | null)[] = [];
  let height = 0;
  let waiting = false;

  const points = (): number => rows.values().next().value?.look.points ?? 0;

  const paintBand = (
    brush: CanvasRenderingContext2D,
    lane: number,
    bar: number,
    what: ReadonlySet<number> | 'whole',
  ) => {
    const row = rows.get(lane);
    const picture = row?.pictures[bar];
    const top = tops[lane];
    if (!row || !picture || top == null) return;
    const paintWithin = (left: number, right: number, span?: PaintedSpan) => {
      brush.save();
      brush.translate(0, top);
      brush.beginPath();
      brush.rect(left, 0, right - left, heightOf(row.look));
      brush.clip();
      paintPicture(brush, picture, row.look, row.lit, row.at, span);
      brush.restore();
    };
    const end = (picture.length + AROUND) * row.look.points;
    if (what === 'whole') paintWithin(0, end);
    else
      for (const span of spansOf(picture, row.look, what))
        paintWithin(Math.max(0, span.from), Math.min(end, span.to), span);
  };

  const paintLeaf = (bar: number, leaf: Leaf) => {
    const { dirty, canvas } = leaf;
    if ((dirty && !dirty.size) || !points()) return;
    if (!dirty) canvas.dataset['ratio'] = String(sized(canvas, leaf.length * points(), height));
    leaf.dirty = new Map();
    const brush = canvas.getContext('2d');
    if (!brush) return;
    const ratio = Number(canvas.dataset['ratio']);
    brush.setTransform(ratio, 0, 0, ratio, 0, 0);
    if (dirty) for (const [lane, what] of dirty) paintBand(brush, lane, bar, what);
    else for (const lane of rows.keys()) paintBand(brush, lane, bar, 'whole');
  };

  /** Some steps of a lane look otherwise now, in the bars in which they are seen. */
  const touch = (
    lane: number,
    row: Row,
    steps: (number | null)[],
    seenAs: (picture: Painting) => { step: number }[],
  ) => {
    for (const [bar, { dirty }] of leaves) {
      const seen = steps.filter(
        (step) => step !== null && seenAs(row.pictures[bar] ?? NOTHING).some((one) => one.step === step),
      );
      const before = dirty?.get(lane);
      if (!dirty || !seen.length || before === 'whole') continue;
      dirty.set(lane, new Set([...(before ?? []), ...(seen as number[])]));
    }
  };

  let rest: ReturnType<typeof setTimeout> | null = null;
  const paintNear = () => {
    rest = null;
    for (const [bar, leaf] of leaves) if (leaf.near) paintLeaf(bar, leaf);
  };

  const paint = () => {
    waiting = false;
    let later = false;
    for (const [bar, leaf] of leaves)
      if (leaf.seen) paintLeaf(bar, leaf);
      else if (leaf.near && leaf.dirty?.size !== 0) later = true;
    // What stands beside the page waits until nothing has changed for a while.
    if (!later) return;
    if (rest) clearTimeout(rest);
    rest = setTimeout(paintNear, REST_MS);
  };

  /** After all that React changes together, and before the browser paints. */
  const soon = () => {
    if (!waiting) queueMicrotask(paint);
    waiting = true;
  };

  const all = () => {
    for (const leaf of leaves.values()) leaf.dirty = null;
    soon();
  };

  const leafOf = ({ target }: IntersectionObserverEntry) => leaves.get(barOf.get(target) ?? -1);
  const approach = (entries: IntersectionObserverEntry[]) => {
    for (const entry of entries) {
      const leaf = leafOf(entry);
      if (!leaf || leaf.near === entry.isIntersecting) continue;
      leaf.near = entry.isIntersecting;
      leaf.dirty = null;
      if (!entry.isIntersecting) leaf.canvas.width = 0;
    }
    paintNear();
  };
  const see = (entries: IntersectionObserverEntry[]) => {
    for (const entry of entries) {
      const leaf = leafOf(entry);
      if (leaf) leaf.seen = entry.isIntersecting;
    }
    paint();
  };
  let eyes: IntersectionObserver[] | null = null;
  const watching = (): IntersectionObserver[] =>
    typeof IntersectionObserver === 'undefined'
      ? []
      : (eyes ??= [
          new IntersectionObserver(approach, { rootMargin: '0px 60% 0px 60%' }),
          new IntersectionObserver(see),
        ]);

  return {
    setLane: (lane, pictures, look) => {
      const before = rows.get(lane);
      if (before && before.look.points !== look.points) all();
      rows.set(lane, { pictures, look, lit: before?.lit ?? new Set(), at: before?.at ?? null });
      for (const [bar, { dirty }] of leaves) {
        const picture = pictures[bar];
        const same = look === before?.look && !!picture && samePicture(picture, before.pictures[bar]);
        if (!same) dirty?.set(lane, 'whole');
      }
      soon();
    },
    dropLane: (lane) => {
      rows.delete(lane);
      all();
    },
    setTops: (now, tall) => {
      if (tall === height && sameLists(now, tops)) return;
      tops = now;
      height = tall;
      all();
    },
    attach: (bar, length, canvas) => {
      // What stands at the beginning is taken to be on the page until it is known.
      const seen = bar === 0 || typeof IntersectionObserver === 'undefined';
      leaves.set(bar, { canvas, length, near: seen, seen, dirty: null });
      barOf.set(canvas, bar);
      for (const eye of watching()) eye.observe(canvas);
      soon();
      return () => {
        for (const eye of watching()) eye.unobserve(canvas);
        leaves.delete(bar);
        barOf.delete(canvas);
      };
    },
    inSight: () => {
      const seen = [...leaves].flatMap(([bar, leaf]) => (leaf.seen ? [bar] : []));
      return seen.length ? { first: Math.min(...seen), last: Math.max(...seen) } : null;
    },
    light: (lane, step, on) => {
      const row = rows.get(lane);
      if (!row || row.lit.has(step) === on) return;
      if (on) row.lit.add(step);
      else row.lit.delete(step);
      touch(lane, row, [step], ({ beads }) => beads);
    },
    stand: (lane, step) => {
      const row = rows.get(lane);
      if (!row || row.at === step) return;
      touch(lane, row, [row.at, step], ({ cells }) => cells);
      row.at = step;
    },
    paint,
  };
};
