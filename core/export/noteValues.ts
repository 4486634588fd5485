import { isCompound, type Meter } from '../document/meter';
import { QUARTER } from '../units';
import type { WrittenBeat, WrittenHit } from './written';

/** How the divisions of a beat are written: which notes and rests, dotted or in tuplets, and how long they are. */

/** Parts of a quarter note: what every division of every beat is a whole number of. */
export const DIVISIONS = 480;
/** The types of written notes, from the longest, as MusicXML calls them. */
export const TYPES = [
  'whole',
  'half',
  'quarter',
  'eighth',
  '16th',
  '32nd',
  '64th',
  '128th',
  '256th',
] as const;

/** How a number of parts of a beat is written. */
interface Shape {
  /** Which of the types. */
  type: number;
  dots: 0 | 1;
  parts: number;
}

/** The value of one part of a divided beat, and how many stand in the time of how many. */
interface Division {
  unit: { type: number; dots: 0 | 1 };
  tuplet: { actual: number; normal: number } | null;
}

/** The type of a beat's written unit: a quarter in 4/4, an eighth in 7/8. */
const typeOf = (meter: Meter): number => Math.round(Math.log2(meter.unit));

/** So many in the time of so many, by the parts of a beat: of a plain beat, and of one of three. */
const SIMPLE_TUPLETS: Record<number, { actual: number; normal: number } | undefined> = {
  3: { actual: 3, normal: 2 },
  5: { actual: 5, normal: 4 },
  6: { actual: 6, normal: 4 },
  12: { actual: 12, normal: 8 },
  20: { actual: 20, normal: 16 },
  24: { actual: 24, normal: 16 },
};
const COMPOUND_TUPLETS: typeof SIMPLE_TUPLETS = {
  9: { actual: 9, normal: 6 },
  15: { actual: 15, normal: 12 },
  18: { actual: 18, normal: 12 },
};

const tupletOf = (type: number, tuplet: { actual: number; normal: number }): Division => ({
  unit: { type, dots: 0 },
  tuplet,
});

const divisionOf = (meter: Meter, parts: number): Division => {
  const plain = (type: number, dots: 0 | 1 = 0): Division => ({ unit: { type, dots }, tuplet: null });
  if (isCompound(meter)) {
    if (parts === 1) return plain(2, 1);
    if (parts === 2 || parts === 4) return plain(2 + Math.log2(parts), 1);
    const uneven = COMPOUND_TUPLETS[parts];
    if (uneven) return tupletOf(3 + Math.log2(uneven.normal / 3), uneven);
    return plain(3 + Math.log2(parts / 3));
  }
  const beat = typeOf(meter);
  const uneven = SIMPLE_TUPLETS[parts];
  if (uneven) return tupletOf(beat + Math.log2(uneven.normal), uneven);
  return plain(beat + Math.log2(parts));
};

/** The longest that can be written as one note or rest, not longer than asked for. */
const shapeOf = ({ unit }: Division, parts: number): Shape => {
  const whole = Math.floor(Math.log2(parts));
  const dotted = unit.dots === 0 && parts >= 3 ? Math.floor(Math.log2(parts / 3)) : -1;
  const plain = 2 ** whole;
  const long = dotted >= 0 ? 3 * 2 ** dotted : 0;
  if (long > plain) return { type: unit.type - dotted - 1, dots: 1, parts: long };
  return { type: unit.type - whole, dots: unit.dots, parts: plain };
};

/** One note, chord or rest of a voice. */
export interface Sung {
  shape: Shape;
  hits: WrittenHit[];
  beat: WrittenBeat;
  division: Division;
}

const restsFor = (beat: WrittenBeat, division: Division, parts: number): Sung[] => {
  const out: Sung[] = [];
  for (let left = parts; left > 0;) {
    const shape = shapeOf(division, left);
    out.push({ shape, hits: [], beat, division });
    left -= shape.parts;
  }
  return out;
};

/** The notes and rests of one voice in a beat: each note until the next, rests where nothing is. */
export const sungBeat = (meter: Meter, beat: WrittenBeat): Sung[] => {
  const { onsets, parts } = beat;
  const division = divisionOf(meter, parts);
  if (!onsets.length) return restsFor(beat, division, parts);
  const out = restsFor(beat, division, onsets[0]!.at);
  onsets.forEach(({ at, hits }, index) => {
    const until = onsets[index + 1]?.at ?? parts;
    const shape = shapeOf(division, until - at);
    out.push({ shape, hits, beat, division }, ...restsFor(beat, division, until - at - shape.parts));
  });
  return out;
};

/** Into how many parts the beat is divided for a note: less finely than for another where that one needs it. */
const partsOf = (beat: WrittenBeat, { unit, tuplet }: Division): number =>
  tuplet?.actual ?? Math.round(beat.length / (2 ** (2 - unit.type) * (unit.dots ? 1.5 : 1) * QUARTER));

/** How long a note, chord or rest is, in divisions. */
export const durationOf = ({ shape, beat, division }: Sung): number =>
  Math.round((shape.parts * beat.length * DIVISIONS) / QUARTER / partsOf(beat, division));

/** How many flags a written note has: an eighth one, a sixteenth two. */
export const flags = ({ shape }: Sung): number => Math.max(0, shape.type - 2);
