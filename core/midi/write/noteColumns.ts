/**
 * The notes of a file as columns of plain numbers. A file may hold some hundred thousand of them; as objects, tidying
 * up after them costs more than writing them.
 */
export interface NoteColumns {
  size: number;
  /** Ticks of the file's own division. */
  tick: Int32Array;
  length: Int32Array;
  velocity: Uint8Array;
  note: Uint8Array;
  /** 1 to 16. */
  channel: Uint8Array;
  /** The lane's place in the beat, from 0. */
  lane: Uint8Array;
}

const KEYS = ['tick', 'length', 'velocity', 'note', 'channel', 'lane'] as const;

/** Room for so many notes, a column for each of their properties. @example emptyColumns(4).size // 4 */
export const emptyColumns = (size: number): NoteColumns => ({
  size,
  tick: new Int32Array(size),
  length: new Int32Array(size),
  velocity: new Uint8Array(size),
  note: new Uint8Array(size),
  channel: new Uint8Array(size),
  lane: new Uint8Array(size),
});

/** The first so many notes. */
export const shortened = (notes: NoteColumns, size: number): NoteColumns => ({
  size,
  tick: notes.tick.subarray(0, size),
  length: notes.length.subarray(0, size),
  velocity: notes.velocity.subarray(0, size),
  note: notes.note.subarray(0, size),
  channel: notes.channel.subarray(0, size),
  lane: notes.lane.subarray(0, size),
});

/** Several after one another. */
export const concatenated = (list: NoteColumns[]): NoteColumns => {
  if (list.length === 1) return list[0]!;
  const out = emptyColumns(list.reduce((sum, { size }) => sum + size, 0));
  let at = 0;
  for (const one of list) {
    for (const key of KEYS) out[key].set(one[key], at);
    at += one.size;
  }
  return out;
};

/** Copies one note onto another place, of the same columns or of others. */
export const copyNote = (from: NoteColumns, at: number, to: NoteColumns, place: number): void => {
  to.tick[place] = from.tick[at]!;
  to.length[place] = from.length[at]!;
  to.velocity[place] = from.velocity[at]!;
  to.note[place] = from.note[at]!;
  to.channel[place] = from.channel[at]!;
  to.lane[place] = from.lane[at]!;
};

const inOrder = ({ tick, size }: NoteColumns): boolean => {
  for (let i = 1; i < size; i++) if (tick[i - 1]! > tick[i]!) return false;
  return true;
};

/** By tick; notes on one tick keep their order. */
export const sortedByTick = (notes: NoteColumns): NoteColumns => {
  if (inOrder(notes)) return notes;
  const { size } = notes;
  const keys = new Float64Array(size);
  for (let i = 0; i < size; i++) keys[i] = notes.tick[i]! * size + i;
  keys.sort();
  const out = emptyColumns(size);
  for (let i = 0; i < size; i++) copyNote(notes, keys[i]! % size, out, i);
  return out;
};

/** Only those whose lane passes a test. */
export const ofLanes = (notes: NoteColumns, wanted: (lane: number) => boolean): NoteColumns => {
  const out = emptyColumns(notes.size);
  let size = 0;
  for (let i = 0; i < notes.size; i++) if (wanted(notes.lane[i]!)) copyNote(notes, i, out, size++);
  return shortened(out, size);
};
