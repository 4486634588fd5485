import { numbered } from '../../core/beat/numbered';
import { nanoid } from '@reduxjs/toolkit';
import { newBeat } from '../../core/beat/defaults';
import type { Beat } from '../../core/beat/schema';
import { beatAdopted, beatOpened, beatRenamed } from './doc';
import {
  asideRemoved,
  libraryRead,
  noticed,
  subjectClosed,
  summaryRemoved,
  summarySet,
  viewChanged,
  type ViewState,
} from './slices';
import type { Store } from './store';
import * as disk from './storage';
import type { KeyValue } from './storage';
import type { Tabs, TabWord } from './tabs';

/** Keeps beats: loads, saves, and sees that nothing is lost between tabs, damaged data and a full disk. */
export interface KeeperParts {
  store: Store;
  storage: KeyValue;
  tabs: Tabs;
  demos: Beat[];
  /** What reads a file: it is large, and needed only once there is something to check. */
  fileFormat: () => Promise<Pick<typeof import('../../core/beat/file'), 'readBeat' | 'readBeats'>>;
  now: () => number;
  /** A seed for a new beat, 0 to 2^32 - 1. */
  seed: () => number;
  /** Until then nothing is shown: what changes while the page is taken over makes it begin anew. */
  screenReady: Promise<void>;
}

export interface Keeper {
  boot(): Promise<void>;
  /** Saves what is pending now. */
  flush(): Promise<void>;
  open(id: string): Promise<boolean>;
  create(): Promise<void>;
  rename(id: string, name: string): Promise<void>;
  duplicate(id: string): Promise<void>;
  remove(id: string): Promise<void>;
  /** Adds a beat that was made from another one, and says so. */
  takeIn(beat: Beat): Promise<void>;
  restore(id: string): Promise<void>;
  /** Takes in what a file holds; each beat becomes one of its own. */
  bringIn(fileName: string, text: string): Promise<void>;
  /** All beats that can be read, as they are now. */
  all(): Promise<Beat[]>;
  beat(id: string): Promise<Beat | null>;
  /** The id of the open beat. */
  openId(): string | undefined;
  /** Says why a file was not taken in. */
  refuse(fileName: string, reason: string): void;
  asideText(key: string): Promise<string>;
  removeAside(key: string): Promise<void>;
}

/** An edit is on the disk after this many ms at the latest, and the time it takes to write. */
const SAVE_AFTER = 300;

const SETTINGS = [
  'zoom',
  'mixOpen',
  'glass',
  'theme',
  'metronome',
  'switchAt',
  'latency',
  'hearEdits',
  'noteNames',
  'exportHow',
] as const;
type Settings = Pick<ViewState, (typeof SETTINGS)[number]>;

const pickSettings = (view: ViewState): Settings => ({
  zoom: view.zoom,
  mixOpen: view.mixOpen,
  glass: view.glass,
  theme: view.theme,
  metronome: view.metronome,
  switchAt: view.switchAt,
  latency: view.latency,
  hearEdits: view.hearEdits,
  noteNames: view.noteNames,
  exportHow: view.exportHow,
});

export const createKeeper = (parts: KeeperParts): Keeper => {
  const { store, storage, tabs, demos, fileFormat, now, seed, screenReady } = parts;
  let revision = 0;
  let saved: Beat | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let running: Promise<void> = Promise.resolve();
  const removed = new Map<string, string>();

  const { dispatch } = store;
  const current = () => store.getState().doc.beat;
  const say = (text: string, more: Partial<Parameters<typeof noticed>[0]> = {}) =>
    dispatch(noticed({ text, ...more }));

  const show = (beat: Beat, at: number, patternId: string | null) => {
    revision = at;
    saved = beat;
    dispatch(subjectClosed('tabs'));
    dispatch(viewChanged({ patternId: patternId ?? beat.patterns[0]!.id, openLane: null }));
    dispatch(beatOpened({ beat }));
    tabs.say({ type: 'opened', id: beat.id });
  };

  const freeName = (name: string): string =>
    numbered(
      name,
      store.getState().library.beats.map((one) => one.name),
    );

  const rememberOpen = async () => {
    const beat = current();
    if (beat) await disk.writeOpen(storage, { beatId: beat.id, patternId: store.getState().view.patternId });
  };

  const full = (fault: unknown) => {
    const why = /quota|full/i.test(String(fault)) ? 'is full' : 'does not take it';
    say(`The browser’s storage ${why}. Your work goes on here, but is not kept: save it to a file.`, {
      tone: 'danger',
      lasting: true,
      subject: 'storage',
      action: { label: 'Save beat to a file', does: { kind: 'saveBeat' } },
    });
  };

  const add = async (beat: Beat, at = now()): Promise<number> => {
    const { revision: first } = await disk.saveBeat(storage, beat, 0, at);
    dispatch(summarySet(disk.summaryOf(beat, at)));
    tabs.say({ type: 'saved', id: beat.id, revision: first });
    return first;
  };

  const fork = async (beat: Beat) => {
    const copy = { ...beat, id: nanoid(), name: `${beat.name} (second tab)`.slice(0, 80) };
    show(copy, await add(copy), store.getState().view.patternId);
    await rememberOpen();
    say(
      `“${beat.name}” was changed in another tab at the same time. Both are kept; this one is now “${copy.name}”.`,
      {
        lasting: true,
      },
    );
  };

  const save = async () => {
    const beat = current();
    if (!beat || beat === saved) return;
    try {
      const result = await disk.saveBeat(storage, beat, revision, now());
      if (result.kind === 'conflict') return await fork(beat);
      revision = result.revision;
      saved = beat;
      dispatch(summarySet(disk.summaryOf(beat, now())));
      dispatch(subjectClosed('storage'));
      tabs.say({ type: 'saved', id: beat.id, revision });
    } catch (fault) {
      full(fault);
    }
  };

  const flush = (): Promise<void> => {
    if (timer) clearTimeout(timer);
    timer = null;
    running = running.then(save);
    return running;
  };

  const later = () => {
    if (timer) return;
    timer = setTimeout(() => {
      timer = null;
      void flush();
    }, SAVE_AFTER);
  };

  const watch = () => {
    let settings = pickSettings(store.getState().view);
    let { patternId } = store.getState().view;
    store.subscribe(() => {
      const { view } = store.getState();
      if (current() !== saved && current()) later();
      if (SETTINGS.some((key) => settings[key] !== view[key])) {
        settings = pickSettings(view);
        disk.writeSettings(storage, settings).catch(full);
      }
      if (patternId !== view.patternId) {
        patternId = view.patternId;
        rememberOpen().catch(full);
      }
    });
  };

  const read = async (id: string): Promise<{ beat: Beat; revision: number } | null> => {
    const { text, revision: at } = await disk.loadBeatText(storage, id);
    if (text === null) return null;
    const result = (await fileFormat()).readBeat(text);
    if (result.ok) return { beat: result.value, revision: at };
    const kept = await disk.setAside(storage, id, text, result.error, now());
    dispatch(libraryRead(await disk.readLibrary(storage)));
    say(`A saved beat could not be read and was set aside as “${kept.name}”. ${result.error}`, {
      tone: 'danger',
      lasting: true,
      action: { label: 'Download it', does: { kind: 'downloadAside', key: kept.key } },
    });
    return null;
  };

  const open = async (id: string, patternId: string | null = null): Promise<boolean> => {
    await flush();
    const got = await read(id);
    if (!got) return false;
    const known = got.beat.patterns.some((pattern) => pattern.id === patternId);
    show(got.beat, got.revision, known ? patternId : null);
    await rememberOpen();
    return true;
  };

  /** Demo beats of the first start; the first of them is shown before it is written. */
  const firstStart = async () => {
    show(demos[0]!, 0, null);
    saved = null;
    await flush();
    for (const [at, demo] of demos.slice(1).entries()) await add(demo, now() - 60000 * (at + 1));
    await rememberOpen();
  };

  const openAny = async () => {
    for (const { id } of store.getState().library.beats) if (await open(id)) return;
    if (demos[0]) {
      await add({ ...demos[0], id: nanoid() });
      await open(store.getState().library.beats.at(-1)!.id);
    }
  };

  const adopt = async (word: TabWord & { type: 'saved' }) => {
    const before = current();
    if (before?.id !== word.id) {
      dispatch(libraryRead(await disk.readLibrary(storage)));
      return;
    }
    if (before !== saved) return;
    const got = await read(word.id);
    if (!got || current() !== before) return;
    revision = got.revision;
    saved = got.beat;
    dispatch(beatAdopted({ beat: got.beat }));
  };

  const hear = (word: TabWord) => {
    const beat = current();
    if (word.type === 'opened' && word.id === beat?.id) tabs.say({ type: 'here', id: word.id });
    if (word.type === 'here' && word.id === beat?.id)
      say(
        `“${beat.name}” is open in another tab too. What is changed there appears here; if both change it at once, both are kept.`,
        { lasting: true, subject: 'tabs' },
      );
    if (word.type === 'saved') adopt(word).catch(full);
  };

  const boot = async () => {
    watch();
    try {
      tabs.listen(hear);
      const settings = await disk.readSettings(storage, pickSettings(store.getState().view));
      const library = await disk.readLibrary(storage);
      await screenReady;
      dispatch(viewChanged(settings));
      dispatch(libraryRead(library));
      if (!library.beats.length && !library.aside.length) return await firstStart();
      const last = await disk.readOpen(storage);
      if (!last || !(await open(last.beatId, last.patternId))) await openAny();
    } catch (fault) {
      if (!current() && demos[0]) show(demos[0], 0, null);
      dispatch(libraryRead({ beats: [], aside: [] }));
      full(fault);
    }
  };

  const beat = async (id: string): Promise<Beat | null> => {
    const here = current();
    return here?.id === id ? here : ((await read(id))?.beat ?? null);
  };

  const rename = async (id: string, name: string) => {
    if (current()?.id === id) {
      dispatch(beatRenamed({ name }));
      return;
    }
    const got = await read(id);
    if (!got) return;
    const renamed = { ...got.beat, name };
    await disk.saveBeat(storage, renamed, got.revision, now());
    dispatch(summarySet(disk.summaryOf(renamed, now())));
  };

  const remove = async (id: string) => {
    await flush();
    const { text } = await disk.loadBeatText(storage, id);
    const name = store.getState().library.beats.find((one) => one.id === id)?.name ?? 'The beat';
    if (text !== null) removed.set(id, text);
    await disk.removeBeat(storage, id);
    dispatch(summaryRemoved(id));
    say(`“${name}” was deleted.`, {
      lasting: true,
      subject: `removed/${id}`,
      action: { label: 'Undo delete', does: { kind: 'restoreBeat', id } },
    });
    if (current()?.id === id) {
      saved = current();
      await openAny();
    }
  };

  const restore = async (id: string) => {
    const text = removed.get(id);
    if (!text) return;
    removed.delete(id);
    await add(JSON.parse(text) as Beat);
    dispatch(subjectClosed(`removed/${id}`));
  };

  const refuse = (file: string, reason: string) => {
    say(`“${file}” was not opened. ${reason}`, { tone: 'danger', lasting: true });
  };

  const bringIn = async (file: string, text: string) => {
    const { beats, faults } = (await fileFormat()).readBeats(text);
    for (const fault of faults) refuse(file, fault);
    if (!beats.length) return;
    await flush();
    const known = new Set(store.getState().library.beats.map(({ id }) => id));
    const added = beats.map((one) => (known.has(one.id) ? { ...one, id: nanoid() } : one));
    for (const one of added) await add(one);
    await open(added[0]!.id);
    say(
      added.length === 1
        ? `“${added[0]!.name}” was opened from “${file}”.`
        : `${added.length} beats were opened from “${file}”.`,
    );
  };

  const all = async (): Promise<Beat[]> => {
    const found: Beat[] = [];
    for (const { id } of store.getState().library.beats) {
      const one = await beat(id);
      if (one) found.push(one);
    }
    return found;
  };

  const guarded =
    <Args extends unknown[]>(work: (...args: Args) => Promise<void>) =>
    (...args: Args): Promise<void> =>
      work(...args).catch(full);

  return {
    boot,
    flush,
    open: (id) => open(id),
    create: guarded(async () => {
      const id = nanoid();
      await add(newBeat(id, freeName('New beat'), seed()));
      await open(id);
    }),
    rename: guarded(rename),
    duplicate: guarded(async (id: string) => {
      const one = await beat(id);
      if (one) await add({ ...one, id: nanoid(), name: freeName(`${one.name} copy`.slice(0, 80)) });
    }),
    remove: guarded(remove),
    takeIn: guarded(async (made: Beat) => {
      await add(made);
      say(`“${made.name}” is among your beats now.`);
    }),
    restore: guarded(restore),
    bringIn: guarded(bringIn),
    all,
    beat,
    openId: () => current()?.id,
    refuse,
    asideText: (key) => disk.asideText(storage, key),
    removeAside: guarded(async (key: string) => {
      await disk.removeAside(storage, key);
      dispatch(asideRemoved(key));
    }),
  };
};
