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

/** Of one kind in every place: a screen's styles, a range and what sets it, a figure as it is set, told and described, an id. */
const SHARED_NAMES = ['Range', 'figure', 'id', 'styles'];

test('a name is exported by one module', () => {
  const from = new Map<string, Set<string>>();
  for (const root of ['core', 'src', 'cli', 'server'])
    for (const name of fs.readdirSync(root, { recursive: true }) as string[]) {
      // What only a browser can do has a counterpart of the same names; lists of texts are called alike.
      const module = `${root}/${name.replace(/(\.web)?\.tsx?$/, '')}`;
      if (
        !/\.tsx?$/.test(name) ||
        /\.(test|mock)\.tsx?$/.test(name) ||
        /^src\/words\/|__mocks__|arbitraries$/.test(module)
      )
        continue;
      const text = fs.readFileSync(`${root}/${name}`, 'utf8');
      for (const [, one] of text.matchAll(
        /^export (?:const|type|interface|function|class|async function) (\w+)/gm,
      ))
        from.set(one!, (from.get(one!) ?? new Set()).add(module));
    }
  expect(from.get('keyOf')).toEqual(new Set(['src/ui/keys']));
  const several = [...from].filter(([, modules]) => modules.size > 1).map(([name]) => name);
  expect(several.sort()).toEqual(SHARED_NAMES);
});

test('an event of the store is handed to it: made by itself it does nothing', () => {
  const files = (fs.readdirSync('src', { recursive: true }) as string[]).filter(
    (name) => /\.tsx?$/.test(name) && !/\.(test|mock)\./.test(name),
  );
  const read = (name: string) => fs.readFileSync(`src/${name}`, 'utf8');
  const events = files
    .filter((name) => name.startsWith('store/'))
    .flatMap((name) => [...read(name).matchAll(/export const \{([^}]*)\} = \w+\.actions/g)])
    .flatMap(([, names]) => names!.match(/\w+/g)!);
  expect(events).toContain('selectionEnded');
  const alone = new RegExp(`([;{}]|=>|\\) |else )\\s*(${events.join('|')})\\([^;]*\\);`);
  const found = (text: string) => alone.exec(text)?.[0];
  expect(found('if (left) {\n  selectionEnded();\n}')).toBeDefined();
  expect(found('store.dispatch(\n  selectionEnded(),\n);')).toBeUndefined();
  expect(files.filter((name) => found(read(name)) !== undefined)).toEqual([]);
});
