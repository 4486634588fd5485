import { namedIn } from '../namedIn';
import type { InstrumentId } from '../document/instruments';
import { INSTRUMENTS } from '../document/instruments';
import { meterText } from '../document/meter';
import type { GrooveFeel, GrooveRow, GrooveKind } from './groove';
import type { Bpm } from '../units';

/** Other names of the styles. */
const STYLE_WORDS: Record<string, string> = {
  'Boom-bap': 'hip hop hiphop rap boombap lofi lo-fi chill old school',
  'Half-time': 'halftime dubstep trip hop triphop',
  'Slow jam': 'rnb r&b neo soul neosoul hip hop hiphop lofi lo-fi chill',
  Funk: 'sixteenth pocket soul',
  'Four-on-the-floor': 'house four on the floor club dance edm',
  House: 'deep club dance edm',
  'Two-step': 'garage two step ukg',
  Breakbeat: 'jungle drum and bass dnb break beat amen',
  Dembow: 'reggaeton tresillo three three two',
  'Rock backbeat': 'pop rock punk indie',
  Shuffle: 'blues swing',
  'Slow twelve': 'ballad gospel slow blues',
  Brushes: 'jazz swing',
  'Train beat': 'country bluegrass',
  Samba: 'brazil brasil latin',
  'Bossa nova': 'brazil brasil latin bossanova',
  'One drop': 'reggae dub ska rocksteady',
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
  'Son clave': 'salsa latin cuban son tresillo three two',
  'Rumba clave': 'salsa latin cuban rumba guaguanco',
};

/** Other names of the instruments. */
const INSTRUMENT_WORDS: [RegExp, string][] = [
  [/^kick/, 'kick bass drum bassdrum bd'],
  [/^snare\.sideStick/, 'side stick sidestick cross stick crossstick rim click rimclick rim shot rimshot'],
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

/** Other names of the kinds, and uses for a groove of each. */
const KIND_WORDS: Record<GrooveKind, string> = {
  main: 'main groove beat loop',
  variation: 'variation',
  fill: 'fill fills turnaround turn break',
  ending: 'ending endings end outro',
  percussion: 'percussion perc hand drums',
  file: 'file',
};

const FEEL_WORDS = {
  straight: 'straight even',
  swung: 'swung swing swinging',
  triplet: 'triplet triplets',
} as const;

/** Words that say nothing of a groove. */
export const SMALL_WORDS: ReadonlySet<string> = new Set(['a', 'the', 'in', 'at', 'with', 'for', 'of', 'bpm']);

/** The words that a groove is found by: its words, by where they stand, and its numbers, which are found as wholes only. */
export interface Findable {
  fields: { style: string; name: string; kind: string; drums: string };
  numbers: string[];
}

const NUMBER = /\d+(?:[/.]\d+)?/g;

/** Openings of a song or a part: no kick yet, or little of everything. */
const OPENS = ['without kick', 'sparser'];

/**
 * The words that a groove is found by: name, style with its other names, kind and feel, tags, folders, instruments, tempo and meter.
 *
 * @example findable({ ...groove, bpm: 120, meter: { beats: 7, unit: 8 } }).numbers // ["120", "7/8"]
 */
export const findable = (row: GrooveRow): Findable => {
  const { name, style, kind, feel, tags, path, meter, bpm, instruments = [], timekeeper } = row;
  const drums = new Set(timekeeper ? [...instruments, timekeeper] : instruments);
  const rounded = String(Math.round(bpm));
  const intro = tags.some((tag) => OPENS.includes(tag)) ? 'intro opening' : '';
  return {
    fields: {
      style: `${style} ${namedIn(STYLE_WORDS, style) ?? ''}`.replace(/-/g, ' '),
      name: [name, ...path].join(' '),
      kind: [KIND_WORDS[kind], FEEL_WORDS[feel.kind], intro, ...tags].join(' '),
      drums: [...drums].map(wordsOfInstrument).join(' '),
    },
    numbers: [
      ...new Set([
        ...([name, style, ...tags, ...path].join(' ').match(NUMBER) ?? []),
        rounded,
        meterText(meter),
      ]),
    ],
  };
};

/** A range of tempos, both included. */
export interface TempoRange {
  from: Bpm;
  to: Bpm;
}

/** A question, its words apart from its numbers and from what says which kind and feel are meant. */
export interface Query {
  words: string;
  numbers: string[];
  /** The tempos that are asked for; mostly none or one. */
  ranges: TempoRange[];
  feel: GrooveFeel['kind'] | null;
  kind: GrooveKind | null;
}

/** Words that mean a feel or a kind and nothing else. */
const FEELS: Record<string, GrooveFeel['kind']> = {
  straight: 'straight',
  swung: 'swung',
  triplet: 'triplet',
};
const KINDS_ASKED: Record<string, GrooveKind> = {
  fill: 'fill',
  fills: 'fill',
  main: 'main',
  mains: 'main',
  ending: 'ending',
  endings: 'ending',
  outro: 'ending',
  variation: 'variation',
  variations: 'variation',
  percussion: 'percussion',
};

/** Words that are written in more ways than one. */
const SPELLINGS: [RegExp, string][] = [
  [/\blo[- ]fi\b/g, 'lofi'],
  [/\bboom ?bap\b/g, 'boom bap'],
  [/\bd(?:rum)? ?(?:and|&|n|'n') ?b(?:ass)?\b/g, 'drum and bass'],
];

const spelled = (text: string): string =>
  SPELLINGS.reduce((now, [written, as]) => now.replace(written, as), text.toLowerCase());

/**
 * A question as it is asked: "120 bpm" means what is made for that tempo, "120-130 bpm" what is between, "7/8" the meter, any other
 * number a number of the name or the very tempo; "fill" the kind, "swung" the feel.
 *
 * @example readQuery('Side Stick 120 BPM').ranges // [{ from: 120, to: 120 }]
 * @example readQuery('swung fills').kind // "fill"
 */
export const readQuery = (text: string): Query => {
  const ranges: TempoRange[] = [];
  const untimed = spelled(text)
    .replace(
      /(?<![\p{L}\d./])(\d{2,3}(?:\.\d+)?)\s*(?:-|–|to)\s*(\d{2,3}(?:\.\d+)?)(?:\s*bpm)?(?![\p{L}\d/])/gu,
      (_, from: string, to: string) => {
        ranges.push({ from: Math.min(Number(from), Number(to)), to: Math.max(Number(from), Number(to)) });
        return ' ';
      },
    )
    .replace(/(?<![\p{L}\d./])(\d+(?:\.\d+)?)\s*bpm(?![\p{L}\d])/gu, (_, tempo: string) => {
      ranges.push({ from: Number(tempo), to: Number(tempo) });
      return ' ';
    });
  const numbers: string[] = [];
  const plain = untimed.replace(/(?<![\p{L}\d])\d+(?:[/.]\d+)?(?![\p{L}\d])/gu, (number) => {
    numbers.push(number);
    return ' ';
  });
  let feel: Query['feel'] = null;
  let kind: Query['kind'] = null;
  const words = plain
    .replace(/[-_]/g, ' ')
    .split(/\s+/)
    .filter((word) => {
      const meant = namedIn(FEELS, word) ?? null;
      const asked = namedIn(KINDS_ASKED, word) ?? null;
      feel = meant ?? feel;
      kind = asked ?? kind;
      return word && !meant && !asked;
    });
  return { words: words.join(' '), numbers, ranges, feel, kind };
};

/** Whether a groove's tempo lies within a range. @example tempoWithin({ bpm: 124 }, { from: 120, to: 130 }) // true */
export const tempoWithin = ({ bpm }: Pick<GrooveRow, 'bpm'>, { from, to }: TempoRange): boolean =>
  Math.round(bpm) >= from && Math.round(bpm) <= to;

/**
 * Whether a groove is made for a tempo: it lies in the groove's range, or is the groove's own to the nearest whole BPM.
 *
 * @example isMadeFor({ bpm: 124, tempos: [116, 128] }, 120) // true
 */
export const isMadeFor = (
  { bpm, tempos: [low, high] }: Pick<GrooveRow, 'bpm' | 'tempos'>,
  tempo: Bpm,
): boolean => (tempo >= low && tempo <= high) || Math.round(tempo) === Math.round(bpm);
