import type { Grid } from '../document/grid';
import type { Meter } from '../document/meter';
import type { TemplateWritten } from './templateWritten';

/** Curves of a kit: what goes otherwise by group, on sixteenths where nothing else is said. */
const kit = (
  id: string,
  name: string,
  about: string,
  [late, force]: readonly [string, string],
  groups: NonNullable<TemplateWritten['groups']>,
  grid: Grid = '1/16',
  slots = 16,
  meter?: Meter,
): TemplateWritten => ({ id, name, about, grid, slots, late, force, groups, ...(meter && { meter }) });

/** Those with a curve for each group of drums: what a kit does that no single line can tell. */
export const TEMPLATE_KITS: readonly TemplateWritten[] = [
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
