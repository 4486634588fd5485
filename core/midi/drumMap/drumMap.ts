import type { DrumMap, MapNote } from '../../document/drumMapSchema';
import {
  DRUM_IDS,
  INSTRUMENT_IDS,
  INSTRUMENTS,
  instrument,
  type InstrumentId,
} from '../../document/instruments';
import type { Channel, MidiNote } from '../../units';

export type { DrumMap, MapNote } from '../../document/drumMapSchema';

/** General MIDI's percussion, 35 to 81: one instrument a note. */
export const GENERAL_MIDI: DrumMap = {
  kind: 'ruddik.drumMap',
  version: 1,
  name: 'General MIDI',
  notes: DRUM_IDS.filter((id) => id !== 'snare.rimshot' && id !== 'hat.half' && id !== 'shaker')
    .map((id) => ({ note: instrument(id).note, instrument: id }))
    .sort((a, b) => a.note - b.note),
};

/**
 * The stand-ins for an articulation that a map lacks: another of the same drum, the nearest first. A drum
 * never becomes another kind of drum.
 */
export const NEAR: Partial<Record<InstrumentId, InstrumentId[]>> = {
  'kick.second': ['kick'],
  kick: ['kick.second'],
  'snare.second': ['snare', 'snare.rimshot'],
  'snare.rimshot': ['snare.second', 'snare', 'snare.sideStick'],
  snare: ['snare.second', 'snare.rimshot'],
  'snare.sideStick': ['snare.rimshot'],
  'hat.half': ['hat.open', 'hat.closed'],
  'hat.open': ['hat.half'],
  'hat.closed': ['hat.pedal'],
  'hat.pedal': ['hat.closed'],
  ride: ['ride.second'],
  'ride.second': ['ride'],
  crash: ['crash.second'],
  'crash.second': ['crash'],
  'tom.floorLow': ['tom.floor', 'tom.low'],
  'tom.floor': ['tom.floorLow', 'tom.low'],
  'tom.low': ['tom.floor', 'tom.mid'],
  'tom.mid': ['tom.low', 'tom.highMid'],
  'tom.highMid': ['tom.high', 'tom.mid'],
  'tom.high': ['tom.highMid', 'tom.mid'],
  maracas: ['shaker'],
  shaker: ['maracas'],
  'conga.mute': ['conga.open'],
  'cuica.mute': ['cuica.open'],
  'cuica.open': ['cuica.mute'],
  'triangle.mute': ['triangle.open'],
  'triangle.open': ['triangle.mute'],
  'whistle.short': ['whistle.long'],
  'whistle.long': ['whistle.short'],
  'guiro.short': ['guiro.long'],
  'guiro.long': ['guiro.short'],
};

/**
 * The instrument that a map has on a note; null where it has none. An entry for a channel speaks of that channel alone.
 *
 * @example instrumentIn(GENERAL_MIDI, 38) // "snare"
 */
export const instrumentIn = (map: DrumMap, note: MidiNote, channel?: Channel): InstrumentId | null =>
  map.notes.find((one) => one.note === note && (one.channel ?? channel) === channel)?.instrument ??
  map.notes.find((one) => one.note === note && one.channel === undefined)?.instrument ??
  null;

/**
 * Whether MIDI has the number of an entry: a shift may have moved it beyond.
 *
 * @example isPlayable({ note: 130 }) // false
 */
export const isPlayable = ({ note }: Pick<MapNote, 'note'>): boolean => note >= 0 && note <= 127;

/** Where a map has an instrument; null where it has none. @example entryOf(GENERAL_MIDI, 'kick')!.note // 36 */
export const entryOf = (map: DrumMap, id: InstrumentId): MapNote | null =>
  map.notes.find((one) => one.instrument === id && isPlayable(one)) ?? null;

/** How one instrument comes over from one map to another. */
export interface Crossing {
  kind: 'same' | 'near' | 'none';
  /** The instrument that it is played as. */
  as: InstrumentId | null;
  to: MapNote | null;
}

/**
 * The fate of an instrument in a map: itself, the nearest articulation of the same drum, or nothing.
 *
 * @example crossing(GENERAL_MIDI, 'snare.rimshot').as // "snare.second"
 */
export const crossing = (to: DrumMap, id: InstrumentId): Crossing => {
  const same = entryOf(to, id);
  if (same) return { kind: 'same', as: id, to: same };
  for (const near of NEAR[id] ?? []) {
    const entry = entryOf(to, near);
    if (entry) return { kind: 'near', as: near, to: entry };
  }
  return { kind: 'none', as: null, to: null };
};

/** The fate of one note number. */
export interface NoteCrossing extends Crossing {
  note: MidiNote;
  /** The meaning of the number in the map that it comes from. */
  instrument: InstrumentId | null;
  /** The other drum that its number would sound there, if it were kept. */
  clash: InstrumentId | null;
}

/** How note numbers come over from one map to another. @example crossings([38], GENERAL_MIDI, GENERAL_MIDI)[0]!.kind // "same" */
export const crossings = (notes: MidiNote[], from: DrumMap, to: DrumMap): NoteCrossing[] =>
  notes.map((note) => {
    const id = instrumentIn(from, note);
    const way: Crossing = id ? crossing(to, id) : { kind: 'none', as: null, to: null };
    const there = way.kind === 'none' ? instrumentIn(to, note) : null;
    return { note, instrument: id, ...way, clash: there };
  });

/** A drum map as the text of a file. @example JSON.parse(drumMapText(GENERAL_MIDI)).kind // "ruddik.drumMap" */
export const drumMapText = (map: DrumMap): string => `${JSON.stringify(map, null, 1)}\n`;

/** How far an entry can be moved, one way or the other. */
const FARTHEST = 1024;

/**
 * A map with every number moved. What leaves 0 to 127 is kept, plays nothing there, and comes back when it is moved back.
 *
 * @example shifted(GENERAL_MIDI, 12).notes[0]!.note - GENERAL_MIDI.notes[0]!.note // 12
 */
export const shifted = (map: DrumMap, by: number): DrumMap =>
  map.notes.some(({ note }) => Math.abs(note + by) > FARTHEST)
    ? map
    : { ...map, notes: map.notes.map((one) => ({ ...one, note: one.note + by })) };

/**
 * A map in which a number has an instrument, or none.
 *
 * @param channel whose entry it is, 1 to 16; left out, the entry for all channels. What the number means on others stays
 * @example withNote(GENERAL_MIDI, 36, null).notes.some(({ note }) => note === 36) // false
 */
export const withNote = (
  map: DrumMap,
  note: MidiNote,
  entry: Omit<MapNote, 'note' | 'channel'> | null,
  channel?: Channel,
): DrumMap => {
  const others = map.notes.filter((one) => one.note !== note || one.channel !== channel);
  const own: MapNote[] = entry ? [{ note, ...entry, ...(channel !== undefined && { channel }) }] : [];
  return {
    ...map,
    notes: [...others, ...own].sort((a, b) => a.note - b.note || (a.channel ?? 0) - (b.channel ?? 0)),
  };
};

/** Words that say an instrument, the most telling first; all must stand in a name. */
const WORDS: [RegExp, InstrumentId][] = [
  [/side ?stick|cross ?stick|x-?stick/, 'snare.sideStick'],
  [/rim/, 'snare.rimshot'],
  [/(second|2|alt|soft).*kick|(second|2).*(bass ?drum)/, 'kick.second'],
  [/kick|bass ?drum|^bd\b|gran cassa/, 'kick'],
  [/(second|2|electric|alt).*(snare|sd)/, 'snare.second'],
  [/snare|^sd\b|^sn\b/, 'snare'],
  [/clap/, 'clap'],
  [/(hat|hh).*(half|semi|loose)|(half|semi|loose).*(hat|hh)/, 'hat.half'],
  [/(hat|hh).*(open)|open.*(hat|hh)|^oh\b/, 'hat.open'],
  [/(hat|hh).*(pedal|foot|chick)|(pedal|foot).*(hat|hh)/, 'hat.pedal'],
  [/hat|^hh\b|^ch\b/, 'hat.closed'],
  [/ride.*(bell|cup)|bell.*ride/, 'ride.bell'],
  [/ride.*(2|second)|(2|second).*ride/, 'ride.second'],
  [/ride/, 'ride'],
  [/crash.*(2|second)|(2|second).*crash/, 'crash.second'],
  [/crash/, 'crash'],
  [/china|chinese/, 'china'],
  [/splash/, 'splash'],
  [/floor.*(low|2)|low.*floor/, 'tom.floorLow'],
  [/floor/, 'tom.floor'],
  [/hi(gh)?[- ]?mid.*tom|tom.*hi(gh)?[- ]?mid/, 'tom.highMid'],
  [/hi(gh)?.*tom|tom.*(hi(gh)?|1)/, 'tom.high'],
  [/(low)?[- ]?mid.*tom|tom.*(mid|2)/, 'tom.mid'],
  [/tom/, 'tom.low'],
  [/tamb/, 'tambourine'],
  [/cow ?bell/, 'cowbell'],
  [/vibra/, 'vibraslap'],
  [/(low|lo).*bongo|bongo.*(low|lo)/, 'bongo.low'],
  [/bongo/, 'bongo.high'],
  [/(mute|slap).*conga|conga.*(mute|slap)/, 'conga.mute'],
  [/(low|lo).*conga|conga.*(low|lo)|tumba/, 'conga.low'],
  [/conga/, 'conga.open'],
  [/(low|lo).*timbale|timbale.*(low|lo)/, 'timbale.low'],
  [/timbale/, 'timbale.high'],
  [/(low|lo).*agogo|agogo.*(low|lo)/, 'agogo.low'],
  [/agogo/, 'agogo.high'],
  [/cabasa/, 'cabasa'],
  [/maraca/, 'maracas'],
  [/shaker/, 'shaker'],
  [/(long).*whistle|whistle.*long/, 'whistle.long'],
  [/whistle/, 'whistle.short'],
  [/(long).*guiro|guiro.*long/, 'guiro.long'],
  [/guiro/, 'guiro.short'],
  [/clave/, 'claves'],
  [/(low|lo).*(wood|block)|block.*(low|lo)/, 'woodblock.low'],
  [/wood ?block/, 'woodblock.high'],
  [/(mute).*cuica|cuica.*mute/, 'cuica.mute'],
  [/cuica/, 'cuica.open'],
  [/(mute).*triangle|triangle.*mute/, 'triangle.mute'],
  [/triangle/, 'triangle.open'],
];

/**
 * The instrument that a name in another's list of drums means; null where none can be told.
 *
 * @example instrumentMeant('Hi-Hat Open Loose') // "hat.half"
 */
export const instrumentMeant = (name: string): InstrumentId | null => {
  const text = name
    .toLowerCase()
    .replace(/[-_/.]+/g, ' ')
    .replace(/hi hat/g, 'hat')
    .trim();
  const exact = INSTRUMENT_IDS.find(
    (id) => id === name.trim() || INSTRUMENTS[id].name.toLowerCase() === text,
  );
  return exact ?? WORDS.find(([pattern]) => pattern.test(text))?.[1] ?? null;
};
