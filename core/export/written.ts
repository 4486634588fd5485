import type { Hand } from '../document/choices';
import { feelOf } from '../document/defaults';
import { barTicks, beatTicks, isCompound, type Meter } from '../document/meter';
import type { Beat } from '../document/schema';
import { sticking } from '../hands/sticking';
import type { Note } from '../play/notes';
import { secondsAt } from '../play/tempoMap';
import type { Semitones, Ticks } from '../units';
import { barsOf } from './midi';
import type { Piece } from './pieces';

/** A hit as it is written down: where its step stands, not where it sounds. */
export interface WrittenHit {
  /** The lane's place in the beat. */
  lane: number;
  velocity: number;
  /** Semitones against its lane's note. */
  pitch: Semitones;
  /** It has grace strokes before it. */
  grace: number;
  /** A roll: played as one long stroke. */
  roll: boolean;
  /** Which hand plays it, where it is set or was found. */
  hand?: Hand;
}

/** All that is struck at one place. */
export interface WrittenOnset {
  /** In units of the beat, see `parts`. */
  at: number;
  hits: WrittenHit[];
}

/** A row of hits of one beat, divided as they need. */
export interface WrittenBeat {
  /** Into how many equal parts it is divided. */
  parts: number;
  length: Ticks;
  onsets: WrittenOnset[];
}

/** A hit with its place: in a piece from its start, in a beat from the beat's. */
export interface PlacedHit extends WrittenHit {
  tick: Ticks;
}

/** Which hand a hit says that it is played by. */
const handSet = ({ plan }: Piece, { regionIndex, lane, step, hitIndex }: Note): Hand | undefined => {
  const part = plan.timeline.regions[regionIndex]?.pattern?.parts[plan.beat.lanes[lane]!.id];
  return part?.hits.filter((hit) => hit.step === step)[hitIndex]?.hand;
};

/** One beat before it is divided. */
export interface PlacedBeat {
  length: Ticks;
  hits: PlacedHit[];
  /** The hits that are asked for, in as few rows as can each be divided easily; none where there are none. */
  rows(mine: (hit: WrittenHit) => boolean): WrittenBeat[];
}

export interface WrittenBar {
  meter: Meter;
  beats: PlacedBeat[];
}

/** Hits by their steps. Nudges are a matter of playing: paper has the grid. @example placedHits(piece).length // 6 */
export const placedHits = (piece: Piece): PlacedHit[] => {
  const hits = new Map<string, PlacedHit>();
  const graces = new Map<string, number>();
  for (const note of piece.notes()) {
    // What moves add stands where it sounds, each by itself.
    const added = note.kind === 'echo' || note.kind === 'spark';
    const own = added ? ` ${note.stroke}` : '';
    const key = `${note.regionIndex} ${note.lane} ${note.cycle} ${note.readIndex} ${note.hitIndex}${own}`;
    const hand = added ? undefined : handSet(piece, note);
    if (note.kind === 'grace') graces.set(key, (graces.get(key) ?? 0) + 1);
    else if (note.kind === 'roll' && hits.has(key)) hits.get(key)!.roll = true;
    else
      hits.set(key, {
        tick: added ? note.tick : note.gridTick,
        lane: note.lane,
        velocity: note.velocity,
        pitch: note.pitch,
        grace: 0,
        roll: note.kind === 'roll',
        ...(hand && { hand }),
      });
  }
  for (const [key, count] of graces) {
    const hit = hits.get(key);
    if (hit) hit.grace = count;
  }
  return [...hits.values()];
};

/** Hits with the hands that play them: those that are set, and of the least effort for all others. */
const withHands = (piece: Piece, hits: PlacedHit[]): PlacedHit[] => {
  const { timeline, beat } = piece.plan;
  const pattern = timeline.regions.find((region) => region.pattern)?.pattern;
  if (!pattern) return hits;
  const strokes = hits.map(({ tick, lane, velocity, hand }) => ({
    ms: 1000 * secondsAt(timeline.tempos, tick + piece.range.from),
    at: tick,
    velocity,
    instrument: beat.lanes[lane]!.instrument,
    ...(hand && { hand }),
  }));
  const stuck = sticking(strokes, {
    leftHanded: feelOf(beat, pattern).humanize.leftHanded ?? false,
    beat: beatTicks(pattern.meter),
  });
  return hits.map(({ hand: _, ...hit }, at) => {
    const { limb } = stuck[at]!;
    return limb === 'R' || limb === 'L' ? { ...hit, hand: limb } : hit;
  });
};

/** The ways to divide a beat of a meter that are easily read, the coarsest first. */
const easyDivisions = (meter: Meter): number[] =>
  isCompound(meter) ? [1, 3, 6, 2, 4, 12] : [1, 2, 4, 3, 8, 6, 5];

/** The finer ones, for a lane that has triplets beside straight steps in one beat. */
const fineDivisions = (meter: Meter): number[] => (isCompound(meter) ? [9, 15, 18, 24] : [12, 16, 20, 24]);

const CLOSE: Ticks = 6;
/** Parts shorter than this are no grid's: what lies on them lies there by accident. */
const SHORTEST: Ticks = 40;

const fits = (ticks: Ticks[], length: Ticks, parts: number): boolean =>
  (parts === 1 || length / parts >= SHORTEST - 1e-6) &&
  ticks.every((tick) => {
    const at = (tick * parts) / length;
    return (Math.abs(at - Math.round(at)) * length) / parts <= CLOSE && Math.round(at) < parts;
  });

const divisionFor = (divisions: number[], hits: PlacedHit[], length: Ticks): number | undefined =>
  divisions.find((parts) =>
    fits(
      hits.map(({ tick }) => tick),
      length,
      parts,
    ),
  );

const beatOf = (meter: Meter, length: Ticks, hits: PlacedHit[]): WrittenBeat => {
  const parts =
    divisionFor([...easyDivisions(meter), ...fineDivisions(meter)], hits, length) ??
    (isCompound(meter) ? 12 : 8);
  const onsets = new Map<number, WrittenHit[]>();
  for (const { tick, ...hit } of hits) {
    const at = Math.min(parts - 1, Math.round((tick * parts) / length));
    const there = onsets.get(at) ?? [];
    if (!there.some(({ lane, pitch }) => lane === hit.lane && pitch === hit.pitch)) there.push(hit);
    onsets.set(at, there);
  }
  return {
    parts,
    length,
    onsets: [...onsets].sort(([a], [b]) => a - b).map(([at, own]) => ({ at, hits: own })),
  };
};

/**
 * The hits of one beat in as few rows as can each be divided easily. Lanes that share a division stay together; triplets
 * against sixteenths stand in two rows, each with its own.
 *
 * @example hats on thirds of a beat, a snare on its fourths // [the snare's beat in 4, the hats' beat in 3]
 */
const rowsOf = (meter: Meter, length: Ticks, hits: PlacedHit[]): WrittenBeat[] => {
  const rows: PlacedHit[][] = [];
  for (const lane of [...new Set(hits.map((hit) => hit.lane))]) {
    const own = hits.filter((hit) => hit.lane === lane);
    const row = rows.find((there) => divisionFor(easyDivisions(meter), [...there, ...own], length));
    if (row) row.push(...own);
    else rows.push(own);
  }
  return rows.map((row) => beatOf(meter, length, row));
};

/**
 * A piece as it is written down: bar by bar, beat by beat, the hits of a beat in rows that are divided alike.
 *
 * @param hands each hit gets the hand that plays it
 * @example writtenBars(piece).length // 1
 */
export const writtenBars = (piece: Piece, hands = false): WrittenBar[] => {
  const placed = placedHits(piece).sort((a, b) => a.tick - b.tick || a.lane - b.lane);
  const hits = hands ? withHands(piece, placed) : placed;
  let next = 0;
  return barsOf(piece).map(({ from, meter }) => {
    const length = beatTicks(meter);
    const count = Math.round(barTicks(meter) / length);
    const beats = Array.from({ length: count }, (_, at): PlacedBeat => {
      const begin = from + at * length;
      const own: PlacedHit[] = [];
      while (next < hits.length && hits[next]!.tick < begin + length - 1e-3) {
        const hit = hits[next++]!;
        own.push({ ...hit, tick: Math.max(0, hit.tick - begin) });
      }
      return {
        length,
        hits: own,
        rows: (mine) => rowsOf(meter, length, own.filter(mine)),
      };
    });
    return { meter, beats };
  });
};

/** The steps that a tab's letters can stand on, in ticks: eighths to sixty-fourths, their triplets, quintuplets. */
const LETTER_STEPS: readonly Ticks[] = [480, 320, 240, 160, 120, 80, 60, 40, 192, 96, 48];

/**
 * The step from letter to letter: the coarsest on which all places in a bar lie, else the finest straight one.
 *
 * @example letterStep([0, 240, 480]) // 240
 */
export const letterStep = (ticks: readonly Ticks[]): Ticks =>
  LETTER_STEPS.find((step) =>
    ticks.every((tick) => Math.abs(tick / step - Math.round(tick / step)) < 0.02),
  ) ?? 60;

/** The lanes that have anything to write, by their place in the beat. */
export const writtenLanes = (piece: Piece, beat: Beat) => {
  const used = new Set(placedHits(piece).map(({ lane }) => lane));
  return beat.lanes.map((lane, at) => ({ lane, at })).filter(({ at }) => used.has(at));
};
