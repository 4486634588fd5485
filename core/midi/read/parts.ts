import type { Channel } from '../../units';
import type { MidiFile, ReadNote } from './midiFile';

/** The notes of one channel of one track of a file. */
export interface MidiPart {
  /** Which it is: track from 0 and channel from 1. */
  key: string;
  name: string;
  channel: Channel;
  notes: number;
  /** Whether it is for drums: channel 10. */
  drums: boolean;
}

/** The channel that is for drums by General MIDI. */
export const DRUM_CHANNEL: Channel = 10;

const partKey = ({ track, channel }: Pick<ReadNote, 'track' | 'channel'>): string => `${track}/${channel}`;

/**
 * The package reads one character a byte; texts are UTF-8 by custom, and what is not is kept as it is.
 *
 * @example textOf('Snare') // "Snare"
 */
export const textOf = (text: string): string => {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(
      Uint8Array.from(text, (letter) => letter.charCodeAt(0)),
    );
  } catch {
    return text;
  }
};

/** The names of a file's tracks, by their number; empty where one has no name. */
export const trackNames = ({ tracks }: Pick<MidiFile, 'tracks'>): string[] =>
  tracks.map((events) => {
    const named = events.findLast((event) => event.type === 'trackName');
    return named?.type === 'trackName' ? textOf(named.text) : '';
  });

/**
 * The parts of a file that hold notes, drums before all others.
 *
 * @example midiPartsOf(file).map(({ channel, drums }) => [channel, drums]) // [[10, true]]
 */
export const midiPartsOf = (file: MidiFile): MidiPart[] => {
  const names = trackNames(file);
  const parts = new Map<string, MidiPart>();
  for (const one of file.notes) {
    const key = partKey(one);
    const known = parts.get(key);
    if (known) known.notes += 1;
    else {
      const name = names[one.track]?.trim() || `Track ${one.track + 1}`;
      const drums = one.channel === DRUM_CHANNEL;
      parts.set(key, { key, name, channel: one.channel, notes: 1, drums });
    }
  }
  return [...parts.values()].sort((a, b) => Number(b.drums) - Number(a.drums));
};

/**
 * Whether there is something to choose: drums, or what nothing says are drums, beside other parts.
 *
 * @example isMixed(midiPartsOf(file)) // false
 */
export const isMixed = (parts: MidiPart[]): boolean => parts.length > 1 && parts.some(({ drums }) => !drums);

/**
 * The keys of what is chosen of a file at first: its drums, where it says which they are; else all.
 *
 * @example drumsFirst(midiPartsOf(file)).length // 1
 */
export const drumsFirst = (parts: MidiPart[]): string[] => {
  const drums = parts.filter((part) => part.drums);
  return (drums.length ? drums : parts).map(({ key }) => key);
};

/**
 * A file with the notes of some parts alone.
 *
 * @param only keys of parts; left out, all
 * @example withParts(file, []).notes // []
 */
export const withParts = (file: MidiFile, only: readonly string[] | undefined): MidiFile =>
  only ? { ...file, notes: file.notes.filter((one) => only.includes(partKey(one))) } : file;
