import type { Player } from '../document/playersSchema';
import { modulo } from '../numbers';
import { drawOn, fold, hashText, PURPOSE } from '../random/draw';
import { normal } from '../random/normal';
import { pinkNoise } from '../random/pinkNoise';
import type { Ms } from '../units';

/**
 * Players who follow one another: each has a clock position y and is heard at x, both in ms late against the click, over the
 * sixteenths j of the timeline.
 *
 *     x_i(j) = y_i(j) + M_i * w_i(j)
 *     y_i(j+1) = y_i(j) + C_i * c_i(j) - sum over others k of L_ik * (x_i(j) - x_k(j)) - P_i * x_i(j),   y_i(0) = 0
 *
 * M is the error of the hands (white noise w), C that of the clock (1/f noise c), L how much a player follows another, P how much
 * the click: the mutual coupling of H. Hennig (PNAS 111, 2014) upon the two levels of A. Wing and A. Kristofferson (Perception &
 * Psychophysics 14, 1973).
 */

/** From a sixteenth on these players play; null where none do: their clocks begin anew after it. */
export interface BandSpan {
  /** In sixteenths. */
  from: number;
  players: readonly Player[] | null;
  seed: number;
}

/** Where the players stand at each sixteenth, worked out from the beginning as far as it is asked for, and kept. */
export interface BandRun {
  /** How late a player is heard at a sixteenth, in ms. @param player its id; one that does not play there is on the click */
  heard: (player: string, j: number) => Ms;
  /** How late the players' clocks are on the mean, in ms: what drifts with the band. */
  mean: (j: number) => Ms;
  /** The farthest that any of them has been from the click up to a sixteenth, and from their mean. */
  most: (j: number) => Ms;
  mostApart: (j: number) => Ms;
}

/** So many sixteenths are worked out at a time. */
const PIECE = 256;

interface Voice {
  id: string;
  player: Player;
  /** Its noises: of the hands and of the clock. */
  hands: (j: number) => number;
  clock: (j: number) => number;
  /** The places of those whom it follows, and how much. */
  follows: [number, number][];
}

const voicesOf = ({ players, seed }: BandSpan): Voice[] => {
  const all = players ?? [];
  return all.map((player) => {
    const key = hashText(player.id);
    const folded = fold(fold(0, seed), key);
    return {
      id: player.id,
      player,
      hands: (j) => normal(drawOn(folded, 0, j, 0, 0, PURPOSE.touch)),
      clock: pinkNoise(seed, key),
      follows: Object.entries(player.follows).flatMap(([id, share]): [number, number][] => {
        const at = all.findIndex((one) => one.id === id);
        return at < 0 || !share ? [] : [[at, share]];
      }),
    };
  });
};

/**
 * Players over a timeline. A span whose players have the ids of those before it takes their clocks over, so that a band that gets
 * looser goes on from where it is.
 *
 * @param spans in order, the first from 0
 * @example bandRun([{ from: 0, players: [], seed: 7 }]).mean(40) // 0
 */
export const bandRun = (spans: readonly BandSpan[]): BandRun => {
  const heard = new Map<string, number[]>();
  const means: number[] = [];
  const most: number[] = [];
  const apart: number[] = [];
  let at = -1;
  let voices: Voice[] = [];
  let clocks: number[] = [];
  let x = new Float64Array(0);

  const enter = (next: number): void => {
    at = next;
    const before = new Map(voices.map(({ id }, place) => [id, clocks[place]!]));
    voices = voicesOf(spans[at]!);
    clocks = voices.map(({ id }) => before.get(id) ?? 0);
    x = new Float64Array(voices.length);
    for (const { id } of voices) if (!heard.has(id)) heard.set(id, []);
  };

  const step = (j: number): void => {
    while (at + 1 < spans.length && spans[at + 1]!.from <= j) enter(at + 1);
    let [mean, far, off] = [0, 0, 0];
    for (let i = 0; i < voices.length; i++) {
      const { player, hands, id } = voices[i]!;
      x[i] = clocks[i]! + (player.touch ? player.touch * hands(j) : 0);
      heard.get(id)![j] = x[i]!;
      mean += clocks[i]! / voices.length;
      far = Math.max(far, Math.abs(x[i]!));
    }
    for (let i = 0; i < voices.length; i++) {
      off = Math.max(off, Math.abs(x[i]! - mean));
      const { player, clock, follows } = voices[i]!;
      let change = player.clock ? player.clock * clock(j) : 0;
      for (const [k, share] of follows) change -= share * (x[i]! - x[k]!);
      clocks[i]! += change - player.click * x[i]!;
    }
    means[j] = mean;
    most[j] = Math.max(most[j - 1] ?? 0, far);
    apart[j] = Math.max(apart[j - 1] ?? 0, off);
  };

  const upTo = (j: number): number => {
    const asked = Math.max(0, j);
    if (asked >= means.length) {
      const end = Math.ceil((asked + 1) / PIECE) * PIECE;
      for (let next = means.length; next < end; next++) step(next);
    }
    return asked;
  };

  return {
    heard: (player, j) => {
      const place = upTo(j);
      return heard.get(player)?.[place] ?? 0;
    },
    mean: (j) => means[upTo(j)]!,
    most: (j) => most[upTo(j)]!,
    mostApart: (j) => apart[upTo(j)]!,
  };
};

/**
 * The same that comes round: worked out for so many sixteenths, which are the same on every pass.
 *
 * @param every how many sixteenths a pass has, 1 or more
 */
export const circularRun = (run: BandRun, every: number): BandRun => ({
  heard: (player, j) => run.heard(player, modulo(j, every)),
  mean: (j) => run.mean(modulo(j, every)),
  most: () => run.most(every - 1),
  mostApart: () => run.mostApart(every - 1),
});

/** So many bands are kept: more than one beat is looked at at a time. */
const MOST_KEPT = 12;
const KEPT = new Map<string, BandRun>();

/**
 * The run of some spans that was worked out before, where it was: every edit of a beat makes it ready anew, and its players go on.
 *
 * @param every how many sixteenths a pass has; null where it runs on
 */
export const keptRun = (spans: readonly BandSpan[], every: number | null): BandRun => {
  const key = JSON.stringify([spans, every]);
  const there = KEPT.get(key);
  KEPT.delete(key);
  const made = there ?? (every === null ? bandRun(spans) : circularRun(bandRun(spans), every));
  KEPT.set(key, made);
  if (KEPT.size > MOST_KEPT) KEPT.delete(KEPT.keys().next().value!);
  return made;
};

/** Between two sixteenths a player is where a straight line leads from the one to the other. */
export const between = (at: (j: number) => Ms, sixteenths: number): Ms => {
  const j = Math.floor(sixteenths);
  const share = sixteenths - j;
  return share ? (1 - share) * at(j) + share * at(j + 1) : at(j);
};
