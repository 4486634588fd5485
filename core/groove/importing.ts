import { count, listed } from '../document/text';
import type { DrumMap } from '../midi/drumMap/drumMap';
import { FILE_BOUNDS } from '../midi/read/limits';
import { readMidi } from '../midi/read/readMidi';
import { drumsFirst, isMixed, midiPartsOf, withParts, type MidiPart } from '../midi/read/parts';
import { grooveFromMidi } from './fromMidi';
import type { Groove, GrooveRow, Source } from './groove';
import { likenessOf, type Likeness } from './likeness';

/** The entry of a groove that lies in a file: enough to list and compare it. */
export interface Indexed {
  /** A checksum that tells the bytes of a file from others', nearly always. */
  mark?: string;
  row: GrooveRow;
  likeness: Likeness;
  /** The name of the map it is read with. */
  map: string;
  followTempo: boolean;
  /** How many tempos come after the first. */
  tempoChanges: number;
  hits: number;
  /** The tracks and channels of a file that has more than drums; left out where there is nothing to choose. */
  parts?: MidiPart[];
  /** The keys of those that are taken; left out, all. */
  only?: string[];
}

/** A file that was read in. */
export interface TakenIn {
  indexed: Indexed;
  /** A sentence each. */
  warnings: string[];
  doubles: number;
  cut: number;
}

/** A file that was left out, and why. */
export interface LeftOut {
  path: string;
  why: string;
}

export type Imported = { ok: true; value: TakenIn } | { ok: false; value: LeftOut };

/**
 * The meaning of a file's path: its folders and its name without the ending.
 *
 * @example splitPath('Harbour/Night/rain.mid') // { folders: ["Harbour", "Night"], name: "rain" }
 */
export const splitPath = (path: string): { folders: string[]; name: string } => {
  const parts = path.split(/[/\\]/).filter((part) => part && part !== '.');
  const file = parts.pop() ?? 'Groove';
  return { folders: parts, name: file.replace(/\.midi?$/i, '') || file };
};

/** How a file from somewhere is read as a groove. */
export interface FileReading {
  path: string;
  source: Exclude<Source, 'built-in'>;
  map: DrumMap;
  followTempo?: boolean;
  /** The keys of the tracks and channels that are taken, or those for drums where there are any; left out, all. */
  only?: readonly string[] | 'drums';
}

const ROOTS = { imported: 'Imported', folder: 'Groove folder' } as const;

/** The groove of a file's bytes, or a sentence that says why there is none. */
export const grooveOfFile = (
  bytes: Uint8Array,
  { path, source, map, followTempo = false, only }: FileReading,
): { ok: true; groove: Groove; taken: TakenIn } | { ok: false; error: string } => {
  const opened = readMidi(bytes, 'lenient');
  if (!opened.ok) return opened;
  const { folders, name } = splitPath(path);
  const parts = midiPartsOf(opened.value.file);
  const mixed = isMixed(parts);
  const taken = mixed ? (only === 'drums' ? drumsFirst(parts) : only) : undefined;
  const read = grooveFromMidi(withParts(opened.value.file, taken), {
    id: `${source}/${path}`,
    name,
    path: [ROOTS[source], ...folders],
    source,
    map,
    followTempo,
  });
  const { groove, doubles, cut, unknown, told } = read;
  if (!groove.lanes.length) return { ok: false, error: 'It holds no notes.' };
  const { lanes: _lanes, ...row } = groove;
  const { tempoChanges } = opened.value.file;
  const warnings = [...opened.value.warnings, ...told];
  if (tempoChanges)
    warnings.push(
      `It has ${tempoChanges} more ${tempoChanges === 1 ? 'tempo' : 'tempos'}: ${read.followed ? 'followed' : 'ignored'}.`,
    );
  if (unknown.length)
    warnings.push(`“${map.name}” has no drum for ${unknown.map((note) => `note ${note}`).join(', ')}.`);
  const passed = taken ? parts.filter(({ key }) => !taken.includes(key)) : [];
  if (passed.length)
    warnings.push(
      `Not taken: ${listed(passed.map((part) => `${part.name}, channel ${part.channel}, ${count(part.notes, 'note')}`))}. “Tracks and channels” of the groove brings them in.`,
    );
  const hits = groove.lanes.reduce((sum, { part }) => sum + part.hits.length, 0);
  const indexed: Indexed = {
    row,
    likeness: likenessOf(groove),
    map: map.name,
    followTempo: read.followed,
    tempoChanges,
    hits,
    ...(mixed && { parts }),
    ...(taken && { only: [...taken] }),
  };
  return { ok: true, groove, taken: { indexed, warnings, doubles, cut } };
};

/** Reads one file for the list: of one that has more than drums, its drums at first. */
export const importFile = (bytes: Uint8Array, reading: FileReading): Imported => {
  const read = grooveOfFile(bytes, { only: 'drums', ...reading });
  return read.ok
    ? { ok: true, value: read.taken }
    : { ok: false, value: { path: reading.path, why: read.error } };
};

/** The limits of an archive. */
export const ARCHIVE_BOUNDS = { bytes: 200 * 1024 * 1024, files: 20_000 } as const;

/** Why a path inside an archive is not followed; null where it is. @example climbs('../a.mid') // true */
export const climbs = (path: string): boolean =>
  /^([/\\]|[a-z]:)/i.test(path) || path.split(/[/\\]/).includes('..') || path.includes('\0');

/** Whether a name is that of a MIDI file. @example isMidiName("fill.MID") // true */
export const isMidiName = (path: string): boolean => /\.midi?$/i.test(path);
/** Whether a name is that of a ZIP. @example isZipName("grooves.zip") // true */
export const isZipName = (path: string): boolean => /\.zip$/i.test(path);

/**
 * Whether a file is left from a system's own housekeeping.
 *
 * @example isHousekeeping('__MACOSX/rain.mid') // true
 */
export const isHousekeeping = (path: string): boolean =>
  /(^|[/\\])(__MACOSX|\.DS_Store|Thumbs\.db|desktop\.ini)([/\\]|$)/i.test(path) || /(^|[/\\])\._/.test(path);

export { FILE_BOUNDS };
