import type { Beat } from '../document/schema';
import type { Sound } from '../samples/voiceSound';
import { mixed } from '../mix/mixNotes';
import { ceilingOf, createMixer, mix, replan, type MixNote } from '../mix/mixer';
import { newWav, putSamples, wavBytes, type Bits, type WavShape } from '../files/wav';
import { secondsAt } from '../play/tempoMap';
import type { ExportHow } from './choice';
import type { Piece } from './pieces';
import { voicesOf, type MidiVoice } from './midi';

/** How the sound of a piece is rendered. */
export type BounceHow = Pick<ExportHow, 'depth' | 'rate' | 'stems' | 'tail' | 'split' | 'scope'>;

/** The longest ringing kept after the end, in seconds. */
const TAIL_SECONDS = 4;
const FADE_SECONDS = 0.02;
/** The fade at a cut, in seconds: no click. */
const CUT_SECONDS = 0.003;
/** As much as is rendered between two words of progress: half a second. */
const BLOCKS_A_SECOND = 2;

/** Bits of a sample, from the choice of depth. @example bitsOf({ depth: '24' }) // 24 */
export const bitsOf = ({ depth }: Pick<ExportHow, 'depth'>): Bits =>
  depth === '16' ? 16 : depth === '24' ? 24 : 32;

const secondsOfPiece = ({ plan, range }: Piece): number =>
  secondsAt(plan.timeline.tempos, range.to) - secondsAt(plan.timeline.tempos, range.from);

/** The shape of the file that a piece becomes. */
export const waveOf = (piece: Piece, how: BounceHow): WavShape => ({
  rate: how.rate,
  channels: 2,
  bits: bitsOf(how),
  frames: Math.round((secondsOfPiece(piece) + (how.tail ? TAIL_SECONDS : 0)) * how.rate),
});

/** The bytes that a browser can be trusted to hold at once, files and ZIP together. */
export const MOST_BOUNCE_BYTES = 700 * 1024 * 1024;

/** Bytes of everything that a bounce would write. */
export const bounceBytes = (pieces: Piece[], beat: Beat, how: BounceHow): number =>
  pieces.reduce(
    (sum, piece) => sum + wavBytes(waveOf(piece, how)) * bounceVoices(piece, beat, how).length,
    0,
  );

const megabytes = (bytes: number): string => `${Math.ceil(bytes / 1024 / 1024)} MB`;

/** A sentence where a bounce would be too large, with smaller choices; null where it is not. */
export const tooLarge = (pieces: Piece[], beat: Beat, how: BounceHow): string | null => {
  const bytes = bounceBytes(pieces, beat, how);
  if (bytes <= MOST_BOUNCE_BYTES) return null;
  const smaller = [
    how.depth !== '16' && '16 bit',
    how.stems && 'no stems',
    pieces.length > 1 && 'one section at a time',
    pieces.length === 1 && 'some bars instead of all',
  ].filter(Boolean);
  return `This would take ${megabytes(bytes)}, more than the ${megabytes(MOST_BOUNCE_BYTES)} that a browser can be trusted with. Smaller: ${smaller.join(', or ')}.`;
};

/** The lanes with anything to hear, all together or a stem each. */
export const bounceVoices = (piece: Piece, beat: Beat, how: BounceHow): MidiVoice[] => {
  const playing = new Set(piece.notes().map(({ lane }) => lane));
  return voicesOf(
    beat,
    { split: how.stems ? (how.split === 'groups' ? 'groups' : 'lanes') : 'none' },
    playing,
  );
};

/** The notes of a piece for the mixer. What chokes a stem is in it, unheard. */
const mixNotes = (
  piece: Piece,
  beat: Beat,
  rate: number,
  voice: MidiVoice,
  sounds: Sound[],
  earliest: number,
): MixNote[] => {
  const { tempos } = piece.plan.timeline;
  const origin = secondsAt(tempos, piece.range.from);
  const at = (tick: number) => secondsAt(tempos, tick + piece.range.from) - origin;
  return piece.notes().flatMap((note) => {
    const sound = sounds[note.lane]!;
    const made = mixed(beat, note, sound, note.lane, Math.round(at(note.tick) * rate), earliest);
    const mine = voice.lanes.has(note.lane);
    const heard = mine ? made : made.filter(({ group }) => group);
    const lasts = note.cut || sound.plan.held ? (at(note.tick + note.length) - at(note.tick)) * rate : 0;
    return heard.map((one) => ({
      ...one,
      frames: lasts && lasts + (one.lead ?? 0),
      ...(!mine && { left: 0, right: 0 }),
    }));
  });
};

/** So that a loop may be cut where it ends: the last samples fade. */
const fadeOut = (
  left: Float32Array,
  right: Float32Array,
  from: number,
  total: number,
  fade: number,
): void => {
  for (let i = 0; i < left.length; i++) {
    const rest = total - (from + i);
    if (rest >= fade) continue;
    const gain = Math.max(0, rest / fade);
    left[i]! *= gain;
    right[i]! *= gain;
  }
};

/** Whether the file is to come round: what is cut where it ends, but for a song, which ends. */
const comesRound = ({ tail, scope }: BounceHow): boolean => !tail && scope !== 'song';

/**
 * The rounds that went before, as far back as they can still be heard: what rings on at a loop's end is heard at its
 * start, as it is when it plays.
 *
 * @param total frames of the loop
 * @param lead frames before it; a note of the loop itself begins so much later
 */
const withRoundsBefore = (notes: MixNote[], total: number, lead: number): MixNote[] => {
  const rounds = Math.ceil(lead / total);
  const before = Array.from({ length: rounds + 1 }, (_, at) => lead - (rounds - at) * total);
  const all = before.flatMap((begin) =>
    notes.map((note) => ({ ...note, frame: note.frame + begin })).filter(({ frame }) => frame >= 0),
  );
  // What leads up to the first strokes of the next round is heard at this one's end.
  const next = notes
    .filter(({ frame }) => frame < 0)
    .map((note) => ({ ...note, frame: note.frame + lead + total }));
  return [...all, ...next].sort((a, b) => a.frame - b.frame);
};

/**
 * Renders a piece as playback would sound it, each note on its own frame. It tells on the way how much is done, 0 to 1.
 * With a tail it rings out and fades; without one it is cut, and but for a song it comes round: its end rings on into
 * its start.
 *
 * @param sounds what the beat's lanes sound like, at the rate that is asked for
 * @returns the bytes of a WAV file
 */
export function* bounce(
  piece: Piece,
  beat: Beat,
  how: BounceHow,
  sounds: Sound[],
  voice: MidiVoice,
): Generator<number, Uint8Array, void> {
  const shape = waveOf(piece, how);
  const bytes = newWav(shape);
  const mixer = createMixer(how.rate);
  mixer.limiting = !how.stems;
  mixer.ceiling = ceilingOf(beat);
  beat.lanes.forEach((_, at) => {
    const { buffers } = sounds[at]!;
    // Silent, it still chokes what it chokes.
    mixer.sounds[at] = voice.lanes.has(at) ? buffers : buffers.map(() => SILENCE);
  });
  const block = Math.round(how.rate / BLOCKS_A_SECOND);
  const lead = comesRound(how) && shape.frames > 0 ? TAIL_SECONDS * BLOCKS_A_SECOND * block : 0;
  // What leads up to the first stroke is cut where the file begins, unless it comes round.
  const notes = mixNotes(piece, beat, how.rate, voice, sounds, lead ? -Infinity : 0);
  replan(mixer, 0, withRoundsBefore(notes, shape.frames, lead));
  // A loop goes on into its start: nothing of it is cut.
  const fade = Math.round((how.tail ? FADE_SECONDS : lead ? 0 : CUT_SECONDS) * how.rate);
  const left = new Float32Array(block);
  const right = new Float32Array(block);
  for (let at = -lead; at < 0; at += block) mix(mixer, left, right, at + lead);
  for (let at = 0; at < shape.frames; at += block) {
    mix(mixer, left, right, at + lead);
    if (fade) fadeOut(left, right, at, shape.frames, fade);
    putSamples(bytes, shape, at, left, right, Math.min(block, shape.frames - at));
    yield Math.min(1, (at + block) / shape.frames);
  }
  return bytes;
}

const SILENCE = new Float32Array(1);
