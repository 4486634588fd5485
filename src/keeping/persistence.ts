import type { ReadBeats } from '../../core/document/file';
import type { Read } from '../../core/document/reading';
import { nanoid } from '@reduxjs/toolkit';
import { newBeat } from '../../core/document/defaults';
import type { Beat } from '../../core/document/schema';
import { beatOpened } from '../store/doc';
import { createBeatLibrary } from './beatLibrary';
import type { Journal } from './journal';
import { beginFirstVisit, demosLeft, demoWritten } from './firstVisit';
import { createLine, type EditLine } from './line';
import { readLogged } from './log';
import type { Formats } from './peek';
import { createAsking, samplesInReach } from './reach';
import { createReader } from './reader';
import { createSpoilt } from './spoilt';
import { takeUp, isForeign, watchLeft, type Alive, type Left } from './recover';
import { restoreSettings, sameSettings, settingsOf } from './settings';
import { libraryRead, subjectClosed, summarySet } from '../store/slices';
import type { Store } from '../store/store';
import * as disk from './storage';
import type { KeyValue } from './storage';
import type { TabsChannel, TabWord } from './tabs';
import { createTrouble, TAKE_IT } from './trouble';
import { words } from '../words/state';
import { laneOpened, patternShown } from '../store/focus';

/** Keeps beats: loads, saves, and sees that nothing is lost between tabs, damaged data and a full disk. */
export interface PersistenceParts {
  store: Store;
  storage: KeyValue;
  journal: Journal;
  tabs: TabsChannel;
  /** The name of this tab, whether the page of another one still lives, and which of them do. */
  life: { tab: string; alive: Alive; others: () => Promise<string[]> };
  demos: Beat[];
  /** What reads a file: it is large, and needed only once there is something to check. */
  fileFormat: () => Promise<Formats>;
  /**
   * Whether the text of a beat can be read again: null where it can, a sentence where it cannot, undefined where nobody is
   * there to tell.
   */
  readBack: (text: string) => Promise<string | null | undefined>;
  loadEdits: () => Promise<void>;
  /** Has something done when what was seen at once is on the screen. */
  soon: (work: () => void) => void;
  /** Whether the browser's storage is full; null where it does not say. */
  isFull: () => Promise<boolean | null>;
  now: () => number;
  /** A seed for a new beat, 0 to 2^32 - 1. */
  seed: () => number;
  /** Until then nothing is shown: what changes while the page is taken over makes it begin anew. */
  screenReady: Promise<void>;
}

export interface Persistence {
  boot(): Promise<void>;
  /** Saves what is pending now. @returns false where the storage does not take it */
  flush(): Promise<boolean>;
  open(id: string): Promise<boolean>;
  create(): Promise<void>;
  rename(id: string, name: string): Promise<void>;
  duplicate(id: string): Promise<void>;
  /** @param replaced what is said, and what it is called to have it back, where a newer form has taken its place */
  remove(id: string, replaced?: { text: string; label: string }): Promise<void>;
  /** Adds a beat that was made from another one, and says so. */
  takeIn(beat: Beat): Promise<void>;
  restore(id: string): Promise<void>;
  /** Takes in what was read from a file; each beat becomes one of its own. */
  bringIn(fileName: string, read: Read<ReadBeats>): Promise<void>;
  /** All beats that can be read, as they are now. */
  all(): Promise<Beat[]>;
  beat(id: string): Promise<Beat | null>;
  /** The samples that this window or another one can still bring back; null where another one does not answer. */
  samplesInReach(): Promise<Set<string> | null>;
  /** The text of a beat as it is kept, readable or not. */
  textOf(id: string): Promise<string | null>;
  /** The id of the open beat. */
  openId(): string | undefined;
  /** Says why a file was not taken in. */
  refuse(fileName: string, reason: string): void;
  asideText(key: string): Promise<string>;
  /** Opens what can be read of a text that was set aside, as a beat of its own. @returns whether one is open */
  openAside(key: string): Promise<boolean>;
  removeAside(key: string): Promise<void>;
  /** A person has the open beat in a file: it may be left, kept or not. */
  taken(beat: Beat): void;
  /** Whether the page could go now without losing an edit. */
  isSafe(): boolean;
  /** Hears what other tabs did while this one slept. */
  wake(): void;
  /** Looks through all that is kept, mends the lists of it, and says what was found. */
  check(): Promise<string>;
}

/** The text of a beat is written anew after so many ms; its edits are kept before. */
const SAVE_AFTER = 300;
/** Where nobody can tell whether a text can be read again, it is asked again after so many ms. */
const UNTOLD = 10_000;
/** In the way of a storage that does not take something, so many ms pass before it is tried again. */
const AGAIN = 2000;

export const createPersistence = (parts: PersistenceParts): Persistence => {
  const { store, storage, journal, tabs, life, demos, fileFormat, now, seed, screenReady, readBack } = parts;
  /** The open beat as its text is kept. */
  let saved: Beat | null = null;
  /** The open beat as a person took it in a file. */
  let inFile: Beat | null = null;
  /** What pages before left of beats that could not be written. */
  let left = new Map<string, Left[]>();
  let timer: ReturnType<typeof setTimeout> | null = null;
  let running: Promise<boolean> = Promise.resolve(true);

  const { dispatch } = store;
  const current = () => store.getState().doc.beat;
  const { say, full, over } = createTrouble(store, parts.isFull);

  const show = (beat: Beat, seq: number, patternId: string | null) => {
    saved = seq ? beat : null;
    dispatch(subjectClosed('tabs'));
    dispatch(patternShown(patternId ?? beat.patterns[0]!.id));
    dispatch(laneOpened(null));
    dispatch(beatOpened({ beat }));
    line.begin(beat.id, seq);
    for (const { key, item } of left.get(beat.id) ?? []) {
      // Done again, they are this tab's own, and journalled as such.
      dispatch(item.entry as never);
      journal.remove(key);
    }
    left.delete(beat.id);
    tabs.say({ type: 'opened', id: beat.id });
  };

  const rememberOpen = async () => {
    const beat = current();
    const { patternId } = store.getState().focus;
    // Which beat it was is no reason to come to nothing where there is no room for it.
    if (beat) await disk.writeOpen(storage, { beatId: beat.id, patternId }).catch(full);
  };

  const { readList, peek, read, check, mended } = createReader({
    store,
    storage,
    say,
    fileFormat,
    loadEdits: parts.loadEdits,
    now,
  });

  const { soundText, takeBack } = createSpoilt({ ...parts, say, peek, readList });

  const line: EditLine = createLine({
    store,
    storage,
    journal,
    tabs,
    tab: life.tab,
    loadEdits: parts.loadEdits,
    soon: parts.soon,
    onTrouble: full,
    onWritten: () => later(),
    onGone: async (beat, seen) => {
      const text = await soundText(beat);
      const seq = await library.add(text, now(), seen);
      if (seq !== null && current()?.id === beat.id) saved = text;
      return seq;
    },
    onFar: async (id) => read(id),
  });

  /** Writes the text of the open beat anew, once all its edits are written and it can be read again. */
  const save = async (isAgain = false): Promise<boolean> => {
    if (!(await line.settle())) return false;
    const stand = line.stand();
    if (!stand || stand.beat === saved) return true;
    try {
      const { id, seq, beat } = stand;
      const fault = await readBack(JSON.stringify(beat));
      if (fault === undefined) {
        // Its edits are kept; the text before them stays until somebody can tell.
        later(UNTOLD);
        return true;
      }
      if (fault !== null) {
        await takeBack(stand, fault);
        return isAgain || save(true);
      }
      if (await disk.rewriteBeat(storage, beat, seq, now())) {
        if (current()?.id === id) saved = beat;
        dispatch(summarySet(disk.summaryOf(beat, now())));
        tabs.say({ type: 'saved', id });
      } else void line.kick();
      over();
      return true;
    } catch (fault) {
      full(fault);
      later(AGAIN);
      return false;
    }
  };

  const flush = (): Promise<boolean> => {
    if (timer) clearTimeout(timer);
    timer = null;
    running = running.then(() => save());
    return running;
  };

  const later = (after = SAVE_AFTER) => {
    if (timer || line.stand()?.beat === saved) return;
    timer = setTimeout(() => {
      timer = null;
      // A drag is let come to its end.
      if (line.isGathering()) later(after);
      else void flush();
    }, after);
  };

  const watch = () => {
    let settings = settingsOf(store.getState());
    let { patternId } = store.getState().focus;
    store.subscribe(() => {
      const state = store.getState();
      const { focus } = state;
      const next = settingsOf(state);
      if (!sameSettings(settings, next)) {
        settings = next;
        disk.writeSettings(storage, settings).catch(full);
      }
      if (patternId !== focus.patternId) {
        patternId = focus.patternId;
        void rememberOpen();
      }
    });
  };

  /** No beat is left before it is safe, in the storage or in a file. */
  const mayLeave = async (): Promise<boolean> => {
    await store.editsSettled();
    const beat = current();
    if ((await flush()) || !beat || beat === inFile) return true;
    say(words.beatIsNotKeptYet(beat.name), {
      tone: 'danger',
      lasting: true,
      subject: 'storage',
      action: TAKE_IT,
    });
    return false;
  };

  const open = async (id: string, patternId: string | null = null): Promise<boolean> => {
    if (!(await mayLeave())) return false;
    const got = await read(id);
    if (!got) return false;
    const known = got.beat.patterns.some((pattern) => pattern.id === patternId);
    show(got.beat, got.seq, known ? patternId : null);
    await rememberOpen();
    return true;
  };

  /** Writes those demo beats that are asked for, each once, the open one first. */
  const writeDemos = async (ids: readonly string[]) => {
    for (const [at, demo] of demos.entries()) {
      if (!ids.includes(demo.id)) continue;
      if (demo.id === current()?.id) {
        await line.kick();
        await flush();
      } else await library.add(demo, now() - 60000 * at);
      await demoWritten(storage, demo.id);
    }
  };

  /** Demo beats of the first start; the first of them is shown before it is written. */
  const firstStart = async () => {
    const [first] = demos;
    show(first!, 0, null);
    const ids = demos.map(({ id }) => id);
    await beginFirstVisit(
      storage,
      ids,
      disk.openEntry({ beatId: first!.id, patternId: store.getState().focus.patternId }),
    ).catch(full);
    await writeDemos(ids);
  };

  /** A first start that was cut short is finished: what was open is open, what was not written yet is written. */
  const finishFirstStart = async (ids: readonly string[], last: disk.Open | null) => {
    const isThere = (id: string) => store.getState().library.beats.some((one) => one.id === id);
    const demo = demos.find(({ id }) => id === last?.beatId);
    if (last && demo && !isThere(demo.id)) show(demo, 0, last.patternId);
    else if (!last || !(await open(last.beatId, last.patternId))) await openAnother(null);
    await writeDemos(ids);
  };

  /** Opens any beat but one; the first demo beat anew where there is none. @returns whether one is open */
  const openAnother = async (not: string | null): Promise<boolean> => {
    for (const { id, newer } of store.getState().library.beats)
      if (!newer && id !== not && (await open(id))) return true;
    const demo = demos[0];
    if (!demo) return false;
    const copy = { ...demo, id: nanoid() };
    await library.add(copy);
    return open(copy.id);
  };

  const reach = async (): Promise<Set<string>> => {
    const recovered = await journal.recovered();
    const texts = [...journal.keys().map((key) => journal.read(key) ?? ''), ...recovered.values()];
    return samplesInReach(store.getState().doc, [...texts, ...library.removedTexts()]);
  };
  const asking = createAsking(tabs, life.tab, life.others);

  const hear = (word: TabWord) => {
    if (word.type === 'reach?' || word.type === 'reach') return asking.hear(word, reach);
    const beat = current();
    const isOpen = word.id === beat?.id;
    if (word.type === 'edits') return line.heard(word);
    if (word.type === 'opened' && isOpen) tabs.say({ type: 'here', id: word.id });
    if (word.type === 'here' && isOpen)
      say(words.beatIsOpenInAnother(beat.name), {
        subject: 'tabs',
      });
    if (word.type === 'removed' && isOpen)
      say(words.beatWasDeletedInAnother(beat.name), {
        lasting: true,
        subject: 'tabs',
      });
    if (word.type === 'saved' || word.type === 'removed') readList().catch(full);
  };

  /** What a page left that ended while this one is open. @returns whether some of it still lies there */
  const takeUpMore = async (): Promise<boolean> => {
    const isThere = () => journal.keys().some((key) => isForeign(key, life.tab));
    if (!isThere()) return false;
    left = await takeUp(storage, journal, life.alive);
    await line.kick();
    await readList();
    return isThere();
  };

  const boot = async () => {
    watch();
    try {
      tabs.listen(hear);
      left = await takeUp(storage, journal, life.alive);
      watchLeft(journal, takeUpMore);
      await screenReady;
      await restoreSettings(store, storage);
      await readList();
      const { beats } = store.getState().library;
      if (!beats.length) return await firstStart();
      const [last, unwritten] = [await disk.readOpen(storage), await demosLeft(storage)];
      if (unwritten.length) return await finishFirstStart(unwritten, last);
      if (!last || !(await open(last.beatId, last.patternId))) await openAnother(null);
    } catch (fault) {
      await screenReady;
      if (!current() && demos[0]) show(demos[0], 0, null);
      if (store.getState().library.status === 'loading') dispatch(libraryRead({ beats: [], aside: [] }));
      full(fault);
    }
  };

  const beat = async (id: string): Promise<Beat | null> => {
    const here = current();
    return here?.id === id ? here : ((await read(id))?.beat ?? null);
  };

  const library = createBeatLibrary({
    store,
    storage,
    tabs,
    tab: life.tab,
    now,
    say,
    full,
    read,
    peek,
    beat,
    readBack,
    mended,
    mayLeave,
    open,
    openAnother,
  });

  const guarded =
    <Args extends unknown[]>(work: (...args: Args) => Promise<void>) =>
    async (...args: Args): Promise<void> => {
      try {
        await work(...args);
      } catch (fault) {
        full(fault);
      }
    };

  return {
    boot,
    flush,
    open: async (id) => {
      try {
        return await open(id);
      } catch (fault) {
        full(fault);
        return false;
      }
    },
    create: guarded(async () => {
      if (!(await mayLeave())) return;
      const id = nanoid();
      await library.add(newBeat(id, library.freeName(words.newBeat), seed()));
      await open(id);
    }),
    rename: guarded(library.rename),
    duplicate: guarded(library.duplicate),
    remove: guarded(library.remove),
    takeIn: guarded(library.takeIn),
    restore: guarded(library.restore),
    bringIn: guarded(library.bringIn),
    all: library.all,
    beat,
    samplesInReach: async () => {
      const elsewhere = await asking.ask();
      return elsewhere && new Set([...elsewhere, ...(await reach())]);
    },
    textOf: async (id) => (await readLogged(storage, id)).text,
    taken: (one) => {
      inFile = one;
    },
    isSafe: () => line.unkept() === 0,
    wake: () => void line.kick(),
    check,
    openId: () => current()?.id,
    refuse: library.refuse,
    asideText: (key) => disk.asideText(storage, key),
    openAside: async (key) => {
      try {
        return await library.openAside(key);
      } catch (fault) {
        full(fault);
        return false;
      }
    },
    removeAside: guarded(library.removeAside),
  };
};
