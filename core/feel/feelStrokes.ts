import { normal } from '../random/normal';
import { modulo } from '../numbers';
import { drawFrom, fold, PURPOSE } from '../random/draw';
import type { Ms, Ticks } from '../units';
import { eachCluster, FLAM_MS } from './clusters';
import { quantizedAt, type LaneFeelPlan, type PreparedFeel } from './prepareFeel';
import type { Humanizing } from './stage';
import { isPast, type FeltStroke, type Tie } from './struck';

/**
 * The strokes of one lane on their way through the stages of feel: the same code for what is heard, drawn and written, for
 * beats and for files.
 */

/** A stroke is moved by at most this part of its distance to its neighbour. */
const ROOM = 0.45;

/** A stroke that goes through the stages by itself. */
const throughEach = (feel: PreparedFeel, stroke: FeltStroke, delay: Ticks): void => {
  const lead = stroke.lead && stroke.lead !== stroke ? stroke.lead : null;
  let tick = stroke.at;
  let leadTick = lead ? lead.at : tick;
  let force = stroke.velocity;
  for (const { moves, strength, delays } of feel.stages) {
    if (strength) force = strength(force, lead ? leadTick : tick);
    if (delays) tick += delay;
    if (!moves) continue;
    tick = moves(tick);
    if (lead) leadTick = moves(leadTick);
  }
  stroke.tick = tick;
  stroke.force = force;
  if (feel.levelAt) stroke.force *= feel.levelAt(quantizedAt(feel, stroke.at));
};

const throughBoth = ({ a, b, amount }: LaneFeelPlan, stroke: FeltStroke): void => {
  throughEach(a, stroke, stroke.delay);
  if (!b) return;
  const { tick, force } = stroke;
  throughEach(b, stroke, stroke.otherDelay);
  stroke.tick = (1 - amount) * tick + amount * stroke.tick;
  stroke.force = (1 - amount) * force + amount * stroke.force;
};

const follow = (feel: PreparedFeel, stroke: FeltStroke, { main, apart, share }: Tie): void => {
  stroke.tick = main.tick + apart * feel.ticksPerMs(main.tick);
  stroke.force = main.force * share;
};

/** Whether any two stand near enough to be a flam: mostly none do, and there is nothing to look for. */
const anyNear = (feel: PreparedFeel, strokes: FeltStroke[]): boolean => {
  let before = -Infinity;
  for (const one of strokes) {
    if (one.tie || one.lead || !one.sounds) continue;
    // Out of order, or near: both are looked at more closely.
    if (one.at - before <= FLAM_MS * feel.ticksPerMs(before) + 1e-9) return true;
    before = one.at;
  }
  return false;
};

/** Ties the softer notes of flams to their main notes. */
const tie = (feel: PreparedFeel, strokes: FeltStroke[]): void => {
  if (!anyNear(feel, strokes)) return;
  const singles = strokes.filter((one) => one.sounds && !one.tie && !one.lead).sort((x, y) => x.at - y.at);
  eachCluster(singles, feel.ticksPerMs, (from, to, main) => {
    const strongest = singles[main]!;
    for (let i = from; i < to; i++) {
      const one = singles[i]!;
      if (i === main) continue;
      one.tie = {
        main: strongest,
        apart: (one.at - strongest.at) / feel.ticksPerMs(strongest.at),
        share: one.velocity / strongest.velocity,
      };
    }
  });
};

const byTick = (a: FeltStroke, b: FeltStroke): number =>
  a.tick - b.tick || a.cycle - b.cycle || a.step - b.step || a.hitIndex - b.hitIndex || a.stroke - b.stroke;

const sorted = (strokes: FeltStroke[]): FeltStroke[] => {
  for (let i = 1; i < strokes.length; i++)
    if (byTick(strokes[i - 1]!, strokes[i]!) > 0) return [...strokes].sort(byTick);
  return strokes;
};

/** Two hits that were written so near, and that the feel has left as they were to one another. */
const asWritten = (before: FeltStroke, one: FeltStroke): boolean =>
  one.at - before.at > 1e-6 &&
  Math.abs(one.tick - before.tick - (one.at - before.at)) < 1e-6 &&
  !one.lead &&
  !before.lead;

/**
 * Strokes that the feel brought less than 1 ms apart become one, the louder. Hits that were recorded so near stay two:
 * a file that is taken in and written out again has lost nothing.
 *
 * @param end where a loop ends: what comes after it is no part of the loop and swallows nothing of it
 */
const merge = (feel: PreparedFeel, strokes: FeltStroke[], end: Ticks): FeltStroke[] => {
  const out: FeltStroke[] = [];
  let last: FeltStroke | null = null;
  for (const one of strokes) {
    const before: FeltStroke | undefined = out[out.length - 1];
    const near: boolean =
      !!last &&
      one.tick - last.tick < feel.ticksPerMs(last.tick) &&
      isPast(one, end) === isPast(last, end) &&
      !asWritten(last, one);
    if (!before || !near) out.push(one);
    else if (one.force > before.force) {
      before.into = one;
      out[out.length - 1] = one;
    } else one.into = before;
    last = one;
  }
  return out;
};

const TIMING = PURPOSE.timing;
const VELOCITY = PURPOSE.velocity;
const STROKE = PURPOSE.stroke;

const sixteenth = (tick: Ticks): number => Math.floor(tick / 240 + 0.5);

/** The key of all draws of a stroke, but for their purpose. */
const keyOf = (h: Humanizing, { cycle, step, hitIndex, stroke }: FeltStroke): number =>
  fold(fold(fold(fold(h.key, h.every === Infinity ? cycle : 0), step), hitIndex), stroke);

const white = (key: number, purpose: number): number => normal(drawFrom(fold(key, purpose)));

const within = (tick: Ticks, every: Ticks): Ticks => (every === Infinity ? tick : modulo(tick, every));

/** The timing noise of a stroke, in ms: a roll's strokes share that of its first, and have a quarter of their own. */
const noiseOf = (h: Humanizing, stroke: FeltStroke, key: number): Ms => {
  if (!h.timing) return 0;
  const lead = stroke.lead ?? stroke;
  const own = Math.sqrt(1 - h.drift) * white(stroke === lead ? key : keyOf(h, lead), TIMING);
  const shared = h.drift > 0 ? Math.sqrt(h.drift) * driftOf(h, sixteenth(within(lead.tick, h.every))) : 0;
  const quarter = stroke !== lead ? 0.25 * white(key, STROKE) : 0;
  return looseness(h, stroke) * h.timing * (own + shared + quarter);
};

/** The kit's drift, and a lane's own as far as it does not share that: together they are as wide as each. */
const driftOf = (h: Humanizing, j: number): number =>
  h.own ? Math.sqrt(h.shares) * h.pink(j) + Math.sqrt(1 - h.shares) * h.own(j) : h.pink(j);

/** Soft strokes are up to twice as loose, hard ones up to not loose at all. */
const looseness = ({ soft }: Humanizing, { velocity }: FeltStroke): number =>
  soft ? Math.max(0, 1 + soft * (1 - (2 * velocity) / 127)) : 1;

/** The whole of what humanize moves a stroke by, in ticks. */
const movedBy = (h: Humanizing, stroke: FeltStroke, key: number, ticksPerMs: number): Ticks => {
  const weaker = h.weaker?.(stroke.lead ?? stroke);
  const late = noiseOf(h, stroke, key) + (weaker ? h.hands * weaker.late : 0);
  return (h.player ? h.player.shift(stroke.tick) : 0) + late * ticksPerMs;
};

/** And what it adds to its velocity. */
const forceNoise = (h: Humanizing, stroke: FeltStroke, key: number): number => {
  const weaker = h.weaker?.(stroke);
  return (
    (h.velocity ? h.velocity * white(key, VELOCITY) : 0) -
    (weaker ? h.hands * (1 - weaker.share) * stroke.force : 0)
  );
};

/** By how far a stroke is to be moved; it is struck as unevenly. */
const drawNoise = ({ a, b, amount }: LaneFeelPlan, stroke: FeltStroke): void => {
  const perMs = a.ticksPerMs(stroke.tick);
  // What has become one with another has the strength of that.
  const loud = stroke.into === null || !stroke.sounds;
  let [moved, force] = [0, 0];
  if (a.humanizing) {
    const key = keyOf(a.humanizing, stroke);
    moved = movedBy(a.humanizing, stroke, key, perMs);
    if (loud) force = forceNoise(a.humanizing, stroke, key);
  }
  if (b) {
    moved *= 1 - amount;
    force *= 1 - amount;
  }
  if (b?.humanizing) {
    const key = keyOf(b.humanizing, stroke);
    moved += amount * movedBy(b.humanizing, stroke, key, perMs);
    if (loud) force += amount * forceNoise(b.humanizing, stroke, key);
  }
  stroke.moved = moved;
  stroke.force += force;
};

/** Players may wander far together: their strokes keep their order, and no two come nearer than this part of their distance. */
const PARTED = 0.1;

const part = (heard: FeltStroke[]): void => {
  let before: FeltStroke | null = null;
  for (const one of heard) {
    if (before) {
      const least = before.tick + before.moved + PARTED * (one.tick - before.tick);
      one.moved = Math.max(one.moved, least - one.tick);
    }
    before = one;
  }
};

/** Holds what sounds off its neighbours on both sides. */
const holdOff = (lane: LaneFeelPlan, heard: FeltStroke[]): void => {
  if (lane.a.humanizing?.player || lane.b?.humanizing?.player) return part(heard);
  let before = -Infinity;
  heard.forEach((one, i) => {
    const here = one.tick;
    const next = heard[i + 1]?.tick ?? Infinity;
    one.moved = Math.max(ROOM * (before - here), Math.min(ROOM * (next - here), one.moved));
    before = here;
  });
};

/** A stroke that became one with another goes with it. */
const movedWith = (one: FeltStroke): Ticks => {
  let root = one;
  while (root.into) root = root.into;
  return (root.tie?.main ?? root).moved;
};

const bendAll = (lane: LaneFeelPlan, strokes: FeltStroke[]): void => {
  for (const one of strokes) if (!one.tie) throughBoth(lane, one);
};

const followAll = (feel: PreparedFeel, strokes: FeltStroke[]): void => {
  for (const one of strokes) if (one.tie) follow(feel, one, one.tie);
};

/** Those of a list that are wanted: mostly all are, and nothing has to be made anew. */
const those = (strokes: FeltStroke[], isWanted: (one: FeltStroke) => boolean): FeltStroke[] => {
  for (const one of strokes) if (!isWanted(one)) return strokes.filter(isWanted);
  return strokes;
};

const sounding = (strokes: FeltStroke[]): FeltStroke[] => those(strokes, ({ sounds }) => sounds);

const untied = (strokes: FeltStroke[]): FeltStroke[] => those(strokes, ({ tie: bound }) => bound === null);

const moveAll = (mains: FeltStroke[]): void => {
  for (const one of mains) one.tick += one.into ? movedWith(one) : one.moved;
};

/** The strokes by their pitch: what sounds at another one is no neighbour, makes no flam and is never merged. */
const byPitch = (strokes: FeltStroke[]): FeltStroke[][] => {
  const first = strokes[0]?.pitch;
  if (strokes.every(({ pitch }) => pitch === first)) return [strokes];
  const out = new Map<number, FeltStroke[]>();
  for (const one of strokes) {
    const list = out.get(one.pitch);
    if (list) list.push(one);
    else out.set(one.pitch, [one]);
  }
  return [...out.values()];
};

/**
 * Takes the strokes of one lane through the stages, in place. In many short steps rather than one long function, which
 * the engine has been seen to give up on.
 *
 * @param strokes in any order, grace strokes with their main strokes; each gets where it sounds and how hard, and which
 *   one it has become one with
 * @param end where a loop ends, if it is one
 */
export const feelStrokes = (lane: LaneFeelPlan, strokes: FeltStroke[], end: Ticks = Infinity): void => {
  const { a, b } = lane;
  const nearer = b && lane.amount > 0.5 ? b : a;
  const pitches = byPitch(strokes);
  if (nearer.flams) for (const alike of pitches) tie(a, alike);
  bendAll(lane, strokes);
  followAll(a, strokes);
  const heard = pitches.map((alike) => merge(a, sorted(sounding(alike)), end));
  if (!a.humanizing && !b?.humanizing) return;
  const mains = untied(strokes);
  // What does not sound has no neighbours to keep off, and stays with what is drawn.
  for (const one of mains) drawNoise(lane, one);
  for (const alike of heard) holdOff(lane, untied(alike));
  moveAll(mains);
  followAll(a, strokes);
};

/** How far around a stroke one has to look to know what becomes of it, in ms: the longest flam on either side. */
export const LOOK_MS = 5 * FLAM_MS;
export const ROOM_SHARE = ROOM;
