import { namedIn } from '../../core/namedIn';
import type { Device } from './port';

/** What goes over the cable. */
export type CableWord =
  | { type: 'who' }
  | { type: 'here'; id: string; name: string; device: Device }
  | { type: 'gone'; id: string }
  /** To a stand-in, by its id, or from it to the app. */
  | { type: 'midi'; id: string; to: 'app' | 'device'; bytes: number[]; time: number }
  /** All that the stand-in was given for later is taken back. */
  | { type: 'clear'; id: string };

type Given = Record<string, unknown>;

const DEVICES: readonly unknown[] = ['grid', 'host', 'module'] satisfies Device[];
/** Longer names and messages nobody sends: lights of a whole grid take 5 kB. */
const MOST_NAME = 80;
const MOST_BYTES = 65_536;

const isName = (value: unknown): value is string =>
  typeof value === 'string' && value.trim() !== '' && value.length <= MOST_NAME;
const isByte = (value: unknown): boolean =>
  typeof value === 'number' && Number.isInteger(value) && value >= 0 && value <= 255;
const isBytes = (value: unknown): boolean =>
  Array.isArray(value) && value.length <= MOST_BYTES && value.every(isByte);

const FITS: Record<CableWord['type'], (word: Given) => boolean> = {
  who: () => true,
  here: ({ id, name, device }) => isName(id) && isName(name) && DEVICES.includes(device),
  gone: ({ id }) => isName(id),
  midi: ({ id, to, bytes, time }) =>
    isName(id) && (to === 'app' || to === 'device') && isBytes(bytes) && Number.isFinite(time),
  clear: ({ id }) => isName(id),
};

/**
 * Whether what came over the cable is a word of it: anything of the same address may say anything on its channel.
 *
 * @example isCableWord({ type: 'gone', id: 'a' }) // true
 */
export const isCableWord = (word: unknown): word is CableWord => {
  if (typeof word !== 'object' || word === null) return false;
  const { type } = word as { type?: unknown };
  return typeof type === 'string' && (namedIn(FITS, type)?.(word as Given) ?? false);
};
