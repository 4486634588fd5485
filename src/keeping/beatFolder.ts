import { numbered } from '../../core/document/numbered';
import type { Read } from '../../core/document/reading';
import type { Beat } from '../../core/document/schema';
import { fileName, writeBeat } from '../../core/document/text';
import { namedIn } from '../../core/namedIn';
import { hashText } from '../../core/random/draw';

/**
 * A folder of the user's that holds every beat as a file, kept in step both ways: what was changed on both sides stands side by
 * side, what was deleted on one side goes on the other too, and can be had back on both.
 */

export interface BeatFolder {
  /** The names of its files. */
  names: () => Promise<string[]>;
  read: (name: string) => Promise<string>;
  write: (name: string, text: string) => Promise<void>;
  remove: (name: string) => Promise<void>;
  /** Moves a file to the subfolder of deleted ones, over none that is there. */
  putAway: (name: string) => Promise<void>;
  /** The files of that subfolder. */
  putAwayFiles: () => Promise<{ name: string; text: string }[]>;
  /** Removes one of them, since it lies in its place again. */
  removeAway: (name: string) => Promise<void>;
}

/** What a beat and its file were when they were last in step. */
export interface InStep {
  file: string;
  mark: string;
  /** The id of the beat in the file. */
  there?: string | undefined;
  /** What the beat was called. */
  name?: string;
  /** Where the folder's form of a beat stands beside one's own: what each side calls it. */
  as?: { here: string; there: string };
}

export interface StepParts {
  folder: BeatFolder;
  /** By the ids of beats. */
  inStep: Readonly<Record<string, InStep>>;
  beats: () => Promise<Beat[]>;
  /** The ids of beats that a person deleted here: what is only missing, damaged say, is taken back from its file. */
  deleted: () => Promise<string[]>;
  read: (text: string) => Promise<Read<Beat>>;
  /** What the folder's form is called beside one's own. */
  nameBeside: (name: string) => string;
  /** Takes a beat in. @returns the id that it has here */
  take: (beat: Beat) => Promise<string>;
  /** A newer form of a beat takes its place, unless it was changed since it was looked at. @returns the id that it has here */
  replace: (was: Beat, beat: Beat) => Promise<string>;
  /** Deletes a beat here, with a way back. */
  remove: (beat: Beat) => Promise<void>;
}

export interface Stepped {
  inStep: Record<string, InStep>;
  /** The names of beats that were written, taken in, and found changed on both sides. */
  written: string[];
  taken: string[];
  beside: string[];
  /** Deleted here since they were deleted by another machine, and put away there since they were deleted here. */
  deleted: string[];
  putAway: string[];
  /** Beats whose files are no longer there: nobody knows why, so it has to be asked. */
  gone: { id: string; name: string }[];
  refused: { file: string; error: string }[];
}

const ENDING = '.ruddik.json';

const marked = (plain: string): string => `${plain.length} ${hashText(plain)}`;
const withoutId = (text: string): string => text.replace(/"id": "[^"]*"/, '');

/** What tells whether a text is the same, whatever id the beat has on each machine: that is the first in it. */
export const markOf = (text: string): string => marked(withoutId(text));

/** The id that a file's beat has in it: it stays what it was, whichever machine writes, so that a renamed file is known again. */
const idIn = (text: string): string | undefined => /"id": "([^"]*)"/.exec(text)?.[1];

/** Everything of one round: what is there, what has been seen to, and what came of it. */
const createRound = async ({ folder, inStep, read }: StepParts) => {
  const out: Stepped = {
    inStep: {},
    written: [],
    taken: [],
    beside: [],
    deleted: [],
    putAway: [],
    gone: [],
    refused: [],
  };
  const texts = new Map<string, string>();
  for (const name of await folder.names())
    if (name.endsWith(ENDING)) texts.set(name, await folder.read(name));
  const owned = new Set<string>();
  /** Files that belong to a beat by what was last in step. */
  const claimed = new Map(Object.entries(inStep).map(([id, { file }]) => [file, id]));
  let away: Promise<{ name: string; text: string }[]> | null = null;

  const own = (beat: Pick<Beat, 'id' | 'name'>, file: string, text: string, as?: InStep['as']) => {
    owned.add(file);
    out.inStep[beat.id] = {
      file,
      mark: markOf(text),
      there: idIn(text),
      name: beat.name,
      ...(as && { as }),
    };
  };
  return {
    out,
    texts,
    owned,
    own,
    /** A name that no file has, on systems too that take capitals and small letters for the same. */
    freeName: (beat: Beat): string => {
      const there = new Set([...texts.keys(), ...owned].map((name) => name.toLowerCase()));
      const tried: string[] = [];
      for (;;) {
        const name = numbered(fileName(beat.name), tried);
        if (!there.has(`${name}${ENDING}`.toLowerCase())) return `${name}${ENDING}`;
        tried.push(name);
      }
    },
    write: async (beat: Beat, file: string, text: string, as?: InStep['as']) => {
      await folder.write(file, text);
      texts.set(file, text);
      own(beat, file, text, as);
      out.written.push(beat.name);
    },
    /** What a file holds, or a refusal. */
    readFile: async (file: string): Promise<Beat | null> => {
      const got = await read(texts.get(file)!);
      if (got.ok) return got.value;
      out.refused.push({ file, error: got.error });
      return null;
    },
    /** A file that nobody else has and that a beat may be in. */
    fileWith: (id: string, fits: (text: string) => boolean): string | undefined =>
      [...texts].find(
        ([name, text]) => !owned.has(name) && (claimed.get(name) ?? id) === id && fits(text),
      )?.[0],
    /** What is in its place again is no deleted one any more. */
    takeBack: async (mark: string): Promise<void> => {
      for (const { name, text } of await (away ??= folder.putAwayFiles()))
        if (markOf(text) === mark) await folder.removeAway(name);
      away = null;
    },
    /** Whether another machine deleted it: then it lies in the subfolder. */
    isPutAway: async ({ mark, there }: InStep): Promise<boolean> => {
      const all = await (away ??= folder.putAwayFiles());
      return all.some(({ text }) => markOf(text) === mark || (there !== undefined && idIn(text) === there));
    },
  };
};

type Round = Awaited<ReturnType<typeof createRound>>;

/** Changed on both sides, or there alone; `file` is where the folder has it now. */
const takeChange = async (
  parts: StepParts,
  round: Round,
  { beat, text, known, file }: { beat: Beat; text: string; known: InStep; file: string },
): Promise<void> => {
  const { out, own, owned, texts } = round;
  const isOurs = markOf(text) !== known.mark;
  const other = await round.readFile(file);
  owned.add(file);
  if (!other) {
    // Nobody's file is written over: ours goes beside it where it has changed too.
    if (isOurs) await round.write(beat, round.freeName(beat), text);
    else out.inStep[beat.id] = known;
    return;
  }
  const there = texts.get(file)!;
  if (!isOurs) {
    const as = other.name === known.as?.there ? known.as : undefined;
    const name = as?.here ?? other.name;
    own({ id: await parts.replace(beat, { ...other, name }), name }, file, there, as);
    out.taken.push(name);
    return;
  }
  const as = { here: parts.nameBeside(other.name), there: other.name };
  own({ id: await parts.take({ ...other, name: as.here }), name: as.here }, file, there, as);
  await round.write(beat, round.freeName(beat), text);
  out.beside.push(beat.name);
};

/** A beat whose file is where it was left. */
const stepThere = async (
  parts: StepParts,
  round: Round,
  given: { beat: Beat; text: string; known: InStep },
): Promise<void> => {
  const { beat, text, known } = given;
  const thereMark = markOf(round.texts.get(known.file)!);
  if (thereMark !== known.mark && thereMark !== markOf(text))
    return takeChange(parts, round, { ...given, file: known.file });
  const as = beat.name === known.as?.here ? known.as : undefined;
  const isRenamed = known.name !== undefined && known.name !== beat.name;
  if (!isRenamed && markOf(text) === thereMark) return round.own(beat, known.file, text, as);
  if (!isRenamed) return round.write(beat, known.file, text, as);
  // Its file takes the new name too: the new one lies there before the old one goes.
  await round.write(beat, round.freeName(beat), text);
  await parts.folder.remove(known.file);
  round.texts.delete(known.file);
  round.owned.add(known.file);
};

/** A beat whose file is not where it was: moved, renamed or deleted. */
const stepGone = async (
  parts: StepParts,
  round: Round,
  given: { beat: Beat; text: string; known: InStep },
): Promise<void> => {
  const { beat, text, known } = given;
  const mark = markOf(text);
  const moved = round.fileWith(beat.id, (other) => markOf(other) === mark || markOf(other) === known.mark);
  if (moved) {
    if (markOf(round.texts.get(moved)!) === mark) return round.own(beat, moved, text, known.as);
    return round.write(beat, moved, text, known.as);
  }
  const { there } = known;
  const renamed = round.fileWith(beat.id, (other) => there !== undefined && idIn(other) === there);
  if (renamed) return takeChange(parts, round, { ...given, file: renamed });
  // What was changed here since is more than a deletion there.
  if (mark !== known.mark) return round.write(beat, known.file, text, known.as);
  if (await round.isPutAway(known)) {
    await parts.remove(beat);
    round.out.deleted.push(beat.name);
    return;
  }
  round.out.inStep[beat.id] = known;
  round.out.gone.push({ id: beat.id, name: beat.name });
};

const stepBeat = async (parts: StepParts, round: Round, beat: Beat): Promise<void> => {
  const known = namedIn(parts.inStep, beat.id);
  const text = writeBeat({
    ...beat,
    id: known?.there ?? beat.id,
    ...(beat.name === known?.as?.here && { name: known.as.there }),
  });
  if (known) {
    const step = round.texts.has(known.file) ? stepThere : stepGone;
    return step(parts, round, { beat, text, known });
  }
  const same = round.fileWith(beat.id, (other) => markOf(other) === markOf(text));
  if (same) return round.own(beat, same, text);
  await round.write(beat, round.freeName(beat), text);
  await round.takeBack(markOf(text));
};

/** What was deleted here and not changed there goes to the subfolder; what was changed there since comes back. */
const putAwayDeleted = async (parts: StepParts, round: Round, here: ReadonlySet<string>): Promise<void> => {
  const deleted = new Set(await parts.deleted());
  for (const [id, { file, mark, name }] of Object.entries(parts.inStep)) {
    const text = round.texts.get(file);
    if (here.has(id) || !deleted.has(id) || text === undefined || round.owned.has(file)) continue;
    if (markOf(text) !== mark) continue;
    await parts.folder.putAway(file);
    round.owned.add(file);
    round.out.putAway.push(name ?? file);
  }
};

/**
 * Brings a folder and the beats in step, once. What cannot be read is left where it is, and told.
 *
 * @throws what the folder or the storage throws; what was in step by then is lost to nobody, and is looked at again next time
 */
export const stepFolder = async (parts: StepParts): Promise<Stepped> => {
  const round = await createRound(parts);
  const beats = await parts.beats();
  for (const beat of beats) await stepBeat(parts, round, beat);
  await putAwayDeleted(parts, round, new Set(beats.map(({ id }) => id)));
  for (const [file, text] of [...round.texts]) {
    if (round.owned.has(file)) continue;
    const beat = await round.readFile(file);
    if (!beat) continue;
    round.own({ id: await parts.take(beat), name: beat.name }, file, text);
    round.out.taken.push(beat.name);
  }
  return round.out;
};
