import { meterText } from '../../../core/document/meter';
import { keeperWords } from '../../../core/groove/catalogue';
import { feelWords, type GrooveRow } from '../../../core/groove/groove';

const rounded = (bpm: number): string => String(Math.round(bpm * 10) / 10);

export const barsWords = (bars: number): string => `${bars} ${bars === 1 ? 'bar' : 'bars'}`;

/** What there is to say of a groove in one line; in a narrow row what keeps time is left out, for which there is no room. */
export const aboutRow = (row: GrooveRow, narrow = false): string =>
  [
    row.style,
    feelWords(row.feel),
    [...new Set([row.meter, ...(row.meters ?? []).map(({ meter }) => meter)].map(meterText))].join(', '),
    `${rounded(row.bpm)} BPM`,
    barsWords(row.bars),
    !narrow && row.timekeeper && keeperWords(row),
  ]
    .filter(Boolean)
    .join(' · ');
