import { inOrder } from '../document/position';
import { lanePatternOf, newHit, patternTicks } from '../document/defaults';

import { gridTicks, type Grid } from '../document/grid';

import type { Hit, Lane, LanePattern, Pattern, Take } from '../document/schema';

import { hashText } from '../random/draw';
import { clamp } from '../units';

import { chordRow } from './chords';

import { dealt, restSlots, ringHits, rotatedSlots, type RingHit, type RingPlay } from './ring';

/** The hits that makers give to the lanes of a pattern: from their settings and a seed, so that it can be made again. */

/** The part of each lane. */
export type Made = Record<string, LanePattern>;
export type MadeSettings = NonNullable<Take['made']>['settings'];

/** A ring as it is set. */
export type RingSettings = RingPlay & {
  slots: number;
  strikes: number;
  /** Which arrangement, from 1, and the slots that it strikes before it is turned. */
  which: number;
  struck: number[];
  rotate: number;
  grid: Grid;
  /** The lane loops after the ring's own length; otherwise it fills the pattern. */
  own: boolean;
  /** The lane that gets what is left unstruck; '' is none. */
  rest: string;
  /** Lanes that strikes are dealt to besides, in turn; their ids with commas between. */
  deal: string;
};

export const RING_DEFAULTS: RingSettings = {
  slots: 16,
  strikes: 5,
  which: 1,
  struck: [0, 4, 7, 10, 13],
  rotate: 0,
  grid: '1/16',
  own: false,
  velocity: 96,
  accent: 116,
  every: 0,
  from: 0,
  doubling: 0,
  into: 2,
  rest: '',
  deal: '',
};

const ringHit = ({ slot, round, velocity, strokes }: RingHit, slots: number): Hit => ({
  ...newHit(round * slots + slot, velocity),
  ...(strokes > 1 && { length: 1, roll: { curve: 0, levels: Array.from({ length: strokes }, () => 1) } }),
});

/** A part of a lane with other hits, on a grid of its own; what moves do with it stays. */
export const partWith = (part: LanePattern, grid: Grid, steps: number | null, hits: Hit[]): LanePattern => {
  const { shift: _, offbeat: __, offbeatGrid: ___, ...rest } = part;
  return { ...rest, grid, steps, rate: '1', direction: 'forward', hits: inOrder(hits) };
};

/**
 * The hits that a ring gives to its lane, and to those that get what is left or that strikes are dealt to.
 *
 * @example Object.keys(ringParts(pattern, 'kick', RING_DEFAULTS, 7)) // ["kick"]
 */
export const ringParts = (pattern: Pattern, laneId: string, s: RingSettings, seed: number): Made => {
  const g = gridTicks(s.grid);
  const total = s.own ? s.slots : Math.max(1, Math.ceil(patternTicks(pattern) / g - 1e-9));
  const struck = rotatedSlots(s.struck, s.slots, s.rotate);
  const hits = ringHits(struck, s.slots, total, s, seed, hashText(laneId)).map((hit) =>
    ringHit(hit, s.slots),
  );
  const lanes = [laneId, ...s.deal.split(',').filter((id) => id && id !== laneId)];
  const part = (id: string, own: Hit[]) =>
    partWith(lanePatternOf(pattern, id), s.grid, s.own ? s.slots : null, own);
  const out: Made = {};
  dealt(hits, lanes.length).forEach((own, at) => (out[lanes[at]!] = part(lanes[at]!, own)));
  if (s.rest && !lanes.includes(s.rest)) {
    const left = restSlots(struck, s.slots);
    const play = { ...s, every: 0, doubling: 0 };
    out[s.rest] = part(
      s.rest,
      ringHits(left, s.slots, total, play, seed, hashText(s.rest)).map((hit) => ringHit(hit, s.slots)),
    );
  }
  return out;
};

/** Chords as they are set. */
export interface ChordsSettings {
  /** Names with spaces between; a dash keeps the one before. */
  chords: string;
  /** The lowest note that a root may be. */
  low: number;
  inversion: number;
  spread: number;
  doubled: boolean;
  grid: Grid;
  /** A chord every so many steps, each so long. */
  every: number;
  length: number;
  velocity: number;
  /** All of them so much of a step later. */
  offset: number;
}

export const CHORDS_DEFAULTS: ChordsSettings = {
  chords: 'Am F C G',
  low: 57,
  inversion: 0,
  spread: 0,
  doubled: false,
  grid: '1/16',
  every: 4,
  length: 4,
  velocity: 92,
  offset: 0,
};

/** The hits of chords, and the chords that had no room. */
export type ChordsMade =
  | {
      ok: true;
      parts: Made;
      /** The chords for which the pattern has no place any more. */
      left: string[];
      /** How many notes lie beyond what MIDI has. */
      beyond: number;
    }
  | { ok: false; error: string };

/**
 * The hits that chords give to a lane, one after the other over the pattern; a sentence where one of them is none.
 *
 * @example chordsPart(pattern, beat.lanes[0]!, { ...CHORDS_DEFAULTS, chords: 'wet' }).ok // false
 */
export const chordsPart = (pattern: Pattern, lane: Lane, s: ChordsSettings): ChordsMade => {
  const row = chordRow(s.chords, s.low, s);
  const wrong = row.find(({ notes }) => !notes.ok)?.notes;
  if (wrong && !wrong.ok) return wrong;
  if (!row.length) return { ok: false, error: 'There is no chord yet. Write some, such as “Am F C G”.' };
  const steps = Math.ceil(patternTicks(pattern) / gridTicks(s.grid) - 1e-9);
  const hits: Hit[] = [];
  let beyond = 0;
  const places = Math.ceil(steps / s.every);
  for (let at = 0; at < places; at++) {
    const { notes } = row[at % row.length]!;
    if (!notes.ok) continue;
    beyond += notes.beyond;
    for (const note of notes.value) {
      const pitch = clamp(note - lane.note, -127, 127);
      hits.push({
        ...newHit(at * s.every, s.velocity),
        length: s.length,
        nudge: clamp(s.offset, -0.5, 0.5),
        ...(pitch !== 0 && { pitch }),
      });
    }
  }
  return {
    ok: true,
    parts: { [lane.id]: partWith(lanePatternOf(pattern, lane.id), s.grid, null, hits) },
    left: row.slice(places).map(({ name }) => name),
    beyond,
  };
};
