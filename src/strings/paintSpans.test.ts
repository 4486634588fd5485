import fc from 'fast-check';
import type { Bead, Cell } from './drawing';
import type { Ink } from './ink';
import { paintPicture, spansOf, type Look, type Painting, type PaintedSpan } from './paint';

/** A stroke of the brush: what it does, how, and from where to where. */
interface Stroke {
  what: string;
  left: number;
  right: number;
}

/** A brush that notes what it paints. */
const noting = () => {
  const strokes: Stroke[] = [];
  let path: { left: number; right: number }[] = [];
  let points: string[] = [];
  let [first, last] = [-Infinity, Infinity];
  const look = { fillStyle: '', strokeStyle: '', globalAlpha: 1, lineWidth: 1, font: '' };
  const note = (kind: string, left: number, right: number, where: unknown[]) => {
    const { fillStyle, strokeStyle, globalAlpha } = look;
    const colour = kind.startsWith('stroke') ? strokeStyle : fillStyle;
    const what = [kind, colour, globalAlpha.toFixed(4), ...where].join(' ');
    strokes.push({ what, left: Math.max(first, left), right: Math.min(last, right) });
  };
  const reach = (x: number, half: number, where: string) => {
    path.push({ left: x - half, right: x + half });
    points.push(where);
  };
  const ends = () => [Math.min(...path.map(({ left }) => left)), Math.max(...path.map(({ right }) => right))];
  const brush = Object.assign(look, {
    beginPath: () => void ((path = []), (points = [])),
    arc: (x: number, y: number, radius: number) => reach(x, radius, `arc ${x} ${y} ${radius}`),
    ellipse: (x: number, y: number, wide: number, tall: number) =>
      reach(x, wide, `lens ${x} ${y} ${wide} ${tall}`),
    moveTo: (x: number, y: number) => reach(x, 0, `${x} ${y}`),
    lineTo: (x: number, y: number) => reach(x, 0, `${x} ${y}`),
    closePath: () => undefined,
    // Only beads filled in part hold the brush, and let go of it at once.
    clip: () => void ([first, last] = ends() as [number, number]),
    save: () => undefined,
    restore: () => void ([first, last] = [-Infinity, Infinity]),
    fill: () => note('fill', ends()[0]!, ends()[1]!, points),
    stroke: () => note('stroke', ends()[0]!, ends()[1]!, points),
    fillRect: (x: number, y: number, wide: number, tall: number) =>
      note('rect', x, x + wide, [x, y, wide, tall]),
    strokeRect: (x: number, y: number, wide: number, tall: number) =>
      note('strokeRect', x, x + wide, [x, y, wide, tall]),
    fillText: (text: string, x: number, y: number) => note('text', x - 5, x + 5, [text, x, y]),
    clearRect: () => undefined,
  });
  return { brush: brush as unknown as CanvasRenderingContext2D, strokes };
};

const ink = { text: 'text', quiet: 'quiet', pip: 'pip', line: 'line', rule: 'rule' } as Ink;
const STEPS = 16;
const STEP = 240;

const pictures = fc
  .array(
    fc.record({
      step: fc.nat(STEPS - 1),
      away: fc.integer({ min: -120, max: 120 }),
      velocity: fc.integer({ min: 1, max: 127 }),
      chance: fc.constantFrom(1, 1, 0.4),
      stroke: fc.constantFrom(0, 0, 1),
      length: fc.constantFrom(null, null, 700),
    }),
    { maxLength: 24 },
  )
  .map((given): Painting => {
    const beads = given.map(({ step, away, stroke, ...more }): Bead => ({
      ...more,
      step,
      stroke,
      x: step * STEP + away + stroke * 40,
      rule: step * STEP,
      place: 0,
      pitch: 0,
      small: stroke > 0,
    }));
    const cells = Array.from({ length: STEPS }, (_, step): Cell => {
      const own = beads.filter((bead) => bead.step === step);
      const pip = step * STEP;
      const velocity = own[0]?.velocity ?? 0;
      return { step, pip, left: pip - STEP / 2, right: pip + STEP / 2, velocity, beads: own };
    });
    return { from: 0, length: STEPS * STEP, cells, beads, repeats: [], knot: null, beat: 960 };
  });

const looks = fc.record({
  material: fc.constantFrom('skin', 'metal', 'wood'),
  open: fc.boolean(),
  silent: fc.boolean(),
  points: fc.double({ min: 0.05, max: 0.4, noNaN: true }),
  marked: fc.uniqueArray(fc.nat(STEPS - 1), { maxLength: 3 }).map((steps) => new Set(steps)),
}) as fc.Arbitrary<Pick<Look, 'material' | 'open' | 'silent' | 'points' | 'marked'>>;

const lights = fc.uniqueArray(fc.nat(STEPS - 1), { maxLength: 5 }).map((steps) => new Set(steps));
const places = fc.option(fc.nat(STEPS - 1));

const painted = (
  picture: Painting,
  look: Look,
  lit: ReadonlySet<number>,
  at: number | null,
  span?: PaintedSpan,
) => {
  const { brush, strokes } = noting();
  paintPicture(brush, picture, look, lit, at, span);
  return strokes;
};

const inside = ({ left, right }: Stroke, { from, to }: PaintedSpan) => right > from && left < to;

/** What differs between two paintings, stroke by stroke. */
const differing = (before: Stroke[], after: Stroke[]): Stroke[] => {
  const [was, is] = [before, after].map((all) => new Set(all.map(({ what }) => what)));
  return [...before.filter(({ what }) => !is!.has(what)), ...after.filter(({ what }) => !was!.has(what))];
};

test('painted around what has changed, a band looks as if all of it were painted anew', () => {
  let changed = 0;
  fc.assert(
    fc.property(
      pictures,
      looks,
      fc.tuple(lights, lights),
      fc.tuple(places, places),
      (picture, kind, [was, is], [stood, stands]) => {
        const look: Look = { ink, dye: 'dye', tall: 48, chosen: new Map(), ...kind };
        const steps = new Set([...was, ...is].filter((step) => was.has(step) !== is.has(step)));
        for (const place of stood === stands ? [] : [stood, stands]) if (place !== null) steps.add(place);
        const spans = spansOf(picture, look, steps);
        const whole = painted(picture, look, is, stands);
        // All that is otherwise lies in what is painted anew.
        const different = differing(painted(picture, look, was, stood), whole);
        changed += different.length;
        for (const { left, right } of different)
          expect(spans.some(({ from, to }) => left >= from && right <= to)).toBe(true);
        // And there nothing is missing, nor in another order.
        for (const span of spans) {
          const some = painted(picture, look, is, stands, span).filter((one) => inside(one, span));
          expect(some).toEqual(whole.filter((one) => inside(one, span)));
        }
        for (const [at, { from }] of spans.slice(1).entries()) expect(from).toBeGreaterThan(spans[at]!.to);
      },
    ),
    { seed: 19, numRuns: 300 },
  );
  expect(changed).toBeGreaterThan(300);
});
