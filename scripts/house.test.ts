import fs from 'node:fs';
import { arrowsOf, CORE, housePicture } from './house';

test('the rooms of core use those before them only', () => {
  const against = [...arrowsOf().keys()].filter((key) => {
    const [from, to] = key.split(' ').map((room) => CORE.indexOf(room)) as [number, number];
    return from >= 0 && to > from;
  });
  expect(against).toEqual([]);
  expect(arrowsOf().get('play feel')).toBeGreaterThan(0);
});

test('the picture of the house shows every room of core', () => {
  const picture = fs.readFileSync('docs/house.svg', 'utf8');
  for (const room of CORE) expect(picture).toContain(`core/${room}<`);
  expect(housePicture()).toContain('feel uses document');
});
