import { FEEL_EDITS } from './defined/feel';
import { isRaw, shown, faultText, type Read } from '../document/reading';
import { beatSchema, type Beat } from '../document/schema';
import { listed } from '../document/text';
import { type About, type Arguments, type Existing } from './define';
import { changeFeel } from './beatEdits';
import {
  BEAT_EDITS,
  editBeat,
  editPatterns,
  PATTERN_EDITS,
  type BeatEdit,
  type PatternEdit,
  editFeel,
  type FeelEdit,
} from './edits';
import { argumentText } from './listText';
import { LANE_PRESETS, PATTERN_PRESETS } from './presets';

/** Edits that are given as data from outside, as a script has them: each looked at before it is made. */

/** An edit that nothing is known of yet. */
export interface GivenEdit {
  edit: string;
  args: Record<string, unknown>;
}

const LISTS: Record<string, { args: Arguments }>[] = [PATTERN_EDITS, BEAT_EDITS, FEEL_EDITS];

/** Looked up as a key of its own only: an edit may be asked for by any name. */
const describedAs = (name: string) =>
  LISTS.map((list) => (Object.hasOwn(list, name) ? list[name]! : null)).find((one) => one !== null) ?? null;

/** The ids that a beat has of something. @example existing(beat, 'pattern') // ["a"] */
export const existing = (beat: Beat, of: Existing): string[] => {
  const { sections, order } = beat.song;
  const all: Record<Existing, { id: string }[]> = {
    lane: beat.lanes,
    pattern: beat.patterns,
    take: beat.patterns.flatMap(({ takes = [] }) => takes),
    group: beat.groups,
    feel: beat.feels,
    template: beat.templates,
    'tray item': beat.tray,
    section: sections,
    place: order,
    route: beat.routes ?? [],
    entry: sections.flatMap(({ entries }) => entries),
    'lane preset': LANE_PRESETS,
    'pattern preset': PATTERN_PRESETS,
  };
  return all[of].map(({ id }) => id);
};

const notThere = (beat: Beat, of: Existing, id: string): string => {
  const there = existing(beat, of);
  const some = there.slice(0, 8).join(', ');
  return `there is no ${of} “${id}”; ${there.length ? `there is ${some}${there.length > 8 ? ', …' : ''}` : 'there is none'}`;
};

const isStep = (value: unknown): boolean =>
  isRaw(value) &&
  typeof value['laneId'] === 'string' &&
  Number.isInteger(value['step']) &&
  (value['place'] === undefined || Number.isInteger(value['place']));

/** A sentence about the fault of an argument; null where it has none. */
const faultOf = (beat: Beat, argument: About, value: unknown): string | null => {
  const wanted = (): string => `is ${shown(value)} where ${argumentText(argument)} is wanted`;
  const eachThere = (of: Existing, list: unknown[]): string | null => {
    const gone = list.find((one) => typeof one !== 'string' || !existing(beat, of).includes(one));
    return gone === undefined
      ? null
      : `says that ${notThere(beat, of, typeof gone === 'string' ? gone : shown(gone))}`;
  };
  switch (argument.is) {
    case 'figure': {
      const { least, most, whole } = argument.range;
      const fits = typeof value === 'number' && Number.isFinite(value) && (!whole || Number.isInteger(value));
      return fits && value >= least && value <= most ? null : wanted();
    }
    case 'id':
      return typeof value === 'string' ? eachThere(argument.of, [value]) : wanted();
    case 'ids':
      return Array.isArray(value) ? eachThere(argument.of, value) : wanted();
    case 'hits': {
      if (!Array.isArray(value) || !value.every(isStep)) return wanted();
      return eachThere(
        'lane',
        (value as { laneId: string }[]).map(({ laneId }) => laneId),
      );
    }
    case 'hit':
      return isStep(value) ? eachThere('lane', [(value as { laneId: string }).laneId]) : wanted();
    case 'new id':
    case 'text':
      return typeof value === 'string' ? null : wanted();
    case 'seed':
      return Number.isInteger(value) && (value as number) >= 0 ? null : wanted();
    case 'yes or no':
      return typeof value === 'boolean' ? null : wanted();
    case 'choice':
      return argument.of.includes(value as string) ? null : wanted();
    case 'maybe':
      return value === null ? null : faultOf(beat, argument.of, value);
    case 'optional':
      return value === undefined ? null : faultOf(beat, argument.of, value);
    case 'some': {
      if (!isRaw(value)) return wanted();
      for (const [name, one] of Object.entries(value)) {
        if (!Object.hasOwn(argument.of, name))
          return `has “${name}”, which is none of ${listed(Object.keys(argument.of))}`;
        const fault = one === undefined ? null : faultOf(beat, argument.of[name]!, one);
        if (fault) return `has ${name}, which ${fault}`;
      }
      return null;
    }
    case 'thing':
      return typeof value === 'object' ? null : wanted();
  }
};

/** The arguments that a script may leave out: which pattern, ids of what is new, and seeds. */
const filled = (
  { args, edit }: GivenEdit,
  described: Arguments,
  patternId: string,
  number: number,
): GivenEdit => {
  const out = { ...args };
  for (const [name, argument] of Object.entries(described)) {
    if (out[name] !== undefined) continue;
    if (argument.is === 'new id') out[name] = `made ${number}`;
    if (argument.is === 'seed') out[name] = 1;
    if (argument.is === 'id' && argument.of === 'pattern' && name === 'patternId') out[name] = patternId;
  }
  return { edit, args: out };
};

const argumentsFault = (beat: Beat, given: GivenEdit, described: Arguments): string | null => {
  const unknown = Object.keys(given.args).find((name) => !Object.hasOwn(described, name));
  if (unknown !== undefined) {
    const takes = Object.keys(described);
    return `it takes no “${unknown}”; it takes ${takes.length ? listed(takes) : 'nothing'}`;
  }
  for (const [name, argument] of Object.entries(described)) {
    const value = given.args[name];
    if (value === undefined && argument.is !== 'optional')
      return `“${name}” is missing: ${argumentText(argument)}`;
    const fault = faultOf(beat, argument, value);
    if (fault) return `“${name}” ${fault}`;
  }
  return null;
};

const made = (beat: Beat, patternId: string, { edit, args }: GivenEdit): Beat => {
  if (Object.hasOwn(PATTERN_EDITS, edit))
    return editPatterns(beat, [patternId], { edit, args } as PatternEdit);
  if (Object.hasOwn(BEAT_EDITS, edit)) return editBeat(beat, { edit, args } as BeatEdit);
  return changeFeel(beat, patternId, (feel) => editFeel(feel, { edit, args } as FeelEdit));
};

/** A beat after a script of edits. */
export interface Scripted {
  beat: Beat;
  /** The numbers of edits that changed nothing, from 1. */
  idle: number[];
}

/**
 * Makes edits one after the other, each as `{"edit": …, "args": {…}}`, those of a pattern in one pattern. All are made or none is.
 *
 * @param edits as they were read: anything may be among them
 * @param patternId the pattern that edits of a pattern, and of its feel, are made in
 * @returns the beat, or a sentence that names the first edit that cannot be made by its number
 * @example
 * scriptedEdits(beat, 'a', [{ edit: 'rotate', args: { laneIds: ['kick'], by: 1 } }]).ok // true
 * @example
 * scriptedEdits(beat, 'a', [{ edit: 'wobble', args: {} }])
 * // { ok: false, error: "Edit 1 could not be made: there is no edit “wobble”." }
 */
export const scriptedEdits = (
  original: Beat,
  patternId: string,
  edits: readonly unknown[],
): Read<Scripted> => {
  let beat = original;
  const idle: number[] = [];
  for (const [at, raw] of edits.entries()) {
    const number = at + 1;
    const refused = (name: string, why: string): Read<Scripted> => ({
      ok: false,
      error: `Edit ${number}${name && ` (${name})`} could not be made: ${why}.`,
    });
    if (!isRaw(raw) || typeof raw['edit'] !== 'string')
      return refused('', 'it is to be {"edit": …, "args": {…}}');
    const described = describedAs(raw['edit']);
    if (!described) return refused('', `there is no edit “${raw['edit']}”`);
    const { edit, args = {} } = raw as { edit: string; args?: unknown };
    if (!isRaw(args)) return refused(edit, '“args” is to be an object');
    if (!beat.patterns.some(({ id }) => id === patternId))
      return refused(edit, `the pattern “${patternId}” is no longer there`);
    const given = filled({ edit, args }, described.args, patternId, number);
    const fault = argumentsFault(beat, given, described.args);
    if (fault) return refused(edit, fault);
    let next: Beat;
    try {
      next = made(beat, patternId, given);
    } catch {
      // What is given as a whole, a groove say, is looked at only by what it makes.
      return refused(edit, 'what it was given is not of the form that it takes');
    }
    const checked = beatSchema.safeParse(next);
    if (!checked.success)
      return refused(
        edit,
        faultText(checked.error.issues, next)
          .replace(/\.$/, '')
          .replace(/^./, (first) => first.toLowerCase()),
      );
    if (next === beat || JSON.stringify(next) === JSON.stringify(beat)) idle.push(number);
    beat = next;
  }
  return { ok: true, value: { beat, idle } };
};

/** Which pattern is meant by a name, an id or nothing: the first. @example patternNamed(beat, undefined)!.id // "a" */
export const patternNamed = (beat: Beat, name: string | undefined) =>
  name === undefined
    ? beat.patterns[0]!
    : (beat.patterns.find((one) => one.name === name || one.id === name) ?? null);
