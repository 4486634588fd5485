import { KIT_LIST } from '../../core/synthesis/kitList';
import { drumPicture } from './drumPicture';

test('a kick is low and rings, a hat is high and short; both fit their frame', () => {
  const [kick, hat] = [drumPicture('quay', 'kick'), drumPicture('quay', 'hat.closed')];
  const strongest = (bands: number[]) => bands.indexOf(Math.max(...bands)) / bands.length;
  expect(strongest(kick.bands)).toBeLessThan(0.4);
  expect(strongest(hat.bands)).toBeGreaterThan(0.7);
  expect(kick.ring).toBeGreaterThan(3 * hat.ring);
  expect(hat.centroid).toBeGreaterThan(kick.centroid);
  for (const { wave, bands, strikes } of [kick, hat]) {
    expect([wave.length, bands.length, strikes]).toEqual([96, 48, 3]);
    expect([...wave, ...bands].every((level) => level >= 0 && level <= 1)).toBe(true);
  }
});

test('what a kit has none of says as what it sounds; a kit that is not there is the first', () => {
  expect(drumPicture('lantern', 'china')).toMatchObject({
    instrument: 'china',
    soundsAs: 'crash',
    strikes: 1,
  });
  expect(drumPicture('gone', 'claves')).toEqual(drumPicture(KIT_LIST[0]!.id, 'claves'));
});
