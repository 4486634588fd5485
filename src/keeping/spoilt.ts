import type { Beat } from '../../core/document/schema';
import { words } from '../words/state';
import { beatPatched, docMerged } from '../store/doc';
import { difference } from '../store/patch';
import type { Formats } from './peek';
import { nameOfEntry } from './readBack';
import type { createReader } from './reader';
import * as disk from './storage';
import type { KeyValue } from './storage';
import type { Store } from '../store/store';
import type { Say } from './trouble';

interface SpoiltParts extends Pick<ReturnType<typeof createReader>, 'peek' | 'readList'> {
  store: Store;
  storage: KeyValue;
  demos: Beat[];
  fileFormat: () => Promise<Formats>;
  readBack: (text: string) => Promise<string | null | undefined>;
  say: Say;
}

/** What is done where an edit leaves the open beat so that it could not be opened again. */
export const createSpoilt = (parts: SpoiltParts) => {
  const { store, storage, demos, fileFormat, readBack, say, peek, readList } = parts;

  /** The open beat before the edits that spoilt it, by what this page remembers of it. */
  const lastSound = async (): Promise<Beat | undefined> => {
    const { readBeat } = await fileFormat();
    return store.getState().doc.past.findLast((one) => readBeat(JSON.stringify(one)).ok);
  };

  /** What may be written of a beat that has no text yet: as it is, where it can be read again. */
  const soundText = async (beat: Beat): Promise<Beat> => {
    // The demo beats as they come are read by a test.
    if (demos.includes(beat) || !(await readBack(JSON.stringify(beat)))) return beat;
    return (await lastSound()) ?? beat;
  };

  /** The open beat as it would be read no more: what spoilt it is taken back and named, and it is kept aside as it was. */
  const takeBack = async (spoilt: { id: string; seq: number; beat: Beat }, fault: string) => {
    const got = await peek(spoilt.id);
    const isThere = got.kind === 'there' && got.seq === spoilt.seq;
    const good = isThere ? got.beat : await lastSound();
    // Where something came in between, the next round looks at it again.
    if (!good || store.getState().doc.beat !== spoilt.beat) return;
    const names = isThere ? got.lost.flatMap((item) => (item ? [nameOfEntry(item.entry)] : [])) : [];
    const text = JSON.stringify(spoilt.beat);
    const name = words.nameBeforeAnEditWas(good.name);
    const kept = await disk.keepAside(storage, spoilt.id, { name, reason: fault, text });
    store.dispatch(beatPatched({ patch: difference(spoilt.beat, good) }));
    const { doc } = store.getState();
    const { readBeat } = await fileFormat();
    const past = [...doc.past];
    while (past.length && !readBeat(JSON.stringify(past.at(-1))).ok) past.pop();
    if (store.getState().doc === doc) store.dispatch(docMerged({ doc: { ...doc, past } }));
    await readList();
    say(words.editWasTakenBack(names, fault), {
      tone: 'danger',
      lasting: true,
      action: { label: words.downloadIt, does: { kind: 'downloadAside', key: kept.key } },
    });
  };

  return { soundText, takeBack };
};
