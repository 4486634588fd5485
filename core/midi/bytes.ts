/** The bytes of a Standard MIDI File. */

const MOST_VARINT_BYTES = 4;

/**
 * A number of seven bits a byte; null where it is cut off or too long.
 *
 * @param at where it begins
 * @example readVarint(Uint8Array.of(0x81, 0x00), 0) // { value: 128, at: 2 }
 */
export const readVarint = (bytes: Uint8Array, at: number): { value: number; at: number } | null => {
  let value = 0;
  for (let i = 0; i < MOST_VARINT_BYTES; i++) {
    const byte = bytes[at + i];
    if (byte === undefined) return null;
    value = value * 128 + (byte & 0x7f);
    if (byte < 0x80) return { value, at: at + i + 1 };
  }
  return null;
};

/** Adds a number of seven bits a byte, all but the last marked. @param value 0 or more */
export const pushVarint = (bytes: number[], value: number): void => {
  for (let shift = 28; shift > 0; shift -= 7)
    if (value >= 2 ** shift) bytes.push((Math.floor(value / 2 ** shift) & 0x7f) | 0x80);
  bytes.push(value & 0x7f);
};

export const FILE_HEAD = 14;
export const TRACK_HEAD = 8;

/**
 * A file of tracks that are written.
 *
 * @param division as it stands in the file's head: ticks a quarter, or film frames
 * @param tracks the events of each, without its head
 * @example smfOf(1, 960, [[0, 0xff, 0x2f, 0]]).length // 26
 */
export const smfOf = (format: number, division: number, tracks: ArrayLike<number>[]): Uint8Array => {
  const size = tracks.reduce((sum, track) => sum + TRACK_HEAD + track.length, FILE_HEAD);
  const out = new Uint8Array(size);
  const view = new DataView(out.buffer);
  out.set([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6]);
  view.setUint16(8, format);
  view.setUint16(10, tracks.length);
  view.setUint16(12, division);
  let at = FILE_HEAD;
  for (const track of tracks) {
    out.set([0x4d, 0x54, 0x72, 0x6b], at);
    view.setUint32(at + 4, track.length);
    out.set(track, at + TRACK_HEAD);
    at += TRACK_HEAD + track.length;
  }
  return out;
};
