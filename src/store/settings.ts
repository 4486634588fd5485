import { createAction } from '@reduxjs/toolkit';
import type { ExportingState } from './exporting';
import type { InputState } from './input';
import type { LookState } from './look';
import type { TransportState } from './transport';

/** What is kept from one visit to the next, by the slice that it belongs to. */
export const KEPT = {
  look: ['zoom', 'mixOpen', 'glass', 'theme', 'showHands', 'noteNames', 'hintsDone'],
  transport: ['metronome', 'switchAt', 'latency'],
  input: ['hearEdits', 'learnFeel', 'machinePorts', 'ports'],
  exporting: ['exportHow'],
} as const satisfies {
  look: readonly (keyof LookState)[];
  transport: readonly (keyof TransportState)[];
  input: readonly (keyof InputState)[];
  exporting: readonly (keyof ExportingState)[];
};

export type Settings = Pick<LookState, (typeof KEPT.look)[number]> &
  Pick<TransportState, (typeof KEPT.transport)[number]> &
  Pick<InputState, (typeof KEPT.input)[number]> &
  Pick<ExportingState, (typeof KEPT.exporting)[number]>;

/** Settings of another visit were read: each slice takes those that are its own. */
export const settingsRead = createAction<Partial<Settings>>('settings/read');

/** Of settings that were read, those of one slice. */
export const ownSettings = <Slice extends keyof typeof KEPT>(
  slice: Slice,
  all: Partial<Settings>,
): Partial<Pick<Settings, (typeof KEPT)[Slice][number]>> => {
  const keys: readonly string[] = KEPT[slice];
  return Object.fromEntries(Object.entries(all).filter(([key]) => keys.includes(key))) as Partial<Settings>;
};
