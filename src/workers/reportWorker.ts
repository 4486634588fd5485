import type { Read } from '../../core/document/file';
import type { FeelReport } from '../../core/analysis/measure';
import { reportOf, type ReportSource } from './reportOf';

export type ReportAsked = { id: number; source: ReportSource };
export type ReportGiven = { id: number; report: Read<FeelReport> };

onmessage = ({ data }: MessageEvent<ReportAsked>) =>
  postMessage({ id: data.id, report: reportOf(data.source) } satisfies ReportGiven);
