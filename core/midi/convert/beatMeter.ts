import { RANGES } from '../../document/ranges';
import { meterText, type Meter } from '../../document/meter';

/** A time signature of a file as a beat can have it. */
export interface BeatMeter {
  meter: Meter;
  /** A remark; null where it is the same. */
  told: string | null;
}

/** Any time signature that a file may have: the note value is a power of two. */
export interface FileMeter {
  beats: number;
  unit: number;
}

const UNITS = [2, 4, 8, 16];

const known = ({ beats, unit }: FileMeter): boolean =>
  UNITS.includes(unit) && beats >= RANGES.beats.least && beats <= RANGES.beats.most;

/**
 * The time signature that a beat has in the place of one of a file: itself; one whose bars are as long; one whose bars hold two
 * of the file's; or, where there is none of these, 4/4.
 *
 * @example beatMeter({ beats: 7, unit: 8 }) // { meter: { beats: 7, unit: 8 }, told: null }
 * @example beatMeter({ beats: 1, unit: 1 }).told // "Its 1/1 became 2/2: the bars are as long."
 * @example beatMeter({ beats: 3, unit: 32 }).meter // { beats: 3, unit: 16 }
 */
export const beatMeter = (of: FileMeter): BeatMeter => {
  if (known(of)) return { meter: of as Meter, told: null };
  const text = `${of.beats}/${of.unit}`;
  // The same length in other note values: 1/1 is 2/2, 46/16 is 23/8; then two bars as one: 3/32 becomes 3/16.
  for (const bars of [1, 2])
    for (const unit of UNITS) {
      const meter = { beats: (bars * of.beats * unit) / of.unit, unit } as Meter;
      if (Number.isInteger(meter.beats) && known(meter))
        return {
          meter,
          told: `Its ${text} became ${meterText(meter)}: ${bars === 1 ? 'the bars are as long' : 'a bar holds two of them'}.`,
        };
    }
  return {
    meter: { beats: 4, unit: 4 },
    told: `A beat has no ${text}, so those bars are drawn in 4/4; every note is where it was.`,
  };
};
