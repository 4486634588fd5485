import type { PictureAsked, PictureGiven, SongPicture } from '../workers/pictureWorker';

/** Tiles of the song's picture: a worker paints them, since a page that scrolls has no time to. */

let worker: Worker | null = null;
let shown: SongPicture | null = null;
let last = 0;
const waiting = new Map<string, (blob: Blob) => void>();

const nameOf = (key: number, index: number): string => `${key} ${index}`;

const deliver = ({ data: { key, index, blob } }: MessageEvent<PictureGiven>): void => {
  const name = nameOf(key, index);
  waiting.get(name)?.(blob);
  waiting.delete(name);
};

const begun = (): Worker => {
  const made = new Worker(new URL('../workers/pictureWorker', window.location.href));
  made.onmessage = deliver;
  return made;
};

const send = (asked: PictureAsked): void => (worker ??= begun()).postMessage(asked);

/** What was rolled before is not in the picture, and may be much. */
const withoutTakes = (song: SongPicture): SongPicture => ({
  ...song,
  beat: { ...song.beat, patterns: song.beat.patterns.map((pattern) => ({ ...pattern, takes: [] })) },
});

/** Asks for a tile of a song; what was asked of another one before is dropped. What is returned takes the asking back. */
export const askTile = (song: SongPicture, index: number, give: (blob: Blob) => void): (() => void) => {
  if (song !== shown) {
    shown = song;
    last += 1;
    waiting.clear();
    send({ type: 'song', key: last, song: withoutTakes(song) });
  }
  const name = nameOf(last, index);
  waiting.set(name, give);
  send({ type: 'tile', key: last, index });
  return () => waiting.delete(name);
};
