import type { InstrumentId } from '../document/instruments';

/** What words in the name of a file say of the instrument, the plainest first. */
const WORDS: [RegExp, InstrumentId][] = [
  [/\b(open(ed)? ?(hi)? ?hats?|(hi)? ?hats? ?open(ed)?|ohh?|oh)\b/, 'hat.open'],
  [/\b(half ?open ?hats?|hats? ?half)\b/, 'hat.half'],
  [/\b(pedal ?(hi)? ?hats?|(hi)? ?hats? ?pedal|phh)\b/, 'hat.pedal'],
  [/\b(hi ?hats?|hats?|hh|chh?|ch)\b/, 'hat.closed'],
  [/\b(kicks?|bd|bass ?drums?|bassdrum|kik|kd)\b/, 'kick'],
  [/\b(rim ?shots?|rims?|rs)\b/, 'snare.rimshot'],
  [/\b(side ?sticks?|cross ?sticks?|ss)\b/, 'snare.sideStick'],
  [/\b(snares?|sd|sn|snr)\b/, 'snare'],
  [/\b(hand ?claps?|claps?|cp|clp)\b/, 'clap'],
  [/\b(floor ?toms?|toms? ?floor|ft)\b/, 'tom.floor'],
  [/\b(hi(gh)? ?toms?|toms? ?hi(gh)?|ht)\b/, 'tom.high'],
  [/\b(mid ?toms?|toms? ?mid|mt)\b/, 'tom.mid'],
  [/\b(lo(w)? ?toms?|toms? ?lo(w)?|toms?|lt)\b/, 'tom.low'],
  [/\b(ride ?bells?|bell)\b/, 'ride.bell'],
  [/\b(rides?|rd)\b/, 'ride'],
  [/\b(splash)\b/, 'splash'],
  [/\b(china)\b/, 'china'],
  [/\b(crash(es)?|cymbals?|cym|cr)\b/, 'crash'],
  [/\b(shakers?|shk|maracas?)\b/, 'shaker'],
  [/\b(tambourines?|tambs?)\b/, 'tambourine'],
  [/\b(cow ?bells?|cb)\b/, 'cowbell'],
  [/\b(congas?)\b/, 'conga.open'],
  [/\b(bongos?)\b/, 'bongo.high'],
  [/\b(claves?|clv)\b/, 'claves'],
  [/\b(wood ?blocks?|wb)\b/, 'woodblock.low'],
  [/\b(triangles?|tri)\b/, 'triangle.open'],
  [/\b(cabasa)\b/, 'cabasa'],
  [/\b(guiro)\b/, 'guiro.short'],
  [/\b(timbales?)\b/, 'timbale.high'],
  [/\b(marimbas?)\b/, 'marimba'],
];

/**
 * The instrument that the name of a file speaks of; null where it speaks of none.
 *
 * @example instrumentOfFile('kick_01.wav') // "kick"
 */
export const instrumentOfFile = (file: string): InstrumentId | null => {
  const words = file
    .replace(/\.[a-z0-9]+$/i, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .replace(/[^a-z]+/g, ' ');
  return WORDS.find(([word]) => word.test(words))?.[1] ?? null;
};

/**
 * Files spread over instruments by their names; several of one instrument stay together, in the order in which they came.
 *
 * @param files their names
 * @returns for each instrument the places of its files, and of those whose name says nothing
 * @example spreadFiles(['kick.wav', 'hum.wav', 'kick 2.wav']).get('kick') // [0, 2]
 */
export const spreadFiles = (files: readonly string[]): Map<InstrumentId | null, number[]> => {
  const out = new Map<InstrumentId | null, number[]>();
  files.forEach((file, at) => {
    const instrument = instrumentOfFile(file);
    out.set(instrument, [...(out.get(instrument) ?? []), at]);
  });
  return out;
};
