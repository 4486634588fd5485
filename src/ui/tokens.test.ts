import { readFileSync } from 'node:fs';
import path from 'node:path';
import { rneDay, rneTheme } from './rneTheme';
import { DYES, dyesSheet } from './tokens';

const file = (name: string): string =>
  readFileSync(path.join(__dirname, '..', '..', name), 'utf8').toLowerCase();

/** How bright a colour is, 0 to 1, as WCAG 2.2 has it. */
const bright = (colour: string): number => {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const part = parseInt(colour.slice(at, at + 2), 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
};
const contrast = (a: string, b: string): number => {
  const [low, high] = [bright(a), bright(b)].sort((x, y) => x - y);
  return (high! + 0.05) / (low! + 0.05);
};

test('what cannot take its colours from the tokens has the same', () => {
  const { ground } = DYES;
  const manifest = JSON.parse(file('public/manifest.webmanifest')) as Record<string, unknown>;
  expect([manifest['background_color'], manifest['theme_color']]).toEqual([ground.night, ground.night]);
  const licences = file('scripts/licences.mjs');
  for (const colour of [ground.night, ground.day]) expect(licences).toContain(`--ground:${colour}`);
  const again = file('src/web/startAgain.ts');
  expect(again).toContain(`background:${ground.night};color:${ground.day}`);
});

test('the sheet has every dye by night and by day, and RNE’s theme the same', () => {
  const sheet = dyesSheet();
  for (const [name, { night, day }] of Object.entries(DYES)) {
    expect(sheet).toContain(`--${name}:${night}`);
    expect(sheet.split(`--${name}:${day}`)).toHaveLength(3);
  }
  expect(rneTheme.darkColors).toMatchObject({ primary: DYES.woad.night, error: DYES.ruddle.night });
  expect(rneDay.lightColors).toMatchObject({ primary: DYES.woad.day, error: DYES.ruddle.day });
});

test.each(['night', 'day'] as const)('words can be read by %s: 4.5 to 1 on all grounds', (when) => {
  for (const ground of ['ground', 'raised'] as const)
    for (const ink of [
      'text',
      'quiet',
      'woad',
      'ruddle',
      'weld',
      'lichen',
      'madder',
      'walnut',
      'heather',
    ] as const)
      expect([ink, ground, contrast(DYES[ink][when], DYES[ground][when]) >= 4.5]).toEqual([
        ink,
        ground,
        true,
      ]);
});
