import { inOrder, placed, positionOf } from '../document/position';
import { INSTRUMENTS, type InstrumentId } from '../document/instruments';
import { gridTicks } from '../document/grid';
import type { Hit } from '../document/schema';
import { clamp } from '../units';
import { type Groove, type GrooveLane } from './groove';
import { keepTimeOn } from './timekeeper';
import type { Voicing } from './voicing';

export const LEVEL_RANGE = { least: 0.25, most: 2 } as const;

/** Drums of one kind, of which each is an articulation of the other. */
const KINDS: InstrumentId[][] = [
  ['kick', 'kick.second'],
  ['snare', 'snare.second', 'snare.rimshot', 'snare.sideStick', 'clap'],
  ['hat.closed', 'hat.half', 'hat.open', 'hat.pedal'],
  ['ride', 'ride.bell', 'ride.second'],
  ['crash', 'crash.second', 'china', 'splash'],
  ['tom.high', 'tom.highMid', 'tom.mid', 'tom.low', 'tom.floor', 'tom.floorLow'],
  ['conga.open', 'conga.mute', 'conga.low'],
  ['bongo.high', 'bongo.low'],
  ['timbale.high', 'timbale.low'],
  ['agogo.high', 'agogo.low', 'cowbell'],
  ['shaker', 'maracas', 'cabasa', 'tambourine'],
  ['claves', 'woodblock.high', 'woodblock.low'],
  ['triangle.mute', 'triangle.open'],
  ['guiro.short', 'guiro.long'],
  ['cuica.mute', 'cuica.open'],
  ['whistle.short', 'whistle.long'],
];

/** The articulations of an instrument, itself included. @example articulationsOf('ride') // ["ride", "ride.bell", "ride.second"] */
export const articulationsOf = (id: InstrumentId): InstrumentId[] =>
  KINDS.find((kind) => kind.includes(id)) ?? [id];

const sameGrid = (hit: Hit, from: GrooveLane, to: GrooveLane): Hit => {
  if (from.part.grid === to.part.grid) return hit;
  const scale = gridTicks(from.part.grid) / gridTicks(to.part.grid);
  const length = hit.length === null ? null : hit.length * scale;
  return { ...hit, ...placed(positionOf(hit, from.part.grid), to.part.grid), length };
};

/**
 * Lanes that came to be played on one instrument become one; nothing is left out. Lanes that were of one drum from the start,
 * by two numbers of it or by numbers that no drum is known for, stay what they are.
 */
const merged = (lanes: (GrooveLane & { moved: boolean })[]): GrooveLane[] => {
  const out: GrooveLane[] = [];
  for (const { moved, ...lane } of [...lanes].sort((a, b) => Number(a.moved) - Number(b.moved))) {
    const at = moved
      ? out.findIndex((one) => one.instrument === lane.instrument && one.channel === lane.channel)
      : -1;
    const there = out[at];
    if (!there) {
      out.push(lane);
      continue;
    }
    const more = lane.part.hits.map((hit) => sameGrid(hit, lane, there));
    out[at] = { ...there, part: { ...there.part, hits: inOrder([...there.part.hits, ...more]) } };
  }
  return out;
};

const louder = (hits: Hit[], factor: number): Hit[] =>
  factor === 1
    ? hits
    : hits.map((hit) => ({ ...hit, velocity: clamp(Math.round(hit.velocity * factor), 1, 127) }));

/** A groove played with other voices: first who keeps time, then each drum's articulation and level. */
export const revoiced = (groove: Groove, { voices, levels, timekeeper: keeper }: Voicing): Groove => {
  const moved = keeper ? keepTimeOn(groove, keeper) : groove;
  const lanes = moved.lanes.map((lane) => {
    const as = voices[lane.instrument] ?? lane.instrument;
    return {
      ...lane,
      instrument: as,
      note: as === lane.instrument ? lane.note : INSTRUMENTS[as].note,
      moved: as !== lane.instrument,
      part: { ...lane.part, hits: louder(lane.part.hits, levels[lane.instrument] ?? 1) },
    };
  });
  const timekeeper = moved.timekeeper && (voices[moved.timekeeper] ?? moved.timekeeper);
  return { ...moved, timekeeper, lanes: merged(lanes) };
};
