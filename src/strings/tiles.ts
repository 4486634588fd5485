import type { Hired } from '../workers/caller';
import { hirePainter } from '../workers/makers';
import type { Painter, SongPicture } from '../workers/pictureWorker';

/** Tiles of the song's picture: a worker paints them, since a page that scrolls has no time to. */

/** A tile that was asked for and has not come yet. */
interface Wanted {
  key: number;
  index: number;
  give: (blob: Blob) => void;
  fail: () => void;
}

let painter: Hired<Painter> | null = null;
let shown: SongPicture | null = null;
let last = 0;
let wanted = new Set<Wanted>();
/** How often in a row the painter has gone before any tile came of it. */
let failures = 0;
const MOST_FAILURES = 3;

/** What was rolled before is not in the picture, and may be much. */
const withoutTakes = (song: SongPicture): SongPicture => ({
  ...song,
  beat: { ...song.beat, patterns: song.beat.patterns.map((pattern) => ({ ...pattern, takes: [] })) },
});

const ask = (tile: Wanted): void => {
  void painter!.far.tile(tile.key, tile.index).then(
    (blob) => {
      if (!wanted.delete(tile)) return;
      failures = 0;
      if (tile.key !== last) return;
      if (blob) tile.give(blob);
      else tile.fail();
    },
    // One that is gone answers nothing: what waited for it is asked of the next.
    () => undefined,
  );
};

/** The painter, and all that is wanted asked of it anew where it is another one than before. */
const hired = (): Hired<Painter> => {
  if (painter) return painter;
  const fresh = hirePainter();
  painter = fresh;
  fresh.failed.catch(() => {
    if (painter !== fresh) return;
    painter = null;
    failures += 1;
    const waiting = [...wanted].filter(({ key }) => key === last);
    wanted = new Set(failures < MOST_FAILURES ? waiting : []);
    if (failures >= MOST_FAILURES) {
      // What is asked for later, of a song that has changed say, is tried anew.
      failures = 0;
      for (const { fail } of waiting) fail();
    } else if (waiting.length && shown) {
      void hired().far.show(last, withoutTakes(shown));
      waiting.forEach(ask);
    }
  });
  return fresh;
};

/**
 * Asks for a tile of a song; what was asked of another one before is dropped.
 *
 * @param fail hears that it cannot be painted
 * @returns takes the asking back
 */
export const askTile = (
  song: SongPicture,
  index: number,
  give: (blob: Blob) => void,
  fail: () => void,
): (() => void) => {
  const isFresh = !painter;
  const { far } = hired();
  if (song !== shown || isFresh) {
    if (song !== shown) last += 1;
    shown = song;
    void far.show(last, withoutTakes(song));
  }
  const tile: Wanted = { key: last, index, give, fail };
  wanted.add(tile);
  ask(tile);
  return () => void wanted.delete(tile);
};
