/** What became of a value, told by places: for what has to be kept or sent and is no edit with a name, an undo say. */
export type Patch = Change[];

interface Change {
  path: (string | number)[];
  /** What stands there now. */
  value?: unknown;
  /** Nothing stands there now; where it held hits, they are told, so that those of others stay. */
  gone?: true;
  /** Hits that left a list and hits that came into it: what others did to the same list meanwhile stays. */
  minus?: Hit[];
  plus?: Hit[];
}

type Hit = { step: number; nudge: number };

const isHits = (value: unknown): value is Hit[] =>
  Array.isArray(value) &&
  value.every((one: Partial<Hit> | null) => typeof one?.step === 'number' && typeof one.nudge === 'number');

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The hits of a lane's part of a pattern. */
const hitsIn = (value: unknown): Hit[] | null =>
  isRecord(value) && isHits(value['hits']) && value['hits'].length ? value['hits'] : null;

const walk = (a: unknown, b: unknown, path: (string | number)[], out: Patch): void => {
  // What did not change is shared, so that only what did is looked through.
  if (a === b) return;
  if (isRecord(a) && isRecord(b)) {
    for (const key of Object.keys(a))
      if (!Object.hasOwn(b, key))
        out.push({ path: [...path, key], gone: true, ...(hitsIn(a[key]) && { minus: hitsIn(a[key])! }) });
    for (const key of Object.keys(b))
      if (Object.hasOwn(a, key)) walk(a[key], b[key], [...path, key], out);
      else out.push({ path: [...path, key], value: b[key] });
  } else if (isHits(a) && isHits(b)) {
    const [before, after] = [new Set(a), new Set(b)];
    out.push({
      path,
      minus: a.filter((one) => !after.has(one)),
      plus: b.filter((one) => !before.has(one)),
    });
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

const exchanged = (hits: Hit[], minus: Hit[], plus: Hit[]): Hit[] => {
  const gone = new Map<string, number>();
  for (const one of minus) gone.set(JSON.stringify(one), (gone.get(JSON.stringify(one)) ?? 0) + 1);
  const rest = hits.filter((one) => {
    const text = JSON.stringify(one);
    const left = gone.get(text) ?? 0;
    if (left) gone.set(text, left - 1);
    return !left;
  });
  return [...rest, ...plus].sort((a, b) => a.step - b.step || a.nudge - b.nudge);
};

const put = (target: unknown, path: (string | number)[], at: number, change: Change): unknown => {
  if (at === path.length) {
    if (!change.minus && !change.plus) return change.value;
    return isHits(target) ? exchanged(target, change.minus ?? [], change.plus ?? []) : target;
  }
  const key = path[at]!;
  const last = at === path.length - 1;
  if (Array.isArray(target)) {
    if (typeof key !== 'number' || key >= target.length) return target;
    return target.map((one: unknown, index) => (index === key ? put(one, path, at + 1, change) : one));
  }
  if (!isRecord(target)) return target;
  if (last && change.gone) {
    const { [key]: gone, ...rest } = target;
    // What others put there meanwhile stays, and with it what it lies in.
    const others = change.minus ? exchanged(hitsIn(gone) ?? [], change.minus, []) : [];
    return others.length ? { ...target, [key]: { ...(gone as object), hits: others } } : rest;
  }
  if (last && 'value' in change && hitsIn(change.value) && hitsIn(target[key])) {
    // A lane's first hits came from two sides at once.
    const came = change.value as { hits: Hit[] };
    const known = new Set(came.hits.map((one) => JSON.stringify(one)));
    const others = hitsIn(target[key])!.filter((one) => !known.has(JSON.stringify(one)));
    return { ...target, [key]: { ...came, hits: exchanged(others, [], came.hits) } };
  }
  if (!last && !Object.hasOwn(target, String(key))) return target;
  return { ...target, [key]: put(target[key], path, at + 1, change) };
};

/** A value after what is told of it; a place that is no longer there is passed over. The value itself stays as it is. */
export const patched = <T>(value: T, patch: Patch): T =>
  patch.reduce<unknown>((now, change) => put(now, change.path, 0, change), value) as T;
