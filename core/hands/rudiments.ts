import type { Hand } from '../document/choices';
import type { Grid } from '../document/grid';

/** The forty rudiments that drummers practise, each with its sticking, accents, grace strokes and rolls. */

/** One stroke of a rudiment. */
export interface RudimentStroke {
  /** In steps of the rudiment's grid. */
  at: number;
  hand: Hand;
  accent: boolean;
  /** How many grace strokes come before it, by the other hand: one of a flam, two of a drag. */
  graces: 0 | 1 | 2;
  /** It is pressed: it rings on as many small bounces. */
  buzz: boolean;
}

export interface Rudiment {
  id: string;
  name: string;
  family: 'rolls' | 'diddles' | 'flams' | 'drags';
  grid: Grid;
  /** Steps of the grid that one time through takes. */
  steps: number;
  strokes: RudimentStroke[];
}

/**
 * One step of the grid a word: a hand, two or three strokes of it in one step, `l` or `r` before it a grace stroke of that hand,
 * `>` after it an accent, `z` a press; `.` is a rest.
 */
const WORD = /^(z?)([lr]*)([LR]+)(>?)$/;

const strokesOf = (text: string): RudimentStroke[] =>
  text.split(' ').flatMap((word, step) => {
    if (word === '.') return [];
    const [, buzz, graces, hands, accent] = WORD.exec(word)!;
    return [...hands!].map((hand, at): RudimentStroke => ({
      at: step + at / hands!.length,
      hand: hand as Hand,
      accent: !!accent && at === 0,
      graces: at === 0 ? (Math.min(2, graces!.length) as 0 | 1 | 2) : 0,
      buzz: !!buzz,
    }));
  });

const swapped = (text: string): string =>
  text.replace(/[LRlr]/g, (letter) => ({ L: 'R', R: 'L', l: 'r', r: 'l' })[letter]!);

type Row = [name: string, family: Rudiment['family'], grid: Grid, text: string, both?: true];

/** `both`: the same with the hands exchanged follows. */
const ROWS: Row[] = [
  ['Single stroke roll', 'rolls', '1/16', 'R L R L R L R L'],
  ['Single stroke four', 'rolls', '1/16T', 'R L R L . .', true],
  ['Single stroke seven', 'rolls', '1/16T', 'R L R L R L R . . . . .', true],
  ['Multiple bounce roll', 'rolls', '1/8', 'zR zL zR zL'],
  ['Triple stroke roll', 'rolls', '1/16T', 'R R R L L L'],
  ['Double stroke roll', 'rolls', '1/16', 'R R L L R R L L'],
  ['Five stroke roll', 'rolls', '1/16', 'RR LL R> .', true],
  ['Six stroke roll', 'rolls', '1/16', 'R> LL RR L>'],
  ['Seven stroke roll', 'rolls', '1/16', 'RR LL RR L>'],
  ['Nine stroke roll', 'rolls', '1/16', 'RR LL RR LL R> . . .', true],
  ['Ten stroke roll', 'rolls', '1/16', 'RR LL RR LL R> L> . .'],
  ['Eleven stroke roll', 'rolls', '1/16', 'RR LL RR LL RR L> . .'],
  ['Thirteen stroke roll', 'rolls', '1/16', 'RR LL RR LL RR LL R> .', true],
  ['Fifteen stroke roll', 'rolls', '1/16', 'RR LL RR LL RR LL RR L>'],
  ['Seventeen stroke roll', 'rolls', '1/16', 'RR LL RR LL RR LL RR LL R> . . .', true],
  ['Single paradiddle', 'diddles', '1/16', 'R> L R R', true],
  ['Double paradiddle', 'diddles', '1/16', 'R> L R L R R', true],
  ['Triple paradiddle', 'diddles', '1/16', 'R> L R L R L R R', true],
  ['Paradiddle-diddle', 'diddles', '1/16T', 'R> L R R L L'],
  ['Flam', 'flams', '1/8', 'lR', true],
  ['Flam accent', 'flams', '1/8T', 'lR> L R', true],
  ['Flam tap', 'flams', '1/16', 'lR> R', true],
  ['Flamacue', 'flams', '1/16', 'lR L> R L lR . . .', true],
  ['Flam paradiddle', 'flams', '1/16', 'lR> L R R', true],
  ['Flammed mill', 'flams', '1/16', 'lR> R L R', true],
  ['Flam paradiddle-diddle', 'flams', '1/16T', 'lR> L R R L L', true],
  ['Pataflafla', 'flams', '1/16', 'lR> L R rL> lR> L R rL>'],
  ['Swiss triplet', 'flams', '1/8T', 'lR> R L lR> R L'],
  ['Inverted flam tap', 'flams', '1/16', 'lR> L rL> R'],
  ['Flam drag', 'flams', '1/8T', 'lR> LL R', true],
  ['Drag', 'drags', '1/8', 'llR', true],
  ['Single drag tap', 'drags', '1/8', 'llR L>', true],
  ['Double drag tap', 'drags', '1/8T', 'llR llR L>', true],
  ['Lesson 25', 'drags', '1/16', 'llR L R> .'],
  ['Single dragadiddle', 'drags', '1/16', 'RR> L R R', true],
  ['Drag paradiddle 1', 'drags', '1/8T', 'R> llR L R R .', true],
  ['Drag paradiddle 2', 'drags', '1/16', 'R> . llR . llR L R R', true],
  ['Single ratamacue', 'drags', '1/16T', 'llR L R L> . .', true],
  ['Double ratamacue', 'drags', '1/16T', 'llR . . llR L R L> . .', true],
  ['Triple ratamacue', 'drags', '1/16T', 'llR . . llR . . llR L R L> . .', true],
];

export const RUDIMENTS: readonly Rudiment[] = ROWS.map(([name, family, grid, text, both]) => {
  const whole = both ? `${text} ${swapped(text)}` : text;
  return {
    id: name.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
    name,
    family,
    grid,
    steps: whole.split(' ').length,
    strokes: strokesOf(whole),
  };
});
