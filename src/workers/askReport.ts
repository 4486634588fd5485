import type { Read } from '../../core/document/file';
import type { FeelReport } from '../../core/analysis/measure';
import type { ReportSource } from './reportOf';
import type { ReportAsked, ReportGiven } from './reportWorker';

/** Measuring a long file takes its time; a worker takes it, and the page goes on. */
let worker: Worker | null = null;
let last = 0;
const waiting = new Map<number, (report: Read<FeelReport>) => void>();

const ready = (): Worker => {
  if (worker) return worker;
  worker = new Worker(new URL('./reportWorker', window.location.href));
  worker.onmessage = ({ data }: MessageEvent<ReportGiven>) => {
    waiting.get(data.id)?.(data.report);
    waiting.delete(data.id);
  };
  return worker;
};

/** The feel report of a pattern, a file or a template; a sentence where there is none. */
export const askReport = (source: ReportSource): Promise<Read<FeelReport>> =>
  new Promise((resolve) => {
    last += 1;
    waiting.set(last, resolve);
    ready().postMessage({ id: last, source } satisfies ReportAsked);
  });
