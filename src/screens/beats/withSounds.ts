import type { Read } from '../../../core/document/reading';
import type { ReadBeats } from '../../../core/document/file';
import type { Beat } from '../../../core/document/schema';
import { samplesOfBeat } from '../../../core/samples/beatSamples';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { saveBytes } from '../../ui/files';
import { askDesk } from '../../workers/askOwn';
import { nanoid } from '@reduxjs/toolkit';
import { keepKit } from '../../keeping/keptKits';
import { browserStorage } from '../../keeping/storage';
import type { BeatsOpened, KitOpened } from '../../workers/soundDesk';
import { words } from '../../words/sounds';

const warn = (text: string): void => void store.dispatch(noticed({ text, tone: 'danger', subject: 'file' }));

/**
 * Saves beats with the samples that they play, as one file.
 *
 * @returns whether it was saved: where no beat has samples, or they cannot be packed, it is not
 */
export const saveWithSounds = async (beats: Beat[], text: string, name: string): Promise<boolean> => {
  const samples = beats.flatMap(samplesOfBeat);
  if (!samples.length) return false;
  const bytes = await askDesk<Uint8Array>((far) => far.saveBeats(text, samples) as Promise<Uint8Array>);
  if (!bytes) {
    warn(words.savedWithoutSounds);
    return false;
  }
  saveBytes(bytes, `${name}.ruddik.zip`, 'application/zip');
  return true;
};

/** Reads beats with their sounds; what of those is missing is said. */
export const openWithSounds = async (file: File): Promise<Read<ReadBeats>> => {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const opened = await askDesk<BeatsOpened>((far) => far.openBeats(bytes) as Promise<BeatsOpened>);
  if (!opened) return { ok: false, error: words.noAnswer };
  if (opened.ok) opened.missing.forEach((name) => warn(words.missing(name)));
  return opened;
};

/** Keeps a kit file among the kits of one's own, from where any beat can play it. */
export const keepOpenedKit = async (file: File): Promise<void> => {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const opened = await askDesk<KitOpened>((far) => far.openKit(bytes) as Promise<KitOpened>);
  if (!opened) return warn(words.noAnswer);
  if (!opened.ok) return warn(opened.error);
  opened.said.forEach(warn);
  try {
    await keepKit(browserStorage(), { id: nanoid(), kit: opened.kit, own: opened.own });
    store.dispatch(noticed({ text: words.kitTaken(opened.own.name), subject: 'file' }));
  } catch {
    warn(words.kitNotKept);
  }
};
