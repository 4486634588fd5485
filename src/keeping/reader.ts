import type { Mended } from '../../core/document/mend';
import type { Read } from '../../core/document/reading';
import type { Beat } from '../../core/document/schema';
import { newerSummary, peekAt, type Formats, type Peeked } from './peek';
import { libraryRead, summarySet, type BeatSummary } from '../store/slices';
import * as disk from './storage';
import type { KeyValue } from './storage';
import type { Store } from '../store/store';
import type { Say } from './trouble';
import { words } from '../words/state';

export interface ReaderParts {
  store: Store;
  storage: KeyValue;
  say: Say;
  fileFormat: () => Promise<Formats>;
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
    say(words.aSavedBeatCouldNot(kept.name, error), {
      tone: 'danger',
      lasting: true,
      action: { label: words.downloadIt, does: { kind: 'downloadAside', key: kept.key } },
      ...(kept.isBeat && {
        also: { label: words.openWhatCanBeRead, does: { kind: 'openAside', key: kept.key } },
      }),
    });
  };

  /** What can be read of a text that was set aside. */
  const mended = async (key: string): Promise<Read<Mended>> => {
    const { mendBeat } = await fileFormat();
    return mendBeat(await disk.asideText(storage, key));
  };

  const read = async (id: string): Promise<{ beat: Beat; seq: number } | null> => {
    const got = await peek(id);
    if (got.kind === 'there') {
      if (got.lost.length) {
        const { name } = got.beat;
        const what = {
          name: words.editsOfNameThatCould(name),
          reason: '',
          text: JSON.stringify(got),
        };
        const kept = await disk.keepAside(storage, id, what);
        // Else they would be found, and told, at every start.
        await disk.rewriteBeat(storage, got.beat, got.seq, now());
        say(words.someEditsOfNameCould(name), {
          lasting: true,
          action: { label: words.downloadThem, does: { kind: 'downloadAside', key: kept.key } },
        });
      }
      return got;
    }
    if (got.kind === 'newer') {
      const summary = newerSummary(id, got.text);
      dispatch(summarySet(summary));
      say(words.summaryWasSavedByA(summary.name), { lasting: true, subject: `newer/${id}` });
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
    const looked = words.manyLookedThrough(beats.length);
    return mended ? words.lookedMendedMendedOrSet(looked, mended) : words.lookedAllIsAsIt(looked);
  };

  return { readList, peek, read, check, mended };
};
