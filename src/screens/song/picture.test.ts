import { DEMO_BEATS } from '../../../demo/beats';
import { layoutSong } from '../../../core/song/layout';
import { numberEvery, pixelOf, rowsOf } from './pictureOf';

test('a colour is the same pixel, however short it is written', () => {
  expect(pixelOf('#db5')).toBe(pixelOf('#ddbb55'));
  expect(pixelOf('#123456').toString(16)).toBe('ff563412');
});

test('a lane that plays anywhere in the song has a row; numbers never run into one another', () => {
  const beat = DEMO_BEATS[0]!;
  const rows = rowsOf(beat, layoutSong(beat));
  expect([...rows.keys()]).toEqual(beat.lanes.map(({ id }) => id).filter((id) => rows.has(id)));
  expect(rows.size).toBe(10);
  for (const points of [0.5, 2, 9, 40]) expect(numberEvery(points) * points).toBeGreaterThanOrEqual(34);
});
