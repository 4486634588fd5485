import type { Read } from '../document/reading';
import { notesInScale, scaleOf } from '../make/scales';
import { modulo } from '../numbers';
import type { MidiNote } from '../units';

/** How a surface of lit pads is spoken to: which note is which place, and which value is which light. */

/** The meanings of a light. */
export const LIGHTS = [
  'off',
  'soft',
  'step',
  'accent',
  'here',
  'passing',
  'muted',
  'solo',
  'chosen',
  'button',
  'on',
] as const;
export type Light = (typeof LIGHTS)[number];

/** 0 to 127 are notes on the channel of the layout; 128 to 255 are the notes from 0 on of the channel after it. */
export type PadNumber = number;

const NOTES = 128;
const MOST_PADS = 2 * NOTES;
const CHANNELS = 16;

export interface GridLayout {
  kind: 'ruddik.grid';
  version: 1;
  name: string;
  /** 4 to 16. */
  columns: number;
  rows: number;
  /** From 1. */
  channel: number;
  /** The number of each place, row by row from the top; null where there is none. */
  notes: (PadNumber | null)[][];
  /** The velocity by which each light is lit. */
  lights: Record<Light, number>;
}

/** A block of places: a first note, and how far it is to the next column and to the next row. */
export interface NoteBlock {
  columns: number;
  rows: number;
  /** The note of the place at the bottom left. */
  first: MidiNote;
  /** Semitones, or steps of the scale. */
  column: number;
  row: number;
  /** A root and a scale, such as "C minor"; left out, all notes. */
  scale?: string;
}

/**
 * The numbers of a block of places, row by row from the top; null where there is no such number. A scale goes on with the
 * second channel where it has come through the first.
 *
 * @param most the greatest number: 127 of one channel, 255 of two
 * @example noteBlock({ columns: 4, rows: 2, first: 36, column: 1, row: 4 }) // [[40, 41, 42, 43], [36, 37, 38, 39]]
 */
export const noteBlock = (
  { columns, rows, first, column, row, scale }: NoteBlock,
  most: PadNumber = NOTES - 1,
): (PadNumber | null)[][] => {
  const read = scale ? scaleOf(scale) : null;
  const scaled = read?.ok ? notesInScale(read.value, 0, NOTES - 1) : null;
  const steps = scaled && [...scaled, ...scaled.map((note) => note + NOTES)];
  const start = steps
    ? Math.max(
        0,
        steps.findIndex((one) => one >= first),
      )
    : first;
  return Array.from({ length: rows }, (_, y) =>
    Array.from({ length: columns }, (__, x) => {
      const at = start + x * column + (rows - 1 - y) * row;
      const found = steps ? steps[at] : at;
      return found !== undefined && found >= 0 && found <= most ? found : null;
    }),
  );
};

/** Blocks of one row that the drums of a kit commonly have. */
export const USUAL_ROWS: { name: string; row: Omit<NoteRow, 'count'> }[] = [
  { name: 'From 36 upwards', row: { first: 36, step: 1 } },
  { name: 'From 60 upwards', row: { first: 60, step: 1 } },
  { name: 'An octave apart', row: { first: 24, step: 12 } },
  { name: 'White keys from 60', row: { first: 60, step: 1, scale: 'C major' } },
];

/** Notes one after the other. */
export interface NoteRow {
  count: number;
  first: MidiNote;
  /** Semitones, or steps of the scale. */
  step: number;
  scale?: string;
}

/**
 * So many notes one after the other; null where one of them would leave 0 to 127.
 *
 * @example noteRow({ count: 4, first: 60, step: 1, scale: 'C major' }) // [60, 62, 64, 65]
 */
export const noteRow = ({ count, step, ...block }: NoteRow): MidiNote[] | null => {
  const [row] = noteBlock({ ...block, columns: count, rows: 1, column: step, row: 0 });
  return row!.every((note) => note !== null) ? row! : null;
};

/** The greatest number of a surface of so many places. @example mostOf({ columns: 16, rows: 16 }) // 255 */
export const mostOf = ({ columns, rows }: Pick<GridLayout, 'columns' | 'rows'>): PadNumber =>
  columns * rows > NOTES ? MOST_PADS - 1 : NOTES - 1;

/** Blocks that surfaces of so many columns commonly have. @example usualBlocks(16)[0]!.block.row // 16 */
export const usualBlocks = (
  columns: number,
): { name: string; block: Omit<NoteBlock, 'columns' | 'rows'> }[] => [
  { name: 'Row by row', block: { first: 0, column: 1, row: columns } },
  {
    name: columns === 8 ? 'Row by row, tens apart' : 'Row by row, two left out',
    block: { first: 11, column: 1, row: columns + 2 },
  },
  { name: 'Drum pads in fours', block: { first: 36, column: 1, row: 4 } },
  { name: 'Fourths', block: { first: 36, column: 1, row: 5 } },
  { name: 'In the scale, thirds apart', block: { first: 48, column: 1, row: 3, scale: 'C major' } },
];

const PLAIN_LIGHTS: Record<Light, number> = {
  off: 0,
  soft: 20,
  step: 64,
  accent: 110,
  here: 127,
  passing: 40,
  muted: 8,
  solo: 96,
  chosen: 120,
  button: 30,
  on: 100,
};

/**
 * A layout of so many places whose notes follow one another row by row.
 *
 * @example plainLayout(8, 8).notes[7]![0] // 0
 */
export const plainLayout = (columns: number, rows: number): GridLayout => ({
  kind: 'ruddik.grid',
  version: 1,
  name: `Grid ${columns} x ${rows}`,
  columns,
  rows,
  channel: 1,
  notes: noteBlock({ columns, rows, first: 0, column: 1, row: columns }, mostOf({ columns, rows })),
  lights: { ...PLAIN_LIGHTS },
});

/** Layouts to begin with. */
export const LAYOUTS: GridLayout[] = [
  { ...plainLayout(16, 16), name: 'Pads 16 x 16, row by row, on two channels' },
  { ...plainLayout(8, 8), name: 'Pads 8 x 8, row by row' },
  {
    ...plainLayout(8, 8),
    name: 'Pads 8 x 8, tens apart',
    notes: noteBlock({ columns: 8, rows: 8, first: 11, column: 1, row: 10 }),
  },
];

const isWhole = (value: unknown, least: number, most: number): boolean =>
  Number.isInteger(value) && (value as number) >= least && (value as number) <= most;

const PARTS = ['kind', 'version', 'name', 'columns', 'rows', 'channel', 'notes', 'lights'];

/** The fault of a layout, in a sentence; null where nothing is. By hand: what checks large files would be fetched for it. */
const faultIn = (raw: Record<string, unknown>): string | null => {
  const { version, name, columns, rows, channel, notes, lights } = raw;
  const strange = Object.keys(raw).find((key) => !PARTS.includes(key));
  if (strange) return `It has a part that is not known, “${strange.slice(0, 40)}”.`;
  if (version !== 1) return 'It is of another version than this Ruddik reads, which is 1.';
  if (typeof name !== 'string' || !name.trim() || name.length > 80)
    return 'Its name is to be of 1 to 80 letters.';
  for (const [what, value] of Object.entries({ columns, rows }))
    if (!isWhole(value, 4, 16)) return `Its ${what} are to be 4 to 16.`;
  if (!isWhole(channel, 1, 16)) return 'Its channel is to be 1 to 16.';
  const all = Array.isArray(notes) ? (notes as unknown[]) : [];
  if (all.length !== rows || all.some((row) => !Array.isArray(row) || row.length !== columns))
    return `Its notes are to be ${String(rows)} rows of ${String(columns)}.`;
  if (all.flat().some((one) => one !== null && !isWhole(one, 0, MOST_PADS - 1)))
    return `Each of its notes is to be a number from 0 to ${MOST_PADS - 1}, or null.`;
  const lit = (typeof lights === 'object' && lights !== null ? lights : {}) as Record<string, unknown>;
  const missing = LIGHTS.find((light) => !isWhole(lit[light], 0, 127));
  return missing ? `Its light “${missing}” is to be a number from 0 to 127.` : null;
};

/** Layouts that were written before a light was known are lit by it as a plain one is. */
const withNewLights = (raw: Record<string, unknown>): Record<string, unknown> => {
  const { lights } = raw;
  if (typeof lights !== 'object' || lights === null) return raw;
  return { ...raw, lights: { passing: PLAIN_LIGHTS.passing, ...lights } };
};

/**
 * Reads a layout from the text of a file.
 *
 * @returns a sentence for a person where it is none, and where it goes wrong; it never throws
 * @example readLayout('{}').ok // false
 */
export const readLayout = (text: string): Read<GridLayout> => {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return { ok: false, error: 'It is no JSON.' };
  }
  if ((raw as { kind?: unknown } | null)?.kind !== 'ruddik.grid')
    return { ok: false, error: 'It is JSON, but no layout of a grid.' };
  const layout = withNewLights(raw as Record<string, unknown>);
  const fault = faultIn(layout);
  return fault ? { ok: false, error: fault } : { ok: true, value: layout as unknown as GridLayout };
};

/** Writes a layout as a file. @example writeLayout(plainLayout(8, 8)).startsWith('{') // true */
export const writeLayout = (layout: GridLayout): string => `${JSON.stringify(layout, null, 1)}\n`;

/**
 * The number that a message is for; null where it is on neither channel of the layout.
 *
 * @param channel from 1
 * @example padNumber(plainLayout(16, 16), 2, 127) // 255
 */
export const padNumber = (
  layout: Pick<GridLayout, 'channel'>,
  channel: number,
  note: MidiNote,
): PadNumber | null => {
  const beyond = modulo(channel - layout.channel, CHANNELS);
  return beyond < 2 ? beyond * NOTES + note : null;
};

/** How a number is spoken to. @example padAddress(plainLayout(16, 16), 255) // { channel: 2, note: 127 } */
export const padAddress = (
  layout: Pick<GridLayout, 'channel'>,
  pad: PadNumber,
): { channel: number; note: MidiNote } => ({
  channel: modulo(layout.channel - 1 + Math.floor(pad / NOTES), CHANNELS) + 1,
  note: pad % NOTES,
});

/** The place of a number, from the top left; null where none has it. @example placeOfNote(plainLayout(8, 8), 0) // { x: 0, y: 7 } */
export const placeOfNote = (layout: GridLayout, wanted: PadNumber): { x: number; y: number } | null => {
  for (const [y, row] of layout.notes.entries()) {
    const x = row.indexOf(wanted);
    if (x >= 0) return { x, y };
  }
  return null;
};

/** A pad that was pressed, as it was heard. */
export interface PadHeard {
  /** From 1. */
  channel: number;
  note: MidiNote;
}

/**
 * A layout whose pads are numbered as they are pressed one after the other, from the top left, row by row; what is pressed twice
 * counts once. Its channel is the one that, with the one after it, most of them came on; others are left out.
 *
 * @param pressed in the order of the presses; places that were not reached have no number
 * @example learntLayout(plainLayout(4, 4), [60, 62, 60].map((note) => ({ channel: 1, note }))).notes[0] // [60, 62, null, null]
 */
export const learntLayout = (layout: GridLayout, pressed: readonly PadHeard[]): GridLayout => {
  const heardOn = (channel: number) =>
    pressed.filter((one) => padNumber({ channel }, one.channel, one.note) !== null).length;
  const channel = [...new Set(pressed.map((one) => one.channel))].reduce(
    (best, one) => (heardOn(one) > heardOn(best) ? one : best),
    pressed[0]?.channel ?? layout.channel,
  );
  const each = [...new Set(pressed.flatMap((one) => padNumber({ channel }, one.channel, one.note) ?? []))];
  return {
    ...layout,
    channel,
    notes: Array.from({ length: layout.rows }, (_, y) =>
      Array.from({ length: layout.columns }, (__, x) => each[y * layout.columns + x] ?? null),
    ),
  };
};
