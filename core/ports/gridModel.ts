import { clamp, type Ticks, type Velocity } from '../units';
import type { Light } from './gridLayout';

/** A surface of lit pads: its picture of a beat, and the actions of its pads. The lowest row has the buttons, all above it the beat. */

/** The picture on the pads. */
export const GRID_MODES = ['steps', 'mute', 'solo', 'patterns', 'duplicate', 'swing'] as const;
export type GridMode = (typeof GRID_MODES)[number];

/** The part of a beat that a surface needs. */
export interface GridBeat {
  lanes: {
    id: string;
    mute: boolean;
    solo: boolean;
    /** The velocity on each step; 0 is none. */
    steps: readonly number[];
    /** The length of a step, in ticks. */
    ticks: Ticks;
  }[];
  patterns: { id: string }[];
  patternId: string;
  /** In percent; 50 is straight. */
  swing: number;
  /** Where play stands, in ticks from where it began; null while nothing plays. */
  at: Ticks | null;
  /** From this velocity on a hit is an accent, below that one it is soft. */
  accent: number;
  soft: number;
}

/** Where a surface stands. */
export interface GridView {
  mode: GridMode;
  /** The first lane and the first step that it shows. */
  lane: number;
  step: number;
}

export const GRID_AT_FIRST: GridView = { mode: 'steps', lane: 0, step: 0 };

/** The edit that a press asks for. */
export type GridAction =
  | { do: 'step'; laneId: string; step: number; on: boolean; velocity: Velocity }
  | { do: 'mute' | 'solo'; laneId: string; on: boolean }
  | { do: 'pattern' | 'duplicate'; patternId: string }
  | { do: 'swing'; percent: number };

interface Size {
  columns: number;
  rows: number;
}

const SWING = { least: 50, most: 75 };
const EARLIER = GRID_MODES.length;
const LATER = EARLIER + 1;

/** How many lanes a surface shows: the lowest row has the buttons. */
const lanesIn = ({ rows }: Size): number => rows - 1;
const longest = ({ lanes }: GridBeat): number => Math.max(1, ...lanes.map(({ steps }) => steps.length));
/** The swing at a place of its row, in quarters of a percent. */
const swingAt = (place: number, places: number): number =>
  Math.round(4 * (SWING.least + ((SWING.most - SWING.least) * place) / (places - 1))) / 4;

const stepLight = (beat: GridBeat, lane: number, step: number): Light => {
  const { steps, ticks } = beat.lanes[lane] ?? { steps: [], ticks: 240 };
  if (step >= steps.length) return 'off';
  const velocity = steps[step]!;
  const here = beat.at !== null && Math.floor(beat.at / ticks) % steps.length === step;
  if (here) return velocity ? 'here' : 'passing';
  if (!velocity) return 'off';
  return velocity >= beat.accent ? 'accent' : velocity <= beat.soft ? 'soft' : 'step';
};

const laneLight = (beat: GridBeat, at: number, which: 'mute' | 'solo', x: number): Light => {
  const lane = beat.lanes[at];
  if (!lane) return 'off';
  // The first column says both at a glance: what does not sound is told from what does.
  const silent = lane.mute || (beat.lanes.some(({ solo }) => solo) && !lane.solo);
  if (x === 0) return lane.solo ? 'solo' : silent ? 'muted' : 'on';
  if (which === 'mute') return lane.mute ? 'muted' : x === 1 ? 'on' : 'off';
  return lane.solo ? 'solo' : 'off';
};

const buttonLight = (view: GridView, x: number): Light => {
  const mode = GRID_MODES[x];
  if (mode) return mode === view.mode ? 'chosen' : 'button';
  return x === EARLIER || x === LATER ? 'button' : 'off';
};

/**
 * The lights of a surface, row by row from the top.
 *
 * @example gridLights({ lanes: [], patterns: [], patternId: '', swing: 50, at: null, accent: 108, soft: 60 }, GRID_AT_FIRST, { columns: 8, rows: 8 })[7]![0] // "chosen"
 */
export const gridLights = (beat: GridBeat, view: GridView, size: Size): Light[][] =>
  Array.from({ length: size.rows }, (_, y) =>
    Array.from({ length: size.columns }, (__, x): Light => {
      if (y === size.rows - 1) return buttonLight(view, x);
      switch (view.mode) {
        case 'steps':
          return stepLight(beat, view.lane + y, view.step + x);
        case 'mute':
        case 'solo':
          return laneLight(beat, view.lane + y, view.mode, x);
        case 'patterns':
        case 'duplicate': {
          const one = beat.patterns[y * size.columns + x];
          if (!one) return 'off';
          return one.id === beat.patternId ? 'chosen' : view.mode === 'duplicate' ? 'soft' : 'step';
        }
        case 'swing':
          if (y > 0) return 'off';
          return beat.swing >= swingAt(x, size.columns) - 0.01 ? 'on' : 'button';
      }
    }),
  );

const pressedButton = (beat: GridBeat, view: GridView, size: Size, x: number): GridView => {
  const mode = GRID_MODES[x];
  const lanes = lanesIn(size);
  // The button of what is shown goes on to the next lanes, round and round.
  if (mode === view.mode && ['steps', 'mute', 'solo'].includes(mode)) {
    const next = view.lane + lanes;
    return { ...view, lane: next < beat.lanes.length ? next : 0 };
  }
  if (mode) return { ...view, mode };
  const way = x === EARLIER ? -1 : x === LATER ? 1 : 0;
  const last = Math.floor((longest(beat) - 1) / size.columns) * size.columns;
  return { ...view, step: clamp(view.step + way * size.columns, 0, last) };
};

/**
 * The effect of a press: to what the surface shows, and to the beat.
 *
 * @param x from the left
 * @param y from the top
 * @param velocity that the pad was struck with: a hit that it puts has it
 * @example
 * gridPress({ lanes: [{ id: 'kick', mute: false, solo: false, steps: [0, 0], ticks: 240 }], patterns: [], patternId: '', swing: 50, at: null, accent: 108, soft: 60 }, GRID_AT_FIRST, { columns: 8, rows: 8 }, 1, 0, 83).action
 * // { do: 'step', laneId: 'kick', step: 1, on: true, velocity: 83 }
 */
export const gridPress = (
  beat: GridBeat,
  view: GridView,
  size: Size,
  x: number,
  y: number,
  velocity: Velocity,
): { view: GridView; action: GridAction | null } => {
  if (y === size.rows - 1) return { view: pressedButton(beat, view, size, x), action: null };
  const lane = beat.lanes[view.lane + y];
  const stay = (action: GridAction | null) => ({ view, action });
  switch (view.mode) {
    case 'steps': {
      const step = view.step + x;
      return lane && step < lane.steps.length
        ? stay({ do: 'step', laneId: lane.id, step, on: !lane.steps[step], velocity })
        : stay(null);
    }
    case 'mute':
      return stay(lane ? { do: 'mute', laneId: lane.id, on: !lane.mute } : null);
    case 'solo':
      return stay(lane ? { do: 'solo', laneId: lane.id, on: !lane.solo } : null);
    case 'patterns':
    case 'duplicate': {
      const pattern = beat.patterns[y * size.columns + x];
      if (!pattern) return stay(null);
      const copies = view.mode === 'duplicate';
      return {
        view: copies ? { ...view, mode: 'patterns' } : view,
        action: { do: copies ? 'duplicate' : 'pattern', patternId: pattern.id },
      };
    }
    case 'swing':
      return stay(y === 0 ? { do: 'swing', percent: swingAt(x, size.columns) } : null);
  }
};
