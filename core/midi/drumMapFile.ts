import { z } from 'zod';
import type { Read } from '../beat/file';
import { drumMapSchema, type DrumMap } from '../beat/drumMapSchema';

/**
 * Reads a drum map from its JSON.
 *
 * @returns the map, or a sentence that names what is wrong and where
 */
export const readDrumMap = (text: string): Read<DrumMap> => {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return { ok: false, error: 'It is not JSON.' };
  }
  const kind = (raw as { kind?: unknown } | null)?.kind;
  if (kind !== 'ruddik.drumMap') return { ok: false, error: 'It is not a drum map of Ruddik.' };
  const version = (raw as { version?: unknown }).version;
  if (typeof version === 'number' && version > 1)
    return { ok: false, error: 'It was saved by a newer Ruddik. Update Ruddik to open it.' };
  const read = drumMapSchema.safeParse(raw);
  if (read.success) return { ok: true, value: read.data };
  const [first] = read.error.issues;
  return { ok: false, error: `At ${z.core.toDotPath(first!.path) || 'the top'}: ${first!.message}.` };
};
