import type { Seconds, Ticks } from '../../core/units';

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

/** Minutes and seconds. @example timeText(184.2) // "3:04" */
export const timeText = (seconds: Seconds): string => {
  const whole = Math.max(0, Math.floor(seconds + 1e-6));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
};
