/** When what was handed to the audio clock is heard, and what is heard when. */
import { QUARTER, type Frames, type Ms, type Seconds, type Ticks } from '../../core/units';
import type { HandedNote } from './messages';
import { playerNow, type Anchor } from './playerNow';
import { SAMPLE_RATE } from './timing';

/** When a frame of the audio clock is heard, in ms of the page's clock; null before there is any sound. */
export const timeOfFrame = (frame: Frames): Ms | null => {
  const player = playerNow();
  return player?.context ? player.clock.timeOf(player.context, frame / SAMPLE_RATE) : null;
};

/** The frame that is heard now: the output takes a while. */
export const heardFrame = (context: AudioContext): number =>
  (context.currentTime - (context.outputLatency || context.baseLatency || 0)) * SAMPLE_RATE;

const heardAnchor = (): Anchor | undefined => {
  const player = playerNow();
  if (!player?.context) return undefined;
  const frame = heardFrame(player.context);
  return player.anchors.findLast((anchor) => anchor.frame <= frame);
};

/** Where playback stands in the ears of the listener, in ticks from where play began; null before it sounds. */
export const playedTick = (): Ticks | null => {
  const player = playerNow();
  const anchor = heardAnchor();
  if (!player?.context || !anchor) return null;
  const frame = heardFrame(player.context);
  return anchor.tick + ((frame - anchor.frame) * QUARTER * anchor.tempo) / (60 * SAMPLE_RATE);
};

/** Which pattern is heard: while one waits for its turn, the one before it; null before any sounds. */
export const playedPattern = (): string | null => heardAnchor()?.patternId ?? null;

/** Where playback stands in the song; null where none is heard. */
export const playedSongTick = (): Ticks | null => {
  const anchor = heardAnchor();
  const tick = playedTick();
  return !anchor || anchor.song === null || tick === null ? null : anchor.song + tick - anchor.tick;
};

/** A pattern that began to be heard. */
export interface HeardPattern {
  patternId: string | null;
  at: Seconds;
  tempo: number;
}

/** Which patterns have been heard since play began, from when on, in seconds of the audio clock. */
export const heardPatterns = (): HeardPattern[] => {
  const player = playerNow();
  if (!player?.context) return [];
  const frame = heardFrame(player.context);
  return player.switches
    .filter((one) => one.frame <= frame)
    .map(({ patternId, frame: at, tempo }) => ({ patternId, at: at / SAMPLE_RATE, tempo }));
};

/** The time of the audio clock that is heard now. */
export const heardSeconds = (): Seconds => {
  const player = playerNow();
  return player?.context ? heardFrame(player.context) / SAMPLE_RATE : 0;
};

/** What was heard at a moment. */
export interface HeardAt {
  /** In ticks from where play began; below 0 while it counts in. */
  tick: Ticks;
  /** Where in the song; null where a pattern plays by itself. */
  song: Ticks | null;
  patternId: string | null;
}

/** What was heard at a moment of the page's clock, such as that of an event, in ms; null where nothing played. */
export const heardAt = (time: Ms): HeardAt | null => {
  const player = playerNow();
  if (!player?.context || !player.anchors.length) return null;
  const frame = player.clock.heardAt(player.context, time) * SAMPLE_RATE;
  const { anchors } = player;
  const anchor = anchors.findLast((one) => one.frame <= frame) ?? anchors[0]!;
  const tick = anchor.tick + ((frame - anchor.frame) * QUARTER * anchor.tempo) / (60 * SAMPLE_RATE);
  const song = anchor.song === null ? null : anchor.song + tick - anchor.tick;
  return { tick, song, patternId: anchor.patternId };
};

/** The notes that have been heard since the last call. */
export const takeHeard = (): HandedNote[] => {
  const player = playerNow();
  if (!player?.context || !player.handed.length) return [];
  const frame = heardFrame(player.context);
  const at = player.handed.findIndex((note) => note.frame > frame);
  return player.handed.splice(0, at < 0 ? player.handed.length : at);
};

/** How long it is until the next note that was handed over is heard, in ms; null where none is known. */
export const msToNextHeard = (): Ms | null => {
  const player = playerNow();
  const next = player?.handed[0];
  if (!player?.context || !next) return null;
  return Math.max(0, ((next.frame - heardFrame(player.context)) * 1000) / SAMPLE_RATE);
};
