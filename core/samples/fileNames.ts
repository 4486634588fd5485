import { namedIn } from '../namedIn';
import type { InstrumentId } from '../document/instruments';

/** Words that say the same, by the one that stands for them. */
const SAME: Record<string, string> = {
  kick: 'kick kicks kik kck bd bdr bdrum kd bassdrum',
  snare: 'snare snares snr sn sd sdr sdrum',
  hat: 'hat hats hh hht hihat hihats highhat hhat',
  clap: 'clap claps clp cp handclap snap snaps fingersnap',
  tom: 'tom toms tm',
  ride: 'ride rides rd',
  crash: 'crash crashes crs cr',
  cymbal: 'cymbal cymbals cym cymb',
  china: 'china chinas chinese chn',
  splash: 'splash splashes spl',
  bell: 'bell bells bel cup',
  cow: 'cow',
  cowbell: 'cowbell cowbells cb cowb cwb',
  rim: 'rim rims',
  rimshot: 'rimshot rimshots rs rmsht',
  sidestick: 'sidestick crossstick xstick ss rimclick',
  stick: 'stick sticks stk',
  side: 'side cross',
  shot: 'shot shots',
  click: 'click',
  shaker: 'shaker shakers shk shkr egg',
  tambourine: 'tambourine tambourines tamb tambo tmb tambourin',
  maracas: 'maracas maraca mrc',
  conga: 'conga congas cng quinto tumba',
  bongo: 'bongo bongos bng',
  timbale: 'timbale timbales timb',
  agogo: 'agogo agogos',
  claves: 'claves clave clv',
  wood: 'wood',
  block: 'block blocks blk',
  woodblock: 'woodblock woodblocks wb wdblk',
  triangle: 'triangle triangles tri trgl',
  cabasa: 'cabasa cabasas',
  guiro: 'guiro guiros',
  whistle: 'whistle whistles',
  vibraslap: 'vibraslap vibraslaps vibra',
  cuica: 'cuica cuicas',
  marimba: 'marimba marimbas',
  kalimba: 'kalimba kalimbas',
  steel: 'steel',
  pan: 'pan pans',
  log: 'log',
  drum: 'drum drums',
  bass: 'bass',
  tuned: 'tuned',
  open: 'open opened opn op o',
  closed: 'closed close clsd cls cl shut tight',
  pedal: 'pedal ped foot chick stepped',
  half: 'half semi loose',
  high: 'high hi upper rack',
  mid: 'mid middle medium md',
  low: 'low lo lower',
  floor: 'floor flr',
  mute: 'mute muted mt slap',
  short: 'short',
  long: 'long',
  second: 'second',
  acoustic: 'acoustic',
  electric: 'electric',
};

/** Letters that stand for a drum and its way at once. */
const SHORT: Record<string, string> = {
  ch: 'closed hat',
  chh: 'closed hat',
  hhc: 'closed hat',
  hc: 'closed hat',
  clh: 'closed hat',
  oh: 'open hat',
  ohh: 'open hat',
  hho: 'open hat',
  ho: 'open hat',
  oph: 'open hat',
  phh: 'pedal hat',
  hhp: 'pedal hat',
  hhf: 'pedal hat',
  ph: 'pedal hat',
  hhh: 'half hat',
  ht: 'high tom',
  mt: 'mid tom',
  lt: 'low tom',
  ft: 'floor tom',
  rb: 'ride bell',
};

const PLAIN = new Map(
  Object.entries(SAME).flatMap(([word, all]) => all.split(' ').map((one) => [one, word])),
);

/** Words that may be written as one, of three letters and more, and the few short ones that drums are glued to. */
const GLUED = [...PLAIN.keys()]
  .filter((word) => word.length > 2 || word === 'hi' || word === 'lo' || word === 'hh')
  .sort((a, b) => b.length - a.length);

/** A word taken apart into words that are known; itself where it is none of them. @example unglued('openhat') // ["open", "hat"] */
const unglued = (word: string): string[] => {
  if (PLAIN.has(word) || namedIn(SHORT, word)) return [word];
  const apart = (rest: string): string[] | null => {
    if (!rest) return [];
    for (const one of GLUED) {
      if (!rest.startsWith(one)) continue;
      const after = apart(rest.slice(one.length));
      if (after) return [one, ...after];
    }
    return null;
  };
  return apart(word) ?? [word];
};

/** The meaning of the words of a name; numbers are told as the app would count them. */
const wordsOf = (file: string): string[] =>
  file
    .replace(/\.[a-z0-9]{2,5}$/i, '')
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/([A-Z]{2,})([A-Z][a-z]+)/g, '$1 $2')
    .replace(/([a-z])(\d)/gi, '$1 $2')
    .replace(/(\d)([a-z])/gi, '$1 $2')
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter(Boolean)
    .flatMap(unglued)
    .flatMap((word) => namedIn(SHORT, word)?.split(' ') ?? [PLAIN.get(word) ?? word]);

/** A drum that words name, and which of its kind by all of them. `has` tells whether a word is there, `number` what follows it. */
interface Naming {
  has: (...words: string[]) => boolean;
  /** A small number right after the drum's word. */
  number: number;
}

const TOMS: InstrumentId[] = ['tom.high', 'tom.mid', 'tom.low', 'tom.floor', 'tom.floorLow'];

const tomOf = ({ has, number }: Naming): InstrumentId => {
  if (has('floor')) return has('low') || number === 2 ? 'tom.floorLow' : 'tom.floor';
  if (has('mid')) return has('high') ? 'tom.highMid' : 'tom.mid';
  if (has('low')) return 'tom.low';
  return TOMS[number - 1] ?? (has('high') ? 'tom.high' : 'tom.low');
};

const hatOf = ({ has }: Naming): InstrumentId => {
  if (has('half')) return 'hat.half';
  if (has('pedal')) return 'hat.pedal';
  return has('open') ? 'hat.open' : 'hat.closed';
};

const lowOr =
  (low: InstrumentId, high: InstrumentId) =>
  ({ has, number }: Naming): InstrumentId =>
    has('low') || number === 2 ? low : high;

const just = (id: InstrumentId) => (): InstrumentId => id;

/** Drums by the words that name them, the more telling first: where a name has several, the first here counts. */
const DRUMS: [words: string[], which: (naming: Naming) => InstrumentId][] = [
  [['cowbell'], just('cowbell')],
  [['cow', 'bell'], just('cowbell')],
  [['vibraslap'], just('vibraslap')],
  [['tambourine'], just('tambourine')],
  [['cabasa'], just('cabasa')],
  [['maracas'], just('maracas')],
  [['shaker'], just('shaker')],
  [['claves'], just('claves')],
  [['marimba'], just('marimba')],
  [['kalimba'], just('kalimba')],
  [['steel', 'pan'], just('steelPan')],
  [['steel', 'drum'], just('steelPan')],
  [['log', 'drum'], just('logDrum')],
  [['woodblock'], lowOr('woodblock.low', 'woodblock.high')],
  [['wood', 'block'], lowOr('woodblock.low', 'woodblock.high')],
  [['conga'], ({ has }) => (has('mute') ? 'conga.mute' : has('low') ? 'conga.low' : 'conga.open')],
  [['bongo'], lowOr('bongo.low', 'bongo.high')],
  [['timbale'], lowOr('timbale.low', 'timbale.high')],
  [['agogo'], lowOr('agogo.low', 'agogo.high')],
  [['guiro'], ({ has }) => (has('long') ? 'guiro.long' : 'guiro.short')],
  [['whistle'], ({ has }) => (has('long') ? 'whistle.long' : 'whistle.short')],
  [['cuica'], ({ has }) => (has('mute') ? 'cuica.mute' : 'cuica.open')],
  [['triangle'], ({ has }) => (has('mute', 'closed') ? 'triangle.mute' : 'triangle.open')],
  [['sidestick'], just('snare.sideStick')],
  [['side', 'stick'], just('snare.sideStick')],
  [['rim', 'click'], just('snare.sideStick')],
  [['rimshot'], just('snare.rimshot')],
  [['rim'], just('snare.rimshot')],
  [['hat'], hatOf],
  [
    ['ride'],
    ({ has, number }) => (has('bell') ? 'ride.bell' : number === 2 || has('second') ? 'ride.second' : 'ride'),
  ],
  [['china'], just('china')],
  [['splash'], just('splash')],
  [['crash'], ({ has, number }) => (number === 2 || has('second') ? 'crash.second' : 'crash')],
  [['tom'], tomOf],
  [['kick'], ({ has }) => (has('tuned') ? 'kick.tuned' : has('second') ? 'kick.second' : 'kick')],
  [['bass', 'drum'], ({ has }) => (has('second', 'acoustic') ? 'kick.second' : 'kick')],
  [['snare'], ({ has }) => (has('second', 'electric') ? 'snare.second' : 'snare')],
  [['clap'], just('clap')],
  [['cymbal'], just('crash')],
  [['bell'], just('ride.bell')],
];

/** Of these two in a name the later tells what it is: “Clap Snare” is a snare. */
const EQUALS = new Set(['kick', 'snare', 'clap', 'hat', 'tom', 'ride', 'crash']);

/**
 * The instrument that the name of a file speaks of, by General MIDI's names and by those that files have, written apart or as one;
 * null where it speaks of none.
 *
 * @example instrumentOfFile('HH Open 02.wav') // "hat.open"
 */
export const instrumentOfFile = (file: string): InstrumentId | null => {
  const words = wordsOf(file);
  const named = DRUMS.filter(([all]) => all.every((word) => words.includes(word)));
  const [first] = named;
  if (!first) return null;
  const last = (all: string[]) => Math.max(...all.map((word) => words.lastIndexOf(word)));
  const equals = named.filter(([all]) => EQUALS.has(all[0]!));
  const [all, which] = EQUALS.has(first[0][0]!)
    ? equals.reduce((best, one) => (last(one[0]) > last(best[0]) ? one : best))
    : first;
  const after = words.slice(last(all) + 1).filter((word) => word !== 'cymbal' && word !== 'drum');
  // “Crash 2” is another crash; “crash 02” one more of the same.
  const told = after[0] ?? '';
  const number = /^[1-9]$/.test(told) || (all[0] === 'tom' && /^0?[1-9]$/.test(told)) ? Number(told) : 0;
  return which({ has: (...some) => some.some((word) => words.includes(word)), number });
};
