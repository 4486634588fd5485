import { readVarint } from '../bytes';

/** How far the events of a track can be followed. */
export interface Followed {
  /** Where the last whole event ends, in bytes. */
  end: number;
  /** Whether that was the end of the track. */
  ended: boolean;
}

const META = 0xff;
const END_OF_TRACK = 0x2f;

/** Where data of a stated length ends; null beyond the track's end. */
const afterData = (bytes: Uint8Array, at: number): number | null => {
  const length = readVarint(bytes, at);
  return length && length.at + length.value <= bytes.length ? length.at + length.value : null;
};

/** Where a message of a channel ends: one or two bytes, all below 128. */
const afterMessage = (bytes: Uint8Array, at: number, status: number): number | null => {
  const kind = status >> 4;
  const length = kind === 0xc || kind === 0xd ? 1 : 2;
  for (let i = 0; i < length; i++) if ((bytes[at + i] ?? 0x80) >= 0x80) return null;
  return at + length;
};

/**
 * Follows the events of a track, without a look at what they mean, to where they can be followed no further: at the end of
 * the track, at its last byte, or where something stands that is no event.
 *
 * @param bytes a track without its head
 * @example wholeEvents(Uint8Array.of(0, 0xff, 0x2f, 0)) // { end: 4, ended: true }
 */
export const wholeEvents = (bytes: Uint8Array): Followed => {
  let end = 0;
  let running = 0;
  for (;;) {
    const time = readVarint(bytes, end);
    const first = time ? bytes[time.at] : undefined;
    if (!time || first === undefined) return { end, ended: false };
    const { at } = time;
    let after: number | null;
    if (first === META) after = afterData(bytes, at + 2);
    else if (first === 0xf0 || first === 0xf7) after = afterData(bytes, at + 1);
    else if (first > 0xf0) after = null;
    else if (first >= 0x80) {
      running = first;
      after = afterMessage(bytes, at + 1, first);
    } else after = running ? afterMessage(bytes, at, running) : null;
    if (after === null) return { end, ended: false };
    end = after;
    if (first === META && bytes[at + 1] === END_OF_TRACK) return { end, ended: true };
  }
};
