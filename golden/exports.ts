/** MIDI files of some of the beats, byte by byte: one line an event. */
import { HOW_DEFAULTS, WHAT_DEFAULTS, type ExportHow, type ExportWhat } from '../core/export/choice';
import { exported } from '../core/export/exporting';
import { golden } from './read';

interface Chosen {
  beat: string;
  how?: Partial<ExportHow>;
  what?: Partial<ExportWhat>;
}

/** What is written, by the name of its text. */
export const EXPORTS: Record<string, Chosen> = {
  plain: { beat: '01-backbeat' },
  'one-track-of-480': { beat: '17-flams-drags-ruffs', how: { format: 0, ppq: 480, passes: 2 } },
  'coarse-of-96': { beat: '16-rolls', how: { ppq: 96 } },
  'held-at-the-edges': { beat: '29-ahead-and-behind', how: { edges: 'hold', channel: 3, channels: 'whole' } },
  'round-the-loop': { beat: '29-ahead-and-behind', how: { edges: 'wrap', passes: 2 } },
  'a-track-for-each-lane': {
    beat: '10-polymeter',
    how: { split: 'lanes', as: 'tracks', channels: 'each', passes: 3 },
  },
  straight: { beat: '31-loose-hands', how: { straight: true } },
  'with-a-count-in': { beat: '04-six-eighths', how: { countIn: true, ppq: 1920 } },
  song: { beat: '51-song-with-ramps', how: { scope: 'song' } },
  'bars-of-the-song': {
    beat: '51-song-with-ramps',
    how: { scope: 'range', ppq: 480 },
    what: { bars: { from: 3, to: 5 } },
  },
  'tempo-of-the-players': { beat: '45-players-lead-the-tempo', how: { passes: 4 } },
  pitches: { beat: '48-tuned-lanes' },
};

/** The bytes of all files that a choice writes. */
export const bytesOf = ({ beat, how, what }: Chosen): { name: string; bytes: Uint8Array }[] => {
  const made = exported(golden(beat), { ...HOW_DEFAULTS, ...how }, { ...WHAT_DEFAULTS, ...what });
  if (!made.ok) throw new Error(made.error);
  return made.value.files.map(({ name, data }) => ({ name, bytes: data as Uint8Array }));
};

const hex = (bytes: Uint8Array): string =>
  [...bytes].map((one) => one.toString(16).padStart(2, '0')).join(' ');

/** Where a number of variable length that begins at a place ends. */
const pastNumber = (bytes: Uint8Array, from: number): number => {
  let at = from;
  while (bytes[at]! & 0x80) at += 1;
  return at + 1;
};

/** Where an event ends, its data included. */
const pastEvent = (bytes: Uint8Array, from: number, running: number): number => {
  const first = bytes[from]!;
  const status = first & 0x80 ? first : running;
  const data = first & 0x80 ? from + 1 : from;
  if (status < 0xf0) return data + (status >> 4 === 0xc || status >> 4 === 0xd ? 1 : 2);
  const sized = status === 0xff ? data + 1 : data;
  const start = pastNumber(bytes, sized);
  let size = 0;
  for (let at = sized; at < start; at++) size = size * 128 + (bytes[at]! & 0x7f);
  return start + size;
};

/**
 * The bytes of a file in hexadecimal, a chunk's head on one line and each event on one of its own, its delta time set off. It is
 * read by code of its own and not by the app's reader: the same slip in both is unlikely.
 *
 * @throws where the bytes do not come out even
 */
export const bytesText = (bytes: Uint8Array): string => {
  const lines: string[] = [];
  let at = 0;
  while (at < bytes.length) {
    const size = new DataView(bytes.buffer, bytes.byteOffset + at + 4, 4).getUint32(0);
    const end = at + 8 + size;
    const isTrack = String.fromCharCode(...bytes.subarray(at, at + 4)) === 'MTrk';
    lines.push(hex(bytes.subarray(at, isTrack ? at + 8 : end)));
    at += 8;
    let running = 0;
    while (isTrack && at < end) {
      const event = pastNumber(bytes, at);
      const next = pastEvent(bytes, event, running);
      if (bytes[event]! & 0x80) running = bytes[event]!;
      lines.push(`${hex(bytes.subarray(at, event))} | ${hex(bytes.subarray(event, next))}`);
      at = next;
    }
    if (at > end) throw new Error('an event reaches past the end of its track');
    at = end;
  }
  return lines.join('\n');
};

/** What is written down of a choice. */
export const exportText = (chosen: Chosen): string =>
  bytesOf(chosen)
    .map(({ name, bytes }) => `${name}\n${bytesText(bytes)}\n`)
    .join('\n');
