import type { Beat, Place, Section } from '../../../core/document/schema';
import { count } from '../../../core/document/text';
import {
  entryBars,
  entryPattern,
  sectionBars,
  sectionTicks,
  type Timeline,
} from '../../../core/play/timeline';
import { secondsAt } from '../../../core/play/tempoMap';
import { timeWords } from '../../../core/play/time';
import { words } from '../../words/song';

/** What a section plays, in words. @example "A ×2, B 4 bars" */
export const playsWords = (beat: Beat, { entries }: Section): string =>
  entries
    .map((entry) => {
      const { name } = entryPattern(beat, entry);
      const gone = entry.gone ? ' (deleted)' : '';
      if (entry.bars) return `${name}${gone}, ${count(entry.bars, 'bar')}`;
      return entry.times > 1 ? `${name}${gone} × ${entry.times}` : `${name}${gone}`;
    })
    .join('; ') || words.nothingYet;

/** How long a place is: bars, and minutes and seconds. */
export const lengthWords = (beat: Beat, section: Section, place: Place, layout: Timeline): string => {
  const bars = sectionBars(beat, section) * place.times;
  const spans = layout.spans.filter((span) => span.place?.id === place.id);
  const first = spans[0];
  if (!first) return count(bars, 'bar');
  const end = first.from + sectionTicks(beat, section) * place.times;
  const seconds = secondsAt(layout.tempos, end) - secondsAt(layout.tempos, first.from);
  return `${count(bars, 'bar')}, ${timeWords(seconds)}`;
};

export const entryWords = (beat: Beat, entry: Section['entries'][number]): string =>
  count(entryBars(beat, entry), 'bar');
