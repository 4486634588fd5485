import type { z } from 'zod';

/** How the texts of files are read, and what is wrong with one is said: in a person's words, never in those of the code. */
export type Read<T> = { ok: true; value: T } | { ok: false; error: string };

/** Whether a value that was read is an object with keys. @example isRaw([]) // false */
export const isRaw = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A value as it is quoted to a person, at most 40 characters of it. @example shown(undefined) // "nothing" */
export const shown = (value: unknown): string => {
  const text = JSON.stringify(value) ?? 'nothing';
  return text.length > 40 ? `${text.slice(0, 39)}…` : text;
};

const at = (raw: unknown, path: PropertyKey[]): unknown =>
  path.reduce<unknown>((value, key) => (value as Record<PropertyKey, unknown> | undefined)?.[key], raw);

/** One of several, from the name of all of them. */
const oneOf = (many: string): string => many.replace(/ies$/, 'y').replace(/s$/, '');

/** A name of the code as it is written in English. */
const spelled = (name: string): string =>
  name.replace(/([a-z])([A-Z])/g, (_, end: string, next: string) => `${end} ${next.toLowerCase()}`);

/**
 * A place in a document, as the subject of a sentence.
 *
 * @example place(['lanes', 2, 'level']) // "The level of lane 3"
 */
const place = (path: PropertyKey[]): string => {
  if (!path.length) return 'Its document';
  const names: string[] = [];
  let isOne = false;
  for (const [depth, key] of path.entries()) {
    const next = path[depth + 1];
    if (typeof key === 'number' && depth) continue;
    isOne = typeof next === 'number';
    const name = spelled(String(key));
    // Lanes' parts are known by their lane alone.
    if (key !== 'parts') names.unshift(isOne ? `${oneOf(name)} ${(next as number) + 1}` : name);
  }
  const [own, ...within] = names;
  if (!within.length && !isOne) return `Its ${own!}`;
  const whole = names.join(' of ');
  return isOne ? `${whole[0]!.toUpperCase()}${whole.slice(1)}` : `The ${whole}`;
};

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

/**
 * JSON that was read, or a sentence: it is empty, nested too deeply, or no JSON.
 *
 * @example parsed('{"a": 1}') // { ok: true, value: { a: 1 } }
 */
export const parsed = (text: string): Read<unknown> => {
  if (!text.trim()) return { ok: false, error: 'It is empty.' };
  if (isTooDeep(text)) return { ok: false, error: 'It is nested more deeply than anything of Ruddik is.' };
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
 * The first fault of a document, and how many more there are.
 *
 * @example
 * faultText([{ code: 'too_big', origin: 'number', maximum: 300, path: ['tempo'], message: '' }], { tempo: 900 })
 * // "Its tempo is 900, above the most there may be, 300."
 */
export const faultText = (issues: z.core.$ZodIssue[], raw: unknown): string => {
  const issue = issues[0]!;
  const where = place(issue.path);
  const more = issues.length - 1;
  const also = more > 0 ? ` (and ${more} more fault${more > 1 ? 's' : ''})` : '';
  return `${where} ${reason(issue, raw)}${also}.`;
};
