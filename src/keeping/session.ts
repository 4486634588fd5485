import { afterPaint } from '../web/afterPaint';
import { inBrowser } from '../web/inBrowser';
import { DEMO_BEATS } from '../../demo/beats';
import { tellAlongside } from './alongside';
import { browserJournal } from './journal';
import { createKillSafe, notKillSafe } from './killSafe';
import { createPersistence } from './persistence';
import { loadEdits } from '../store/deferredEdits';
import { readBeside } from './readingAside';
import { browserLife } from './recover';
import { browserStorage } from './storage';
import { createStore } from '../store/store';
import { browserTabs } from './tabs';

/** The one store of the page, and who keeps its beats. */
export const store = createStore();

let screenIsReady: () => void = () => undefined;
const screenReady = new Promise<void>((resolve) => (screenIsReady = resolve));
/** Told once by the frame when it stands. */
export const tellScreenReady = (): void => screenIsReady();

/** What reads beats that are kept: fetched when the first one is there to be read. */
const formats = () => import('../../core/formats');

/** What is written is read back beside the page; on the page itself where no worker comes. */
const readBack = async (text: string): Promise<string | null | undefined> => {
  try {
    const read = (await readBeside(text)) ?? (await formats()).readBeat(text);
    return read.ok ? null : read.error;
  } catch {
    return undefined;
  }
};

export const persistence = createPersistence({
  store,
  storage: browserStorage(),
  journal: browserJournal(inBrowser ? createKillSafe('ruddik-edits') : notKillSafe),
  life: browserLife(),
  loadEdits,
  soon: afterPaint,
  isFull,
  tabs: inBrowser ? browserTabs() : { say: () => undefined, listen: () => undefined },
  demos: DEMO_BEATS,
  fileFormat: formats,
  readBack,
  now: Date.now,
  seed: () => crypto.getRandomValues(new Uint32Array(1))[0]!,
  screenReady,
});

/** The browser's word on its room: below this share of it nothing more is taken in. */
const FULL_AT = 0.98;
async function isFull(): Promise<boolean | null> {
  const { usage, quota } = (await navigator.storage?.estimate?.().catch(() => null)) ?? {};
  return usage === undefined || !quota ? null : usage / quota > FULL_AT;
}

let booting: Promise<void> | null = null;

/** Loads what the app comes back to; begun once, as early as the page can. */
export const boot = (): Promise<void> => (booting ??= persistence.boot());

if (inBrowser) {
  tellAlongside(store);
  void boot();
}
