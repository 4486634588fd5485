/** Paints the song tile by tile beside the page, and hands each tile over as an image. */
import { expose } from 'comlink';
import { sayAlive } from './alive';
import type { Beat } from '../../core/document/schema';
import { songTimeline, type Timeline } from '../../core/play/timeline';
import { paintTile, rowsOf, type Measures, type Row } from '../strings/songPicture';

export interface SongPicture {
  beat: Beat;
  ink: Record<string, string>;
  measures: Measures;
  /** Of a tile, in points. */
  width: number;
  height: number;
  /** Pixels a point. */
  ratio: number;
}

export interface Painter {
  /** A song whose tiles are asked for from now on; those of another one that still wait are never painted. */
  show(key: number, song: SongPicture): void;
  /** @returns the image of a tile; null where another song is shown, or it could not be painted */
  tile(key: number, index: number): Promise<Blob | null>;
}

interface Shown extends SongPicture {
  key: number;
  layout: Timeline;
  rows: Map<string, Row>;
}

let shown: Shown | null = null;
let wanted: { index: number; give: (blob: Blob | null) => void }[] = [];
let painting = false;
let fonts: Promise<unknown> | null = null;

/** Workers have none of the page's fonts. Where it does not come, another one is as good. */
const loadFonts = (): Promise<unknown> => {
  const set = (globalThis as unknown as { fonts: FontFaceSet }).fonts;
  const font = new FontFace('Martian Mono', "url('/fonts/martian-mono-latin-400-normal.woff2')");
  set.add(font);
  return font.load().catch(() => null);
};

const paint = async (song: Shown, index: number): Promise<Blob> => {
  const { layout, rows, ink, measures, width, height, ratio } = song;
  const canvas = new OffscreenCanvas(width * ratio, height * ratio);
  const brush = canvas.getContext('2d', { willReadFrequently: true })!;
  brush.setTransform(ratio, 0, 0, ratio, 0, 0);
  const from = (index * width) / measures.scale;
  paintTile(brush, layout, rows, ink, measures, [from, from + width / measures.scale], ratio);
  return canvas.convertToBlob();
};

/** While one tile is made into an image another song may be shown, whose tiles then come first. */
const work = async (): Promise<void> => {
  if (painting) return;
  painting = true;
  await (fonts ??= loadFonts());
  for (let next = wanted.shift(); next; next = wanted.shift())
    // One tile that could not be painted holds up no other.
    next.give(await paint(shown!, next.index).catch(() => null));
  painting = false;
};

sayAlive();
expose({
  show: (key, song) => {
    const layout = songTimeline(song.beat);
    shown = { ...song, key, layout, rows: rowsOf(song.beat, layout) };
    for (const { give } of wanted) give(null);
    wanted = [];
  },
  tile: (key, index) =>
    new Promise((give) => {
      if (key !== shown?.key) return give(null);
      wanted.push({ index, give });
      void work();
    }),
} satisfies Painter);
