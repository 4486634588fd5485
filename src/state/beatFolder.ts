import { numbered } from '../../core/document/numbered';
import type { Read } from '../../core/document/reading';
import type { Beat } from '../../core/document/schema';
import { fileName, writeBeat } from '../../core/document/text';
import { hashText } from '../../core/random/draw';

/** A folder of the user's that holds every beat as a file, kept in step both ways: what was changed on both sides stands side by side. */

export interface BeatFolder {
  /** The names of its files. */
  names: () => Promise<string[]>;
  read: (name: string) => Promise<string>;
  write: (name: string, text: string) => Promise<void>;
}

/** What a beat and its file were when they were last in step. */
export interface InStep {
  file: string;
  mark: string;
}

export interface StepParts {
  folder: BeatFolder;
  /** By the ids of beats. */
  inStep: Readonly<Record<string, InStep>>;
  beats: () => Promise<Beat[]>;
  read: (text: string) => Promise<Read<Beat>>;
  /** Takes a beat in. @returns the id that it has here */
  take: (beat: Beat) => Promise<string>;
  /** A newer form of a beat takes its place, unless it was changed since it was looked at. @returns the id that it has here */
  replace: (was: Beat, beat: Beat) => Promise<string>;
}

export interface Stepped {
  inStep: Record<string, InStep>;
  /** The names of beats that were written, taken in, and found changed on both sides. */
  written: string[];
  taken: string[];
  beside: string[];
  refused: { file: string; error: string }[];
}

const ENDING = '.ruddik.json';

/** What tells whether a text is the same, whatever id the beat has on each machine: that is the first in it. */
export const markOf = (text: string): string => {
  const plain = text.replace(/"id": "[^"]*"/, '');
  return `${plain.length} ${hashText(plain)}`;
};

/**
 * Brings a folder and the beats in step, once. What cannot be read is left where it is, and told.
 *
 * @throws what the folder or the storage throws; what was in step by then is lost to nobody, and is looked at again next time
 */
export const stepFolder = async (parts: StepParts): Promise<Stepped> => {
  const { folder, read, take, replace } = parts;
  const out: Stepped = { inStep: {}, written: [], taken: [], beside: [], refused: [] };
  const names = (await folder.names()).filter((name) => name.endsWith(ENDING));
  const texts = new Map<string, string>();
  for (const name of names) texts.set(name, await folder.read(name));
  const owned = new Set<string>();
  const freeName = (beat: Beat): string => {
    const taken = [...texts.keys(), ...owned].map((name) => name.slice(0, -ENDING.length));
    return `${numbered(fileName(beat.name), taken) ?? `${fileName(beat.name)} ${beat.id}`}${ENDING}`;
  };
  const own = (id: string, file: string, mark: string) => {
    owned.add(file);
    out.inStep[id] = { file, mark };
  };
  const write = async (beat: Beat, file: string, text: string) => {
    await folder.write(file, text);
    texts.set(file, text);
    own(beat.id, file, markOf(text));
    out.written.push(beat.name);
  };
  /** What a file holds, or a refusal. */
  const readFile = async (file: string, text: string): Promise<Beat | null> => {
    const got = await read(text);
    if (got.ok) return got.value;
    out.refused.push({ file, error: got.error });
    return null;
  };

  const before = new Map(Object.entries(parts.inStep));
  for (const beat of await parts.beats()) {
    const text = writeBeat(beat);
    const mark = markOf(text);
    const known = before.get(beat.id);
    const there = known && texts.get(known.file);
    if (!known || there === undefined) {
      const same = [...texts].find(([name, other]) => !owned.has(name) && markOf(other) === mark)?.[0];
      if (same) own(beat.id, same, mark);
      else await write(beat, known?.file ?? freeName(beat), text);
      continue;
    }
    const thereMark = markOf(there);
    if (thereMark === known.mark || thereMark === mark) {
      if (mark !== thereMark) await write(beat, known.file, text);
      else own(beat.id, known.file, mark);
      continue;
    }
    const other = await readFile(known.file, there);
    owned.add(known.file);
    if (!other) {
      // Nobody's file is written over: ours goes beside it where it has changed too.
      if (mark !== known.mark) await write(beat, freeName(beat), text);
      else out.inStep[beat.id] = known;
    } else if (mark === known.mark) {
      own(await replace(beat, other), known.file, thereMark);
      out.taken.push(other.name);
    } else {
      own(await take(other), known.file, thereMark);
      await write(beat, freeName(beat), text);
      out.beside.push(beat.name);
    }
  }
  for (const [file, text] of texts) {
    if (owned.has(file)) continue;
    const beat = await readFile(file, text);
    if (!beat) continue;
    own(await take(beat), file, markOf(text));
    out.taken.push(beat.name);
  }
  return out;
};
