import { gridTicks } from '../../core/document/grid';
import { PIGMENTS } from '../../core/document/choices';
import type { Beat } from '../../core/document/schema';
import { songTimeline } from '../../core/play/timeline';
import { DEMO_BEATS } from '../../demo/beats';
import { numberEvery, paintTile, pixelOf, rowsOf } from './songPicture';

test('a colour is the same pixel, however short it is written', () => {
  expect(pixelOf('#db5')).toBe(pixelOf('#ddbb55'));
  expect(pixelOf('#123456').toString(16)).toBe('ff563412');
});

test('a lane that plays anywhere in the song has a row; numbers never run into one another', () => {
  const beat = DEMO_BEATS[0]!;
  const rows = rowsOf(beat, songTimeline(beat));
  expect([...rows.keys()]).toEqual(beat.lanes.map(({ id }) => id).filter((id) => rows.has(id)));
  expect(rows.size).toBe(10);
  for (const points of [0.5, 2, 9, 40]) expect(numberEvery(points) * points).toBeGreaterThanOrEqual(34);
});

/** A brush that keeps the pixels and the words that it is given. */
const brushOf = (width: number, height: number) => {
  const words: { text: string; x: number }[] = [];
  const image = { data: new Uint8ClampedArray(width * height * 4), width, height };
  const brush = {
    canvas: { width, height },
    createImageData: () => image,
    putImageData: () => undefined,
    fillRect: () => undefined,
    fillText: (text: string, x: number) => words.push({ text, x }),
  };
  return {
    brush: brush as unknown as CanvasRenderingContext2D,
    pixels: new Uint32Array(image.data.buffer),
    words,
  };
};

const INK = { ground: '#000000', rule: '#111111', line: '#222222', quiet: '#999999' } as Record<
  string,
  string
>;
PIGMENTS.forEach((name, at) => (INK[name] = `#${(0x404040 + at * 0x111111).toString(16)}`));

const tile = (beat: Beat, [from, to]: [number, number], scale: number) => {
  const [width, height] = [Math.round((to - from) * scale), 120];
  const layout = songTimeline(beat);
  const rows = rowsOf(beat, layout);
  const { brush, pixels, words } = brushOf(width, height);
  paintTile(brush, layout, rows, INK, { scale, top: 20, height: 80 }, [from, to], 1);
  const row = 80 / rows.size;
  /** How many columns of a lane's string carry its dye. */
  const dyed = (lane: string): number[] => {
    const { at, pigment } = rows.get(lane)!;
    const y = Math.round(20 + (at + 0.5) * row);
    const dye = pixelOf(INK[pigment]!);
    return Array.from({ length: width }, (_, x) => x).filter((x) =>
      [y - 1, y, y + 1].some((line) => pixels[line * width + x] === dye),
    );
  };
  return { dyed, words, layout, rows };
};

test('every lane of a bar is dyed where it is hit, and nowhere else; numbers and times are written', () => {
  const beat = DEMO_BEATS.find(({ song }) => song.order.length)!;
  const bar = songTimeline(beat).bars[0]!;
  const scale = 0.25;
  const { dyed, words, layout, rows } = tile(beat, [0, 3840], scale);
  const [stretch] = layout.regions;
  const silent = stretch!.span.section!.silent;
  for (const lane of rows.keys()) {
    const part = stretch!.pattern!.parts[lane];
    if (!part || part.steps !== null || part.rate !== '1' || silent.includes(lane)) continue;
    const wanted = part.hits
      .map(({ step, nudge }) => Math.round((step + nudge) * gridTicks(part.grid) * scale))
      .filter((x) => x < 3840 * scale);
    const columns = dyed(lane);
    for (const x of wanted) expect(columns).toContain(x);
    for (const x of columns) expect(wanted.some((hit) => x >= hit && x < hit + 3)).toBe(true);
  }
  expect(bar.from).toBe(0);
  expect(words.filter(({ text }) => text === '1')).toHaveLength(1);
  expect(words.some(({ text }) => /^\d+:\d\d$/.test(text))).toBe(true);
});

test('tiles side by side are the picture in one piece', () => {
  const beat = DEMO_BEATS.find(({ song }) => song.order.length)!;
  const scale = 0.125;
  const whole = tile(beat, [0, 3840 * 8], scale);
  const [left, right] = [tile(beat, [0, 3840 * 4], scale), tile(beat, [3840 * 4, 3840 * 8], scale)];
  for (const lane of whole.rows.keys())
    expect([...left.dyed(lane), ...right.dyed(lane).map((x) => x + 480 * 4)]).toEqual(whole.dyed(lane));
});
