import { hirePainter } from '../workers/makers';
import type { SongPicture } from '../workers/pictureWorker';

/** Tiles of the song's picture: a worker paints them, since a page that scrolls has no time to. */

let painter: ReturnType<typeof hirePainter> | null = null;
let shown: SongPicture | null = null;
let last = 0;

/** What was rolled before is not in the picture, and may be much. */
const withoutTakes = (song: SongPicture): SongPicture => ({
  ...song,
  beat: { ...song.beat, patterns: song.beat.patterns.map((pattern) => ({ ...pattern, takes: [] })) },
});

/** Asks for a tile of a song; what was asked of another one before is dropped. What is returned takes the asking back. */
export const askTile = (song: SongPicture, index: number, give: (blob: Blob) => void): (() => void) => {
  const { far } = (painter ??= hirePainter());
  if (song !== shown) {
    shown = song;
    last += 1;
    void far.show(last, withoutTakes(song));
  }
  const key = last;
  let wanted = true;
  void far.tile(key, index).then(
    (blob) => {
      if (wanted && key === last && blob) give(blob);
    },
    () => undefined,
  );
  return () => {
    wanted = false;
  };
};
