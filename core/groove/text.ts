import { namedIn } from '../namedIn';
import { normal } from '../random/normal';
import { inOrder, placed } from '../document/position';
import { EMPTY_LANE_PATTERN, newHit } from '../document/defaults';
import type { Read } from '../document/file';
import { GRIDS, gridTicks, type Grid } from '../document/grid';
import { INSTRUMENTS, INSTRUMENT_IDS, type InstrumentId } from '../document/instruments';
import { barTicks, type Meter } from '../document/meter';
import type { Hit, Swing } from '../document/schema';
import { steadyBars } from '../feel/bars';
import { swingBend } from '../feel/swing';
import { draw, hashText, PURPOSE } from '../random/draw';
import { clamp, ticksPerMs, type Bpm, type Ms, type Ticks, type Velocity } from '../units';
import { type Groove, type GrooveFeel, type GrooveLane, type GrooveKind } from './groove';
import { mended } from './playability';
import { keepTimeOn } from './timekeeper';

/**
 * Grooves as text, a family a piece:
 *
 *     style Boom-bap            the family
 *     place Noodle queue        what its grooves are called
 *     tempo 90 78-98            made for 90 BPM, good from 78 to 98
 *     meter 4/4
 *     grid 1/16
 *     swing 57 1/16
 *     keeper hat.closed         the instrument that keeps time
 *     late snare 12, kick -2    in ms at that tempo, behind the beat
 *     hands 3                   how uneven the hands are, in ms
 *     tags dusty head-nod
 *
 *     groove main
 *     kick       9...|....|.7.8|....
 *
 *     groove ghost notes < main
 *     snare      ....|9..2|.2..|9..2
 *     groove main in four bars = main + ghost notes + main + main > fill 1
 *                               one after the other; behind > the last half bar is of that one
 *     drop kick                 without an instrument
 *     move ride                 the part that keeps time, on another instrument
 *
 * A digit is a hit, from 1, a whisper, to 9, a backbeat at rest; `A` is an accent, `f` a flam, `d` a drag, `r` a short roll; a dot is
 * a rest; bars and spaces between are for the eye. A line shorter than the groove is repeated. What stands before the
 * first groove holds for the family; a groove may say it anew.
 */

/** Velocities of the signs: a backbeat rests near 100, so that an accent has room above it. */
const VELOCITIES: Record<string, Velocity> = {
  1: 16,
  2: 27,
  3: 39,
  4: 51,
  5: 63,
  6: 74,
  7: 85,
  8: 94,
  9: 102,
  A: 116,
};

interface Sheet {
  style: string;
  place: string;
  bpm: Bpm;
  tempos: [Bpm, Bpm];
  meter: Meter;
  grid: Grid;
  swing: Swing;
  keeper: InstrumentId | null;
  late: Partial<Record<InstrumentId, Ms>>;
  hands: Ms;
  tags: string[];
  /** Steps as they are written, by instrument. */
  lines: Map<InstrumentId, string>;
  /** Where the time is kept, if it has been moved. */
  moved: InstrumentId | null;
}

interface Written {
  label: string;
  sheet: Sheet;
}

const EMPTY: Sheet = {
  style: '',
  place: '',
  bpm: 100,
  tempos: [80, 120],
  meter: { beats: 4, unit: 4 },
  grid: '1/16',
  swing: { percent: 50, grid: '1/16' },
  keeper: null,
  late: {},
  hands: 3,
  tags: [],
  lines: new Map(),
  moved: null,
};

class Unreadable extends Error {}

const fail = (why: string): never => {
  throw new Unreadable(why);
};

const isInstrument = (word: string): word is InstrumentId => word in INSTRUMENTS;

const instrumentNamed = (word: string): InstrumentId =>
  isInstrument(word) ? word : fail(`there is no instrument “${word}”`);

const numberIn = (word: string | undefined): number => {
  const value = Number(word);
  return word && Number.isFinite(value) ? value : fail(`“${word ?? ''}” is to be a number`);
};

const gridNamed = (word: string | undefined): Grid =>
  GRIDS.find((grid) => grid === word) ?? fail(`there is no grid “${word ?? ''}”`);

const meterIn = (word: string): Meter => {
  const [, beats, unit] = /^(\d+)\/(2|4|8|16)$/.exec(word) ?? fail(`“${word}” is no time signature`);
  return { beats: Number(beats), unit: Number(unit) as Meter['unit'] };
};

const lateIn = (rest: string): Sheet['late'] =>
  Object.fromEntries(
    rest.split(',').map((entry) => {
      const [word, ms] = entry.trim().split(/\s+/);
      return [instrumentNamed(word!), numberIn(ms)];
    }),
  );

/** The meaning of each word about a family or a groove. */
const SAYINGS: Record<string, (sheet: Sheet, rest: string, words: string[]) => Sheet> = {
  style: (sheet, rest) => ({ ...sheet, style: rest }),
  place: (sheet, rest) => ({ ...sheet, place: rest }),
  tempo: (sheet, _rest, [bpm, range]) => {
    const [low, high] = (range ?? '').split('-').map(numberIn);
    return { ...sheet, bpm: numberIn(bpm), tempos: [low!, high ?? fail('a tempo range is “80-100”')] };
  },
  meter: (sheet, rest) => ({ ...sheet, meter: meterIn(rest) }),
  grid: (sheet, rest) => ({ ...sheet, grid: gridNamed(rest) }),
  swing: (sheet, _rest, [percent, grid]) => ({
    ...sheet,
    swing: { percent: numberIn(percent), grid: grid === '1/8' ? grid : '1/16' },
  }),
  keeper: (sheet, rest) => ({ ...sheet, keeper: instrumentNamed(rest) }),
  late: (sheet, rest) => ({ ...sheet, late: lateIn(rest) }),
  hands: (sheet, rest) => ({ ...sheet, hands: numberIn(rest) }),
  tags: (sheet, _rest, words) => ({ ...sheet, tags: words }),
  drop: (sheet, _rest, words) => {
    const lines = new Map(sheet.lines);
    for (const word of words) if (!lines.delete(instrumentNamed(word))) fail(`there is no “${word}” to drop`);
    return { ...sheet, lines };
  },
  move: (sheet, rest) => ({ ...sheet, moved: instrumentNamed(rest) }),
};

const STEPS = /^[.1-9Afdr|\s]+$/;

const said = (sheet: Sheet, line: string): Sheet => {
  const [word, ...words] = line.split(/\s+/) as [string, ...string[]];
  const rest = line.slice(word.length).trim();
  const saying = namedIn(SAYINGS, word);
  if (saying) return saying(sheet, rest, words);
  const instrument = instrumentNamed(word);
  if (!STEPS.test(rest)) fail(`“${rest}” are no steps: dots, digits from 1 to 9, A, f, d and r`);
  return { ...sheet, lines: new Map(sheet.lines).set(instrument, rest.replace(/[|\s]/g, '')) };
};

/** Every line of a sheet written out to the length of the longest, rests where it has no part. */
const writtenOut = ({ lines }: Sheet, instruments: InstrumentId[]): Map<InstrumentId, string> => {
  const steps = Math.max(0, ...[...lines.values()].map(({ length }) => length));
  const full = (line: string) => line.repeat(Math.ceil(steps / line.length)).slice(0, steps);
  return new Map(instruments.map((id) => [id, lines.has(id) ? full(lines.get(id)!) : '.'.repeat(steps)]));
};

/** Grooves one after the other; the last half bar of one may be that of another. */
const joinedSheet = (text: string, known: Written[]): Sheet => {
  const named = (label: string): Sheet =>
    known.find((one) => one.label === label.trim())?.sheet ??
    fail(`there is no groove “${label.trim()}” before it`);
  const pieces = text.split('+').map((piece) => piece.split('>').map(named));
  const [[first]] = pieces as [[Sheet]];
  const instruments = [...new Set(pieces.flat().flatMap(({ lines }) => [...lines.keys()]))];
  const half = Math.floor(barTicks(first.meter) / gridTicks(first.grid) / 2);
  const lines = new Map(instruments.map((id) => [id, '']));
  for (const [piece, turn] of pieces) {
    const own = writtenOut(piece!, instruments);
    const end = turn && writtenOut(turn, instruments);
    for (const id of instruments) {
      const line = own.get(id)!;
      lines.set(id, lines.get(id)! + (end ? line.slice(0, -half) + end.get(id)!.slice(-half) : line));
    }
  }
  return { ...first, lines: new Map([...lines].filter(([, line]) => /[^.]/.test(line))) };
};

/** Line by line: the family's sheet, then that of each groove. */
const sheetsIn = (text: string): Written[] => {
  let family = EMPTY;
  const out: Written[] = [];
  text.split('\n').forEach((raw, index) => {
    const line = raw.replace(/\s+#.*$|^#.*$/, '').trim();
    if (!line) return;
    try {
      const joined = /^groove\s+([^<=]+?)\s*=\s*(.+)$/.exec(line);
      if (joined) {
        out.push({ label: joined[1]!, sheet: joinedSheet(joined[2]!, out) });
        return;
      }
      const head = /^groove\s+([^<]+?)(?:\s*<\s*(.+))?$/.exec(line);
      if (!head) {
        const last = out[out.length - 1];
        if (last) last.sheet = said(last.sheet, line);
        else family = said(family, line);
        return;
      }
      const [, label, parent] = head;
      const from = parent ? out.find((one) => one.label === parent.trim()) : undefined;
      if (parent && !from) fail(`there is no groove “${parent.trim()}” before it`);
      out.push({ label: label!, sheet: from?.sheet ?? family });
    } catch (fault) {
      if (fault instanceof Unreadable) throw new Unreadable(`Line ${index + 1}: ${fault.message}.`);
      throw fault;
    }
  });
  return out;
};

const kindOf = (label: string, { tags }: Sheet): GrooveKind => {
  if (tags.includes('percussion')) return 'percussion';
  if (label.startsWith('main')) return 'main';
  if (label.startsWith('fill')) return 'fill';
  return label.startsWith('ending') ? 'ending' : 'variation';
};

const feelOf = ({ swing, grid }: Sheet): GrooveFeel => {
  if (grid.endsWith('T')) return { kind: 'triplet', percent: 66.67 };
  return { kind: swing.percent > 51 ? 'swung' : 'straight', percent: swing.percent };
};

const GRACE: Record<string, Hit['grace']> = {
  f: [{ before: 24, level: 0.45 }],
  d: [
    { before: 62, level: 0.3 },
    { before: 31, level: 0.36 },
  ],
};

const hitFrom = (sign: string): Hit => {
  const velocity = VELOCITIES[sign];
  if (velocity) return newHit(0, velocity);
  if (sign === 'r') return { ...newHit(0, 92), roll: { curve: 0, levels: [0.5, 0.7, 1] } };
  return { ...newHit(0, 104), grace: GRACE[sign]! };
};

/** Where a hand puts a step: swung, behind by its instrument's lag, and off by what hands are off. */
const playedAt = (sheet: Sheet, instrument: InstrumentId, step: number): Ticks => {
  const { meter, swing, grid, hands, bpm } = sheet;
  const straight = step * gridTicks(grid);
  const bent = grid.endsWith('T') ? straight : swingBend(steadyBars(meter), swing)(straight);
  const noise = normal(draw(hashText(sheet.place), hashText(instrument), 0, step, 0, 0, PURPOSE.timing));
  const ms = (sheet.late[instrument] ?? 0) + hands * clamp(noise, -2, 2) * 0.5;
  // Nothing begins before the groove does.
  return Math.max(0, bent + ms * ticksPerMs(bpm));
};

const laneFrom = (sheet: Sheet, instrument: InstrumentId, line: string, steps: number): GrooveLane => {
  const signs = line.repeat(steps / line.length);
  const hits = [...signs].flatMap((sign, step) => {
    if (sign === '.') return [];
    const hit = hitFrom(sign);
    const breath = draw(hashText(sheet.place), hashText(instrument), 0, step, 0, 0, PURPOSE.velocity) - 0.5;
    return [
      {
        ...hit,
        ...placed(playedAt(sheet, instrument, step), sheet.grid),
        velocity: clamp(Math.round(hit.velocity + breath * 8), 1, 120),
      },
    ];
  });
  const { note } = INSTRUMENTS[instrument];
  return {
    instrument,
    note,
    channel: 10,
    part: { ...EMPTY_LANE_PATTERN, grid: sheet.grid, hits: inOrder(hits) },
  };
};

/** How many steps of the family's grid there are: as many whole bars as the longest line fills. */
const stepsIn = ({ lines, meter, grid }: Sheet, label: string): { steps: number; bars: number } => {
  const perBar = barTicks(meter) / gridTicks(grid);
  const steps = Math.max(0, ...[...lines.values()].map(({ length }) => length));
  if (!steps || steps % perBar) fail(`“${label}” has ${steps} steps, and a bar has ${perBar}.`);
  for (const [id, { length }] of lines)
    if (steps % length) fail(`“${label}”: the ${length} steps of ${id} do not go into its ${steps}.`);
  return { steps, bars: steps / perBar };
};

const slug = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, '-');

const grooveFrom = ({ label, sheet }: Written): Groove => {
  const { steps, bars } = stepsIn(sheet, `${sheet.place}, ${label}`);
  const lanes = INSTRUMENT_IDS.flatMap((id) =>
    /[^.]/.test(sheet.lines.get(id) ?? '') ? [laneFrom(sheet, id, sheet.lines.get(id)!, steps)] : [],
  );
  const kind = kindOf(label, sheet);
  const groove: Groove = {
    id: `built-in/${slug(sheet.style)}/${slug(`${sheet.place} ${label}`)}`,
    name: label === 'main' ? sheet.place : `${sheet.place}, ${label.replace(/^main /, '')}`,
    style: sheet.style,
    kind,
    source: 'built-in',
    path: ['Built-in', sheet.style],
    meter: sheet.meter,
    bars,
    bpm: sheet.bpm,
    tempos: sheet.tempos,
    feel: feelOf(sheet),
    timekeeper: lanes.some(({ instrument }) => instrument === sheet.keeper) ? sheet.keeper : null,
    tags: [...new Set([...sheet.tags, label.replace(/\s*\d+$/, '')])],
    instruments: lanes.map(({ instrument }) => instrument),
    lanes,
  };
  const moved = sheet.moved ? { ...keepTimeOn(groove, sheet.moved), tags: groove.tags } : groove;
  const out = mended(moved);
  const heard = out.lanes.filter(({ part }) => part.hits.length);
  return {
    ...out,
    lanes: heard,
    instruments: heard.map(({ instrument }) => instrument),
    timekeeper: heard.some(({ instrument }) => instrument === out.timekeeper) ? out.timekeeper : null,
    playable: true,
  };
};

/**
 * Reads a family of grooves from its text.
 *
 * @returns the grooves in their order, or a sentence that names the line at fault
 * @example readGrooves('place Gangway\ngroove main\nkick 9...|9...|9...|9...').ok // true
 */
export const readGrooves = (text: string): Read<Groove[]> => {
  try {
    return { ok: true, value: sheetsIn(text).map(grooveFrom) };
  } catch (fault) {
    if (fault instanceof Unreadable) return { ok: false, error: fault.message };
    throw fault;
  }
};
