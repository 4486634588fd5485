import type { Template } from '../document/feelSchema';
import type { Grid } from '../document/grid';
import type { Meter } from '../document/meter';

/**
 * The templates that ship. Each is a line of offsets in percent of a step (late is positive) and one of velocities in
 * percent; what is shorter than a bar goes on from its beginning, so that only what changes need be written.
 */
interface Written {
  id: string;
  name: string;
  about: string;
  /** The meter whose pulses it stresses; left out, 4/4. */
  meter?: Meter;
  grid: Grid;
  slots: number;
  late: string;
  force: string;
}

const sixteen = (
  id: string,
  name: string,
  about: string,
  late: string,
  force: string,
  slots = 16,
): Written => ({
  id,
  name,
  about,
  grid: '1/16',
  slots,
  late,
  force,
});

const triplet = (
  id: string,
  name: string,
  about: string,
  late: string,
  force: string,
  slots = 12,
): Written => ({
  id,
  name,
  about,
  grid: '1/8T',
  slots,
  late,
  force,
});

const WRITTEN: Written[] = [
  sixteen(
    'late-ferry',
    'Late ferry',
    'Hats late and even, snare later still, the first beat dead on: a heavy, patient pull.',
    '0 9 9 9 15 10 9 10 3 9 9 9 17 11 9 10',
    '95 48 66 46 90 50 66 48 88 48 66 46 92 52 66 54',
  ),
  sixteen(
    'wet-planks',
    'Wet planks',
    'Lightly swung sixteenths that slip a little more each time towards the bar line.',
    '0 14 1 15 2 16 2 17 1 16 2 18 3 19 4 21',
    '92 44 70 42 86 46 68 44 90 44 70 44 86 48 70 52',
  ),
  sixteen(
    'lantern-sway',
    'Lantern sway',
    'A round medium swing; the off-sixteenths soft, the beats calm and full.',
    '0 17 -1 18 0 17 -1 18',
    '92 38 68 40 86 38 68 42',
  ),
  sixteen(
    'tarpaulin',
    'Tarpaulin',
    'Sixteenths nearly at the triplet, flapping: the last of each beat hits harder than the third.',
    '0 28 2 30',
    '90 36 60 66 84 34 58 68',
  ),
  sixteen(
    'crab-walk',
    'Crab walk',
    'The second and fourth sixteenth stand early, the third late: a nervous sideways step.',
    '0 -8 9 -7 1 -9 10 -6',
    '92 52 74 50 88 54 76 52',
  ),
  sixteen(
    'haggler',
    'Haggler',
    'Everything a little ahead, the backbeat most: pushes the price and the tempo.',
    '-2 -6 -5 -6 -9 -6 -5 -6',
    '92 58 74 58 98 58 74 60',
  ),
  sixteen(
    'night-watch',
    'Night watch',
    'Straight and quiet, all of it a hair behind; only the beats speak up.',
    '2 5 4 5 4 6 4 5',
    '84 30 46 30 80 32 48 32',
  ),
  sixteen(
    'rope-pull',
    'Rope pull',
    'Beats one and three dig in early, two and four lean far back, like two crews at one rope.',
    '-5 0 2 4 13 8 5 3 -4 0 2 4 14 9 5 2',
    '96 46 64 50 92 48 62 46 92 46 64 50 94 50 62 52',
  ),
  sixteen(
    'fish-scales',
    'Fish scales',
    'Even timing, glittering accents: every third sixteenth shines.',
    '0 3 1 2',
    '94 44 46 82 46 44 84 46 44 86 44 46 82 48 46 80',
  ),
  sixteen(
    'tin-roof',
    'Tin roof',
    'Tight sixteenths with sharp accents on the off-beats, rain on tin.',
    '0 2 -3 2',
    '72 40 96 42 70 40 94 44',
  ),
  sixteen(
    'slack-tide',
    'Slack tide',
    'Everything late, and later through the bar until the next one pulls it back.',
    '2 8 6 10 8 12 10 14 11 15 13 16 14 17 16 18',
    '90 42 62 44 84 42 62 46 86 42 62 46 84 46 64 50',
  ),
  sixteen(
    'spice-scoop',
    'Spice scoop',
    'The sixteenth before each beat comes early and soft, and scoops up into it.',
    '0 4 2 -14 1 4 2 -15',
    '96 50 72 38 92 50 72 40',
  ),
  sixteen(
    'two-stalls',
    'Two stalls',
    'Two bars that answer: the first swung and calm, the second nearly straight and louder.',
    '0 18 0 18 4 18 0 18 0 18 0 19 4 18 0 20 0 5 0 6 3 5 0 6 0 6 0 6 3 8 0 10',
    '88 40 64 40 84 40 64 42 86 40 64 42 84 42 64 46 94 56 74 56 92 56 74 58 92 56 76 58 94 60 78 66',
    32,
  ),
  sixteen(
    'mooring',
    'Mooring',
    'Beats held fast on the grid, everything between drifting late by the same small length.',
    '0 11 11 11',
    '94 50 66 50 90 50 66 52',
  ),
  sixteen(
    'quick-change',
    'Quick change',
    'Early on the and, on time elsewhere: springy eighths for a fast walk.',
    '0 1 -10 1',
    '90 46 84 46 86 46 86 48',
  ),
  sixteen(
    'lamp-oil',
    'Lamp oil',
    'Slow and slick: heavy beats, deep ghost notes, a swing that is there only on the second half of the bar.',
    '0 3 0 4 10 5 2 6 0 14 1 16 12 17 3 20',
    '98 26 60 28 92 28 58 30 92 28 60 32 94 34 62 40',
  ),
  {
    id: 'seven-gulls',
    name: 'Seven gulls',
    about: 'For 7/8 as two, two and three: each group sets off firmly, its last sixteenths drag.',
    meter: { beats: 7, unit: 8 },
    grid: '1/16',
    slots: 14,
    late: '0 3 2 5 0 3 2 5 1 4 3 6 6 9',
    force: '96 40 66 42 90 40 66 42 92 40 62 44 64 46',
  },
  {
    id: 'odd-planks',
    name: 'Odd planks',
    about: 'Eighths for 7/8: the ands of the two short groups late, the long group walks into the next bar.',
    meter: { beats: 7, unit: 8 },
    grid: '1/8',
    slots: 7,
    late: '0 9 -2 10 0 5 11',
    force: '96 56 88 54 92 58 70',
  },
  {
    id: 'three-lanterns',
    name: 'Three lanterns',
    about: 'For 3/4: a full one, a two and three that lift a little early, soft sixteenths between.',
    meter: { beats: 3, unit: 4 },
    grid: '1/16',
    slots: 12,
    late: '0 4 3 6 -4 3 3 7 -3 4 4 9',
    force: '96 40 60 42 82 38 58 42 86 42 62 48',
  },
  {
    id: 'five-bells',
    name: 'Five bells',
    about: 'For 5/4 as three and two: four digs in early, everything between lies back.',
    meter: { beats: 5, unit: 4 },
    grid: '1/16',
    slots: 20,
    late: '0 8 6 9 2 8 6 9 3 9 7 10 -5 6 4 8 6 10 8 12',
    force: '96 42 64 44 84 40 62 42 86 42 62 46 94 44 66 46 84 42 62 48',
  },
  sixteen(
    'stacked-crates',
    'Stacked crates',
    'Machine-tight in time; velocities rise beat by beat through the bar.',
    '0',
    '70 34 50 34 78 38 56 38 86 42 62 42 96 48 68 52',
  ),
  triplet(
    'paddle',
    'Paddle',
    'Triplets in a rowing shuffle: the middle one almost gone, the last one late.',
    '0 0 6',
    '94 22 68 88 22 66',
  ),
  triplet(
    'lean-to',
    'Lean-to',
    'Loose triplets, the second early, so that each beat leans forward.',
    '0 -9 2 1 -8 3',
    '90 56 64 84 54 66',
  ),
  {
    id: 'six-steps',
    name: 'Six steps down',
    about: 'For 6/8: a strong one, a four that comes a little early, the rest trickling late.',
    meter: { beats: 6, unit: 8 },
    grid: '1/8',
    slots: 6,
    late: '0 4 6 -3 4 8',
    force: '98 42 54 86 44 58',
  },
  {
    id: 'long-swell',
    name: 'Long swell',
    about: 'Sixteenths for 6/8 that lean back further until each half of the bar catches up.',
    meter: { beats: 6, unit: 8 },
    grid: '1/16',
    slots: 12,
    late: '0 4 5 8 8 12 0 5 6 9 10 15',
    force: '96 36 58 38 54 42 90 36 58 38 56 48',
  },
  {
    id: 'old-quay',
    name: 'Old quay',
    about: 'For a slow 12/8: late backbeats, soft middles, unhurried.',
    meter: { beats: 12, unit: 8 },
    grid: '1/8',
    slots: 12,
    late: '0 3 5 9 4 6 1 3 5 11 4 7',
    force: '94 34 56 90 34 58 88 34 56 92 36 60',
  },
  {
    id: 'wide-eighths',
    name: 'Wide eighths',
    about: 'Eighths swung a little, each off-beat laid back and gentle.',
    grid: '1/8',
    slots: 8,
    late: '0 14 3 15 1 14 4 17',
    force: '94 56 88 58 90 56 90 62',
  },
  {
    id: 'gangway',
    name: 'Gangway',
    about: 'Eighths that push: the off-beats early and as strong as the beats.',
    grid: '1/8',
    slots: 8,
    late: '0 -9 -2 -8',
    force: '90 88 86 90',
  },
  {
    id: 'drawn-nets',
    name: 'Drawn nets',
    about: 'Hard swung eighths, almost a shuffle, with the and of four pulling into the next bar.',
    grid: '1/8',
    slots: 8,
    late: '0 30 2 31 0 30 3 25',
    force: '92 52 88 54 90 52 88 72',
  },
  {
    id: 'moth-wings',
    name: 'Moth wings',
    about: 'Thirty-seconds that flutter: pairs close together, every other one a whisper.',
    grid: '1/32',
    slots: 32,
    late: '0 16 0 14 0 18 0 13',
    force: '88 30 52 28 66 30 48 30',
  },
];

const cycled = (text: string, slots: number): number[] => {
  const values = text.split(' ').map(Number);
  return Array.from({ length: slots }, (_, at) => values[at % values.length]! / 100);
};

/** The templates of the library, our own. */
export const TEMPLATES: Template[] = WRITTEN.map(({ id, name, about, meter, grid, slots, late, force }) => {
  const velocities = cycled(force, slots);
  return {
    id,
    name,
    about,
    meter: meter ?? { beats: 4, unit: 4 },
    grid,
    slots: cycled(late, slots).map((offset, at) => ({ offset, velocity: velocities[at]! })),
  };
});
