import { proxy } from 'comlink';
import type { DrumMap } from '../../../core/midi/drumMap/drumMap';
import type { Hired } from '../../workers/caller';
import type { FromImport, GivenFile, Importer } from '../../workers/importer';
import { words } from '../../words/grooves';

/** Hears how far an import is, and how it ended. */
export type ImportHearer = (
  message:
    | Extract<FromImport, { type: 'progress' }>
    /** @param broken nothing could be read, since what reads did not come */
    | { type: 'done'; cancelled: boolean; full: boolean; broken?: true },
) => void;

interface ImportParts {
  chosen: readonly GivenFile[];
  map: DrumMap;
  hire: () => Hired<Importer>;
  hear: ImportHearer;
}

/** How many files are handed to the worker at once. */
const FEW = 8;
/** A worker that does not come is asked for so often again, after so long, in ms. */
const AGAIN_MS = [100, 600];
/** One that is told to stop, and does not, is ended after so long, in ms. */
const STOP_MS = 1000;

/**
 * Has files read by a worker. One that is gone is replaced by another, which goes on from what was kept; where that is gone
 * too, the files are read one by one, and the one at which it goes is left out and named.
 */
export const runImport = ({ chosen, map, hire, hear }: ImportParts): { cancel: () => void } => {
  let one: Hired<Importer> | null = null;
  /** So many of those chosen are finished, and how many more the archives among them held. */
  let [finished, within] = [0, 0];
  let [failures, missed] = [0, 0];
  /** Up to which of them they are read one by one. */
  let alone = 0;
  let [cancelled, over] = [false, false];

  const end = (how: { cancelled: boolean; full: boolean; broken?: true }) => {
    if (over) return;
    over = true;
    one?.end();
    hear({ type: 'done', ...how });
  };

  const run = (): void => {
    const from = finished;
    const some = chosen.slice(from, from < alone ? from + 1 : undefined);
    const hired = hire();
    one = hired;
    let [handed, came, withinBefore] = [0, false, within];
    const take = (message: FromImport): void => {
      if (over || one !== hired) return;
      came = true;
      if (message.type === 'more') {
        const files = some.slice(handed, handed + FEW);
        handed += FEW;
        void hired.far.files(files, handed >= some.length);
      } else if (message.type === 'progress') {
        if (message.given) failures = 0;
        finished = from + message.given;
        within = withinBefore + message.total - some.length;
        hear({ ...message, done: from + withinBefore + message.done, total: chosen.length + within });
      } else if (message.cancelled || message.full) end(message);
      else {
        withinBefore = within;
        finished = from + some.length;
        hired.end();
        if (finished >= chosen.length) end({ cancelled: false, full: false });
        else run();
      }
    };
    hired.failed.catch(() => {
      if (!over && one === hired) gone(came, from + handed);
    });
    void hired.far.begin(some.length, map, proxy(take)).catch(() => undefined);
  };

  /** @param came whether it came at all; @param handed up to which file it had them */
  const gone = (came: boolean, handed: number): void => {
    if (cancelled) return end({ cancelled: true, full: false });
    if (!came) {
      const pause = AGAIN_MS[missed++];
      if (pause === undefined) return end({ cancelled: false, full: false, broken: true });
      setTimeout(() => !over && run(), pause);
      return;
    }
    missed = 0;
    failures += 1;
    if (finished < alone) {
      // Alone with it, it is gone again.
      const { path } = chosen[finished]!;
      finished += 1;
      hear({
        type: 'progress',
        done: finished + within,
        total: chosen.length + within,
        given: finished,
        taken: [],
        left: [{ path, why: words.readingItEnded }],
      });
      if (finished >= chosen.length) return end({ cancelled: false, full: false });
    } else if (failures > 1) alone = Math.max(finished + 1, Math.min(handed, chosen.length));
    run();
  };

  run();
  return {
    cancel: () => {
      cancelled = true;
      void one?.far.cancel().catch(() => undefined);
      setTimeout(() => end({ cancelled: true, full: false }), STOP_MS);
    },
  };
};
