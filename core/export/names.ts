import { namedIn } from '../namedIn';
import { fileName } from '../document/text';
import { meterText, type Meter } from '../document/meter';
import type { Bpm } from '../units';

/** The placeholders of a file's name. */
export interface NameParts {
  beat: string;
  section: string;
  /** '' where a file holds them all. */
  lane: string;
  bpm: Bpm;
  meter: Meter;
  bars: number;
  /** Null where there is only one. */
  number: number | null;
}

export const TOKENS = ['beat', 'section', 'lane', 'bpm', 'meter', 'bars', 'n'] as const;

const two = (n: number): string => String(n).padStart(2, '0');

/**
 * A name from a pattern. What is known by a word in braces is filled in; a word that is not known stays as it is written.
 * A pattern without `{lane}` gets it at its end where each lane has a file, and without `{n}` or `{section}` a number.
 *
 * @returns without the ending
 * @example
 * namedBy('{beat}-{bpm}', { beat: 'Rain', section: '', lane: '', bpm: 92.5, meter: { beats: 4, unit: 4 }, bars: 1, number: null })
 * // "Rain-92.5"
 */
export const namedBy = (pattern: string, parts: NameParts): string => {
  const values: Record<string, string> = {
    beat: parts.beat,
    section: parts.section,
    pattern: parts.section,
    lane: parts.lane,
    bpm: String(Math.round(parts.bpm * 100) / 100),
    meter: meterText(parts.meter).replace('/', '_'),
    bars: String(parts.bars),
    n: parts.number === null ? '' : two(parts.number),
  };
  let text = pattern.trim() || '{beat}-{section}';
  if (parts.lane && !text.includes('{lane}')) text += '-{lane}';
  if (parts.number !== null && !text.includes('{n}') && !text.includes('{section}')) text += '-{n}';
  const filled = text.replace(/\{(\w+)\}/g, (all, word: string) => namedIn(values, word) ?? all);
  return fileName(filled.replace(/[{}]/g, '')).slice(0, 120);
};

/** Names that are all different: what comes again gets a number. @example unlike(['a', 'a']) // ["a", "a-2"] */
export const unlike = (names: string[]): string[] => {
  const used = new Set<string>();
  return names.map((name) => {
    let now = name;
    for (let n = 2; used.has(now.toLowerCase()); n++) now = `${name}-${n}`;
    used.add(now.toLowerCase());
    return now;
  });
};
