/** What a browser alone can do has a plain counterpart beside it, from which a native bundle is made. */
import { render, screen } from '@testing-library/react';
import fs from 'node:fs';
import path from 'node:path';
import type { ComponentType } from 'react';

const ROOT = path.join(__dirname, '..');
const PLAIN = (fs.readdirSync(ROOT, { recursive: true }) as string[])
  .filter((name) => /\.web\.tsx?$/.test(name))
  .map((name) => name.replace('.web.', '.'))
  .map((name) => [name, name.replace(/x$/, '')].find((one) => fs.existsSync(path.join(ROOT, one))))
  .filter((name) => name !== undefined);

const load = (name: string) => require(path.join(ROOT, name)) as Record<string, unknown>;
const webOf = (name: string) =>
  [name.replace(/\.(tsx?)$/, '.web.$1'), name.replace(/\.ts$/, '.web.tsx')].find((one) =>
    fs.existsSync(path.join(ROOT, one)),
  )!;

test.each(PLAIN)('%s stands for its counterpart: it has no name that the other has not', (name) => {
  const [plain, web] = [load(name), load(webOf(name))];
  expect(Object.keys(plain).length).toBeGreaterThan(0);
  for (const key of Object.keys(plain)) expect([key, typeof plain[key]]).toEqual([key, typeof web[key]]);
});

test('a part that needs a browser says so in a sentence', () => {
  const Strings = load('strings/Strings.tsx')['Strings'] as ComponentType;
  render(<Strings />);
  expect(screen.getByText('Strings: only in a browser. Open Ruddik there.')).toBeTruthy();
});

test('without a browser play does not begin, and nothing is heard', async () => {
  const player = load('audio/player.ts') as unknown as typeof import('../audio/player.web');
  await expect(player.startPlaying()).rejects.toThrow('Sound needs a browser.');
  expect(player.hearTrouble(() => undefined)()).toBeUndefined();
  expect(player.playedRoutes()).toEqual([]);
});
