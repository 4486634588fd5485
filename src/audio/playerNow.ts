import type { Switched } from '../../core/play/moves/detours';
import type { Frames, Ms } from '../../core/units';
import type { Watched } from '../workers/watched';
import type { newClock } from './clock';
import type { FromWorker, GivenSound, HandedNote, MixerReport, ToWorker } from './messages';
import type { createRenewals } from './renewals';
import type { Told } from './told';
/** From where on the audio clock counts which pattern's time. */
export type Anchor = Pick<
  Extract<FromWorker, { type: 'anchor' }>,
  'frame' | 'tick' | 'song' | 'tempo' | 'patternId'
>;

/** The page's hand on the sound: everything that must be on time happens in the worker and the audio thread. */
export interface AudioPlayer {
  /** Null where none comes. */
  worker: Watched | null;
  context: AudioContext | null;
  node: AudioWorkletNode | null;
  starting: Promise<void> | null;
  /** What a new worker has to be told. */
  told: Told;
  /** How play was begun; null where nothing plays. */
  playing: Extract<ToWorker, { type: 'play' }> | null;
  /** Up to which frame the mixer has been given notes. */
  until: Frames;
  /** What the mixer has, by key: a worker that takes another one's place need not make it again. */
  given: Map<string, GivenSound>;
  /** How many workers there have been. */
  workers: number;
  /** How often something of it was made anew of late. */
  renewals: ReturnType<typeof createRenewals>;
  /** When the mixer last gave a sign of life. */
  sign: Ms;
  looking: ReturnType<typeof setInterval> | null;
  anchors: Anchor[];
  clock: ReturnType<typeof newClock>;
  /** What was handed to the audio clock and has not been seen yet, in order of frame. */
  handed: HandedNote[];
  /** Since play began: which pattern came when. */
  switches: Anchor[];
  log: HandedNote[] | null;
  /** While a log is kept: when each batch came, in ms of the page's clock, and how far ahead of the ear it begins. */
  changes: { at: Ms; ahead: Ms }[];
  reports: ((report: MixerReport) => void)[];
  /** By which detours the pattern went from when on, since play began. */
  routes: readonly Switched[];
  /** Who waits for a route to be taken up, by the number of the question. */
  turning: Map<number, (ms: Ms | null) => void>;
}

let player: AudioPlayer | null = null;

/** The page's only one; null before there is any. */
export const playerNow = (): AudioPlayer | null => player;
export const setPlayer = (one: AudioPlayer): AudioPlayer => (player = one);
