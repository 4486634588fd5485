import type { Beat } from '../../core/beat/schema';
import { newerSummary, peekAt, type Peeked } from './peek';
import { libraryRead, summarySet, type BeatSummary } from './slices';
import * as disk from './storage';
import type { KeyValue } from './storage';
import type { Store } from './store';
import type { Say } from './trouble';

export interface ReaderParts {
  store: Store;
  storage: KeyValue;
  say: Say;
  fileFormat: () => Promise<Pick<typeof import('../../core/beat/file'), 'readBeat' | 'isNewer'>>;
  loadEdits: () => Promise<void>;
  now: () => number;
}

/** Reads beats and their list; what cannot be read is set aside and said, what is newer stays where it is. */
export const createReader = ({ store, storage, say, fileFormat, loadEdits, now }: ReaderParts) => {
  const { dispatch } = store;

  /** The list of beats, with what it does not say of one read from the beat itself. */
  const readList = async (): Promise<{ unlisted: number }> => {
    const { unlisted, ...library } = await disk.readLibrary(storage);
    dispatch(libraryRead(library));
    for (const id of unlisted) {
      const got = await peek(id);
      if (got.kind === 'there') dispatch(summarySet(disk.summaryOf(got.beat, now())));
      if (got.kind === 'newer') dispatch(summarySet(newerSummary(id, got.text)));
    }
    return { unlisted: unlisted.length };
  };

  const peek = (id: string): Promise<Peeked> => peekAt(storage, id, { fileFormat, loadEdits });

  const aside = async (id: string, text: string, error: string) => {
    const kept = await disk.setAside(storage, id, text, error);
    await readList();
    say(`A saved beat could not be read and was set aside as “${kept.name}”. ${error}`, {
      tone: 'danger',
      lasting: true,
      action: { label: 'Download it', does: { kind: 'downloadAside', key: kept.key } },
    });
  };

  const read = async (id: string): Promise<{ beat: Beat; seq: number } | null> => {
    const got = await peek(id);
    if (got.kind === 'there') {
      if (got.lost.length) {
        const { name } = got.beat;
        const what = {
          name: `Edits of ${name} that could not be read`,
          reason: '',
          text: JSON.stringify(got),
        };
        const kept = await disk.keepAside(storage, id, what);
        say(`Some edits of “${name}” could not be read; what is left of them was set aside.`, {
          lasting: true,
          action: { label: 'Download them', does: { kind: 'downloadAside', key: kept.key } },
        });
      }
      return got;
    }
    if (got.kind === 'newer') {
      const summary = newerSummary(id, got.text);
      dispatch(summarySet(summary));
      say(
        `“${summary.name}” was saved by a newer Ruddik. It stays as it is, and opens once this one is up to date.`,
        {
          lasting: true,
        },
      );
    }
    if (got.kind === 'damaged') await aside(id, got.text, got.error);
    return null;
  };

  const check = async (): Promise<string> => {
    const { unlisted } = await readList();
    const { beats } = store.getState().library;
    let mended = unlisted;
    for (const { id } of beats) {
      const got = await peek(id);
      if (got.kind === 'damaged') {
        await aside(id, got.text, got.error);
        mended += 1;
      }
      if (got.kind !== 'there') continue;
      const summary = disk.summaryOf(got.beat, beats.find((one) => one.id === id)!.saved || now());
      const listed = beats.find((one) => one.id === id)!;
      const differs = (Object.keys(summary) as (keyof BeatSummary)[]).some(
        (key) => summary[key] !== listed[key],
      );
      if (!differs && !unlisted) continue;
      if (id !== store.getState().doc.beat?.id)
        await disk.rewriteBeat(storage, got.beat, got.seq, summary.saved);
      dispatch(summarySet(summary));
      if (differs && !unlisted) mended += 1;
    }
    const looked = `${beats.length} ${beats.length === 1 ? 'beat' : 'beats'} looked through`;
    return mended ? `${looked}; ${mended} mended or set aside.` : `${looked}; all is as it should be.`;
  };

  return { readList, peek, read, check };
};
