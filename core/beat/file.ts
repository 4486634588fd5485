import { z } from 'zod';
import { migrate, type Raw } from './migrate';
import { beatSchema, type Beat } from './schema';
import { VERSION } from './version';

export type Read<T> = { ok: true; value: T } | { ok: false; error: string };

const isRaw = (value: unknown): value is Raw =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const shown = (value: unknown): string => {
  const text = JSON.stringify(value) ?? 'nothing';
  return text.length > 40 ? `${text.slice(0, 39)}…` : text;
};

const at = (raw: unknown, path: PropertyKey[]): unknown =>
  path.reduce<unknown>((value, key) => (value as Record<PropertyKey, unknown> | undefined)?.[key], raw);

/** A path in a document in words. @example place(['lanes', 2, 'level']) // "lanes[3].level" */
const place = (path: PropertyKey[]): string =>
  path
    .map((key, depth) => (typeof key === 'number' ? `[${key + 1}]` : `${depth ? '.' : ''}${String(key)}`))
    .join('');

const reason = (issue: z.core.$ZodIssue, raw: unknown): string => {
  const value = at(raw, issue.path);
  if (value === undefined && issue.code !== 'unrecognized_keys') return 'is missing';
  switch (issue.code) {
    case 'too_big':
      return `is ${size(issue.origin, value)}, above the most there may be, ${issue.maximum}`;
    case 'too_small':
      return `is ${size(issue.origin, value)}, below the least there may be, ${issue.minimum}`;
    case 'invalid_type':
      return `is ${shown(value)} where ${article(issue.expected)} is needed`;
    case 'invalid_value':
      return `is ${shown(value)}, which is none of those known (${issue.values.slice(0, 6).map(String).join(', ')}${issue.values.length > 6 ? ', …' : ''})`;
    case 'unrecognized_keys':
      return `has a part that is not known, “${issue.keys[0]}”`;
    case 'custom':
      return issue.message;
    default:
      return `is ${shown(value)}, which does not fit there`;
  }
};

const size = (origin: string, value: unknown): string =>
  origin === 'string' || origin === 'array' ? `${(value as ArrayLike<unknown>).length} long` : shown(value);

const article = (type: string): string => (/^[aeiou]/.test(type) ? `an ${type}` : `a ${type}`);

const check = (raw: Raw): Read<Beat> => {
  const migrated = migrate(raw, VERSION);
  if (!migrated.ok) return migrated;
  const result = beatSchema.safeParse(migrated.raw);
  if (result.success) return { ok: true, value: result.data };
  const issue = result.error.issues[0]!;
  const where = place(issue.path);
  const more = result.error.issues.length - 1;
  const also = more > 0 ? ` (and ${more} more fault${more > 1 ? 's' : ''})` : '';
  return { ok: false, error: `Its ${where || 'document'} ${reason(issue, migrated.raw)}${also}.` };
};

/** No document is nested deeper; what is would break what walks through it. */
const DEEPEST = 64;

const isTooDeep = (text: string): boolean => {
  let [depth, inText] = [0, false];
  for (let at = 0; at < text.length; at++) {
    const sign = text[at];
    if (inText) {
      if (sign === '\\') at += 1;
      else if (sign === '"') inText = false;
    } else if (sign === '"') inText = true;
    else if (sign === '{' || sign === '[') {
      depth += 1;
      if (depth > DEEPEST) return true;
    } else if (sign === '}' || sign === ']') depth -= 1;
  }
  return false;
};

const parsed = (text: string): Read<unknown> => {
  if (!text.trim()) return { ok: false, error: 'It is empty.' };
  if (isTooDeep(text)) return { ok: false, error: 'It is nested more deeply than any beat is.' };
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
  } catch (fault) {
    const where = /position (\d+)/.exec(String(fault))?.[1];
    const line = where ? text.slice(0, Number(where)).split('\n').length : 0;
    return {
      ok: false,
      error: `It is not JSON, or was cut short${line ? ` (reading stopped in line ${line})` : ''}.`,
    };
  }
};

/**
 * Reads a beat from the text of a `.ruddik.json` file.
 *
 * @returns the beat, or a sentence for a person that says what is wrong and where; it never throws
 * @example readBeat('{}') // { ok: false, error: 'It is JSON, but not a beat of Ruddik.' }
 */
export const readBeat = (text: string): Read<Beat> => {
  const json = parsed(text);
  if (!json.ok) return json;
  if (!isRaw(json.value) || json.value['kind'] !== 'ruddik.beat')
    return { ok: false, error: 'It is JSON, but not a beat of Ruddik.' };
  return check(json.value);
};

/**
 * Whether a text is a beat that a later version of the format wrote: nothing is wrong with it, it is only not for this
 * version to read.
 *
 * @example isNewer('{"kind":"ruddik.beat","version":99}') // true
 */
export const isNewer = (text: string): boolean => {
  const json = parsed(text);
  if (!json.ok || !isRaw(json.value) || json.value['kind'] !== 'ruddik.beat') return false;
  const { version } = json.value;
  return typeof version === 'number' && version > VERSION;
};

/** What a file of beats held: the beats that could be read, and a sentence for each that could not. */
export interface ReadBeats {
  beats: Beat[];
  faults: string[];
}

/**
 * Reads a file that holds one beat, or all beats saved together. One faulty beat does not keep the others out.
 */
export const readBeats = (text: string): ReadBeats => {
  const json = parsed(text);
  if (!json.ok) return { beats: [], faults: [json.error] };
  const all = json.value;
  if (!isRaw(all) || all['kind'] !== 'ruddik.beats' || !Array.isArray(all['beats'])) {
    const one = readBeat(text);
    return one.ok ? { beats: [one.value], faults: [] } : { beats: [], faults: [one.error] };
  }
  const beats: Beat[] = [];
  const faults: string[] = [];
  (all['beats'] as unknown[]).forEach((raw, index) => {
    const one = isRaw(raw) ? check(raw) : ({ ok: false, error: 'It is not a beat.' } as const);
    if (one.ok) beats.push(one.value);
    else faults.push(`Beat ${index + 1}${isRaw(raw) ? ` (${shown(raw['name'])})` : ''}: ${one.error}`);
  });
  return { beats, faults };
};
