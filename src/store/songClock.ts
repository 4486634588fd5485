import type { Ticks } from '../../core/units';

/** A place in the song in words. */
export interface SongPlace {
  /** As it is counted: bar, beat, sixteenth. */
  counted: string;
  /** "verse, 1:04". */
  under: string;
}

/** What the frame shows of the song that plays: given by the song's screen, which is fetched when it is first opened. */
export interface SongClock {
  placeAt: (tick: Ticks) => SongPlace;
  length: Ticks;
}

let clock: SongClock | null = null;

export const giveSongClock = (now: SongClock): void => {
  clock = now;
};
export const songClock = (): SongClock | null => clock;
