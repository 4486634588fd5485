import { HINT_IDS, type HintId, ZOOMS } from '../store/look';
import { settingsRead } from '../store/settings';
import { keepAside, readSettings, writeSettings, type KeyValue } from './storage';
import { KEPT, type Settings } from '../store/settings';
import type { RootState, Store } from '../store/store';
import { words } from '../words/state';

const isBoolean = (value: unknown): boolean => typeof value === 'boolean';
const oneOf =
  (known: readonly unknown[]) =>
  (value: unknown): boolean =>
    known.includes(value);
const within =
  (least: number, most: number) =>
  (value: unknown): boolean =>
    typeof value === 'number' && value >= least && value <= most;
const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const FITS: Record<keyof Settings, (value: unknown) => boolean> = {
  zoom: oneOf(ZOOMS),
  mixOpen: isBoolean,
  glass: oneOf([1, 2, 4]),
  theme: oneOf(['system', 'night', 'day']),
  metronome: (value) =>
    isRecord(value) &&
    within(0, 1)(value['level']) &&
    [value['on'], value['accent'], value['onlyRecording']].every(isBoolean),
  switchAt: oneOf(['now', 'beat', 'end']),
  latency: within(-1000, 1000),
  hearEdits: isBoolean,
  showHands: isBoolean,
  learnFeel: isBoolean,
  machinePorts: isBoolean,
  ports: isBoolean,
  noteNames: oneOf(['none', 'c3', 'c4']),
  exportHow: (value) => value === null || isRecord(value),
  hintsDone: (value) => Array.isArray(value) && value.every((one) => HINT_IDS.includes(one as HintId)),
};

/** What is kept from one visit to the next. */
export const settingsOf = (state: Pick<RootState, keyof typeof KEPT>): Settings => {
  const of = (slice: keyof typeof KEPT) => KEPT[slice].map((key) => [key, (state[slice] as never)[key]]);
  return Object.fromEntries((Object.keys(KEPT) as (keyof typeof KEPT)[]).flatMap(of)) as Settings;
};

export const sameSettings = (a: Settings, b: Settings): boolean =>
  (Object.keys(a) as (keyof Settings)[]).every((key) => a[key] === b[key]);

/** Of what was kept, what fits; and whether there was anything else. */
export const fittingSettings = (kept: object): { settings: Partial<Settings>; junk: boolean } => {
  const entries = Object.entries(kept);
  const fits = entries.filter(
    ([key, value]) => Object.hasOwn(FITS, key) && FITS[key as keyof Settings](value),
  );
  const known = entries.filter(([key]) => Object.hasOwn(FITS, key));
  return { settings: Object.fromEntries(fits), junk: fits.length < known.length };
};

/** Brings back what was kept; junk among it is set aside. */
export const restoreSettings = async (store: Store, storage: KeyValue): Promise<void> => {
  const { kept, junk } = await readSettings(storage);
  const fitting = fittingSettings(kept);
  store.dispatch(settingsRead(fitting.settings));
  if (junk === null && !fitting.junk) return;
  await keepAside(storage, 'settings', {
    name: words.settingsThatCouldNotBe,
    reason: words.theyWereReplacedByThose,
    text: junk ?? JSON.stringify(kept),
  });
  await writeSettings(storage, settingsOf(store.getState()));
};
