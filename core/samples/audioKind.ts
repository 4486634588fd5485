/** Kinds of audio files that are read here. */
export const AUDIO_KINDS = ['WAV', 'AIFF', 'FLAC', 'OGG', 'MP3'] as const;
export type AudioKind = (typeof AUDIO_KINDS)[number];

/** Some bytes as letters. @example textAt(new TextEncoder().encode('RIFF'), 0, 2) // "RI" */
export const textAt = (bytes: Uint8Array, from: number, to: number): string =>
  String.fromCharCode(...bytes.subarray(from, to));

/** How files of each kind begin. */
const BEGINS: Record<AudioKind, (bytes: Uint8Array) => boolean> = {
  WAV: (bytes) => textAt(bytes, 0, 4) === 'RIFF' && textAt(bytes, 8, 12) === 'WAVE',
  AIFF: (bytes) => textAt(bytes, 0, 4) === 'FORM' && /^AIF[FC]$/.test(textAt(bytes, 8, 12)),
  FLAC: (bytes) => textAt(bytes, 0, 4) === 'fLaC',
  OGG: (bytes) => textAt(bytes, 0, 4) === 'OggS',
  MP3: (bytes) =>
    textAt(bytes, 0, 3) === 'ID3' || (bytes[0] === 0xff && (bytes[1]! & 0xe0) === 0xe0 && bytes.length > 128),
};

/**
 * The kind of an audio file, by its first bytes; null where it is none that is read here.
 *
 * @example audioKind(new Uint8Array(4)) // null
 */
export const audioKind = (bytes: Uint8Array): AudioKind | null =>
  AUDIO_KINDS.find((kind) => BEGINS[kind](bytes)) ?? null;
