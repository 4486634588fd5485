import Color from 'color';
import fc from 'fast-check';
import shade from './shade';

const channels = (text: string): number[] => [...text.matchAll(/[\d.]+/g)].map(([number]) => Number(number));
const hex = fc
  .tuple(...[0, 1, 2].map(() => fc.integer({ min: 0, max: 255 })))
  .map((parts) => `#${parts.map((part) => part.toString(16).padStart(2, '0')).join('')}`);

describe('what RNE asks of its colours', () => {
  it.each([
    ['seen through', (of: typeof Color) => of('#17211F').alpha(0.32).rgb().string()],
    ['as it is', (of: typeof Color) => of('#F3EFE6').rgb().toString()],
  ])('is what its own package says: %s', (_, ask) => {
    expect(ask(shade as unknown as typeof Color)).toBe(ask(Color));
  });

  it('is as dark and as light as its own package makes it, within three in a hundred', () => {
    fc.assert(
      fc.property(
        hex,
        fc.double({ min: 0, max: 0.9, noNaN: true }),
        fc.boolean(),
        (colour, share, darker) => {
          const way = darker ? 'darken' : 'lighten';
          const mine = channels(shade(colour)[way](share).rgb().string());
          const theirs = channels(Color(colour)[way](share).rgb().string());
          mine.forEach((channel, at) => expect(Math.abs(channel - theirs[at]!)).toBeLessThanOrEqual(7));
        },
      ),
      { seed: 19 },
    );
  });

  it('is black where it is told of no colour', () => {
    expect(shade(undefined).string()).toBe('rgb(0, 0, 0)');
  });
});
