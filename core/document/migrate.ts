import { newFeel } from './feelDefaults';
import { GRIDS, gridTicks } from './grid';
import { LEVELS } from './levels';

/** A document as it was read, before it has been checked. */
export type Raw = Record<string, unknown>;
/** Brings a document from the version it stands under to the next one. */
export type Migrations = Record<number, (raw: Raw) => Raw>;

const STEPS = new Map<unknown, number>(GRIDS.map((grid) => [grid, gridTicks(grid)]));

/** A value of an unchecked document as an object; an empty one where it is none. */
const record = (value: unknown): Raw =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Raw) : {};
const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);

/** The lengths of bar and pass of all patterns. */
const lengthsOf = (raw: Raw): { bar: number; pass: number }[] =>
  list(raw['patterns']).map((one) => {
    const { meter, bars } = record(one) as { meter?: unknown; bars?: unknown };
    const { beats, unit } = record(meter) as { beats?: unknown; unit?: unknown };
    const bar = (Number(beats) * 3840) / Number(unit);
    return { bar, pass: bar * Number(bars) };
  });

const divides = (length: number, whole: number): boolean =>
  Math.abs(whole / length - Math.round(whole / length)) < 1e-9;

/** Marks every template in use whose slots would come to stand elsewhere if they were counted from the bar lines. */
function templatesRunOn(raw: Raw): Raw {
  const lengths = lengthsOf(raw);
  const follow = (value: unknown): unknown => {
    const template = record(record(value)['template']);
    const length = list(template['slots']).length * (STEPS.get(template['grid']) ?? 0);
    const same = ({ bar, pass }: { bar: number; pass: number }) =>
      divides(length, bar) || (divides(bar, length) && divides(length, pass));
    return !length || lengths.every(same) ? value : { ...record(value), runsOn: true };
  };
  const plain = (value: unknown): unknown => {
    if (typeof value !== 'object' || value === null) return value;
    const feel = value as Raw;
    const lanes = Object.entries(record(feel['lanes'])).map(([id, lane]) => {
      const own = record(lane);
      return [id, own['template'] === undefined ? lane : { ...own, template: follow(own['template']) }];
    });
    const blend = record(feel['blend']);
    return {
      ...feel,
      template: follow(feel['template']),
      lanes: Object.fromEntries(lanes) as unknown,
      ...(blend['with'] !== undefined && { blend: { ...blend, with: plain(blend['with']) } }),
    };
  };
  const owning = (value: unknown): unknown => {
    const one = record(value);
    return one['feel'] === undefined ? value : { ...one, feel: plain(one['feel']) };
  };
  const song = record(raw['song']);
  return {
    ...raw,
    feel: plain(raw['feel']),
    ...(Array.isArray(raw['feels']) && { feels: raw['feels'].map(owning) }),
    ...(Array.isArray(raw['patterns']) && { patterns: raw['patterns'].map(owning) }),
    ...(Array.isArray(song['sections']) && { song: { ...song, sections: song['sections'].map(owning) } }),
  };
}

/** One entry for each version that is no longer current. Version 1 is the first. */
export const MIGRATIONS: Migrations = {
  // Version 2 added levels that one tap gives, and groups of lanes; what else it added may be left out.
  1: (raw) => ({ ...raw, levels: { ...LEVELS }, groups: [] }),
  // Version 3 gave the feel its stages; until then it was a swing.
  2: (raw) => ({
    ...raw,
    feel: { ...newFeel(), swing: (raw['feel'] as { swing?: unknown } | null)?.swing },
    feels: [],
    templates: [],
  }),
  // Version 4 added the tray and the song.
  3: (raw) => ({ ...raw, tray: [], song: { sections: [], order: [] } }),
  // Version 5 counts a template's slots anew from each bar line; what was saved before sounds as it did.
  4: templatesRunOn,
  // Version 6 says of a take what made it; of those before it that is not known.
  5: (raw) => raw,
  // Version 7 added pitches, tuned lanes and moves; all of them may be left out.
  6: (raw) => raw,
  // Version 8 added instruments that play pitches.
  7: (raw) => raw,
  // Version 9 added takes that bring a detour, and lanes that slide from pitch to pitch.
  8: (raw) => raw,
  // Version 10 added sounds of one's own, kits, loops and keys for patterns; all of them may be left out.
  9: (raw) => raw,
  // Version 11 added players, hands, and what leans; all of them may be left out.
  10: (raw) => raw,
  // Version 12 added rudiments to what makes a take.
  11: (raw) => raw,
  // Version 13 added hits that share the chance of another; it may be left out.
  12: (raw) => raw,
};

export type Migrated = { ok: true; raw: Raw } | { ok: false; error: string };

/**
 * Brings a document to version `to`, one version at a time.
 *
 * @returns a sentence for a person where the version is missing, newer than `to`, or has no way onward
 * @example migrate({ version: 1 }, 1) // { ok: true, raw: { version: 1 } }
 */
export const migrate = (raw: Raw, to: number, migrations: Migrations = MIGRATIONS): Migrated => {
  const from = raw['version'];
  if (typeof from !== 'number' || !Number.isInteger(from) || from < 1)
    return { ok: false, error: 'It does not say which version of the format it is in.' };
  if (from > to)
    return {
      ok: false,
      error: `It was saved by a newer Ruddik (format ${from}; this one reads up to ${to}). Update Ruddik to open it.`,
    };
  let now = raw;
  for (let version = from; version < to; version++) {
    const step = migrations[version];
    if (!step) return { ok: false, error: `Its format, version ${version}, can no longer be read.` };
    now = { ...step(now), version: version + 1 };
  }
  return { ok: true, raw: now };
};
