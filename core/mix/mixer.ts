import type { Frames, Seconds } from '../units';

/** A note as the mixer takes it. */
export interface MixNote {
  /** The frame of the audio clock at which it begins. */
  frame: Frames;
  /** Which of the sounds given to the mixer; where there is none, it only silences its group. */
  sound: number;
  layer: number;
  left: number;
  right: number;
  /** Silences what sounds of the same group; 0 is none. */
  group: number;
  /** After so many it is faded out; 0 or left out, it rings. */
  frames?: Frames;
  /** How many frames of the sound go by in one of the output: 1, or left out, is as it is, 2 an octave higher. */
  speed?: number;
  /** It begins as its lane's last note sounds and is at its own speed after so many seconds; left out, at once. */
  slide?: Seconds;
  /** Where in the sound it begins; left out, at its start. */
  from?: Frames;
  /** So many frames after it begins its attack falls on its stroke; left out, it begins with it. */
  lead?: Frames;
  /** Whose peak it counts towards: the lane's place, from 0. */
  lane?: number;
}

interface Voice {
  data: Float32Array;
  sound: number;
  layer: number;
  /** The frame of its stroke, where that may be still to come. */
  due: Frames;
  /** Where in the sound it is; between two frames where it is read at another speed. */
  at: number;
  speed: number;
  /** While it slides: what its speed is multiplied by at every frame, for so many frames, and what it is then. */
  slide: { by: number; frames: Frames; to: number } | null;
  left: number;
  right: number;
  group: number;
  /** Frames left until it is as loud as it is: what is begun in the middle comes up. */
  rising: number;
  /** Frames left until silence; -1 while it is not fading. */
  fading: number;
  /** Frames left until it is faded out. */
  rest: Frames;
  lane: number;
}

/** Sounds and notes waiting, and what sounds now. Mixed the same way in the audio worklet and in a bounce. */
export interface Mixer {
  rate: number;
  sounds: Float32Array[][];
  /** In order of frame. */
  queue: MixNote[];
  voices: Voice[];
  /** Notes begun lately, in order: a list that comes late may hold it once more. */
  begun: MixNote[];
  /** The notes that came too late to begin on their frame, and the worst delay. */
  late: { count: number; worst: Frames };
  /** How loud the sum was lately: what the limiter goes by. */
  envelope: number;
  /** Off for a stem: stems are to be mixed by someone else. */
  limiting: boolean;
  /** Nothing leaves the mixer louder than this, 1 being full scale. */
  ceiling: number;
  /** The share of the loudest that the limiter has left since this was last taken, 1 is all. */
  left: number;
  /** The highest level of each lane since they were last taken, 1 is full scale. */
  peaks: Float32Array;
}

/** Nothing leaves the mixer louder than this unless told otherwise, 1 being full scale. */
const CEILING = 0.96;

/** The ceiling of a beat as a level. @example ceilingOf({ ceiling: -6 }).toFixed(2) // "0.50" */
export const ceilingOf = ({ ceiling }: { ceiling?: number | undefined }): number =>
  ceiling === undefined ? CEILING : Math.min(CEILING, 10 ** (ceiling / 20));

/** As many lanes as a beat may have. */
const LANES = 64;

/** A mixer for a rate in samples a second, with nothing sounding. */
export const createMixer = (rate: number): Mixer => ({
  rate,
  sounds: [],
  queue: [],
  voices: [],
  begun: [],
  late: { count: 0, worst: 0 },
  envelope: 0,
  limiting: true,
  ceiling: CEILING,
  left: 1,
  peaks: new Float32Array(LANES),
});

const MOST_VOICES = 96;
const FADE_SECONDS = 0.003;

/** So many strokes are remembered; a list is never so late that more of it has begun. */
const MOST_BEGUN = 64;
/** One stroke that is planned twice may be told by rounding so many frames apart. */
const SAME_FRAMES = 2;

/** Whether a stroke has begun already, by a list that held until this one came: struck again it would flam. */
const hasBegun = (mixer: Mixer, from: Frames, note: MixNote): boolean =>
  mixer.begun.some(
    (one) =>
      dueOf(one) >= from - SAME_FRAMES &&
      Math.abs(dueOf(one) - dueOf(note)) <= SAME_FRAMES &&
      one.lane === note.lane &&
      one.sound === note.sound &&
      one.speed === note.speed,
  );

/**
 * Puts what is to be played from a frame on in the place of what was planned from there.
 *
 * @param from what waits at this frame or later is dropped
 * @param planned in order of frame; what of it has begun by the list before is not struck again
 */
export const replan = (mixer: Mixer, from: Frames, planned: MixNote[]): void => {
  const notes = mixer.begun.length ? planned.filter((note) => !hasBegun(mixer, from, note)) : planned;
  const kept = mixer.queue.filter((note) => dueOf(note) < from);
  // What leads up to a stroke may have begun already: it goes on if its stroke is still to come, and fades if it is not.
  const begun = mixer.voices.filter(({ due, fading }) => due >= from && fading < 0);
  if (!begun.length && !notes.some(({ lead }) => lead)) {
    mixer.queue = kept.concat(notes);
    return;
  }
  const goesOn = new Set<Voice>();
  const fresh = notes.filter((note) => {
    const voice = note.lead ? begun.find((one) => isOf(one, note) && !goesOn.has(one)) : undefined;
    if (voice) goesOn.add(voice);
    return !voice;
  });
  for (const voice of begun) if (!goesOn.has(voice)) fade(mixer, voice);
  mixer.queue = kept.concat(fresh).sort((a, b) => a.frame - b.frame);
};

const dueOf = ({ frame, lead = 0 }: MixNote): Frames => frame + lead;

const isOf = (voice: Voice, note: MixNote): boolean =>
  voice.due === dueOf(note) &&
  voice.sound === note.sound &&
  voice.layer === note.layer &&
  voice.lane === (note.lane ?? -1);

const fade = (mixer: Mixer, voice: Voice): void => {
  if (voice.fading < 0) voice.fading = Math.round(mixer.rate * FADE_SECONDS);
};

/** How a note slides from what still sounds on its lane; null where it does not. */
const slideOf = (
  mixer: Mixer,
  { slide, speed = 1, lane }: MixNote,
): (Voice['slide'] & { from: number }) | null => {
  const before = slide && mixer.voices.findLast((voice) => voice.lane === lane && voice.fading < 0);
  if (!before || before.speed === speed) return null;
  const frames = Math.max(1, Math.round(slide * mixer.rate));
  return { from: before.speed, by: (speed / before.speed) ** (1 / frames), frames, to: speed };
};

/** Silences a group, but for what belongs to the same stroke: the layers of one voice do not choke one another. */
const choke = (mixer: Mixer, note: MixNote): void => {
  const due = dueOf(note);
  for (const voice of mixer.voices) {
    if (voice.due === due && voice.lane === (note.lane ?? -1)) continue;
    // What slides is one voice: the one before it gives way.
    if ((note.group && voice.group === note.group) || (note.slide && voice.lane === note.lane))
      fade(mixer, voice);
  }
};

/** Begins a note now, silencing its group and, when too many sound, the oldest voice. */
export const startNote = (mixer: Mixer, note: MixNote): void => {
  const data = mixer.sounds[note.sound]?.[note.layer];
  if (!data) {
    if (note.sound < 0) choke(mixer, note);
    return;
  }
  const slide = slideOf(mixer, note);
  if (!note.lead) choke(mixer, note);
  if (mixer.voices.length >= MOST_VOICES) mixer.voices.shift();
  mixer.voices.push({
    data,
    sound: note.sound,
    layer: note.layer,
    due: dueOf(note),
    at: note.from ?? 0,
    speed: slide?.from ?? note.speed ?? 1,
    slide,
    left: note.left,
    right: note.right,
    group: note.group,
    // What is begun within its sound does not begin with an edge.
    rising: note.from ? Math.round(mixer.rate * FADE_SECONDS) : 0,
    fading: -1,
    rest: note.frames ? Math.round(note.frames) : Infinity,
    lane: note.lane ?? -1,
  });
};

/** Silent at once, without a click: what waits is dropped, what sounds fades in 3 ms. */
export const silence = (mixer: Mixer): void => {
  mixer.queue = [];
  for (const voice of mixer.voices) fade(mixer, voice);
};

/** A sound between two of its frames. */
const between = (data: Float32Array, at: number): number => {
  const below = Math.floor(at);
  const x = data[below]!;
  return x + ((data[below + 1] ?? 0) - x) * (at - below);
};

/** Adds so many frames of a voice, as they are read. Returns false where it has faded out. */
const sounded = (
  mixer: Mixer,
  voice: Voice,
  left: Float32Array,
  right: Float32Array,
  from: number,
  length: number,
  read: (i: number) => number,
): boolean => {
  const total = mixer.rate * FADE_SECONDS;
  let peak = 0;
  for (let i = 0; i < length; i++) {
    let x = read(i);
    if (voice.rising > 0) {
      x *= 1 - voice.rising / total;
      voice.rising -= 1;
    }
    if (voice.rest-- <= 0) fade(mixer, voice);
    if (voice.fading >= 0) {
      if (voice.fading === 0) return false;
      x *= voice.fading / total;
      voice.fading -= 1;
    }
    peak = Math.max(peak, Math.abs(x));
    left[from + i]! += x * voice.left;
    right[from + i]! += x * voice.right;
  }
  if (voice.lane >= 0)
    mixer.peaks[voice.lane] = Math.max(mixer.peaks[voice.lane]!, peak * Math.max(voice.left, voice.right));
  return true;
};

/** How far a voice that slides goes in a stretch: its speed at each frame adds up. */
const slid = (voice: Voice, length: number): { at: Float64Array; end: number } => {
  const at = new Float64Array(length);
  let [place, slide] = [voice.at, voice.slide];
  for (let i = 0; i < length; i++) {
    at[i] = place;
    place += voice.speed;
    if (!slide) continue;
    slide.frames -= 1;
    voice.speed = slide.frames > 0 ? voice.speed * slide.by : slide.to;
    if (slide.frames <= 0) slide = null;
  }
  voice.slide = slide;
  return { at, end: place };
};

/** Adds a voice to a stretch of the output. False when it has ended. */
type Adding = (
  mixer: Mixer,
  voice: Voice,
  left: Float32Array,
  right: Float32Array,
  from: number,
  to: number,
) => boolean;

/** The position in the buffer of a note that slides. */
const addSliding: Adding = (mixer, voice, left, right, from, to) => {
  const until = Math.min(to, from + voice.slide!.frames);
  const { at, end } = slid(voice, until - from);
  const last = voice.data.length - 1;
  let length = at.length;
  while (length > 0 && at[length - 1]! > last) length -= 1;
  const going = sounded(mixer, voice, left, right, from, length, (i) => between(voice.data, at[i]!));
  voice.at = end;
  if (!going || length < at.length || end > last) return false;
  return until === to || addVoice(mixer, voice, left, right, until, to);
};

const addVoice: Adding = (mixer, voice, left, right, from, to) => {
  if (voice.slide) return addSliding(mixer, voice, left, right, from, to);
  const { data, speed, at } = voice;
  // Between two frames the line between them is read; past the last there is none.
  const remaining = speed === 1 ? data.length - at : Math.ceil((data.length - 1 - at) / speed);
  const length = Math.min(to - from, Math.max(0, remaining));
  const straight = speed === 1 && Number.isInteger(at);
  const read = straight ? (i: number) => data[at + i]! : (i: number) => between(data, at + i * speed);
  if (!sounded(mixer, voice, left, right, from, length, read)) return false;
  voice.at += length * speed;
  return length === to - from && voice.at < data.length;
};

const mixStretch = (
  mixer: Mixer,
  left: Float32Array,
  right: Float32Array,
  from: number,
  to: number,
): void => {
  if (to <= from) return;
  mixer.voices = mixer.voices.filter((voice) => addVoice(mixer, voice, left, right, from, to));
};

/** A lead-in known of too late begins where it would be by now. */
const inTheMiddle = (note: MixNote, now: Frames): MixNote => {
  const by = Math.min(now - note.frame, note.lead!);
  return {
    ...note,
    frame: note.frame + by,
    lead: note.lead! - by,
    from: (note.from ?? 0) + by * (note.speed ?? 1),
  };
};

const noteLate = (mixer: Mixer, by: Frames): void => {
  if (by <= mixer.rate / 1000) return;
  mixer.late.count += 1;
  mixer.late.worst = Math.max(mixer.late.worst, by);
};

/** After so long the limiter has let go of two thirds of a peak. */
const RELEASE_SECONDS = 0.09;

/**
 * A limiter: it takes hold at the very sample that would pass the ceiling and lets go slowly, both sides alike, so that
 * nothing clips, loud hits keep their shape and their place between the loudspeakers, and what is softer stays untouched.
 */
const limit = (mixer: Mixer, left: Float32Array, right: Float32Array): void => {
  const kept = Math.exp(-1 / (RELEASE_SECONDS * mixer.rate));
  const { ceiling } = mixer;
  let { envelope } = mixer;
  for (let i = 0; i < left.length; i++) {
    envelope = Math.max(Math.abs(left[i]!), Math.abs(right[i]!), envelope * kept);
    if (envelope <= ceiling) continue;
    const gain = ceiling / envelope;
    if (gain < mixer.left) mixer.left = gain;
    left[i]! *= gain;
    right[i]! *= gain;
  }
  mixer.envelope = envelope;
};

/**
 * Fills the next stretch of output. Every note begins on its own frame.
 *
 * @param start the frame of the audio clock at the first sample
 * @param started is told of each note that begins, and on which frame
 */
export const mix = (
  mixer: Mixer,
  left: Float32Array,
  right: Float32Array,
  start: Frames,
  started?: (note: MixNote, frame: Frames) => void,
): void => {
  left.fill(0);
  right.fill(0);
  const end = start + left.length;
  let done = 0;
  let taken = 0;
  while (taken < mixer.queue.length && mixer.queue[taken]!.frame < end) {
    const note = mixer.queue[taken++]!;
    const at = Math.max(0, note.frame - start);
    if (dueOf(note) < start) noteLate(mixer, start - dueOf(note));
    if (at > done) mixStretch(mixer, left, right, done, at);
    done = Math.max(done, at);
    startNote(mixer, note.lead && note.frame < start ? inTheMiddle(note, start) : note);
    if (note.sound >= 0) started?.(note, start + done);
    // What leads up to its stroke is told by its voice.
    if (!note.lead) mixer.begun.push(note);
  }
  if (taken) mixer.queue.splice(0, taken);
  if (mixer.begun.length > 2 * MOST_BEGUN) mixer.begun.splice(0, mixer.begun.length - MOST_BEGUN);
  mixStretch(mixer, left, right, done, left.length);
  if (mixer.limiting) limit(mixer, left, right);
};
