/**
 * What a pattern plays, worked out anew from the formulas and from nothing that the app is made of: slow, plain, and only for
 * what is not drawn at random. An error in this and in the app would have to be made twice.
 */
import type { Beat, Feel, Pattern, Swing } from '../core/document/schema';
import { barOf, fraction, gridOf, held, own, perMs, sparked, type Blow } from './formulaStrokes';

type PlainFeel = Omit<Feel, 'blend'>;

export interface Played {
  tick: number;
  note: number;
  /** Before it is rounded, held to 1..127. */
  force: number;
  length: number;
  channel: number;
  lane: string;
}

/** Grid points are counted anew from each bar line, and the next bar line is one itself; of two as near, the later. */
const quantized = (pattern: Pattern, { quantize }: PlainFeel, laneId: string, p: number): number => {
  const { grid, strength, window, lanes } = quantize;
  if (!strength || (lanes && !lanes.includes(laneId))) return p;
  const [g, bar] = [gridOf(grid), barOf(pattern)];
  const start = Math.floor(p / bar) * bar;
  const points = [start + bar];
  for (let at = start; at < start + bar - 1e-9; at += g) points.push(at);
  const q = points.reduce((best, one) => {
    const [far, nearer] = [Math.abs(best - p), Math.abs(one - p)];
    return nearer < far || (nearer === far && one > best) ? one : best;
  });
  return Math.abs(q - p) <= (window * g) / 2 + 1e-9 ? p + strength * (q - p) : p;
};

const COMPOUND = [6, 9, 12];

const swung = (beat: Beat, pattern: Pattern, { percent, grid, withTempo }: Swing, p: number): number => {
  const g = gridOf(grid);
  const compound = pattern.meter.unit === 8 && COMPOUND.includes(pattern.meter.beats) && grid === '1/8';
  const counted = compound ? 1440 : barOf(pattern);
  let s = percent;
  if (withTempo !== undefined) {
    const full = 3 - (2 * held(beat.tempo - 120, 0, 180)) / 180;
    const ratio = 1 + withTempo * (full - 1);
    s = (100 * ratio) / (1 + ratio);
  }
  const from = Math.floor(p / counted) * counted;
  const pair = Math.floor((p - from) / (2 * g));
  if ((pair + 1) * 2 * g > counted) return p;
  const start = from + pair * 2 * g;
  const x = p - start;
  return start + (x < g ? (x * s) / 50 : (2 * g * s) / 100 + ((x - g) * (100 - s)) / 50);
};

type Follow = PlainFeel['template'];

/** Of an instrument the group whose curve it takes; only those that occur here. */
const GROUPS: Record<string, 'kick' | 'snare' | 'hat' | 'cymbal'> = {
  kick: 'kick',
  snare: 'snare',
  'hat.closed': 'hat',
  ride: 'cymbal',
};

/** What a template does to a time, and by what it multiplies a velocity there. */
const followed = (
  pattern: Pattern,
  { template, timing, velocity, runsOn }: Follow,
  laneId: string,
  p: number,
) => {
  const g = gridOf(template!.grid);
  const slots = template!.groups?.[GROUPS[laneId]!] ?? template!.slots;
  const n = slots.length;
  const [bar, pass] = [barOf(pattern), barOf(pattern) * pattern.bars];
  const whole = (n * g) / bar;
  const multiple = whole >= 1 && Math.abs(whole - Math.round(whole)) < 1e-9;
  const counted = runsOn ? Infinity : multiple ? pass : bar;
  const start = counted === Infinity ? 0 : Math.floor(p / counted) * counted;
  const k = Math.floor((p - start) / g);
  const f = (p - start) / g - k;
  const slot = k % n;
  const next = (k + 1) * g >= counted - 1e-6 ? 0 : (k + 1) % n;
  const offset = (at: number): number => {
    const there = slots[at];
    if (there) return there.offset;
    let [before, after] = [1, 1];
    while (!slots[(at - before + n) % n]) before += 1;
    while (!slots[(at + after) % n]) after += 1;
    const [low, high] = [slots[(at - before + n) % n]!.offset, slots[(at + after) % n]!.offset];
    return low + ((high - low) * before) / (before + after);
  };
  const move = (at: number): number => held(timing * offset(at), -0.48, 0.48) * g;
  const known = slots.flatMap((one) => (one ? [one.velocity] : []));
  const mean = known.reduce((sum, one) => sum + one, 0) / known.length;
  const nearest = slots[f < 0.5 ? slot : next];
  return {
    tick: p + (1 - f) * move(slot) + f * move(next),
    factor: nearest ? 1 + velocity * (nearest.velocity / mean - 1) : 1,
  };
};

interface Lane {
  beat: Beat;
  pattern: Pattern;
  id: string;
}

/** Quantize and base feel: the time before a stroke waits for others, and its accent there. */
const based = (
  { beat, pattern, id }: Lane,
  feel: PlainFeel,
  at: number,
): { tick: number; factor: number } => {
  const p = quantized(pattern, feel, id, at);
  const mine = feel.lanes[id] ?? {};
  const base = mine.base ?? feel.base;
  if (base === 'template') {
    const follow = mine.template ?? feel.template;
    return follow.template ? followed(pattern, follow, id, p) : { tick: p, factor: 1 };
  }
  const ownSwing = mine.base === 'swing' && mine.swing;
  const isStraight = /\d$/.test(pattern.parts[id]!.grid);
  if (base === 'straight' || (!ownSwing && !isStraight)) return { tick: p, factor: 1 };
  return { tick: swung(beat, pattern, mine.swing ?? feel.swing, p), factor: 1 };
};

const meanOf = (pattern: Pattern, id: string): number => {
  const part = pattern.parts[id]!;
  const n = part.steps ?? (barOf(pattern) * pattern.bars) / gridOf(part.grid);
  const all = part.hits.filter(({ step }) => step < n).map(({ velocity }) => velocity);
  return all.length ? all.reduce((sum, one) => sum + one, 0) / all.length : 0;
};

const felt = (lane: Lane, feel: PlainFeel, one: Blow): { tick: number; force: number } => {
  const { beat, pattern, id } = lane;
  const mine = feel.lanes[id] ?? {};
  const lead = one.first ?? one;
  const { factor } = based(lane, feel, lead.at);
  const there = based(lane, feel, one.at).tick + one.delay;
  const pass = barOf(pattern) * pattern.bars;
  const lean = ((feel.lean?.phrase ?? 0) * (there - Math.floor(there / pass) * pass)) / pass;
  const m = meanOf(pattern, id);
  const c = (mine.contrast ?? 1) * (feel.contrast ?? 1);
  return {
    tick: there + ((mine.offset ?? 0) + lean) * perMs(beat),
    force: (m + c * (one.velocity * factor - m)) * (mine.level ?? 1) * feel.level,
  };
};

/** Two to four notes, each within 35 ms of the one before, go with the loudest of them, the last of equals. */
const tieFlams = (blows: Blow[], rate: number): void => {
  const singles = blows.filter((one) => !one.with && !one.first && !one.silent).sort((a, b) => a.at - b.at);
  const runs: Blow[][] = [];
  for (const one of singles) {
    const last = runs.at(-1)?.at(-1);
    if (last && one.at - last.at <= 35 * rate + 1e-9) runs.at(-1)!.push(one);
    else runs.push([one]);
  }
  for (const run of runs) {
    if (run.length < 2 || run.length > 4) continue;
    const most = Math.max(...run.map(({ velocity }) => velocity));
    const main = run.findLast(({ velocity }) => velocity === most)!;
    for (const one of run)
      if (one !== main)
        one.with = { main, ms: (one.at - main.at) / rate, share: one.velocity / main.velocity };
  }
};

/** What stands less than 1 ms apart becomes one, the louder; what was written so near and was not brought together stays. */
const joined = (blows: Blow[], rate: number): Blow[] => {
  const out: Blow[] = [];
  let last: Blow | null = null;
  for (const one of blows.filter(({ silent }) => !silent).sort((a, b) => a.tick - b.tick || a.at - b.at)) {
    const apart = last ? one.at - last.at : 0;
    const asBefore =
      last && apart > 1e-6 && Math.abs(one.tick - last.tick - apart) < 1e-6 && !one.first && !last.first;
    if (!last || one.tick - last.tick >= rate || asBefore) out.push(one);
    else if (one.force > out.at(-1)!.force) out[out.length - 1] = one;
    last = one;
  }
  return out;
};

const byPitch = (blows: Blow[]): Blow[][] =>
  [...new Set(blows.map(({ pitch }) => pitch))].map((pitch) => blows.filter((one) => one.pitch === pitch));

/** Counted from the start of each pass, what comes at one time from the lowest note to the highest. */
const staggerAll = (beat: Beat, pattern: Pattern, all: Map<string, Blow[]>): void => {
  const { stagger } = beat.feel;
  if (!stagger) return;
  const pass = barOf(pattern) * pattern.bars;
  const counted = [...all].flatMap(([id, blows]) =>
    stagger.lanes && !stagger.lanes.includes(id)
      ? []
      : blows
          .filter((one) => !one.with && !one.silent)
          .map((one) => ({
            one,
            pass: Math.floor(one.place / pass + 1e-9),
            tick: based({ beat, pattern, id }, beat.feel, one.at).tick,
            note: beat.lanes.find((lane) => lane.id === id)!.note + one.pitch,
          })),
  );
  counted.sort(
    (a, b) => a.pass - b.pass || (Math.abs(a.tick - b.tick) < 1e-6 ? a.note - b.note : a.tick - b.tick),
  );
  let [now, c] = [-1, 0];
  for (const { one, pass: its } of counted) {
    c = its === now ? c + 1 : 0;
    now = its;
    const { by } = stagger;
    const delay = 'list' in by ? by.list[c % by.list.length]! : (c % by.count) * by.each;
    one.delay = stagger.unit === 'ms' ? delay * perMs(beat) : (delay / 100) * 240;
  }
};

const follow = (blows: Blow[], rate: number): void => {
  for (const one of blows) {
    if (!one.with) continue;
    one.tick = one.with.main.tick + one.with.ms * rate;
    one.force = one.with.main.force * one.with.share;
  }
};

/**
 * All notes of so many passes of a beat's first pattern, played from its start.
 *
 * @throws where something of it is drawn at random
 */
export const byFormula = (beat: Beat, passes: number): Played[] => {
  const [pattern] = beat.patterns;
  const end = barOf(pattern!) * pattern!.bars * passes;
  const until = end + 2 * 3840;
  const rate = perMs(beat);
  const { blend, ...feel } = beat.feel;
  const all = new Map(
    beat.lanes
      .filter(({ id }) => pattern!.parts[id])
      .map(({ id }) => [id, [...own(pattern!, id, until), ...sparked(beat, pattern!, id, until)]]),
  );
  staggerAll(beat, pattern!, all);
  const out: Played[] = [];
  for (const { id, note, channel } of beat.lanes) {
    const blows = all.get(id);
    if (!blows) continue;
    const lane = { beat, pattern: pattern!, id };
    const nearer = blend && blend.amount > 0.5 ? blend.with : feel;
    if (nearer.quantize.flams) for (const alike of byPitch(blows)) tieFlams(alike, rate);
    for (const one of blows.filter((stroke) => !stroke.with)) {
      const [a, b] = [felt(lane, feel, one), blend ? felt(lane, blend.with, one) : null];
      const share = b ? blend!.amount : 0;
      one.tick = (1 - share) * a.tick + share * (b?.tick ?? 0);
      one.force = (1 - share) * a.force + share * (b?.force ?? 0);
    }
    follow(blows, rate);
    const step = gridOf(pattern!.parts[id]!.grid) / fraction(pattern!.parts[id]!.rate);
    const kept = byPitch(blows)
      .flatMap((alike) => joined(alike, rate))
      .sort((a, b) => a.tick - b.tick);
    const pitched = new Set(kept.map(({ pitch }) => pitch)).size > 1;
    const numbered = kept.map((one) => ({ one, number: held(note + one.pitch, 0, 127) }));
    numbered.forEach(({ one, number }, i) => {
      const next = numbered.find((other, at) => at > i && (!pitched || other.number === number));
      let length = Math.min(one.length ?? step, (next?.one.tick ?? Infinity) - one.tick);
      let { tick } = one;
      if (tick < 0) {
        length = Math.max(1, length + tick);
        tick = 0;
      }
      if (tick < end)
        out.push({ tick, note: number, force: held(one.force, 1, 127), length, channel, lane: id });
    });
  }
  return out.sort((a, b) => a.tick - b.tick);
};
