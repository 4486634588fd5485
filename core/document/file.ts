import { migrate, type Raw } from './migrate';
import { beatSchema, type Beat } from './schema';
import { faultText, isRaw, parsed, shown, type Read } from './reading';
import { VERSION } from './version';

export type { Read };

const check = (raw: Raw): Read<Beat> => {
  const migrated = migrate(raw, VERSION);
  if (!migrated.ok) return migrated;
  const result = beatSchema.safeParse(migrated.raw);
  if (result.success) return { ok: true, value: result.data };
  return { ok: false, error: faultText(result.error.issues, migrated.raw) };
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

/** The outcome of reading a file of beats: the beats that could be read, and a sentence for each that could not. */
export interface ReadBeats {
  beats: Beat[];
  faults: string[];
}

/**
 * Reads a file that holds one beat, or all beats saved together. One faulty beat does not keep the others out.
 *
 * @example readBeats('[]').beats // []
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
