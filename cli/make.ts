import { Command, InvalidArgumentError } from 'commander';
import { gridTicks, type Grid } from '../core/document/grid';
import { isInstrument } from '../core/document/drumGroups';
import { barTicks, type Meter } from '../core/document/meter';
import { positionOf } from '../core/document/position';
import { RANGES } from '../core/document/ranges';
import { builtInGrooves } from '../core/groove/library';
import { bandHits, flatBand, type HitBand, type Bands } from '../core/make/bands';
import {
  arrangements,
  arrangementSlots,
  restSlots,
  ringHits,
  RING_SLOTS,
  rotatedSlots,
  type RingHit,
} from '../core/make/ring';
import { RUDIMENT_DEFAULTS, rudimentParts } from '../core/make/rudimentMaker';
import { newBeat, patternTicks } from '../core/document/defaults';
import type { Pattern } from '../core/document/schema';
import { RUDIMENTS } from '../core/hands/rudiments';
import { allNotes } from '../core/play/driver';
import { handStrokes } from '../core/play/plan';
import type { HandStroke } from '../core/play/weakerHand';
import { planPasses } from '../core/play/timelinePlan';
import { notesInScale, scaleOf } from '../core/make/scales';
import { BEAT_DEFAULTS, beatModel, wholeBeat } from '../core/make/wholeBeat';
import { madeFile, type MadeNote } from '../core/midi/write/madeFile';
import { QUARTER, TEMPO, type Ticks } from '../core/units';
import { InputFault, UsageFault } from './fault';
import { warn, writeOut } from './files';
import { aGrid, aNote, aNumber, aWhole, within } from './numbers';

interface Common {
  meter: Meter;
  tempo: number;
  seed: number;
  json: boolean;
}

const aMeter = (text: string): Meter => {
  const [, beats, unit] = /^(\d+)\/(2|4|8|16)$/.exec(text) ?? [];
  if (!beats || Number(beats) < RANGES.beats.least || Number(beats) > RANGES.beats.most)
    throw new InvalidArgumentError('It is to be a time signature, such as 7/8.');
  return { beats: Number(beats), unit: Number(unit) as Meter['unit'] };
};

const anInto = (text: string): 2 | 3 => {
  if (text !== '2' && text !== '3') throw new InvalidArgumentError('It is to be 2 or 3.');
  return text === '2' ? 2 : 3;
};

/** `LO-HI`, or `LO-HI..LO-HI` from the beginning to the end; one number is both. */
const aBand = (text: string): HitBand => {
  const points = text.split('..').map((part) => {
    const [, low, high = low] = /^(-?[\d.]+)(?:-(-?[\d.]+))?$/.exec(part) ?? [];
    const edges = [Number(low), Number(high)];
    if (low === undefined || edges.some((edge) => !Number.isFinite(edge)))
      throw new InvalidArgumentError('It is to be LO-HI, or LO-HI..LO-HI, such as 60-100 or 40-60..90-120.');
    return { low: Math.min(...edges), high: Math.max(...edges) };
  });
  if (points.length > 2) throw new InvalidArgumentError('A band has a beginning and an end, and no more.');
  return points.map((point, at) => ({ at, ...point }));
};

const common = (command: Command): Command =>
  command
    .option('--meter <m>', 'the time signature, such as 7/8 (default: 4/4)', aMeter)
    .option('--tempo <bpm>', 'the tempo (default: 120)', aNumber)
    .option('--seed <n>', 'what is drawn at random follows from it (default: 1)', aWhole)
    .option('--json', 'print what was made as JSON', false);

const commonOf = (given: Partial<Common>): Common => ({
  meter: given.meter ?? { beats: 4, unit: 4 },
  tempo: within('--tempo', given.tempo ?? 120, TEMPO.least, TEMPO.most),
  seed: within('--seed', given.seed ?? 1, 0, 0xffffffff),
  json: given.json ?? false,
});

const bars = (given: number | undefined, fallback: number): number =>
  within('--bars', given ?? fallback, 1, 256);

/** Where it goes: to a file, to the screen as JSON, or both. */
const giveOut = async (
  out: string | undefined,
  { json, meter, tempo }: Common,
  name: string,
  notes: MadeNote[],
  end: Ticks,
  told: object,
): Promise<void> => {
  if (!out && !json) throw new UsageFault('Say where to write it, or ask for --json.');
  if (out) await writeOut(out, madeFile(name, notes, end, meter, tempo));
  if (json) process.stdout.write(`${JSON.stringify(told)}\n`);
  else process.stdout.write(`${name}: ${notes.length} ${notes.length === 1 ? 'note' : 'notes'}.\n`);
};

interface RingGiven extends Partial<Common> {
  slots: number;
  strikes: number;
  which?: number;
  rotate?: number;
  slotLength?: Grid;
  bars?: number;
  velocity?: number;
  accent?: number;
  accentEvery?: number;
  accentFrom?: number;
  doubling?: number;
  into?: 2 | 3;
  note?: number;
  rest?: number;
}

const ringNotes = (hit: RingHit, slots: number, g: Ticks, note: number): MadeNote[] =>
  Array.from({ length: hit.strokes }, (_, stroke) => ({
    tick: (hit.round * slots + hit.slot) * g + (stroke * g) / hit.strokes,
    length: g / hit.strokes,
    velocity: hit.velocity,
    note,
  }));

const ring = async (out: string | undefined, given: RingGiven): Promise<void> => {
  const all = commonOf(given);
  const slots = within('--slots', given.slots, RING_SLOTS.least, RING_SLOTS.most);
  const strikes = within('--strikes', given.strikes, 0, slots);
  const list = arrangements(slots, strikes);
  const which = within('--which', given.which ?? 1, 1, list.length);
  const struck = rotatedSlots(arrangementSlots(list[which - 1]!, slots), slots, given.rotate ?? 0);
  const g = gridTicks(given.slotLength ?? '1/16');
  const end = given.bars === undefined ? slots * g : bars(given.bars, 1) * barTicks(all.meter);
  const total = Math.ceil(end / g - 1e-9);
  const { least, most } = RANGES.velocity;
  const play = {
    velocity: within('--velocity', given.velocity ?? 100, least, most),
    accent: within('--accent', given.accent ?? 120, least, most),
    every: within('--accent-every', given.accentEvery ?? 0, 0, RING_SLOTS.most),
    from: given.accentFrom ?? 0,
    doubling: within('--doubling', given.doubling ?? 0, 0, 100) / 100,
    into: given.into ?? 2,
  };
  const note = given.note ?? 36;
  const hits = ringHits(struck, slots, total, play, all.seed, note);
  const rest =
    given.rest === undefined
      ? []
      : ringHits(
          restSlots(struck, slots),
          slots,
          total,
          { ...play, every: 0, doubling: 0 },
          all.seed,
          given.rest,
        );
  const notes = [
    ...hits.flatMap((hit) => ringNotes(hit, slots, g, note)),
    ...rest.flatMap((hit) => ringNotes(hit, slots, g, given.rest!)),
  ];
  await giveOut(out, all, 'Ring', notes, end, {
    arrangements: list.length,
    which,
    slots: struck,
    hits: hits.map(({ slot, round, velocity, strokes }) => ({
      tick: (round * slots + slot) * g,
      velocity,
      strokes,
    })),
    ...(given.rest !== undefined && {
      rest: rest.map(({ slot, round, velocity }) => ({ tick: (round * slots + slot) * g, velocity })),
    }),
  });
};

interface BandsGiven extends Partial<Common> {
  grid: Grid;
  bars: number;
  fullness: HitBand;
  velocity?: HitBand;
  pitch?: HitBand;
  scale?: string;
  length?: HitBand;
  atOnce?: number;
  heldOver?: number;
  note?: number;
}

const heldBand = (name: string, band: HitBand, least: number, most: number): HitBand =>
  band.map(({ at, low, high }) => ({
    at,
    low: within(name, low, least, most),
    high: within(name, high, least, most),
  }));

const scaleNotes = (given: BandsGiven): number[] => {
  if (!given.pitch) return [];
  const scale = scaleOf(given.scale ?? 'C chromatic');
  if (!scale.ok) throw new InputFault(scale.error);
  const low = Math.min(...given.pitch.map((point) => point.low));
  const high = Math.max(...given.pitch.map((point) => point.high));
  const notes = notesInScale(scale.value, Math.max(0, low), Math.min(127, high));
  if (!notes.length) throw new InputFault(`Between ${low} and ${high} there is no note of ${given.scale}.`);
  return notes;
};

const bandsCommand = async (out: string | undefined, given: BandsGiven): Promise<void> => {
  const all = commonOf(given);
  if (given.scale !== undefined && !given.pitch)
    throw new UsageFault('--scale says which notes a --pitch goes to, and there is none.');
  const g = gridTicks(given.grid);
  const end = bars(given.bars, 1) * barTicks(all.meter);
  const bands: Bands = {
    fullness: heldBand('--fullness', given.fullness, 0, 100).map(({ at, low, high }) => ({
      at,
      low: low / 100,
      high: high / 100,
    })),
    velocity: heldBand('--velocity', given.velocity ?? flatBand(70, 110), 1, 127),
    ...(given.pitch && { pitch: heldBand('--pitch', given.pitch, 0, 127) }),
    ...(given.length && { length: heldBand('--length', given.length, 0.05, 64) }),
  };
  const note = given.note ?? 36;
  const hits = bandHits({
    bands,
    slots: Math.ceil(end / g - 1e-9),
    voices: within('--at-once', given.atOnce ?? 1, 1, 4),
    heldOver: within('--held-over', given.heldOver ?? 0, 0, 100) / 100,
    onBeat: 0,
    notes: scaleNotes(given),
    seed: all.seed,
    key: note,
  });
  const notes = hits.map((hit): MadeNote => ({
    tick: hit.slot * g,
    length: (hit.length ?? 1) * g,
    velocity: hit.velocity,
    note: hit.note ?? note,
  }));
  await giveOut(out, all, 'Bands', notes, end, {
    hits: notes.map(({ tick, note: number, velocity, length }) => ({ tick, note: number, velocity, length })),
  });
};

interface BeatGiven extends Partial<Common> {
  style?: string;
  busy?: number;
  bars?: number;
  keeper?: string;
}

const aKeeper = (text: string): string => {
  if (!isInstrument(text)) throw new InvalidArgumentError(`“${text}” is no instrument.`);
  return text;
};

const beatCommand = async (out: string | undefined, given: BeatGiven): Promise<void> => {
  const all = commonOf(given);
  const library = builtInGrooves();
  const styles = [...new Set(library.map(({ style }) => style))];
  const wanted = (given.style ?? 'Rock backbeat').toLowerCase();
  const style = styles.find((one) => one.toLowerCase() === wanted);
  if (!style)
    throw new InputFault(`There is no style “${given.style}”. There are ${styles.sort().join(', ')}.`);
  const model = beatModel(library.filter((groove) => groove.style === style))!;
  const groove = wholeBeat(
    model,
    {
      ...BEAT_DEFAULTS,
      bars: bars(given.bars, 2),
      busy: within('--busy', given.busy ?? 50, 0, 100),
      timekeeper: given.keeper && isInstrument(given.keeper) ? given.keeper : null,
      fill: (given.bars ?? 2) > 2,
      tempo: all.tempo,
    },
    all.seed,
  );
  if (given.meter && barTicks(given.meter) !== barTicks(groove.meter))
    warn(`${style} is played in ${groove.meter.beats}/${groove.meter.unit}; it is written so.`);
  const notes = groove.lanes.flatMap(({ note, part }) =>
    part.hits.map((hit): MadeNote => ({
      tick: Math.max(0, positionOf(hit, part.grid)),
      length: gridTicks(part.grid),
      velocity: hit.velocity,
      note,
    })),
  );
  const end = groove.bars * barTicks(groove.meter);
  await giveOut(out, { ...all, meter: groove.meter }, style, notes, end, {
    style,
    seed: all.seed,
    hits: notes.map(({ tick, note, velocity }) => ({ tick, note, velocity })),
  });
};

interface RudimentGiven extends Partial<Common> {
  name: string;
  grid?: Grid;
  bars?: number;
  velocity?: number;
  accent?: number;
  left: boolean;
  note?: number;
  accentNote?: number;
  leftNote?: number;
}

const plainly = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

const rudimentCommand = async (out: string | undefined, given: RudimentGiven): Promise<void> => {
  const all = commonOf(given);
  const rudiment = RUDIMENTS.find(({ name }) => plainly(name) === plainly(given.name));
  if (!rudiment)
    throw new UsageFault(
      `There is no rudiment “${given.name}”. Those are: ${RUDIMENTS.map(({ name }) => name.toLowerCase()).join(', ')}.`,
    );
  const { least, most } = RANGES.velocity;
  const grid = given.grid ?? rudiment.grid;
  const once = (rudiment.steps * gridTicks(grid)) / barTicks(all.meter);
  const count = bars(given.bars, Math.ceil(once - 1e-9));
  const empty = newBeat('made', rudiment.name, all.seed);
  // One lane each for the drum, the accents and the left hand, on whatever notes they are.
  const [drum, accents, lefts] = ['drum', 'accents', 'lefts'].map((id) => ({ ...empty.lanes[0]!, id }));
  const lanes = [
    { ...drum!, note: given.note ?? 38 },
    { ...accents!, note: given.accentNote ?? 38 },
    { ...lefts!, note: given.leftNote ?? 38 },
  ];
  const bare: Pattern = { ...empty.patterns[0]!, meter: all.meter, bars: count, parts: {} };
  const parts = rudimentParts(bare, 'drum', {
    ...RUDIMENT_DEFAULTS,
    rudiment: rudiment.id,
    grid,
    velocity: within('--velocity', given.velocity ?? RUDIMENT_DEFAULTS.velocity, least, most),
    accent: within('--accent', given.accent ?? RUDIMENT_DEFAULTS.accent, least, most),
    left: given.left,
    accents: given.accentNote === undefined ? '' : 'accents',
    lefts: given.leftNote === undefined ? '' : 'lefts',
  });
  const pattern = { ...bare, parts };
  const beat = { ...empty, tempo: all.tempo, lanes, patterns: [pattern] };
  // The grace strokes of the first stroke come before the bar: round the loop they stand at its end.
  const length = patternTicks(pattern);
  const whole = (60000 * length) / (QUARTER * all.tempo);
  const when = ({ ms }: HandStroke) => (ms < 0 ? ms + whole : ms);
  // A press is one stroke, however often it bounces.
  const pressed = rudiment.strokes.some(({ buzz }) => buzz);
  const written = handStrokes(beat, pattern).filter(({ bounces }) => !(pressed && bounces));
  const hands = written.sort((a, b) => when(a) - when(b));
  const notes = allNotes(planPasses(beat, pattern, 1), 'wrap').map(({ tick, length, velocity, note }) => ({
    tick,
    length,
    velocity,
    note,
  }));
  await giveOut(out, all, rudiment.name, notes, count * barTicks(all.meter), {
    rudiment: rudiment.name,
    sticking: hands
      .map(({ hand, kind }) => (kind === 'grace' ? (hand ?? '').toLowerCase() : (hand ?? '')))
      .join(' '),
    hits: notes.map(({ tick, note, velocity }) => ({ tick, note, velocity: Math.round(velocity) })),
  });
};

/** `ruddik make ring | bands | beat | rudiment`. */
export const makeCommand = (): Command => {
  const make = new Command('make').description(
    'Makes rhythms: a ring, hits between bands, a whole beat, a rudiment.',
  );
  common(
    make
      .command('ring')
      .description('So many strikes on a ring of slots, from even to clustered.')
      .argument('[out]', 'the MIDI file to write')
      .requiredOption('--slots <n>', 'slots of the ring, 1 to 24', aWhole)
      .requiredOption('--strikes <k>', 'how many of them are struck', aWhole)
      .option('--which <i>', 'which arrangement, from 1, the most even (default: 1)', aWhole)
      .option('--rotate <s>', 'turns the ring by so many slots', aWhole)
      .option('--slot-length <g>', 'how long a slot is, such as 1/16, 1/8T (default: 1/16)', aGrid)
      .option('--bars <b>', 'fills so many bars, cut at their end (default: once round)', aWhole)
      .option('--velocity <v>', 'of the strikes (default: 100)', aWhole)
      .option('--accent <v>', 'of the accents (default: 120)', aWhole)
      .option('--accent-every <m>', 'every so many strikes one has the accent (default: none)', aWhole)
      .option('--accent-from <i>', 'the strike that accents are counted from, from 0', aWhole)
      .option('--doubling <percent>', 'the chance that a strike becomes several', aNumber)
      .option('--into <n>', '2 or 3 (default: 2)', anInto)
      .option('--note <n>', 'a note number or an instrument (default: 36)', aNote)
      .option('--rest <note>', 'gives what is left unstruck to another note', aNote),
  ).action(ring);
  common(
    make
      .command('bands')
      .description('Hits drawn between a lower and an upper edge of each quantity.')
      .argument('[out]', 'the MIDI file to write')
      .requiredOption('--grid <g>', 'the places, such as 1/16', aGrid)
      .requiredOption('--bars <b>', 'how many bars', aWhole)
      .requiredOption('--fullness <percent>', 'how many of the places are struck', aBand)
      .option('--velocity <band>', 'LO-HI, or LO-HI..LO-HI from the beginning to the end', aBand)
      .option('--pitch <band>', 'note numbers, to the nearest of the scale; takes the place of --note', aBand)
      .option('--scale <name>', 'such as "C minor" (default: all notes)')
      .option('--length <band>', 'in places (default: 1)', aBand)
      .option('--at-once <m>', 'voices at once, 1 to 4 (default: 1)', aWhole)
      .option('--held-over <percent>', 'the chance that a hit goes on through the next place', aNumber)
      .option('--note <n>', 'a note number or an instrument (default: 36)', aNote),
  ).action(bandsCommand);
  common(
    make
      .command('beat')
      .description('A whole beat in the style of built-in grooves, as one drummer can play it.')
      .argument('[out]', 'the MIDI file to write')
      .option('--style <name>', 'a style of the library (default: Rock backbeat)')
      .option('--busy <n>', '0 sparse, 50 as the style is, 100 full', aNumber)
      .option('--bars <b>', 'how many bars; the last of more than two is a fill (default: 2)', aWhole)
      .option('--keeper <instrument>', 'who keeps time, such as ride', aKeeper),
  ).action(beatCommand);
  common(
    make
      .command('rudiment')
      .description('One of the forty rudiments that drummers practise, over and over.')
      .argument('[out]', 'the MIDI file to write')
      .requiredOption('--name <name>', 'such as "flam accent"')
      .option('--grid <g>', 'what its steps are laid on (default: as it is practised)', aGrid)
      .option('--bars <b>', 'how many bars (default: as many as once through takes)', aWhole)
      .option('--velocity <v>', 'of its strokes (default: 70)', aWhole)
      .option('--accent <v>', 'of its accents (default: 112)', aWhole)
      .option('--left', 'begins with the left hand', false)
      .option('--note <n>', 'a note number or an instrument (default: snare)', aNote)
      .option('--accent-note <n>', 'gives its accents to another note', aNote)
      .option('--left-note <n>', 'gives what the left hand plays to another note', aNote),
  ).action(rudimentCommand);
  return make;
};
