/** What became of a value, told by places: for what has to be kept or sent and is no edit with a name, an undo say. */
export type Patch = { path: (string | number)[]; value?: unknown; gone?: true }[];

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const walk = (a: unknown, b: unknown, path: (string | number)[], out: Patch): void => {
  // What did not change is shared, so that only what did is looked through.
  if (a === b) return;
  if (isRecord(a) && isRecord(b)) {
    for (const key of Object.keys(a))
      if (!Object.hasOwn(b, key)) out.push({ path: [...path, key], gone: true });
    for (const key of Object.keys(b))
      if (Object.hasOwn(a, key)) walk(a[key], b[key], [...path, key], out);
      else out.push({ path: [...path, key], value: b[key] });
  } else if (Array.isArray(a) && Array.isArray(b) && a.length === b.length)
    for (let at = 0; at < b.length; at++) walk(a[at], b[at], [...path, at], out);
  else out.push({ path, value: b });
};

/**
 * How one plain value becomes another.
 *
 * @example difference({ a: 1, b: 2 }, { a: 1, b: 3 }) // [{ path: ["b"], value: 3 }]
 */
export const difference = (from: unknown, to: unknown): Patch => {
  const out: Patch = [];
  walk(from, to, [], out);
  return out;
};

const put = (target: unknown, path: (string | number)[], at: number, change: Patch[number]): unknown => {
  if (at === path.length) return change.value;
  const key = path[at]!;
  const last = at === path.length - 1;
  if (Array.isArray(target)) {
    if (typeof key !== 'number' || key >= target.length) return target;
    return target.map((one: unknown, index) => (index === key ? put(one, path, at + 1, change) : one));
  }
  if (!isRecord(target)) return target;
  if (last && change.gone) {
    const { [key]: _gone, ...rest } = target;
    return rest;
  }
  if (!last && !Object.hasOwn(target, String(key))) return target;
  return { ...target, [key]: put(target[key], path, at + 1, change) };
};

/** A value after what is told of it; a place that is no longer there is passed over. The value itself stays as it is. */
export const patched = <T>(value: T, patch: Patch): T =>
  patch.reduce<unknown>((now, change) => put(now, change.path, 0, change), value) as T;
