import type { Beat, Entry, Place, Section, Song } from '../document/schema';
import { newEntry } from './song';
import { colourOf } from '../document/sectionNames';

/** One section of a form. `from` is which of the patterns at hand it plays: the first, second, third, or the last. */
interface FormSection {
  name: string;
  from: number;
  bars: number;
  /** The last bar is a fill made of the last pattern at hand. */
  fill?: boolean;
  change?: Section['change'];
  level?: number;
}

/** How a song is built, to be filled from the tray. */
export interface Form {
  id: string;
  name: string;
  about: string;
  sections: FormSection[];
  /** Which of them play, in order. */
  order: number[];
}

export const FORMS: Form[] = [
  {
    id: 'verse-chorus',
    name: 'Verse and chorus',
    about: 'Intro, two verses and choruses, a bridge, the chorus twice and an outro: 76 bars',
    sections: [
      { name: 'Intro', from: 0, bars: 4, level: 0.8 },
      { name: 'Verse', from: 0, bars: 16, fill: true },
      { name: 'Chorus', from: 1, bars: 8, fill: true },
      { name: 'Bridge', from: 2, bars: 8, level: 0.85 },
      { name: 'Outro', from: 0, bars: 8, change: { level: 0.4 } },
    ],
    order: [0, 1, 2, 1, 2, 3, 2, 4],
  },
  {
    id: 'build-drop',
    name: 'Build and drop',
    about: 'Starts sparse, rises into each drop, a break between: 80 bars',
    sections: [
      { name: 'Intro', from: 0, bars: 16, level: 0.75 },
      { name: 'Build', from: 1, bars: 8, level: 0.7, change: { level: 1.2 }, fill: true },
      { name: 'Drop', from: 2, bars: 16 },
      { name: 'Break', from: 0, bars: 8, level: 0.6 },
      { name: 'Outro', from: 0, bars: 8, change: { level: 0.4 } },
    ],
    order: [0, 1, 2, 3, 1, 2, 4],
  },
  {
    id: 'turns',
    name: '16-bar loop',
    about: 'Sixteen bars with a turn every fourth',
    sections: [{ name: 'Four bars', from: 0, bars: 4, fill: true }],
    order: [0, 0, 0, 0],
  },
];

const FULL_BARS = 64;

/** An entry of so many bars of a pattern. */
const entryOf = (id: string, patternId: string, bars: number): Entry => ({
  ...newEntry(id, patternId),
  bars: Math.min(FULL_BARS, bars),
});

/**
 * The patterns at hand: those of the tray in their order, or the beat's where it is empty.
 *
 * @example atHand(beat) // ["a"]
 */
export const atHand = (beat: Beat): string[] => {
  const known = new Set(beat.patterns.map(({ id }) => id));
  const tray = beat.tray.map(({ patternId }) => patternId).filter((id) => known.has(id));
  return tray.length ? [...new Set(tray)] : beat.patterns.map(({ id }) => id);
};

/**
 * A song of a form, filled with the patterns at hand. Where there are fewer than it asks for, the last one steps in;
 * what is over is its fill, where there are at least two.
 *
 * @param newId gives ids that are not in use
 */
export const songOf = (beat: Beat, form: Form, newId: () => string): Song => {
  const patterns = atHand(beat);
  const fill = patterns.length > 1 ? patterns[patterns.length - 1]! : null;
  const main = patterns.length > 2 ? patterns.slice(0, -1) : patterns;
  const sections = form.sections.map((one): Section => ({
    id: newId(),
    name: one.name,
    pigment: colourOf(one.name === 'Drop' ? 'Chorus' : one.name),
    entries: [entryOf(newId(), main[Math.min(one.from, main.length - 1)]!, one.bars)],
    silent: [],
    ...(one.fill && fill && { fill: { patternId: fill, over: 'bar' as const } }),
    ...(one.level !== undefined && { level: one.level }),
    ...(one.change && { change: one.change }),
  }));
  const order = form.order.map((at): Place => ({ id: newId(), sectionId: sections[at]!.id, times: 1 }));
  return { sections, order };
};
