import { modulo } from '../../core/numbers';
import { barTicks } from '../../core/document/meter';
import type { Note } from '../../core/play/notes';
import type { Playable } from '../../core/play/playable';
import type { Frames, Ticks } from '../../core/units';

/**
 * Decides which notes to hand to the audio clock, and when. It has no timer and no clock of its own: whoever wakes it
 * says which frame is now, so that it can be proven with a made-up clock.
 */

/** Notes are handed over this long before they sound: longer than the longest pause of a timer in a hidden page. */
export const LEAD_SECONDS = 2.5;
/** An edit takes effect this long after it: what is closer is on its way already. */
export const CUT_SECONDS = 0.025;
/**
 * After an edit so much is planned at once, and all of the lead when no other has come for a while: a control that is turned
 * changes everything many times a second, and most of what was planned far ahead would be thrown away unheard.
 */
export const EDITED_LEAD_SECONDS = 1;
const EDITED_REST_SECONDS = 0.2;
/** How much is planned at once, at the least. */
const PIECE_SECONDS = 0.1;
/** How far back a change may reach that moves a note from after now to before it. */
const LOOK_BACK_SECONDS = 0.25;
/** How long it is remembered what was handed over. */
const MEMORY_SECONDS = 1;
/** Another clock that is farther off than this has leapt. */
const LEAP_SECONDS = 0.1;
/** After a leap, what was due so shortly before it is known sounds at once: it is right, if late. */
const RIGHT_SECONDS = 0.03;

/** A note with its frame of the audio clock. */
export interface PlannedNote extends Note {
  frame: Frames;
}

/** Takes the place of whatever waits at frame `from` or later. */
export interface Batch {
  from: Frames;
  notes: PlannedNote[];
  /** Something else plays from here on, or the same from another place: what was heard before may come again. */
  fresh?: true;
}

export interface Feeder {
  plan: Playable;
  /** Frames a second. */
  rate: number;
  /** At this frame playback stands at this tick. */
  anchor: { frame: Frames; tick: Ticks };
  /** Up to which frame, not included, notes have been handed over. */
  until: Frames;
  /** When each note of late was planned, by its identity. */
  sent: Map<string, Frames>;
  /** The frame from which the lead is whole again, after an edit. */
  rested: Frames;
  /** The frame at which the plan begins: another one may still sound until then. */
  begins: Frames;
  /** What takes the plan's place when its time has come. */
  next: { plan: Playable; frame: Frames; place?: Ticks } | null;
}

/** The frame at which a tick sounds. */
export const frameAt = ({ plan, anchor, rate }: Feeder, tick: Ticks): Frames =>
  Math.round(anchor.frame + (plan.secondsAt(tick) - plan.secondsAt(anchor.tick)) * rate);

/** The tick that sounds at a frame. */
export const tickAt = ({ plan, anchor, rate }: Feeder, frame: Frames): Ticks =>
  plan.tickAt(plan.secondsAt(anchor.tick) + (frame - anchor.frame) / rate);

/** How many frames a length lasts from a position on. */
export const framesOf = ({ plan, rate }: Feeder, tick: Ticks, length: Ticks): Frames =>
  (plan.secondsAt(tick + length) - plan.secondsAt(tick)) * rate;

/** Which stroke of what plays a note is: the same in every plan of it. */
export const identity = (note: Note): string =>
  `${note.regionIndex}/${note.lane}/${note.cycle}/${note.readIndex}/${note.hitIndex}/${note.stroke}`;

/**
 * Begins playing a plan, on a frame.
 *
 * @param tick where it begins: before the plan's start for a count-in
 */
export const startFeeder = (
  plan: Playable,
  rate: number,
  frame: Frames,
  tick: Ticks = plan.start,
): Feeder => ({
  plan,
  rate,
  anchor: { frame, tick },
  until: frame,
  sent: new Map(),
  rested: -Infinity,
  begins: frame,
  next: null,
});

/** The notes that begin within a stretch of frames. Told by their frames: ticks at its edges may round either way. */
const planned = (feeder: Feeder, from: Frames, to: Frames): PlannedNote[] =>
  feeder.plan
    .notes(
      Math.max(feeder.plan.start, tickAt(feeder, from - 1)),
      Math.max(feeder.plan.start, tickAt(feeder, to + 1)),
    )
    .map((note) => ({ ...note, frame: frameAt(feeder, note.tick) }))
    .filter((note) => note.frame >= from && note.frame < to);

const remember = (feeder: Feeder, notes: PlannedNote[], now: Frames): void => {
  const old = now - MEMORY_SECONDS * feeder.rate;
  for (const [key, frame] of feeder.sent) if (frame < old) feeder.sent.delete(key);
  for (const note of notes) feeder.sent.set(identity(note), note.frame);
};

/** The frame before which all is on its way already. */
export const cutOf = (feeder: Feeder, now: Frames): Frames =>
  Math.max(feeder.begins, Math.round(now + CUT_SECONDS * feeder.rate));

/** When another pattern begins while one is playing. */
export type SwitchTime = 'now' | 'beat' | 'end';

const boundary = (tick: Ticks, every: Ticks): Ticks => Math.ceil(tick / every - 1e-9) * every;

const begin = (feeder: Feeder): void => {
  const { plan, frame, place = 0 } = feeder.next!;
  feeder.plan = plan;
  feeder.anchor = { frame, tick: plan.start + place };
  feeder.begins = frame;
  feeder.next = null;
  feeder.sent.clear();
};

const barOf = (plan: Playable, tick: Ticks): Ticks => barTicks(plan.meterAt(tick));

const placeInBar = (plan: Playable, tick: Ticks): Ticks => {
  const bar = barOf(plan, tick);
  return modulo(tick - plan.start, bar);
};

/**
 * Lets another plan begin: from its start where the one that plays comes to a beat or to its end, or at once, from the place
 * of the bar that has been reached.
 *
 * @param beat the length of a beat of what plays
 * @returns what takes the place of what was handed over beyond that moment; null where it is still to come
 */
export const switchTo = (
  feeder: Feeder,
  plan: Playable,
  now: Frames,
  at: SwitchTime,
  beat: Ticks,
): Batch | null => {
  const cut = Math.round(now + CUT_SECONDS * feeder.rate);
  const tick = tickAt(feeder, Math.max(cut, feeder.begins));
  const from = at === 'now' ? tick : boundary(tick, at === 'beat' ? beat : feeder.plan.length);
  // At once it goes on from the same place of the bar, so that the bars run through.
  const place = at === 'now' ? placeInBar(feeder.plan, tick) % barOf(plan, plan.start) : 0;
  feeder.next = { plan, frame: frameAt(feeder, from), place };
  if (feeder.next.frame > feeder.until) return null;
  const { frame } = feeder.next;
  begin(feeder);
  feeder.until = Math.max(feeder.until, frame + Math.round(PIECE_SECONDS * feeder.rate));
  const notes = planned(feeder, frame, feeder.until);
  remember(feeder, notes, now);
  return { from: frame, notes, fresh: true };
};

/** Hands over what falls into the lead. To be called often; a pause of two seconds does no harm. */
export const wake = (feeder: Feeder, now: Frames): Batch | null => {
  const from = feeder.until;
  const lead = now < feeder.rested ? EDITED_LEAD_SECONDS : LEAD_SECONDS;
  const to = Math.round(now + lead * feeder.rate);
  if (to - from < PIECE_SECONDS * feeder.rate) return null;
  const turn = feeder.next && feeder.next.frame <= to ? feeder.next.frame : null;
  const notes = planned(feeder, from, turn ?? to);
  if (turn !== null) {
    begin(feeder);
    notes.push(...planned(feeder, turn, to));
  }
  feeder.until = to;
  remember(feeder, notes, now);
  return { from, notes, ...(turn !== null && { fresh: true as const }) };
};

/**
 * Whether two plans agree in all that an edit now could not change any more.
 *
 * @example alikeBefore(feeder, feeder.plan, feeder.plan, now) // true
 */
export const alikeBefore = (feeder: Feeder, a: Playable, b: Playable, now: Frames): boolean => {
  const cut = cutOf(feeder, now);
  const recent = Math.max(feeder.begins, cut - LOOK_BACK_SECONDS * feeder.rate);
  const heard = (plan: Playable) =>
    planned({ ...feeder, plan }, recent, cut)
      .map((note) => `${identity(note)} ${note.frame} ${note.note} ${note.velocity}`)
      .join();
  return heard(a) === heard(b);
};

/**
 * Takes up a changed plan. What has been heard is not heard again where the change moves it later, and what was still
 * to come is not lost where the change moves it to before now: it sounds at once.
 *
 * @param leapt the place leapt: nothing was heard of what plays from here on
 */
export const change = (feeder: Feeder, plan: Playable, now: Frames, leapt = false): Batch => {
  const cut = cutOf(feeder, now);
  const tick = tickAt(feeder, cut);
  const same = plan.key === feeder.plan.key;
  // Where something else is repeated from now on, it goes on from the same place of the song, and turns count anew.
  feeder.anchor = { frame: cut, tick: same ? tick : feeder.plan.placeOf(tick) };
  if (!same) feeder.sent.clear();
  feeder.plan = plan;
  feeder.until = cut + Math.round(EDITED_LEAD_SECONDS * feeder.rate);
  feeder.rested = now + Math.round(EDITED_REST_SECONDS * feeder.rate);
  if (feeder.next) feeder.until = Math.min(feeder.until, feeder.next.frame);
  const recent = Math.max(feeder.begins, cut - LOOK_BACK_SECONDS * feeder.rate);
  const notes = planned(feeder, recent, feeder.until).flatMap((note) => {
    const before = feeder.sent.get(identity(note));
    if (leapt && note.frame < cut)
      return note.frame >= now - RIGHT_SECONDS * feeder.rate ? [{ ...note, frame: cut }] : [];
    if (note.frame < cut) return before !== undefined && before >= cut ? [{ ...note, frame: cut }] : [];
    return before !== undefined && before < cut ? [] : [note];
  });
  for (const [key, frame] of feeder.sent) if (frame >= cut) feeder.sent.delete(key);
  remember(feeder, notes, now);
  return { from: cut, notes, ...((leapt || !same) && { fresh: true as const }) };
};

/** Goes by another clock, which at a frame stands at a tick: all that is not on its way already is planned anew. */
export const realign = (
  feeder: Feeder,
  { frame, tick }: { frame: Frames; tick: Ticks },
  now: Frames,
): Batch => {
  // After a leap, what was heard comes again.
  const leapt = Math.abs(frameAt(feeder, tick) - frame) > LEAP_SECONDS * feeder.rate;
  if (leapt) feeder.sent.clear();
  feeder.anchor = { frame, tick };
  return change(feeder, feeder.plan, now, leapt);
};
