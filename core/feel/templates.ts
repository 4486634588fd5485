import type { Template } from '../document/feelSchema';
import type { DrumGroup } from '../document/choices';
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
  /** Of groups of drums that go another way: late and force. */
  groups?: Partial<Record<DrumGroup, readonly [late: string, force: string]>>;
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

/** Curves of a kit: what goes otherwise by group, on sixteenths where nothing else is said. */
const kit = (
  id: string,
  name: string,
  about: string,
  [late, force]: readonly [string, string],
  groups: NonNullable<Written['groups']>,
  grid: Grid = '1/16',
  slots = 16,
  meter?: Meter,
): Written => ({ id, name, about, grid, slots, late, force, groups, ...(meter && { meter }) });

/** Those with a curve for each group of drums: what a kit does that no single line can tell. */
const KITS: Written[] = [
  kit(
    'last-lantern',
    'Last lantern',
    'The late-night drag: hats late and even, the snare later still, the kick dead on.',
    ['4 6 5 6', '80 50 66 50'],
    { kick: ['0', '92 60 78 60'], snare: ['14 12 13 12', '90 40 60 42'], hat: ['8', '82 58 74 58'] },
  ),
  kit(
    'lifted-crates',
    'Lifted crates',
    'Kick a hair early, hats on the grid, the snare far behind: weight that is dropped.',
    ['2 3 2 3', '82 52 66 54'],
    {
      kick: ['-5 -3 -4 -3', '96 66 82 68'],
      snare: ['16 14 15 14', '94 38 56 40'],
      hat: ['0 2 0 2', '84 46 72 48'],
    },
  ),
  kit(
    'samba-steps',
    'Carnival steps',
    'Samba: sixteenths leaning into the fourth of each beat, the second short, the low drum late on two.',
    ['0 -6 -4 8', '88 50 56 80'],
    {
      kick: ['0 0 0 6 4 0 0 6', '60 40 44 58 98 42 46 60'],
      shaken: ['0 -8 -6 12', '92 46 52 84'],
      hand: ['0 -4 -2 8 0 -4 -4 10', '84 52 60 78 88 50 56 82'],
    },
  ),
  kit(
    'samba-alley',
    'Carnival in the alley',
    'Samba close to the ear: even shakers, the snare’s ghosts rolling late into each beat.',
    ['0 -3 0 5', '84 54 64 72'],
    {
      kick: ['2', '58 38 42 54 94 40 44 56'],
      snare: ['0 3 4 10', '70 34 44 88'],
      shaken: ['0 -3 -2 3', '84 62 68 76'],
    },
  ),
  kit(
    'procession',
    'Procession of drums',
    'Maracatu: big drums on and behind, bells ahead, everyone walking.',
    ['0 4 -2 6', '86 52 62 70'],
    {
      kick: ['3 6 3 8', '96 48 64 84'],
      snare: ['-2 4 0 6', '84 58 60 78'],
      shaken: ['-6 -2 -6 0', '92 50 80 56'],
      tom: ['5 8 4 10', '94 50 66 80'],
    },
  ),
  kit(
    'clave-corner',
    'Clave at the corner',
    'Son clave: the three-side drawn out, the two-side plain, hands late on the last.',
    ['0 2 0 6 0 2 4 2 0 2 0 2 2 2 0 2', '90 50 60 88 56 50 86 52 60 50 90 50 88 52 58 50'],
    {
      shaken: ['0 0 0 10 0 0 8 0 0 0 0 0 0 0 0 0', '96 40 46 94 46 40 92 42 46 40 94 40 90 42 46 40'],
      hand: ['2 4 2 5 2 4 6 4 2 4 2 4 4 8 2 6', '70 44 52 60 84 46 58 92 70 44 52 60 84 46 90 94'],
      kick: ['0', '70 40 50 88 50 40 80 42 70 40 50 88 50 40 80 42'],
    },
  ),
  kit(
    'clave-upstairs',
    'Clave upstairs',
    'Rumba clave: the third stroke held back, hands pushing against it.',
    ['0 2 0 5 0 2 0 8 0 2 2 2 2 2 0 2', '90 48 58 86 54 48 54 90 58 48 88 48 86 50 56 48'],
    {
      shaken: ['0 0 0 8 0 0 0 14 0 0 0 0 0 0 0 0', '94 40 44 92 44 40 44 96 44 40 92 40 90 42 44 40'],
      hand: ['-4 2 -3 2 -4 2 -3 4', '62 46 84 52 66 46 90 92'],
    },
  ),
  kit(
    'shell-on-the-roof',
    'Shell on the roof',
    'Cascara: the shell walks a little ahead, the low hands answer behind it.',
    ['0 2 0 2', '80 52 70 54'],
    {
      tom: ['-5 -2 -6 -3', '96 46 88 50 94 84 48 90'],
      shaken: ['-4 -2 -5 -3', '92 50 84 52 90 80 52 86'],
      hand: ['3 6 4 7', '66 46 60 86 64 46 88 90'],
    },
  ),
  kit(
    'broken-barrow',
    'Broken barrow',
    'A broken shuffle: the hats swing hard, the kick hardly, the snare between the two.',
    ['0 24 0 26', '88 46 68 50'],
    {
      kick: ['0 8 0 9', '94 54 78 58'],
      hat: ['0 34 0 36', '86 42 70 46'],
      snare: ['2 20 3 22', '92 36 60 40'],
    },
  ),
  kit(
    'lame-barrow',
    'Lame barrow',
    'A shuffle with a limp: the first pair short, the second long, the snare late in both.',
    ['0 14 2 32', '90 44 66 56'],
    {
      kick: ['-2 10 0 24', '96 50 76 62'],
      hat: ['0 18 0 38', '82 48 74 50'],
      snare: ['8 20 8 34', '92 40 58 46'],
    },
  ),
  kit(
    'five-ropes',
    'Five ropes',
    'A drag in fives: off-steps stand where the third of five would, the snare a little behind.',
    ['0 20 0 20', '88 50 70 52'],
    { snare: ['8 26 8 26', '92 38 58 42'], kick: ['0 16 0 16', '94 58 80 60'] },
  ),
  kit(
    'seven-ropes',
    'Seven ropes',
    'A drag in sevens: off-steps a seventh late, hats firm, hands slack.',
    ['0 14 0 14', '86 54 72 54'],
    {
      hat: ['0 14 0 14', '90 70 84 70'],
      hand: ['6 22 7 23', '80 46 66 56'],
      snare: ['5 17 5 17', '92 36 60 38'],
    },
  ),
  kit(
    'soft-brooms',
    'Soft brooms',
    'Brushes: the sweep early and soft, the tap of two and four broad and late.',
    ['-4 6 -2 8', '70 44 60 48'],
    {
      snare: ['-6 4 -4 6 10 6 -4 8', '54 40 50 44 84 42 50 46'],
      hat: ['0 12 0 14', '76 40 86 44'],
      kick: ['3', '62 40 52 42'],
    },
  ),
  kit(
    'brooms-at-dawn',
    'Brooms at dawn',
    'Slow brushes in triplets: the middle hardly there, the last leaning into the next beat.',
    ['0 6 -5', '74 34 58'],
    { snare: ['4 8 -4', '60 38 66'], kick: ['2 4 0', '66 30 40'], cymbal: ['0 4 -7', '86 36 70'] },
    '1/8T',
    12,
  ),
  kit(
    'behind-the-band',
    'Behind the band',
    'Second line: between straight and swung, the snare rolling ahead into two, the kick late on the and of four.',
    ['0 11 -2 13', '88 58 66 72'],
    {
      snare: ['-3 8 -5 10', '84 62 70 88'],
      kick: ['0 8 0 10 0 8 6 14', '96 44 60 82 70 46 88 90'],
      shaken: ['-2 10 -4 12', '88 50 78 56'],
    },
  ),
  kit(
    'umbrellas-out',
    'Umbrellas out',
    'Second line, later in the parade: wider, looser, the big drum dragging its feet.',
    ['2 18 0 20', '90 50 70 64'],
    {
      snare: ['0 16 -2 18', '80 66 74 86'],
      kick: ['8 20 6 24', '98 46 62 80'],
      cymbal: ['-2 14 -4 16', '90 44 82 50'],
    },
  ),
  kit(
    'dock-parade',
    'Dock parade',
    'Marching: beats exact and full, sixteenths pressed towards the next beat.',
    ['0 4 2 5', '94 60 76 64'],
    { snare: ['0 5 3 7', '100 66 82 72'], kick: ['0', '98 40 86 42'], cymbal: ['-3 2 0 2', '92 44 84 46'] },
  ),
  kit(
    'lamp-bearers',
    'Lamp bearers',
    'A slow march: every second beat heavier, the small drums a breath behind the big.',
    ['3 6 4 7', '84 56 70 58'],
    {
      kick: ['0', '88 36 60 38 100 36 60 38'],
      snare: ['7 10 8 12', '90 58 74 62 84 58 72 66'],
      shaken: ['2 6 4 8', '76 54 66 56'],
    },
  ),
  kit(
    'rain-on-the-tarps',
    'Rain on the tarps',
    'Hats and shakers patter apart: the one ahead, the other behind, the kick between.',
    ['0 3 0 3', '82 56 68 58'],
    {
      hat: ['-6 -4 -7 -4', '78 60 84 62'],
      shaken: ['7 9 6 10', '84 52 72 56'],
      kick: ['0 2 0 2', '92 58 76 60'],
    },
  ),
  kit(
    'ferry-wake',
    'Ferry wake',
    'Everything falls back through the bar and catches up on one; the toms most.',
    ['0 1 2 3 4 5 6 7 8 9 10 11 12 13 14 8', '92 50 68 52 84 50 66 54 88 50 68 52 84 52 70 62'],
    {
      tom: ['0 2 4 6 8 10 12 14 16 18 20 22 24 26 28 16', '96 54 70 58 86 56 72 60 90 56 74 60 88 62 78 70'],
      kick: ['0 0 1 1 2 2 3 3 4 4 5 5 6 6 7 3', '98 52 70 54 80 52 68 54 92 52 70 54 80 54 72 60'],
    },
  ),
];

const cycled = (text: string, slots: number): number[] => {
  const values = text.split(' ').map(Number);
  return Array.from({ length: slots }, (_, at) => values[at % values.length]! / 100);
};

const slotsOf = (slots: number, late: string, force: string) => {
  const velocities = cycled(force, slots);
  return cycled(late, slots).map((offset, at) => ({ offset, velocity: velocities[at]! }));
};

/** The templates of the library, our own. */
export const TEMPLATES: Template[] = [...WRITTEN, ...KITS].map(
  ({ id, name, about, meter, grid, slots, late, force, groups }) => ({
    id,
    name,
    about,
    meter: meter ?? { beats: 4, unit: 4 },
    grid,
    slots: slotsOf(slots, late, force),
    ...(groups && {
      groups: Object.fromEntries(
        Object.entries(groups).map(([group, [own, hard]]) => [group, slotsOf(slots, own, hard)]),
      ),
    }),
  }),
);
