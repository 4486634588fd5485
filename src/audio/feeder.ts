import { playWindow, type Note } from '../../core/play/play';
import type { PlayPlan } from '../../core/play/plan';
import { QUARTER, type Frames, type Ticks } from '../../core/units';

/**
 * Decides which notes to hand to the audio clock, and when. It has no timer and no clock of its own: whoever wakes it
 * says which frame is now, so that it can be proven with a made-up clock.
 */

/** Notes are handed over this long before they sound: longer than the longest pause of a timer in a hidden page. */
export const LEAD_SECONDS = 2.5;
/** An edit takes effect this long after it: what is closer is on its way already. */
export const CUT_SECONDS = 0.025;
/** How much is planned at once, at the least. */
const PIECE_SECONDS = 0.1;
/** How far back a change may reach that moves a note from after now to before it. */
const LOOK_BACK_SECONDS = 0.25;
/** How long it is remembered what was handed over. */
const MEMORY_SECONDS = 1;

/** A note with its frame of the audio clock. */
export interface PlannedNote extends Note {
  frame: Frames;
}

/** Takes the place of whatever waits at frame `from` or later. */
export interface Batch {
  from: Frames;
  notes: PlannedNote[];
}

export interface Feeder {
  plan: PlayPlan;
  /** Frames a second. */
  rate: number;
  /** At this frame playback stands at this tick. */
  anchor: { frame: Frames; tick: Ticks };
  /** Up to which frame, not included, notes have been handed over. */
  until: Frames;
  /** When each note of late was planned, by its identity. */
  sent: Map<string, Frames>;
}

const framesPerTick = (feeder: Feeder): number => (60 * feeder.rate) / (QUARTER * feeder.plan.tempo);

/** The frame at which a tick sounds. */
export const frameAt = (feeder: Feeder, tick: Ticks): Frames =>
  Math.round(feeder.anchor.frame + (tick - feeder.anchor.tick) * framesPerTick(feeder));

/** The tick that sounds at a frame. */
export const tickAt = (feeder: Feeder, frame: Frames): Ticks =>
  feeder.anchor.tick + (frame - feeder.anchor.frame) / framesPerTick(feeder);

const identity = (note: Note): string =>
  `${note.lane}/${note.round}/${note.turn}/${note.place}/${note.stroke}`;

/** Begins playing a plan at its start, on a frame. */
export const startFeeder = (plan: PlayPlan, rate: number, frame: Frames): Feeder => ({
  plan,
  rate,
  anchor: { frame, tick: 0 },
  until: frame,
  sent: new Map(),
});

/** The notes that begin within a stretch of frames. Told by their frames: ticks at its edges may round either way. */
const planned = (feeder: Feeder, from: Frames, to: Frames): PlannedNote[] =>
  playWindow(feeder.plan, Math.max(0, tickAt(feeder, from - 1)), Math.max(0, tickAt(feeder, to + 1)))
    .map((note) => ({ ...note, frame: frameAt(feeder, note.tick) }))
    .filter((note) => note.frame >= from && note.frame < to);

const remember = (feeder: Feeder, notes: PlannedNote[], now: Frames): void => {
  const old = now - MEMORY_SECONDS * feeder.rate;
  for (const [key, frame] of feeder.sent) if (frame < old) feeder.sent.delete(key);
  for (const note of notes) feeder.sent.set(identity(note), note.frame);
};

/** Hands over what falls into the lead. To be called often; a pause of two seconds does no harm. */
export const wake = (feeder: Feeder, now: Frames): Batch | null => {
  const from = feeder.until;
  const to = Math.round(now + LEAD_SECONDS * feeder.rate);
  if (to - from < PIECE_SECONDS * feeder.rate) return null;
  const notes = planned(feeder, from, to);
  feeder.until = to;
  remember(feeder, notes, now);
  return { from, notes };
};

/**
 * Takes up a changed plan. What has been heard is not heard again where the change moves it later, and what was still
 * to come is not lost where the change moves it to before now: it sounds at once.
 */
export const change = (feeder: Feeder, plan: PlayPlan, now: Frames): Batch => {
  const cut = Math.round(now + CUT_SECONDS * feeder.rate);
  feeder.anchor = { frame: cut, tick: tickAt(feeder, cut) };
  feeder.plan = plan;
  feeder.until = cut + Math.round(LEAD_SECONDS * feeder.rate);
  const recent = cut - LOOK_BACK_SECONDS * feeder.rate;
  const notes = planned(feeder, recent, feeder.until).flatMap((note) => {
    const before = feeder.sent.get(identity(note));
    if (note.frame < cut) return before !== undefined && before >= cut ? [{ ...note, frame: cut }] : [];
    return before !== undefined && before < cut ? [] : [note];
  });
  for (const [key, frame] of feeder.sent) if (frame >= cut) feeder.sent.delete(key);
  remember(feeder, notes, now);
  return { from: cut, notes };
};
