import type { Read } from '../../core/document/file';
import type { FeelReport } from '../../core/analysis/measure';
import { createCaller } from './caller';
import type { PlayedFeel } from '../../core/analysis/playedFeel';
import type { playedOf, reportOf, ReportSource } from './reportOf';
import { words } from '../words/workers';

/** A file of some hours of notes takes some seconds to measure. */
const MOST_MS = 60_000;

const call = createCaller<{ reportOf: typeof reportOf; playedOf: typeof playedOf }>(
  () => new Worker(new URL('./reportWorker', window.location.href)),
  MOST_MS,
);

/** The feel report of a pattern, a file or a template, measured beside the page; a sentence where there is none. */
export const askReport = async (source: ReportSource): Promise<Read<FeelReport>> => {
  const answer = await call((far) => far.reportOf(source) as Promise<Read<FeelReport>>);
  return answer.ok ? answer.value : { ok: false, error: words.itCouldNotBeMeasured };
};

/** How a pattern, a file or a groove is played, as a feel to play by; a sentence where that cannot be told. */
export const askPlayed = async (name: string, source: ReportSource): Promise<Read<PlayedFeel>> => {
  const answer = await call((far) => far.playedOf(name, source) as Promise<Read<PlayedFeel>>);
  return answer.ok ? answer.value : { ok: false, error: words.itCouldNotBeMeasured };
};
