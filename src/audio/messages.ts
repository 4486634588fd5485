import type { InstrumentId } from '../../core/document/instruments';
import type { Beat, Detour, Lane } from '../../core/document/schema';
import type { Switched } from '../../core/play/moves/detours';
import type { SoundingKit, OwnLayers } from '../../core/samples/own';
import type { SoundShape } from '../../core/samples/shape';
import type { Sound, SoundPlan } from '../../core/samples/voiceSound';
import type { MixNote } from '../../core/mix/mixer';
import type { Frames, Semitones, Ticks, Velocity } from '../../core/units';

/** So many numbers of sounds each worker has for itself: what one before it gave to the mixer goes on sounding. */
export const SOUNDS_EACH = 4096;

/** The click: on every beat, stronger on the first of a bar. */
export interface Metronome {
  on: boolean;
  /** 0 to 1. */
  level: number;
  accent: boolean;
}

/** That the song plays and not a pattern: from where, and what of it is repeated. */
export interface SongPlay {
  from: Ticks;
  loop: { from: Ticks; to: Ticks } | null;
}

/** Where play had come to when something of it had to be made anew: at a frame it stood at a tick, by these detours. */
export interface Resume {
  frame: Frames;
  tick: Ticks;
  /** Up to where the mixer has notes already; left out, it has none. */
  until?: Frames;
  switched: readonly Switched[];
}

/** A sound that the mixer has: by which key, under which number, and how a stroke chooses among its buffers. */
export interface GivenSound {
  key: string;
  index: number;
  plan: SoundPlan;
}

/** From the page to the worker. */
export type ToWorker =
  /**
   * @param base from which number on its sounds are known to the mixer: those of a worker before it still sound
   * @param has what the mixer has by then
   */
  | { type: 'connect'; port: MessagePort; base: number; has: GivenSound[] }
  | { type: 'beat'; beat: Beat; patternId: string; song?: SongPlay }
  /** @param at where another clock leads: at which frame what begins stands at its start */
  | { type: 'play'; countIn: Ticks; at?: Frames; resume?: Resume }
  /** What a worker before this one gave to the mixer has rung out. */
  | { type: 'tidy' }
  /** Another clock ticks and may say start at any time: all is made ready for it. */
  | { type: 'arm' }
  | { type: 'metronome'; metronome: Metronome }
  | { type: 'switch'; beat: Beat; patternId: string; at: 'now' | 'beat' | 'end' }
  | { type: 'stop' }
  /** The pattern that plays goes by another detour from the next multiple of so many ticks on. @param asked the number of the answer */
  | { type: 'route'; asked: number; detour: Detour | null; every: Ticks }
  /** Another clock leads: at a frame it stands at a tick. */
  | { type: 'align'; frame: Frames; tick: Ticks }
  /** Sounds that will be wanted soon are made beforehand. */
  | { type: 'prepare'; kit: SoundingKit; instruments: InstrumentId[] }
  /** A sound of one's own that was wanted; null where none of its samples is there. */
  | { type: 'own'; name: number; sound: Sound | null }
  | { type: 'own'; name: number; failed: true }
  | { type: 'strike'; laneId: string; velocity: Velocity; pitch?: Semitones }
  /** A lane that the beat need not have: a drum of a kit, a sound that is tried. */
  | { type: 'hear'; kit: SoundingKit; lane: Lane; velocity: Velocity; pitch?: Semitones }
  | { type: 'report' };

/** A note that was handed to the audio clock, for the eye and for measuring. */
export interface HandedNote {
  /** Which stroke of what plays it is: the same in every plan of it. */
  id: string;
  frame: Frames;
  lane: number;
  step: number;
  stroke: number;
  note: number;
  velocity: Velocity;
  channel: number;
  /** How long it lasts, in frames. */
  frames: Frames;
}

/** What the mixer has to say of itself. */
export interface MixerReport {
  late: number;
  worst: Frames;
  /** The frames on which notes began, the last few thousand. */
  started: Frames[];
}

/** From the worker to the page. */
export type FromWorker =
  | {
      type: 'anchor';
      frame: Frames;
      /** Where in the pattern, and where in the song; null where the pattern plays by itself. */
      tick: Ticks;
      song: Ticks | null;
      tempo: number;
      patternId: string | null;
    }
  /** By which detours the pattern goes from when on, since play began; and the frame of the last, where it was asked for. */
  | { type: 'routed'; asked?: number; switched: readonly Switched[]; frame: Frames | null }
  /** In the place of all that was handed over from `from` on; up to `until` all is told. */
  | { type: 'handed'; from: Frames; until: Frames; notes: HandedNote[]; fresh?: true }
  /** The mixer was given a sound; without a plan, it was taken away. */
  | { type: 'given'; key: string; index: number; plan: SoundPlan | null }
  /** A sound of one's own is wanted, under a number of its own. */
  | { type: 'want'; name: number; own: OwnLayers; shape: SoundShape; rate: number }
  | { type: 'report'; report: MixerReport };

/** From the worker to the mixer in the audio thread. */
export type ToMixer =
  | { type: 'sound'; index: number; layers: Float32Array[] }
  | { type: 'replan'; from: Frames; notes: MixNote[] }
  | { type: 'strike'; notes: MixNote[] }
  /** Nothing leaves louder than this, 1 being full scale. */
  | { type: 'ceiling'; level: number }
  | { type: 'clock'; on: boolean }
  | { type: 'silence' }
  /** Of all sounds but the clicks only those of these numbers are still wanted. */
  | { type: 'keep'; sounds: number[] }
  | { type: 'report' };

/** From the mixer to the page: the highest level of each lane lately, and what the limiter left of the loudest. */
export interface MixLevels {
  peaks: Float32Array;
  left: number;
}

/** From the mixer to the worker. */
/**
 * `at` is the wall clock's time as it was said, in ms: the audio thread has no other clock, and a word may wait for long until
 * it is heard.
 */
export type FromMixer = { type: 'now'; frame: Frames; at?: number } | { type: 'report'; report: MixerReport };
