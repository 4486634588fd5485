import { drumMapSchema, type DrumMap } from '../../document/drumMapSchema';
import { faultText, isRaw, parsed, type Read } from '../../document/reading';

/**
 * Reads a drum map from its JSON.
 *
 * @returns the map, or a sentence that names what is wrong and where
 * @example readDrumMap(drumMapText(GENERAL_MIDI)).ok // true
 */
export const readDrumMap = (text: string): Read<DrumMap> => {
  const json = parsed(text);
  if (!json.ok) return json;
  const raw = json.value;
  if (!isRaw(raw) || raw['kind'] !== 'ruddik.drumMap')
    return { ok: false, error: 'It is JSON, but not a drum map of Ruddik.' };
  if (typeof raw['version'] === 'number' && raw['version'] > 1)
    return { ok: false, error: 'It was saved by a newer Ruddik. Update Ruddik to open it.' };
  const read = drumMapSchema.safeParse(raw);
  return read.success
    ? { ok: true, value: read.data }
    : { ok: false, error: faultText(read.error.issues, raw) };
};
