import { jsonrepair } from 'jsonrepair';
import type { z } from 'zod';
import { newBeat } from './defaults';
import { migrate } from './migrate';
import { faultText, isRaw, parsed, type Read } from './reading';
import { beatSchema, type Beat } from './schema';
import { VERSION } from './version';

type Path = PropertyKey[];

/** A beat without what was wrong with it. */
export interface Mended {
  beat: Beat;
  /** A sentence for each part that was left out or set to what a new beat has. */
  left: string[];
}

/** After so many rounds of leaving out it is given up. */
const MOST_ROUNDS = 60;
/** Ids are never made up. */
const NEVER_MADE_UP: readonly PropertyKey[] = ['id', 'instrument', 'kind'];

const at = (raw: unknown, path: Path): unknown =>
  path.reduce<unknown>(
    (value, key) =>
      typeof value === 'object' && value !== null && Object.hasOwn(value, key)
        ? (value as Record<PropertyKey, unknown>)[key]
        : undefined,
    raw,
  );

/** The value of a new beat in a place; of a list, what its first one has. */
const usual = (path: Path): unknown =>
  NEVER_MADE_UP.includes(path.at(-1)!)
    ? undefined
    : at(
        newBeat('mended', 'Beat', 1),
        path.map((key) => (typeof key === 'number' ? 0 : key)),
      );

/** The place to change so that a fault is there no more: the place itself, or the nearest round it that can be left out. */
type Change = { path: Path; value?: unknown };

const changeFor = (raw: unknown, path: Path): Change | null => {
  if (!path.length) return null;
  if (at(raw, path) !== undefined) return { path };
  const value = usual(path);
  return value === undefined ? changeFor(raw, path.slice(0, -1)) : { path, value };
};

const changesFor = (issues: z.core.$ZodIssue[], raw: unknown): Change[] => {
  const all = issues.flatMap((issue) =>
    issue.code === 'unrecognized_keys'
      ? issue.keys.map((key) => changeFor(raw, [...issue.path, key]))
      : [changeFor(raw, issue.path)],
  );
  const byPath = new Map(all.flatMap((one) => (one ? [[JSON.stringify(one.path), one] as const] : [])));
  return [...byPath.values()];
};

/** From the end of a list to its start, so that places stay what they were. */
const fromTheEnd = (a: Path, b: Path): number => {
  for (let depth = 0; depth < Math.min(a.length, b.length); depth++) {
    const [x, y] = [a[depth]!, b[depth]!];
    if (x === y) continue;
    return typeof x === 'number' && typeof y === 'number' ? y - x : String(x) < String(y) ? -1 : 1;
  }
  // What lies within goes before what it lies in.
  return b.length - a.length;
};

const apply = (raw: unknown, { path, value }: Change): void => {
  const within = at(raw, path.slice(0, -1));
  const key = path.at(-1)!;
  if (Array.isArray(within)) within.splice(Number(key), 1);
  else if (isRaw(within)) {
    if (value === undefined) Reflect.deleteProperty(within, key);
    else Object.defineProperty(within, key, { value, enumerable: true, writable: true, configurable: true });
  }
};

const repaired = (text: string): { json: unknown; left: string[] } | null => {
  const whole = parsed(text);
  if (whole.ok) return { json: whole.value, left: [] };
  try {
    const json = parsed(jsonrepair(text));
    return json.ok ? { json: json.value, left: [whole.error] } : null;
  } catch {
    return null;
  }
};

/**
 * Reads what can be read of a beat that is damaged: a part that is wrong is left out with what cannot be without it, what
 * every beat has is set to what a new one has, a text that was cut short is ended.
 *
 * @returns the beat and what was left out, each in a sentence; or why nothing of it can be read. It never throws
 * @example mendBeat('7') // { ok: false, error: "Nothing of a beat can be read in it." }
 */
export const mendBeat = (text: string): Read<Mended> => {
  const nothing = { ok: false, error: 'Nothing of a beat can be read in it.' } as const;
  const opened = repaired(text);
  if (!opened || !isRaw(opened.json) || opened.json['kind'] !== 'ruddik.beat') return nothing;
  const migrated = migrate(opened.json, VERSION);
  if (!migrated.ok) return migrated;
  // Plain data, of its own: it is changed in place.
  const raw = JSON.parse(JSON.stringify(migrated.raw)) as unknown;
  const left = [...opened.left];
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const result = beatSchema.safeParse(raw);
    if (result.success) return { ok: true, value: { beat: result.data, left } };
    const { issues } = result.error;
    const changes = changesFor(issues, raw);
    if (!changes.length) return nothing;
    // A thing that goes because of what was left out of it was told before.
    for (const issue of issues) if (at(raw, issue.path) !== undefined) left.push(faultText([issue], raw));
    for (const change of changes.sort((a, b) => fromTheEnd(a.path, b.path))) apply(raw, change);
  }
  return nothing;
};
