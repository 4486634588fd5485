import { newFeel } from './feelDefaults';
import { LEVELS } from './levels';

/** A document as it was read, before it has been checked. */
export type Raw = Record<string, unknown>;
/** Brings a document from the version it stands under to the next one. */
export type Migrations = Record<number, (raw: Raw) => Raw>;

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
