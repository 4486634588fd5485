import { gridTicks, type Grid } from '../beat/grid';
import { barTicks, beatTicks, type Meter } from '../beat/meter';
import type { Beat } from '../beat/schema';
import type { Ticks } from '../units';
import { barsOf } from './midi';
import type { Piece } from './pieces';

/** A hit as it is written down: where its step stands, not where it sounds. */
export interface WrittenHit {
  /** The lane's place in the beat. */
  lane: number;
  velocity: number;
  /** It has grace strokes before it. */
  grace: number;
  /** A roll: played as one long stroke. */
  roll: boolean;
}

/** All that is struck at one place. */
export interface Onset {
  /** In units of the beat, see `parts`. */
  at: number;
  hits: WrittenHit[];
}

/** One beat of a bar, divided as its hits need. */
export interface WrittenBeat {
  /** Into how many equal parts it is divided. */
  parts: number;
  length: Ticks;
  onsets: Onset[];
}

export interface WrittenBar {
  meter: Meter;
  beats: WrittenBeat[];
}

interface Placed extends WrittenHit {
  tick: Ticks;
}

/** Hits by their steps. Nudges are a matter of playing: paper has the grid. */
export const placedHits = (piece: Piece): Placed[] => {
  const hits = new Map<string, Placed>();
  const graces = new Map<string, number>();
  for (const note of piece.notes()) {
    const key = `${note.part} ${note.lane} ${note.round} ${note.turn} ${note.place}`;
    if (note.stroke < 0) graces.set(key, (graces.get(key) ?? 0) + 1);
    else if (note.stroke > 0 && hits.has(key)) hits.get(key)!.roll = true;
    else
      hits.set(key, {
        tick: note.rule,
        lane: note.lane,
        velocity: note.velocity,
        grace: 0,
        roll: note.stroke > 0,
      });
  }
  for (const [key, count] of graces) {
    const hit = hits.get(key);
    if (hit) hit.grace = count;
  }
  return [...hits.values()];
};

/** The straight and the uneven ways to divide a beat of a meter, the coarsest first. */
const divisionsOf = (meter: Meter): number[] =>
  beatTicks(meter) === 1440 ? [1, 3, 6, 2, 4, 12] : [1, 2, 4, 3, 8, 6, 5];

const CLOSE: Ticks = 6;

const fits = (ticks: Ticks[], length: Ticks, parts: number): boolean =>
  ticks.every((tick) => {
    const at = (tick * parts) / length;
    return (Math.abs(at - Math.round(at)) * length) / parts <= CLOSE && Math.round(at) < parts;
  });

/** The coarsest division on which all lie; the finest straight one, to which they are drawn, where none does. */
const divide = (meter: Meter, ticks: Ticks[]): number => {
  const divisions = divisionsOf(meter);
  const length = beatTicks(meter);
  const finest = beatTicks(meter) === 1440 ? 12 : 8;
  return divisions.find((parts) => fits(ticks, length, parts)) ?? finest;
};

const beatOf = (meter: Meter, length: Ticks, hits: Placed[]): WrittenBeat => {
  const parts = divide(
    meter,
    hits.map(({ tick }) => tick),
  );
  const onsets = new Map<number, WrittenHit[]>();
  for (const { tick, ...hit } of hits) {
    const at = Math.min(parts - 1, Math.round((tick * parts) / length));
    const there = onsets.get(at) ?? [];
    if (!there.some(({ lane }) => lane === hit.lane)) there.push(hit);
    onsets.set(at, there);
  }
  return {
    parts,
    length,
    onsets: [...onsets].sort(([a], [b]) => a - b).map(([at, own]) => ({ at, hits: own })),
  };
};

/** A piece as it is written down: bar by bar, beat by beat. */
export const writtenBars = (piece: Piece): WrittenBar[] => {
  const hits = placedHits(piece).sort((a, b) => a.tick - b.tick || a.lane - b.lane);
  let next = 0;
  return barsOf(piece).map(({ from, meter }) => {
    const length = beatTicks(meter);
    const count = Math.round(barTicks(meter) / length);
    const beats = Array.from({ length: count }, (_, at) => {
      const begin = from + at * length;
      const own: Placed[] = [];
      while (next < hits.length && hits[next]!.tick < begin + length - 1e-3) {
        const hit = hits[next++]!;
        own.push({ ...hit, tick: Math.max(0, hit.tick - begin) });
      }
      return beatOf(meter, length, own);
    });
    return { meter, beats };
  });
};

/** The grid on which a whole part can be shown in letters: the coarsest on which all hits lie, else sixteenths. */
export const letterGrid = (ticks: Ticks[]): Grid =>
  (['1/8', '1/8T', '1/16', '1/16T', '1/32'] as const).find((grid) =>
    ticks.every((tick) => Math.abs(tick / gridTicks(grid) - Math.round(tick / gridTicks(grid))) < 0.02),
  ) ?? '1/16';

/** The lanes that have anything to write, by their place in the beat. */
export const writtenLanes = (piece: Piece, beat: Beat) => {
  const used = new Set(placedHits(piece).map(({ lane }) => lane));
  return beat.lanes.map((lane, at) => ({ lane, at })).filter(({ at }) => used.has(at));
};
