import { nanoid } from '@reduxjs/toolkit';
import type { ReadBeats } from '../../core/document/file';
import { numbered } from '../../core/document/numbered';
import type { Read } from '../../core/document/reading';
import type { Beat } from '../../core/document/schema';
import { words } from '../words/state';
import { beatRenamed } from '../store/doc';
import { noteDeleted, noteRestored } from './deletedBeats';
import { append, type LogItem } from './log';
import type { createReader } from './reader';
import { offerUndo } from '../store/offers';
import { asideRemoved, subjectClosed, summaryRemoved, summarySet } from '../store/slices';
import * as disk from './storage';
import type { KeyValue } from './storage';
import type { Store } from '../store/store';
import type { TabsChannel } from './tabs';
import type { createTrouble } from './trouble';

/** What the beats that are kept need of the one that is open, and of where they are kept. */
interface LibraryParts extends Pick<ReturnType<typeof createReader>, 'read' | 'peek' | 'mended'> {
  store: Store;
  storage: KeyValue;
  tabs: TabsChannel;
  /** The name of this tab. */
  tab: string;
  now: () => number;
  say: ReturnType<typeof createTrouble>['say'];
  full: ReturnType<typeof createTrouble>['full'];
  /** A beat as it is now, the open one with what is not kept yet. */
  beat: (id: string) => Promise<Beat | null>;
  readBack: (text: string) => Promise<string | null | undefined>;
  /** Whether the open beat may be left: not before it is safe. */
  mayLeave: () => Promise<boolean>;
  open: (id: string) => Promise<boolean>;
  /** Opens any beat but one. */
  openAnother: (not: string | null) => Promise<boolean>;
}

/** So many faults of one file are said; of more, how many there are. */
const MOST_SAID = 3;

/** All beats that are kept: added, named, copied, deleted and had back, taken in from files. */
export const createBeatLibrary = (parts: LibraryParts) => {
  const {
    store,
    storage,
    tabs,
    tab,
    now,
    say,
    read,
    peek,
    mended,
    beat,
    readBack,
    mayLeave,
    open,
    openAnother,
  } = parts;
  const { dispatch } = store;
  const current = () => store.getState().doc.beat;
  const removed = new Map<string, string>();
  let renamed = 0;

  const freeName = (name: string): string =>
    numbered(
      name,
      store.getState().library.beats.map((one) => one.name),
    );

  const add = async (beat: Beat, at = now(), seen: Record<string, number> = {}): Promise<number | null> => {
    const first = await disk.addBeat(storage, beat, at, seen);
    // One that is there already is listed as it is there.
    if (first === null) return null;
    dispatch(summarySet(disk.summaryOf(beat, at)));
    tabs.say({ type: 'saved', id: beat.id });
    return first;
  };

  const rename = async (id: string, name: string) => {
    if (current()?.id === id) {
      dispatch(beatRenamed({ name }));
      return;
    }
    const item: LogItem = { tab: `${tab}/names`, n: ++renamed, entry: beatRenamed({ name }) };
    const result = await append(storage, id, null, [item]);
    if (result.kind !== 'appended') return;
    tabs.say({ type: 'edits', id, from: result.seq, items: [item] });
    const got = await read(id);
    if (!got) return;
    await disk.rewriteBeat(storage, got.beat, got.seq, now());
    dispatch(summarySet(disk.summaryOf(got.beat, now())));
    tabs.say({ type: 'saved', id });
  };

  /** @param replaced by what is said where a newer form has taken its place */
  const remove = async (id: string, replaced?: { text: string; label: string }) => {
    // The open one is left first: where there is nothing to go to, it stays.
    if (current()?.id === id && !(await openAnother(id))) return;
    const name = store.getState().library.beats.find((one) => one.id === id)?.name ?? words.theBeat;
    const got = await peek(id);
    if (got.kind === 'there') removed.set(id, JSON.stringify(got.beat));
    else if (got.kind !== 'none') removed.set(id, got.text);
    await disk.removeBeat(storage, id);
    // Where this is not taken a folder in step may bring it back: that is no loss.
    await noteDeleted(storage, id).catch(() => undefined);
    dispatch(summaryRemoved(id));
    tabs.say({ type: 'removed', id });
    if (!replaced) offerUndo(() => void restore(id).catch(parts.full), current());
    say(replaced?.text ?? words.nameWasDeleted(name), {
      lasting: true,
      subject: `removed/${id}`,
      action: { label: replaced?.label ?? words.undoDelete, does: { kind: 'restoreBeat', id } },
    });
  };

  const restore = async (id: string) => {
    const text = removed.get(id);
    if (!text) return;
    const back = JSON.parse(text) as Beat;
    await noteRestored(storage, id);
    // Where it was kept again by another tab meanwhile, both stay.
    if ((await add(back)) === null) await add({ ...back, id: nanoid() });
    // Only now: where there is no room for it, it can be asked for again.
    removed.delete(id);
    dispatch(subjectClosed(`removed/${id}`));
  };

  const refuse = (file: string, reason: string) => {
    say(words.fileWasNotOpenedReason(file, reason), { tone: 'danger', lasting: true });
  };

  /** Those beats that can be read again once they are written; what is wrong with the others. */
  const readable = async (beats: readonly Beat[]): Promise<ReadBeats> => {
    const sound: ReadBeats = { beats: [], faults: [] };
    for (const one of beats) {
      const fault = await readBack(JSON.stringify(one));
      if (fault) sound.faults.push(fault);
      else sound.beats.push(one);
    }
    return sound;
  };

  const bringIn = async (file: string, read: Read<ReadBeats>) => {
    if (!read.ok) return refuse(file, read.error);
    const { beats, faults: unsound } = await readable(read.value.beats);
    const faults = [...read.value.faults, ...unsound];
    for (const fault of faults.slice(0, MOST_SAID)) refuse(file, fault);
    if (faults.length > MOST_SAID) refuse(file, words.manyMoreOfItsBeats(faults.length - MOST_SAID));
    if (!beats.length || !(await mayLeave())) return;
    const known = new Set(store.getState().library.beats.map(({ id }) => id));
    const added = beats.map((one) => {
      const free = known.has(one.id) ? { ...one, id: nanoid() } : one;
      known.add(free.id);
      return free;
    });
    for (const one of added) await add(one);
    await open(added[0]!.id);
    say(
      added.length === 1
        ? words.addedWasOpenedFromFile(added[0]!.name, file)
        : words.manyBeatsWereOpenedFrom(added.length, file),
    );
  };

  const removeAside = async (key: string) => {
    await disk.removeAside(storage, key);
    dispatch(asideRemoved(key));
  };

  /** Opens what can be read of a text that was set aside; the text stays unless it could be read whole. */
  const openAside = async (key: string): Promise<boolean> => {
    const read = await mended(key);
    if (!read.ok) {
      say(words.asideCouldNotBeOpened(read.error), { tone: 'danger', lasting: true });
      return false;
    }
    if (!(await mayLeave())) return false;
    const { left } = read.value;
    const isKnown = store.getState().library.beats.some(({ id }) => id === read.value.beat.id);
    const one = isKnown ? { ...read.value.beat, id: nanoid() } : read.value.beat;
    await add(one);
    if (!left.length) await removeAside(key);
    const isOpen = await open(one.id);
    if (left.length) say(words.nameWasOpenedWithout(one.name, left), { lasting: true });
    else say(words.nameWasOpenedWhole(one.name));
    return isOpen;
  };

  const all = async (): Promise<Beat[]> => {
    const found: Beat[] = [];
    for (const { id, newer } of store.getState().library.beats) {
      const one = newer ? null : await beat(id);
      if (one) found.push(one);
    }
    return found;
  };

  return {
    add,
    freeName,
    rename,
    duplicate: async (id: string): Promise<void> => {
      const one = await beat(id);
      if (one) await add({ ...one, id: nanoid(), name: freeName(words.oneCopy(one.name).slice(0, 80)) });
    },
    remove,
    takeIn: async (made: Beat): Promise<void> => {
      const [fault] = (await readable([made])).faults;
      if (fault) return say(words.madeCouldNotBeKept(made.name, fault), { tone: 'danger', lasting: true });
      await add(made);
      say(words.madeIsAmongYourBeats(made.name));
    },
    restore,
    refuse,
    bringIn,
    removeAside,
    openAside,
    all,
    /** The texts of beats that were deleted and can still be brought back. */
    removedTexts: (): string[] => [...removed.values()],
  };
};
