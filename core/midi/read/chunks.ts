import type { Read } from '../../document/file';
import { wholeEvents } from './wholeEvents';

/** The fault of a file, as a clause: "track 2 breaks off". */
export interface Damage {
  what: string;
  /** The mending, where it is mended. */
  mended?: string;
}

/** The content of a file's chunks, and their faults. */
export interface Chunks {
  format: number;
  /** As it stands in the header: ticks a quarter, or frames and ticks a frame. */
  division: number;
  /** The events of each track that are whole, ended properly. */
  tracks: Uint8Array[];
  damage: Damage[];
}

const fault = (error: string): { ok: false; error: string } => ({ ok: false, error });

const HEAD = 8;
const END = [0x00, 0xff, 0x2f, 0x00];

const idAt = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));

const isName = (id: string): boolean => /^[ -~]{4}$/.test(id);

/** Where the next track begins at or after a place; the file's end where there is none. */
const nextTrack = (bytes: Uint8Array, from: number): number => {
  for (let at = from; at + HEAD <= bytes.length; at++) if (idAt(bytes, at) === 'MTrk') return at;
  return bytes.length;
};

/** Where a track really ends: as its head says, or where the next one begins if that cannot be. */
const trackEnd = (bytes: Uint8Array, from: number, length: number): number => {
  const said = from + length;
  if (said > bytes.length) return nextTrack(bytes, from);
  const left = bytes.length - said;
  return left === 0 || (left >= HEAD && isName(idAt(bytes, said))) ? said : nextTrack(bytes, from);
};

const wholeTrack = (
  bytes: Uint8Array,
  from: number,
  end: number,
): { track: Uint8Array; followed: boolean } => {
  const body = bytes.subarray(from, end);
  const { end: whole, ended } = wholeEvents(body);
  if (ended) return { track: body.subarray(0, whole), followed: true };
  const track = new Uint8Array(whole + END.length);
  track.set(body.subarray(0, whole));
  track.set(END, whole);
  return { track, followed: whole === body.length };
};

/**
 * The tracks of a Standard MIDI File, mended where they are damaged: what can be read of them is kept, and what was wrong is
 * said. Chunks of other kinds and longer headers are passed over without a word.
 *
 * @returns the tracks, or a sentence where there is no header, no division, or no track at all
 * @example readChunks(new Uint8Array()) // { ok: false, error: "It is empty." }
 */
export const readChunks = (bytes: Uint8Array): Read<Chunks> => {
  if (!bytes.length) return fault('It is empty.');
  if (bytes.length < 14 || idAt(bytes, 0) !== 'MThd') return fault('It is not a MIDI file.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const [format, said, division] = [view.getUint16(8), view.getUint16(10), view.getUint16(12)];
  if (division === 0) return fault('It says that a quarter note has no ticks.');
  const tracks: Uint8Array[] = [];
  const damage: Damage[] = [];
  let at = HEAD + view.getUint32(4);
  while (at + HEAD <= bytes.length) {
    const [id, length, from] = [idAt(bytes, at), view.getUint32(at + 4), at + HEAD];
    if (id !== 'MTrk') {
      at = from + length;
      continue;
    }
    const end = trackEnd(bytes, from, length);
    const name = `track ${tracks.length + 1}`;
    if (end !== from + length)
      damage.push({ what: `${name} is ${end < from + length ? 'shorter' : 'longer'} than it says` });
    const { track, followed } = wholeTrack(bytes, from, end);
    if (!followed) damage.push({ what: `${name} breaks off`, mended: 'what stands before that was read' });
    tracks.push(track);
    at = end;
  }
  if (!tracks.length) return fault('It has no tracks.');
  if (tracks.length !== said)
    damage.push({ what: `it says that it has ${said} tracks, and has ${tracks.length}` });
  return { ok: true, value: { format, division, tracks, damage } };
};

/**
 * Whether bytes begin as a MIDI file does; what follows may be damaged.
 *
 * @param bytes of a file, any length
 * @example isMidi(new TextEncoder().encode('MThd')) // true
 */
export const isMidi = (bytes: Uint8Array): boolean => String.fromCharCode(...bytes.subarray(0, 4)) === 'MThd';
