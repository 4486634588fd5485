import { nanoid } from '@reduxjs/toolkit';
import type { Beat } from '../../../core/document/schema';
import { stepFolder, type InStep, type Stepped } from '../../keeping/beatFolder';
import { deletedBeats } from '../../keeping/deletedBeats';
import { numbered } from '../../../core/document/numbered';
import { writeBeat } from '../../../core/document/text';
import { alone } from '../../keeping/log';
import { offer } from '../../store/offers';
import { persistence, store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { browserStorage } from '../../keeping/storage';
import { chooseFolder, forgetFolder, rememberedFolder, type ChosenFolder } from '../../web/folderHandle';
import { onPage } from '../../web/listen';
import { readAside } from '../../workers/aside';
import { words } from '../../words/beats';

/** Keeps the beats in step with a folder, as long as the app is open. */

const KEY = 'folder/steps';
/** So often it is looked whether anything changed. */
const EVERY_MS = 15_000;
const storage = browserStorage();

/** How it stands, for the screen. */
export interface BeatFolderState {
  name: string | null;
  /** The browser wants to be asked again. */
  asks: boolean;
  told: string | null;
}

let state: BeatFolderState = { name: null, asks: false, told: null };
const hearers = new Set<() => void>();
const tell = (next: Partial<BeatFolderState>) => {
  state = { ...state, ...next };
  hearers.forEach((hear) => hear());
};
export const folderState = (): BeatFolderState => state;
export const onFolderState = (hear: () => void): (() => void) => {
  hearers.add(hear);
  return () => void hearers.delete(hear);
};

const say = (text: string, tone: 'plain' | 'danger' = 'plain') =>
  void store.dispatch(noticed({ text, tone, subject: 'folder' }));

let chosen: ChosenFolder | null = null;
let ends: (() => void)[] = [];
let running: Promise<void> = Promise.resolve();
const refused = new Set<string>();

const inStepOf = async (folder: string): Promise<Record<string, InStep>> => {
  try {
    const raw = JSON.parse((await storage.getItem(KEY)) ?? '{}') as Record<string, Record<string, InStep>>;
    return raw[folder] ?? {};
  } catch {
    return {};
  }
};

const known = (id: string) => store.getState().library.beats.some((one) => one.id === id);
const take = async (beat: Beat): Promise<string> => {
  const id = known(beat.id) ? nanoid() : beat.id;
  await persistence.takeIn({ ...beat, id });
  return id;
};

/** Beats whose files have gone: asked about once in a visit. */
const asked = new Set<string>();

/** They are written again with the next step: nothing says any more that they had been there. */
const keepHere = async (folder: string, ids: readonly string[]): Promise<void> => {
  const left = Object.entries(await inStepOf(folder)).filter(([id]) => !ids.includes(id));
  await storage.setMany({ [KEY]: JSON.stringify({ [folder]: Object.fromEntries(left) }) });
  ids.forEach((id) => asked.delete(id));
};

const askGone = (folder: string, gone: Stepped['gone']): void => {
  const fresh = gone.filter(({ id }) => !asked.has(id));
  if (!fresh.length) return;
  for (const { id } of gone) asked.add(id);
  const ids = gone.map(({ id }) => id);
  store.dispatch(
    noticed({
      text: words.goneFromFolder(
        gone.map(({ name }) => name),
        folder,
      ),
      lasting: true,
      subject: 'folder/gone',
      action: {
        label: words.keepAndWrite,
        does: offer(() => void keepHere(folder, ids).then(stepNow)),
      },
      also: {
        label: words.deleteHereToo,
        does: offer(() => {
          void ids.reduce((before, id) => before.then(() => persistence.remove(id)), Promise.resolve());
        }),
      },
    }),
  );
};

const stepOnce = async ({ name, folder }: ChosenFolder): Promise<void> => {
  await persistence.flush();
  try {
    const out = await stepFolder({
      folder,
      inStep: await inStepOf(name),
      beats: persistence.all,
      deleted: () => deletedBeats(storage),
      nameBeside: (beat) =>
        numbered(
          words.fromTheFolder(beat),
          store.getState().library.beats.map((one) => one.name),
        ),
      remove: ({ id }) => persistence.remove(id),
      read: async (text) => {
        const got = await readAside('readBeats', text);
        if (!got.ok) return got;
        const [beat] = got.value.beats;
        return beat
          ? { ok: true, value: beat }
          : { ok: false, error: got.value.faults[0] ?? words.noBeatInIt };
      },
      take,
      replace: async (was, beat) => {
        const isOpen = persistence.openId() === was.id;
        const next = await take({ ...beat, id: nanoid() });
        // What was changed since it was looked at stays beside it.
        await persistence.flush();
        const now = await persistence.beat(was.id);
        if (!now || writeBeat(now) !== writeBeat(was)) return next;
        if (isOpen) await persistence.open(next);
        await persistence.remove(was.id, {
          text: words.changedInFolder(was.name),
          label: words.bringMineBack,
        });
        return next;
      },
    });
    await storage.setMany({ [KEY]: JSON.stringify({ [name]: out.inStep }) });
    for (const { file, error } of out.refused) {
      if (refused.has(file + error)) continue;
      refused.add(file + error);
      persistence.refuse(file, error);
    }
    for (const beat of out.beside) say(words.changedInBoth(beat));
    if (out.putAway.length) say(words.wasPutAway(out.putAway));
    askGone(name, out.gone);
    tell({ told: words.inStep(Object.keys(out.inStep).length) });
  } catch {
    tell({ told: words.folderOutOfReach(name) });
  }
};

/** One after the other, across all windows. */
export const stepNow = (): Promise<void> => {
  const now = chosen;
  if (now) running = running.then(() => alone('folder', () => stepOnce(now)));
  return running;
};

const begin = (folder: ChosenFolder) => {
  chosen = folder;
  ends.forEach((end) => end());
  const timer = setInterval(() => void stepNow(), EVERY_MS);
  ends = [() => clearInterval(timer), onPage((shown) => void (shown && stepNow()))];
  tell({ name: folder.name, asks: false });
  void stepNow();
};

export const keepInFolder = async (): Promise<void> => {
  const folder = await chooseFolder();
  if (folder) begin(folder);
};

/** Goes on with the folder of the last visit. @param asks at a press the browser may ask the person again */
export const goOn = async (asks: boolean): Promise<void> => {
  const folder = await rememberedFolder(asks).catch(() => null);
  if (folder?.folder) begin(folder);
  else if (folder) tell({ name: folder.name, asks: true });
};

export const letGoOfFolder = async (): Promise<void> => {
  chosen = null;
  ends.forEach((end) => end());
  ends = [];
  await forgetFolder();
  tell({ name: null, asks: false, told: null });
};
