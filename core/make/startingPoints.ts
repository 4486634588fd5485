import { euclideanSlots } from './ring';
import { RING_DEFAULTS, type RingSettings } from './makers';
import { BANDS_DEFAULTS, pointsOf, type BandsSettings } from './bandParts';
import { shapedBand } from './bands';

/** Settings to begin with, by name: all of them our own. */
export type StartingPoint =
  | { id: string; name: string; maker: 'ring'; settings: RingSettings }
  | { id: string; name: string; maker: 'bands'; settings: BandsSettings };

const ring = (
  name: string,
  slots: number,
  struck: number[],
  more: Partial<RingSettings> = {},
): StartingPoint => ({
  id: name,
  name,
  maker: 'ring',
  settings: { ...RING_DEFAULTS, slots, strikes: struck.length, struck, which: 0, ...more },
});

const even = (
  name: string,
  slots: number,
  strikes: number,
  more: Partial<RingSettings> = {},
): StartingPoint => ring(name, slots, euclideanSlots(slots, strikes), { which: 1, ...more });

const bands = (name: string, more: Partial<BandsSettings>): StartingPoint => ({
  id: name,
  name,
  maker: 'bands',
  settings: { ...BANDS_DEFAULTS, ...more },
});

const band = (...args: Parameters<typeof shapedBand>) => pointsOf(shapedBand(...args));

/** Starting points. A ring whose `which` is 0 has slots of its own, wherever they stand in the list. */
export const STARTING_POINTS: readonly StartingPoint[] = [
  even('Tresillo on the rim', 8, 3),
  even('Cinquillo on the rim', 8, 5),
  even('Four lanterns', 16, 4),
  even('Five ferries', 16, 5, { every: 5, accent: 118 }),
  even('Seven oars', 16, 7, { every: 3 }),
  even('Nine nets', 16, 9, { velocity: 78, every: 4 }),
  even('Eleven gulls', 24, 11, { grid: '1/16T', velocity: 80, every: 3 }),
  even('Three against the tide', 12, 3, { own: true }),
  even('Five against the tide', 12, 5, { own: true }),
  even('Seven of twelve', 12, 7, { grid: '1/8T' }),
  even('Slow bell', 16, 3, { rotate: 2, velocity: 104 }),
  even('Quick bell', 24, 7, { grid: '1/16T', every: 7, accent: 122 }),
  even('Rolling hats', 16, 8, { doubling: 0.2, into: 2, velocity: 76, every: 4, accent: 104 }),
  even('Rattling hats', 16, 11, { doubling: 0.35, into: 3, velocity: 70, every: 3, accent: 100 }),
  ring('Sixteenths with a hole', 16, [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 13, 14, 15], {
    velocity: 74,
    every: 4,
  }),
  ring('Eighths with a stumble', 16, [0, 2, 4, 7, 8, 10, 12, 14], { every: 4 }),
  ring('Heartbeat', 16, [0, 3, 8, 11], { velocity: 104 }),
  ring('Gangway', 16, [0, 3, 6, 10, 13], { velocity: 100 }),
  ring('Two and a half steps', 10, [0, 4], { own: true, velocity: 104 }),
  ring('Limping kick', 16, [0, 7, 10], { velocity: 108 }),
  ring('Broken kick', 16, [0, 3, 10], { velocity: 110 }),
  ring('Late push', 16, [0, 6, 14], { velocity: 106 }),
  ring('Rain from the left', 16, [0, 1, 4, 5, 8, 9, 12, 13], { velocity: 66, every: 2, accent: 92 }),
  ring('Winch', 12, [0, 1, 3, 4, 6, 7, 9, 10], { grid: '1/8T', velocity: 80, every: 2, accent: 104 }),
  bands('Hats that swell', { velocity: band('rising', 40, 118, 0.2), fullness: band('flat', 1, 1, 0) }),
  bands('Hats that breathe', {
    velocity: band('waves', 46, 112, 0.15, 2),
    fullness: band('flat', 0.9, 0.9, 0),
  }),
  bands('Drizzle', {
    fullness: band('flat', 0.25, 0.25, 0),
    velocity: band('flat', 24, 70, 1),
    onBeat: -0.3,
  }),
  bands('Cloudburst', { fullness: band('rising', 0.1, 1, 0), velocity: band('rising', 40, 120, 0.25) }),
  bands('Market thins out', {
    fullness: band('falling', 0.1, 0.9, 0),
    velocity: band('falling', 50, 110, 0.2),
  }),
  bands('Ghosts between', {
    fullness: band('flat', 0.35, 0.35, 0),
    velocity: band('flat', 22, 48, 1),
    onBeat: -0.6,
  }),
  bands('On the planks', {
    fullness: band('flat', 0.4, 0.4, 0),
    velocity: band('flat', 80, 118, 1),
    onBeat: 0.8,
  }),
  bands('Stairs to the quay', {
    fullness: band('stairs', 0.2, 1, 0, 4),
    velocity: band('stairs', 50, 116, 0.1, 4),
  }),
  bands('Log drum figure', {
    fullness: band('arch', 0.3, 0.7, 0),
    velocity: band('flat', 70, 112, 1),
    pitch: band('waves', 41, 65, 0.3, 1),
    heldOver: 0.25,
    onBeat: 0.3,
  }),
  bands('Kalimba rain', {
    fullness: band('flat', 0.45, 0.45, 0),
    velocity: band('flat', 50, 100, 1),
    pitch: band('walk', 60, 84, 0.3),
    scale: 'A minor pentatonic',
    onBeat: 0,
  }),
];
