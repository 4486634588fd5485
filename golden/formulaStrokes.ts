/** What a lane plays before its feel, worked out anew from the formulas: see `formulas.ts`. */
import type { Beat, Hit, Pattern } from '../core/document/schema';

type Part = Pattern['parts'][string];

/** A stroke on its way. */
export interface Blow {
  at: number;
  velocity: number;
  /** Null rings out. */
  length: number | null;
  /** Where its step is. */
  place: number;
  pitch: number;
  silent: boolean;
  /** A grace stroke or a repeat in ms goes with another one, at so many ms from it. */
  with?: { main: Blow; ms: number; share: number };
  /** The first of its roll, or the hit of its repeats: whose accent it takes. */
  first?: Blow;
  grace: boolean;
  delay: number;
  tick: number;
  force: number;
}

const FAMILY: Record<string, number> = { '': 1, T: 2 / 3, D: 3 / 2, Q: 4 / 5 };

export const gridOf = (grid: string): number => {
  const [, under, kind] = /^1\/(\d+)([TDQ]?)$/.exec(grid)!;
  return (3840 / Number(under)) * FAMILY[kind!]!;
};

export const fraction = (text: string): number => {
  const [over, under = '1'] = text.split('/');
  return Number(over) / Number(under);
};

export const held = (value: number, least: number, most: number): number =>
  Math.min(most, Math.max(least, value));

export const barOf = ({ meter }: Pattern): number => (meter.beats * 3840) / meter.unit;

const isOff = (part: Part, step: number): boolean => {
  if (!part.offbeatGrid) return step % 2 === 1;
  const pair = gridOf(part.offbeatGrid);
  return Math.abs(((step * gridOf(part.grid)) % pair) - pair / 2) < 1e-6;
};

const orderOf = (part: Part, n: number): number[] => {
  const up = Array.from({ length: n }, (_, step) => step);
  if (part.direction === 'backward') return up.reverse();
  if (part.direction === 'thereAndBack') return [...up, ...up.slice(1, n - 1).reverse()];
  if (part.direction === 'forward') return up;
  throw new Error('what is drawn at random is not worked out here');
};

const RATIO = { even: 1, triplet: 2, dotted: 3 };

/** Where each stroke of a roll begins, and where the last one ends, from 0 to 1. */
const rollEdges = ({ levels, curve, spacing = 'even' }: NonNullable<Hit['roll']>): number[] => {
  const widths = levels.map((_, at) => (at % 2 ? 1 : RATIO[spacing]));
  const whole = widths.reduce((sum, one) => sum + one, 0);
  let along = 0;
  return [0, ...widths.map((width) => (along += width) / whole)].map((x) => Math.pow(x, Math.pow(2, -curve)));
};

const blow = (at: number, velocity: number, length: number | null, place: number, pitch: number): Blow => ({
  at,
  velocity,
  length,
  place,
  pitch,
  silent: false,
  grace: false,
  delay: 0,
  tick: 0,
  force: 0,
});

/** A part as it is written, up to a time: loops, rates, directions, passes, rolls and grace strokes. */
const asWritten = (pattern: Pattern, part: Part, until: number): Blow[] => {
  const pass = barOf(pattern) * pattern.bars;
  const step = gridOf(part.grid) / fraction(part.rate);
  const n = part.steps ?? Math.ceil(pass / gridOf(part.grid) - 1e-9);
  const order = orderOf(part, n);
  const follows = part.steps === null && part.direction !== 'thereAndBack';
  const cycle = follows ? pass / fraction(part.rate) : order.length * step;
  const out: Blow[] = [];
  for (let round = 0; round * cycle < until; round++) {
    const start = round * cycle;
    const hits = order.flatMap((wanted, i) =>
      part.hits
        .filter((hit) => hit.step === wanted && start + i * step < start + cycle - 1e-6)
        .sort((a, b) => a.nudge - b.nudge)
        .map((hit) => {
          const nudge = hit.nudge + (part.shift ?? 0) + (isOff(part, wanted) ? (part.offbeat ?? 0) : 0);
          return { hit, place: start + i * step, at: start + (i + nudge) * step };
        }),
    );
    hits.forEach(({ hit, place, at }, i) => {
      if (hit.passes && !hit.passes.on.includes(round % hit.passes.of)) return;
      const length = hit.length === null ? null : hit.length * step;
      const main = blow(at, hit.velocity, length, place, hit.pitch ?? 0);
      const strokes: Blow[] = [];
      if (hit.roll) {
        const end = hits[i + 1]?.at ?? start + cycle;
        const span = Math.max(1, Math.min((hit.length ?? 1) * step, end - at));
        const edges = rollEdges(hit.roll);
        hit.roll.levels.forEach((level, k) => {
          const wide = span * (edges[k + 1]! - edges[k]!);
          strokes.push(blow(at + span * edges[k]!, hit.velocity * level, wide, place, main.pitch));
        });
        for (const one of strokes) one.first = strokes[0]!;
      } else strokes.push(main);
      for (const { before, level } of hit.grace ?? []) {
        const [first] = strokes;
        strokes.push({
          ...blow(at, first!.velocity * level, first!.length, place, first!.pitch),
          with: { main: first!, ms: -before, share: level },
          grace: true,
        });
      }
      out.push(...strokes);
    });
  }
  return out;
};

/** A stroke at place p in slot s sounds in every slot t with route[t] = s, at t * L + (p - s * L). */
const rerouted = (pattern: Pattern, laneId: string, blows: Blow[]): Blow[] => {
  const { detour } = pattern;
  if (!detour || (detour.lanes && !detour.lanes.includes(laneId))) return blows;
  const span = barOf(pattern) * (detour.over === 'bar' ? 1 : pattern.bars);
  const long = span / detour.route.length;
  const out: Blow[] = [];
  detour.route.forEach((from, t) => {
    const copies = new Map<Blow, Blow>();
    for (const one of blows) {
      const inside = one.first ? one.place + one.at - one.first.at : one.place;
      const s = Math.floor((inside - Math.floor(inside / span + 1e-9) * span) / long + 1e-9);
      if (s !== from - 1) continue;
      copies.set(one, { ...one, at: one.at + (t - s) * long, place: one.place + (t - s) * long });
    }
    for (const copy of copies.values()) {
      if (copy.with) copy.with = { ...copy.with, main: copies.get(copy.with.main)! };
      if (copy.first) copy.first = copies.get(copy.first) ?? copy;
      out.push(copy);
    }
  });
  return out;
};

const echoed = (part: Part, blows: Blow[]): Blow[] => {
  const { echoes } = part;
  if (!echoes) return blows;
  return blows.flatMap((hit) => {
    if (hit.grace || hit.first) return [hit];
    const out: Blow[] = [];
    for (let j = 1; j <= echoes.count; j++) {
      const share = echoes.slope ** j;
      const pitch = hit.pitch + j * echoes.interval;
      const { rate } = echoes;
      const at = hit.at + ('grid' in rate ? j * gridOf(rate.grid) : 0);
      const one = blow(at, hit.velocity * share, hit.length, hit.place, pitch);
      if ('grid' in rate) one.first = hit;
      else one.with = { main: hit, ms: j * rate.ms, share };
      out.push(one);
    }
    hit.silent = echoes.withoutHit;
    return [hit, ...out];
  });
};

export const perMs = (beat: Beat): number => (960 * beat.tempo) / 60000;

export const sparked = (beat: Beat, pattern: Pattern, laneId: string, until: number): Blow[] =>
  beat.lanes.flatMap(({ id }) =>
    (pattern.parts[id]?.sparks ?? []).flatMap((spark) => {
      if (spark.to !== laneId || id === laneId) return [];
      if (spark.chance < 1) throw new Error('what is drawn at random is not worked out here');
      const source = own(pattern, id, until)
        .filter(({ grace, silent }) => !grace && !silent)
        .sort((a, b) => a.at - b.at);
      const near = (a?: Blow, b?: Blow) => !!a && !!b && b.at - a.at < gridOf(spark.gap) - 1e-6;
      return source
        .filter((one, i) => {
          if (spark.of === 'first') return !near(source[i - 1], one);
          return spark.of === 'all' || !near(one, source[i + 1]);
        })
        .map((one) => {
          const { delay } = spark;
          const later = !delay ? 0 : 'grid' in delay ? gridOf(delay.grid) : delay.ms * perMs(beat);
          return blow(
            one.at + later,
            one.velocity * spark.factor,
            one.length,
            one.place,
            one.pitch + spark.pitch,
          );
        });
    }),
  );

/** A lane's own strokes with its own moves. */
export const own = (pattern: Pattern, laneId: string, until: number): Blow[] => {
  const part = pattern.parts[laneId]!;
  return echoed(part, rerouted(pattern, laneId, asWritten(pattern, part, until)));
};
