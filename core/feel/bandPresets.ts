import type { DrumGroup } from '../document/choices';
import { drumGroupOf } from '../document/drumGroups';
import type { Band, Player } from '../document/playersSchema';
import type { Lane } from '../document/schema';

/** Bands to begin with, from tight to loose. */

/** How one player plays. */
interface Hand {
  clock: number;
  touch: number;
  click: number;
}

/** A band to begin with: how its first player plays and how the others do, and who goes by whom. */
export interface BandPreset {
  id: string;
  name: string;
  /** Its description. */
  about: string;
  leader: Hand;
  others: Hand;
  /** How much of their attention the others give to the first player, and how much the first gives to them together. */
  after: number;
  back: number;
  /** How much the others give to one another, together. */
  among: number;
}

export const BAND_PRESETS: readonly BandPreset[] = [
  {
    id: 'click',
    name: 'On the click',
    about: 'Everyone goes by the click and hardly errs: a rehearsed band with the click in its ears.',
    leader: { clock: 0.3, touch: 1, click: 0.6 },
    others: { clock: 0.3, touch: 1.2, click: 0.5 },
    after: 0.2,
    back: 0,
    among: 0,
  },
  {
    id: 'one',
    name: 'Like one player',
    about:
      'All go by one another at once: what one does the others have done, and the whole breathes a little.',
    leader: { clock: 0.4, touch: 1.2, click: 0.05 },
    others: { clock: 0.4, touch: 1.2, click: 0.05 },
    after: 0.4,
    back: 0.4,
    among: 0.3,
  },
  {
    id: 'leads',
    name: 'The drum leads',
    about: 'The first player keeps the time, the others follow it and err a little.',
    leader: { clock: 0.5, touch: 1.8, click: 0.1 },
    others: { clock: 0.5, touch: 2.6, click: 0 },
    after: 0.35,
    back: 0,
    among: 0,
  },
  {
    id: 'ease',
    name: 'At ease',
    about:
      'They know one another: each listens to all, nobody to the click; together they drift as a good band does.',
    leader: { clock: 0.7, touch: 2.4, click: 0.02 },
    others: { clock: 0.7, touch: 3, click: 0.02 },
    after: 0.2,
    back: 0.1,
    among: 0.15,
  },
  {
    id: 'shaker',
    name: 'The shaker wanders',
    about: 'The first stays by the click; the others follow from afar and are late to notice.',
    leader: { clock: 0.5, touch: 2, click: 0.15 },
    others: { clock: 1, touch: 4, click: 0 },
    after: 0.12,
    back: 0,
    among: 0.04,
  },
  {
    id: 'street',
    name: 'Down the street',
    about: 'Many hands out of doors: broad, uneven strokes, held together by going by one another.',
    leader: { clock: 1, touch: 4, click: 0 },
    others: { clock: 1.2, touch: 6, click: 0 },
    after: 0.15,
    back: 0.1,
    among: 0.25,
  },
  {
    id: 'late',
    name: 'Last set of the night',
    about: 'Tired and warm: the time goes where it likes, and nobody minds.',
    leader: { clock: 1.4, touch: 5, click: 0 },
    others: { clock: 1.6, touch: 7, click: 0 },
    after: 0.12,
    back: 0.05,
    among: 0.05,
  },
  {
    id: 'strangers',
    name: 'Strangers',
    about:
      'Good players who have never met: steady hands, but each has a time of its own and hears the others little.',
    leader: { clock: 1.6, touch: 2, click: 0.03 },
    others: { clock: 1.6, touch: 2.5, click: 0.03 },
    after: 0.03,
    back: 0.03,
    among: 0,
  },
  {
    id: 'apart',
    name: 'Falling apart',
    about: 'Loose hands, loose clocks, and hardly anyone listens: every bar is a near miss.',
    leader: { clock: 2.6, touch: 9, click: 0.01 },
    others: { clock: 3.2, touch: 12, click: 0 },
    after: 0.05,
    back: 0,
    among: 0.02,
  },
];

/** Which groups of drums one player has: what one pair of hands, or one foot, would have. */
const PARTS: { id: string; name: string; groups: readonly DrumGroup[] }[] = [
  { id: 'kick', name: 'Kick', groups: ['kick'] },
  { id: 'snare', name: 'Snare', groups: ['snare'] },
  { id: 'hats', name: 'Hats', groups: ['hat', 'cymbal'] },
  { id: 'toms', name: 'Toms', groups: ['tom'] },
  { id: 'hands', name: 'Hand drums', groups: ['hand'] },
  { id: 'shaken', name: 'Shaken', groups: ['shaken'] },
];

/** Cut to three places: no figure needs more. */
const round = (value: number): number => Math.round(value * 1000) / 1000;

/** The settings of each player of a preset. */
const followed = ({ after, back, among }: BandPreset, ids: string[], at: number): Record<string, number> => {
  const others = ids.filter((_, other) => other !== at);
  if (!others.length) return {};
  const shareOf = (id: string): number => {
    if (at === 0) return back / others.length;
    if (id === ids[0]) return after;
    return among / (others.length - 1);
  };
  return Object.fromEntries(
    others.flatMap((id): [string, number][] => (shareOf(id) > 0 ? [[id, round(shareOf(id))]] : [])),
  );
};

/**
 * The players that the lanes of a beat ask for, playing as a preset has it: one for each kind of drum that is there.
 *
 * @example bandFor([], BAND_PRESETS[0]!).players.length // 1
 */
export const bandFor = (lanes: readonly Pick<Lane, 'id' | 'instrument'>[], preset: BandPreset): Band => {
  const parts = PARTS.map(({ id, name, groups }) => ({
    id,
    name,
    lanes: lanes.filter(({ instrument }) => groups.includes(drumGroupOf(instrument))).map((lane) => lane.id),
  })).filter((part) => part.lanes.length);
  return {
    on: true,
    tempo: false,
    players: playedAs(parts.length ? parts : [{ id: 'kick', name: 'Kick', lanes: [] }], preset),
  };
};

/**
 * Players with the lanes that they have, playing as a preset has it.
 *
 * @example playedAs([{ id: 'a', name: 'Kick', lanes: [] }], BAND_PRESETS[0]!)[0]!.touch // 1
 */
export const playedAs = (
  players: readonly Pick<Player, 'id' | 'name' | 'lanes'>[],
  preset: BandPreset,
): Player[] => {
  const ids = players.map(({ id }) => id);
  return players.map(({ id, name, lanes }, at) => ({
    id,
    name,
    lanes,
    ...(at ? preset.others : preset.leader),
    follows: followed(preset, ids, at),
  }));
};

/**
 * How much attention a player has left: 1 less all that it goes by, the click included.
 *
 * @example attentionLeft({ click: 0.25, follows: { a: 0.5 } }) // 0.25
 */
export const attentionLeft = ({ click, follows }: Pick<Player, 'click' | 'follows'>): number =>
  1 - Object.values(follows).reduce((sum, share) => sum + share, click);
