import fs from 'node:fs';

const PAGES = ['README.md', ...fs.readdirSync('docs').filter((name) => name.endsWith('.md'))];
const THERE = fs.readdirSync('docs/screenshots');
const linked = new Set(
  PAGES.flatMap((name) => {
    const text = fs.readFileSync(name === 'README.md' ? name : `docs/${name}`, 'utf8');
    return [...text.matchAll(/screenshots\/([\w-]+\.png)/g)].map(([, picture]) => picture!);
  }),
);
const made = [...fs.readFileSync('scripts/shots.ts', 'utf8').matchAll(/name: '([\w-]+)',/g)].map(
  ([, name]) => `${name}.png`,
);

test('every picture that is linked is there, every one that is there is linked, and all are made anew by the script', () => {
  expect([...linked].sort()).toEqual([...THERE].sort());
  expect(made.sort()).toEqual([...THERE].sort());
  expect(THERE.length).toBeLessThan(20);
});
