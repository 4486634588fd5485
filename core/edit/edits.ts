import { setPattern, patternTicks } from '../document/defaults';
import type { Feel, PlainFeel } from '../document/feelSchema';
import type { Beat, Pattern } from '../document/schema';
import type { Box } from './clip';
import { heldAll, type ArgsOf, type Edit } from './define';
import { FEEL_EDITS } from './defined/feel';
import { WHOLE_BEAT_EDITS } from './defined/beat';
import { KEPT_FEEL_EDITS } from './defined/keptFeels';
import { HIT_EDITS } from './defined/hits';
import { LANE_EDITS } from './defined/lanes';
import { WHOLE_PATTERN_EDITS } from './defined/patterns';
import { SONG_EDITS } from './defined/song';
import { SOUND_EDITS } from './defined/sounds';
import { spotsWithin } from './spots';

/** With the edits, since they tell what comes of one before it is made. */
export { writtenMoves } from './writeMoves';

/**
 * Every edit by name, so that an edit is plain data: it can be sent to several patterns, named in the history and replayed.
 * An edit that cannot be made gives back what it was given.
 */

/** Edits of one pattern; the beat is there to be looked at. */
export const PATTERN_EDITS = { ...HIT_EDITS, ...LANE_EDITS, ...WHOLE_PATTERN_EDITS };

/** Edits of the beat as a whole. */
export const BEAT_EDITS = { ...WHOLE_BEAT_EDITS, ...KEPT_FEEL_EDITS, ...SOUND_EDITS, ...SONG_EDITS };

type PatternEdits = typeof PATTERN_EDITS;
type BeatEdits = typeof BEAT_EDITS;
export type FeelEdit = {
  [K in keyof typeof FEEL_EDITS]: { edit: K; args: ArgsOf<(typeof FEEL_EDITS)[K]> };
}[keyof typeof FEEL_EDITS];

export type PatternEdit = {
  [K in keyof PatternEdits]: { edit: K; args: ArgsOf<PatternEdits[K]> };
}[keyof PatternEdits];
export type BeatEdit = {
  [K in keyof BeatEdits]: { edit: K; args: ArgsOf<BeatEdits[K]> };
}[keyof BeatEdits];

/** A take may know lanes that are gone, an edit may be meant for one: a beat holds no part without its lane. */
const onlyLanes = (pattern: Pattern, beat: Beat): Pattern => {
  const lanes = new Set(beat.lanes.map(({ id }) => id));
  const entries = Object.entries(pattern.parts);
  const known = entries.filter(([laneId]) => lanes.has(laneId));
  return known.length === entries.length ? pattern : { ...pattern, parts: Object.fromEntries(known) };
};

/** The box that was drawn around the hits of an edit. */
export interface Around extends Box {
  /** It reaches to the pattern's end, however long that is. */
  toEnd: boolean;
}

/** The hits that an edit is for in a pattern that is edited along: those within the box, wherever they stand in it. */
const inBox = (pattern: Pattern, args: object, around: Around | undefined): object => {
  if (!around || !('spots' in args)) return args;
  const to = around.toEnd ? Math.max(around.to, patternTicks(pattern)) : around.to;
  return { ...args, spots: spotsWithin(pattern, around.laneIds, around.from, to) };
};

/**
 * Makes one edit in each of several patterns.
 *
 * @param patternIds the one that is shown first
 * @param around the box that the hits were chosen by: in the other patterns it holds other hits
 * @example
 * editPatterns(beat, ['a'], { edit: 'clearLanes', args: { laneIds: ['kick'] } }).patterns[0]!.parts['kick']!.hits
 * // []
 */
export const editPatterns = (
  beat: Beat,
  patternIds: string[],
  { edit, args }: PatternEdit,
  around?: Around,
): Beat => {
  const { args: taken, run }: Edit<Pattern, [Beat, boolean]> = PATTERN_EDITS[edit];
  const within = heldAll(taken, args);
  return patternIds.reduce((now, id, at) => {
    const pattern = now.patterns.find((one) => one.id === id);
    if (!pattern) return now;
    const out = run(pattern, (at ? inBox(pattern, within, around) : within) as never, now, at === 0);
    return out === pattern ? now : setPattern(now, onlyLanes(out, now));
  }, beat);
};

/**
 * Makes one edit of the beat.
 *
 * @example
 * editBeat(beat, { edit: 'removeLane', args: { laneId: 'kick' } }).lanes.length === beat.lanes.length - 1
 * // true
 */
export const editBeat = (beat: Beat, { edit, args }: BeatEdit): Beat => {
  const { args: taken, run }: Edit<Beat> = BEAT_EDITS[edit];
  return run(beat, heldAll(taken, args) as never);
};

/**
 * Makes an edit of a feel by its name; what it is blended with stays.
 *
 * @example editFeel(beat.feel, { edit: 'setLevel', args: { level: 3 } }).level // 2
 */
export const editFeel = (feel: Feel, { edit, args }: FeelEdit): Feel => {
  const { blend, ...plain } = feel;
  const { args: taken, run }: Edit<PlainFeel> = FEEL_EDITS[edit];
  const edited = run(plain, heldAll(taken, args) as never);
  return blend ? { ...edited, blend } : edited;
};
