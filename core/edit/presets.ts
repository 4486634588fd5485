import { withLanePattern } from '../document/defaults';
import type { InstrumentId } from '../document/instruments';
import type { Beat, Hit, LanePattern, Pattern } from '../document/schema';
import { EMPTY_LANE_PATTERN, newHit, lanePatternOf, stepsOf } from '../document/defaults';
import { gridTicks } from '../document/grid';
import { barTicks, type Meter } from '../document/meter';
import { pulsesOf } from '../document/pulses';
import type { Ticks } from '../units';
import { clearLane } from './parts';

/**
 * Rhythms to begin from. A line is one bar of 4/4 in sixteenths: `x` a hit, `X` an accent, `o` a ghost, `.` a rest;
 * a shorter line is a loop of its own length.
 */
export interface LanePreset {
  id: string;
  name: string;
  family: 'kick' | 'snare' | 'hat' | 'ride' | 'tom' | 'hand' | 'shaken' | 'any';
  line: string;
}

const VELOCITY: Record<string, number> = { o: 38, x: 92, X: 118 };

const lane = (family: LanePreset['family'], name: string, line: string): LanePreset => ({
  id: `${family}.${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`,
  name,
  family,
  line,
});

export const LANE_PRESETS: LanePreset[] = [
  lane('kick', 'Four on the floor', 'X...X...X...X...'),
  lane('kick', 'One and three', 'X.......X.......'),
  lane('kick', 'One, and of three', 'X.........X.....'),
  lane('kick', 'Ferry horn', 'X.....x...X.....'),
  lane('kick', 'Late crates', 'X......x..X....x'),
  lane('kick', 'Dragged nets', 'X..x..X...x.....'),
  lane('kick', 'Heart on the quay', 'Xo......Xo......'),
  lane('kick', 'Rolling barrels', 'X.x...x.X.x...x.'),
  lane('snare', 'Backbeat', '....X.......X...'),
  lane('snare', 'Half-time backbeat', '........X.......'),
  lane('snare', 'Backbeat with ghosts', '..o.X..o.o..X..o'),
  lane('snare', 'Answer on four', '............X.x.'),
  lane('snare', 'March on the planks', 'XooxXooxXooxXxxx'),
  lane('snare', 'Pushed second', '...x....X...x...'),
  lane('snare', 'Train over the bridge', 'xoXoxoXoxoXoxoXo'),
  lane('snare', 'Two claps and one', '....X..x....X...'),
  lane('hat', 'Eighths', 'X.x.X.x.X.x.X.x.'),
  lane('hat', 'Sixteenths', 'XoxoXoxoXoxoXoxo'),
  lane('hat', 'Offbeat hats', '..X...X...X...X.'),
  lane('hat', 'Quarters', 'X...X...X...X...'),
  lane('hat', 'Gallop', 'X.xxX.xxX.xxX.xx'),
  lane('hat', 'Reversed gallop', 'Xxx.Xxx.Xxx.Xxx.'),
  lane('hat', 'Three against four', 'X..X..X..X..'),
  lane('hat', 'Five-step walk', 'X.xx.'),
  lane('hat', 'Rain on the tarp', 'XoxxoxXoxoxxXoox'),
  lane('ride', 'Ride quarters and skip', 'X...X..xX...X..x'),
  lane('ride', 'Ride eighths', 'X.x.X.x.X.x.X.x.'),
  lane('ride', 'Bell on the offbeat', '..X...X...X...X.'),
  lane('ride', 'Long bell line', 'X.X..X.X.X..X.X.'),
  lane('tom', 'Falling at the end', '............XxXx'),
  lane('tom', 'Low answer', '......x.......xx'),
  lane('tom', 'Round the hulls', 'X..x..X..x..X.x.'),
  lane('tom', 'Floor pulse', 'X.X.X.X.X.X.X.X.'),
  lane('hand', 'Open tones late', '......X.......XX'),
  lane('hand', 'Market crossing', 'x..xo.x.o.x.x.o.'),
  lane('hand', 'Slap on two and four', '....X.......X...'),
  lane('hand', 'Walking fingers', 'xoooxoooxoooxooo'),
  lane('shaken', 'Shaker sixteenths', 'XooxXooxXooxXoox'),
  lane('shaken', 'Shaker eighths', 'X.o.X.o.X.o.X.o.'),
  lane('shaken', 'Seven-step shaker', 'XoxoXox'),
  lane('shaken', 'Key of three and two', 'X..X..X...X.X...'),
  lane('shaken', 'Key of two and three', '..X.X...X..X..X.'),
  lane('shaken', 'Knocks around the beat', 'X..x..x.X..x..x.'),
  lane('any', 'Every third step', 'X..'),
  lane('any', 'Every fifth step', 'X....'),
];

const hitsOf = (line: string): Hit[] =>
  [...line].flatMap((sign, step) => (VELOCITY[sign] ? [newHit(step, VELOCITY[sign])] : []));

/** A whole bar of 4/4; a line of another length is a loop of its own. */
const BAR_CELLS = 16;
const CELLS_A_BEAT = 4;
const CELL: Ticks = 240;

/**
 * A preset as it is written: sixteenths; a line that is not a whole bar is a loop of its own length.
 *
 * @example presetPart({ line: LANE_PRESETS[0]!.line }).grid // "1/16"
 */
export const presetPart = ({ line }: Pick<LanePreset, 'line'>, bars = 1): LanePattern => {
  const own = line.length !== BAR_CELLS;
  const times = own ? 1 : bars;
  const hits = Array.from({ length: times }, (_, bar) =>
    hitsOf(line).map((hit) => ({ ...hit, step: hit.step + BAR_CELLS * bar })),
  ).flat();
  return { grid: '1/16', steps: own ? line.length : null, rate: '1', direction: 'forward', hits };
};

/** Which of the four beats of a line the pulses of a bar take: what is struck on two and four stays off the one. */
const BEATS_FOR: number[][] = [
  [0],
  [0],
  [0, 1],
  [0, 1, 3],
  [0, 1, 2, 3],
  [0, 1, 2, 2, 3],
  [0, 1, 2, 3, 2, 3],
];

const beatFor = (pulse: number, pulses: number): number =>
  (BEATS_FOR[pulses] ?? [...BEATS_FOR[4]!, ...BEATS_FOR[3]!])[pulse % 7] ?? 0;

/** Where in a pulse the four sixteenths of a beat stand: in three eighths on them, the last a sixteenth before the next. */
const cellsIn = (length: Ticks): Ticks[] => {
  if (length === 6 * CELL) return [0, 2 * CELL, 4 * CELL, 5 * CELL];
  const count = Math.min(CELLS_A_BEAT, Math.round(length / CELL));
  return Array.from({ length: count }, (_, at) => at * CELL);
};

interface Struck {
  at: Ticks;
  velocity: number;
}

/** A line in a meter, over some bars: beats of 4/4 on its pulses; a loop of its own goes on through them. */
const lineIn = (line: string, meter: Meter, bars: number): Struck[] => {
  const bar = barTicks(meter);
  const out: Struck[] = [];
  const strike = (at: Ticks, sign: string | undefined) => {
    const velocity = VELOCITY[sign ?? '.'];
    if (velocity && at < bars * bar - 1e-6) out.push({ at, velocity });
  };
  if (line.length !== BAR_CELLS)
    for (let at = 0; at * CELL < bars * bar; at++) strike(at * CELL, line[at % line.length]);
  else {
    const pulses = pulsesOf(meter);
    for (let n = 0; n < bars; n++)
      pulses.forEach(({ from, length }, pulse) =>
        cellsIn(length).forEach((inside, cell) =>
          strike(n * bar + from + inside, line[beatFor(pulse, pulses.length) * CELLS_A_BEAT + cell]),
        ),
      );
  }
  return out;
};

/** Hits on the grid of a part, as far as its loop goes; a part in which nothing is yet takes sixteenths. */
const onPart = (pattern: Pattern, part: LanePattern, line: string): LanePattern => {
  const fresh =
    part === EMPTY_LANE_PATTERN || (!part.hits.length && part.steps === null && part.grid === '1/16');
  const now: LanePattern = fresh ? { ...part, grid: '1/16' } : part;
  const g = gridTicks(now.grid);
  const steps = stepsOf(now, pattern);
  const bars = Math.max(pattern.bars, Math.ceil((steps * g) / barTicks(pattern.meter) - 1e-9));
  const beyond = part.hits.filter(({ step }) => step >= steps);
  const hits = new Map<number, Hit>();
  for (const { at, velocity } of lineIn(line, pattern.meter, bars)) {
    const step = Math.floor(at / g + 0.5);
    if (step >= steps || hits.has(step)) continue;
    hits.set(step, { ...newHit(step, velocity), nudge: at / g - step + 0 });
  }
  return { ...now, hits: [...[...hits.values()].sort((a, b) => a.step - b.step), ...beyond] };
};

export interface PatternPreset {
  id: string;
  name: string;
  lines: Partial<Record<InstrumentId, string>>;
}

const whole = (name: string, lines: PatternPreset['lines']): PatternPreset => ({
  id: name.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
  name,
  lines,
});

export const PATTERN_PRESETS: PatternPreset[] = [
  whole('Backbeat', {
    kick: 'X.....x.X.......',
    snare: '....X.......X...',
    'hat.closed': 'X.x.X.x.X.x.X.x.',
  }),
  whole('Four on the floor', {
    kick: 'X...X...X...X...',
    clap: '....X.......X...',
    'hat.open': '..X...X...X...X.',
    shaker: 'XooxXooxXooxXoox',
  }),
  whole('Half-time under lanterns', {
    kick: 'X.........x.....',
    snare: '........X.......',
    'hat.closed': 'XoxoXoxoXoxoXoxx',
  }),
  whole('Market boom', {
    kick: 'X..x......X....x',
    snare: '....X..o.o..X...',
    'hat.closed': 'X.x.X.x.X.x.X.xx',
  }),
  whole('Ferry engine', {
    kick: 'X.x.X.x.X.x.X.x.',
    'tom.low': '..o...o...o...o.',
    'hat.closed': '....X.......X...',
  }),
  whole('Broken crates', {
    kick: 'X.X.......XX....',
    snare: '....X..o.o..X..o',
    'hat.closed': 'X.x.x.x.X.x.x.x.',
    'hat.open': '..............X.',
  }),
  whole('Slow net haul', {
    kick: 'X.......x.......',
    'snare.sideStick': '....X.......X...',
    ride: 'X.x.X.x.X.x.X.x.',
  }),
  whole('Dance of the stalls', {
    kick: 'X..x..x.X..x..x.',
    snare: '...x..x....x..x.',
    'hat.closed': 'X...X...X...X...',
  }),
  whole('Quay march', { kick: 'X...X...X...X...', snare: 'XooxXooxXooxXxxx', crash: 'X...............' }),
  whole('Rain beat', {
    kick: 'X......x..X.....',
    'snare.rimshot': '....X.......X..o',
    'hat.closed': 'XoxxoxXoxoxxXoox',
    shaker: '..x...x...x...x.',
  }),
  whole('Hands only', {
    'conga.open': '......X.......XX',
    'conga.low': 'X.......X..x....',
    shaker: 'XooxXooxXooxXoox',
    clap: '....X.......X...',
  }),
  whole('Three over four', {
    kick: 'X...X...X...X...',
    snare: '....X.......X...',
    'hat.closed': 'X..X..X..X..',
    'woodblock.high': 'X....',
  }),
  whole('Fill of falling barrels', {
    kick: 'X...X...X...X...',
    snare: 'XxXx............',
    'tom.high': '....XxXx........',
    'tom.mid': '........XxXx....',
    'tom.low': '............XxXx',
  }),
];

/**
 * Puts a preset onto one lane, in the place of what it has: in the meter of the pattern, on the lane's own grid, as long and in
 * the direction that the lane has.
 *
 * @param asWritten its grid and, where it is a loop of its own, its length come with it
 * @example applyLanePreset(pattern, 'clap', LANE_PRESETS[0]!).parts['clap']!.hits.length > 0 // true
 */
export const applyLanePreset = (
  pattern: Pattern,
  laneId: string,
  preset: LanePreset,
  asWritten = false,
): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  return withLanePattern(
    pattern,
    laneId,
    asWritten ? presetPart(preset, pattern.bars) : onPart(pattern, part, preset.line),
  );
};

/**
 * Puts a preset onto a pattern, in its meter: the lanes whose instruments it names take its lines, all others fall silent; grids,
 * lengths and directions stay. Instruments that the beat has no lane for are told.
 */
export const applyPatternPreset = (
  beat: Beat,
  pattern: Pattern,
  preset: PatternPreset,
): { pattern: Pattern; missing: InstrumentId[] } => {
  let out = Object.keys(pattern.parts).reduce((now, laneId) => clearLane(now, laneId), pattern);
  const missing: InstrumentId[] = [];
  for (const [id, line] of Object.entries(preset.lines) as [InstrumentId, string][]) {
    const found = beat.lanes.find((one) => one.instrument === id);
    if (found) out = withLanePattern(out, found.id, onPart(out, lanePatternOf(out, found.id), line));
    else missing.push(id);
  }
  return { pattern: out, missing };
};
