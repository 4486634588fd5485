import type { Band, Player } from '../document/playersSchema';
import type { PlainFeel } from '../document/feelSchema';
import type { Ms, Ticks } from '../units';
import { between, keptRun, type BandRun, type BandSpan } from './band';

/** A sixteenth: what a band's time is counted in. */
export const SIXTEENTH: Ticks = 240;

/** The band that a feel's timing comes from; null where it comes from the spread, or humanize is passed by. */
export const bandOf = ({ humanize, off }: PlainFeel): Band | null =>
  humanize.band?.on && !off.includes('humanize') ? humanize.band : null;

/** Who plays a lane: the one who is given it, else the first. */
export const playerOf = ({ players }: Pick<Band, 'players'>, laneId: string): Player =>
  players.find(({ lanes }) => lanes.includes(laneId)) ?? players[0]!;

/** The player of one lane. */
export interface PlayedBy {
  /** By how many ticks a stroke at a position is moved. */
  shift: (position: Ticks) => Ticks;
  /** The farthest that it has moved any up to a position. */
  reach: (upTo: Ticks) => Ticks;
}

/** A band at a place of a timeline. */
export interface PlacedBand {
  band: Band;
  run: BandRun;
  /** Where in the run position 0 is, in ticks. */
  from: Ticks;
  /** From a position of the timeline and a time in ms after it to the position of that time: through the tempo that follows the band. */
  through?: (position: Ticks, late: Ms) => Ticks;
}

/** The player of a lane, of a band that is placed. */
export const playedBy = (
  { band, run, from, through }: PlacedBand,
  laneId: string,
  ticksPerMs: (position: Ticks) => number,
  most: number,
): PlayedBy => {
  const { id } = playerOf(band, laneId);
  const at = (j: number) => run.heard(id, j);
  const late = (position: Ticks): Ms => between(at, Math.max(0, (from + position) / SIXTEENTH));
  const last = (upTo: Ticks): number => Math.ceil(Math.max(0, from + upTo) / SIXTEENTH) + 1;
  return {
    shift: through
      ? (position) => through(from + position, late(position)) - from - position
      : (position) => late(position) * ticksPerMs(position),
    reach: (upTo) => {
      const j = last(upTo);
      // Beside a tempo that follows them they are only as far off as from one another; where it ends, from the click too.
      return most * (run.most(j) + (through ? run.mostApart(j) : 0));
    },
  };
};

/**
 * A chain of strokes of which each is parted from the one before cannot be longer than the farthest that a player can fall back:
 * so far around has to be looked at.
 */
export const bandLooks = ({ players }: Band): Ms =>
  20 + 8 * players.reduce((most, { touch, clock }) => Math.max(most, touch + clock), 0);

/** The band of a feel by itself, from position 0. @param every how many sixteenths a pass has; null where it runs on */
export const bandAlone = (feel: PlainFeel, every: number | null): PlacedBand | null => {
  const band = bandOf(feel);
  if (!band) return null;
  const spans: BandSpan[] = [{ from: 0, players: band.players, seed: feel.humanize.seed }];
  return { band, run: keptRun(spans, every), from: 0 };
};
