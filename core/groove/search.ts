import type { InstrumentId } from '../document/instruments';
import { INSTRUMENTS } from '../document/instruments';
import { meterText } from '../document/meter';
import type { GrooveRow } from './groove';
import type { Bpm } from '../units';

/** What people call the styles besides the names that they have here. */
const STYLE_WORDS: Record<string, string> = {
  'Boom-bap': 'hip hop hiphop rap boombap',
  'Half-time': 'halftime dubstep',
  'Slow jam': 'rnb r&b neo soul neosoul hip hop hiphop',
  Funk: 'sixteenth pocket soul',
  'Four-on-the-floor': 'house four on the floor club dance edm',
  House: 'deep club dance edm',
  'Two-step': 'garage two step ukg',
  Breakbeat: 'jungle drum and bass dnb break beat amen',
  Dembow: 'reggaeton',
  'Rock backbeat': 'pop rock',
  Shuffle: 'blues swing',
  'Slow twelve': 'ballad gospel slow blues',
  Brushes: 'jazz swing',
  'Train beat': 'country bluegrass',
  Samba: 'brazil brasil latin',
  'Bossa nova': 'brazil brasil latin bossanova',
  'One drop': 'reggae dub',
  'Six-eight bell': 'afro african bembe latin',
  Highlife: 'afro african afrobeat',
  'Street parade': 'second line new orleans marching',
  'Five-four': 'odd jazz',
  'Seven-eight': 'odd balkan prog',
  Waltz: 'three jazz',
  Techno: 'edm club warehouse',
  Trap: 'hip hop hiphop rap',
  Drill: 'hip hop hiphop rap',
  Disco: 'dance funk seventies',
  Metal: 'heavy rock double bass blast',
  Maracatu: 'brazil brasil latin',
  Cascara: 'salsa latin cuban',
  'Son clave': 'salsa latin cuban son',
  'Rumba clave': 'salsa latin cuban rumba guaguanco',
};

/** What people call the instruments besides their names. */
const INSTRUMENT_WORDS: [RegExp, string][] = [
  [/^kick/, 'kick bass drum bassdrum bd'],
  [/^snare\.sideStick/, 'side stick sidestick cross stick crossstick rim click'],
  [/^snare\.rimshot/, 'rim shot rimshot'],
  [/^snare/, 'snare sd'],
  [/^hat/, 'hat hats hihat hi-hat hh'],
  [/^ride/, 'ride cymbal'],
  [/^crash|^china|^splash/, 'cymbal'],
  [/^tom/, 'tom toms'],
  [/^conga/, 'conga congas tumba tumbadora'],
  [/^bongo/, 'bongo bongos'],
  [/^timbale/, 'timbale timbales'],
  [/^clap/, 'clap handclap'],
  [/^woodblock/, 'wood block woodblock'],
  [/^cowbell/, 'cow bell cowbell campana'],
  [/^claves/, 'clave claves'],
];

const wordsOfInstrument = (id: InstrumentId): string =>
  [INSTRUMENTS[id].name, ...INSTRUMENT_WORDS.filter(([of]) => of.test(id)).map(([, words]) => words)].join(
    ' ',
  );

/** What a groove is found by: its words, and its numbers, which are found as wholes only. */
export interface Findable {
  words: string;
  numbers: string[];
}

const NUMBER = /\d+(?:[/.]\d+)?/g;

/**
 * What a groove is found by: name, style with its other names, tags, folders, instruments, tempo and meter.
 *
 * @example findable({ ...groove, bpm: 120, meter: { beats: 7, unit: 8 } }).numbers // ["120", "7/8"]
 */
export const findable = (row: GrooveRow): Findable => {
  const { name, style, tags, path, meter, bpm, instruments = [], timekeeper } = row;
  const named = [name, style, ...tags, ...path].join(' ');
  const drums = new Set(timekeeper ? [...instruments, timekeeper] : instruments);
  const rounded = String(Math.round(bpm));
  return {
    words: [named, STYLE_WORDS[style] ?? '', ...[...drums].map(wordsOfInstrument)].join(' ').toLowerCase(),
    numbers: [...new Set([...(named.match(NUMBER) ?? []), rounded, meterText(meter)])],
  };
};

/** A question, its words apart from its numbers. */
export interface Query {
  words: string;
  numbers: string[];
  /** The tempos that are asked for; mostly none or one. */
  tempos: Bpm[];
}

/**
 * A question as it is asked: "120 bpm" means what is made for that tempo, "7/8" the meter, any other number a number of the
 * name or the very tempo.
 *
 * @example readQuery('Side Stick 120 BPM') // { words: 'side stick', numbers: [], tempos: [120] }
 */
export const readQuery = (text: string): Query => {
  const tempos: Bpm[] = [];
  const untimed = text
    .toLowerCase()
    .replace(/(?<![\p{L}\d./])(\d+(?:\.\d+)?)\s*bpm(?![\p{L}\d])/gu, (_, tempo: string) => {
      tempos.push(Number(tempo));
      return ' ';
    });
  const numbers: string[] = [];
  const words = untimed.replace(/(?<![\p{L}\d])\d+(?:[/.]\d+)?(?![\p{L}\d])/gu, (number) => {
    numbers.push(number);
    return ' ';
  });
  return { words: words.replace(/[-_]/g, ' ').replace(/\s+/g, ' ').trim(), numbers, tempos };
};

/**
 * Whether a groove is made for a tempo: it lies in the groove's range, or is the groove's own to the nearest whole BPM.
 *
 * @example isMadeFor({ bpm: 124, tempos: [116, 128] }, 120) // true
 */
export const isMadeFor = (
  { bpm, tempos: [low, high] }: Pick<GrooveRow, 'bpm' | 'tempos'>,
  tempo: Bpm,
): boolean => (tempo >= low && tempo <= high) || Math.round(tempo) === Math.round(bpm);
