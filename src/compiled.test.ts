import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { transformSync } from '@babel/core';

/**
 * The compiler remembers what a component made, and reads what it depends on before any guard: `thing!.name` in a handler
 * becomes a look at `thing.name` while it is drawn, which fails where `thing` is null.
 */
const readBeforeGuard = (source: string, filename: string): string[] => {
  const asserted = new Set([...source.matchAll(/\b([a-zA-Z_]\w*)!(?=[.[])/g)].map(([, name]) => name!));
  if (!asserted.size) return [];
  const compiled = transformSync(source, {
    filename,
    configFile: false,
    babelrc: false,
    parserOpts: { plugins: ['typescript', 'jsx'] },
    plugins: ['babel-plugin-react-compiler'],
  });
  return [...compiled!.code!.matchAll(/\$\[\d+\] !== ([a-zA-Z_]\w*)\.[\w.]+/g)]
    .filter(([, root]) => asserted.has(root!))
    .map(([text]) => text);
};

const componentsIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return componentsIn(path);
    return /\.tsx$/.test(path) && !path.includes('.test.') ? [path] : [];
  });

test('a look at something that may be missing is found in what the compiler makes', () => {
  const source = `export const One = ({ of }: { of: { name: string } | null }) => {
    const say = () => alert(of!.name);
    return <button onClick={say}>{of ? 'one' : 'none'}</button>;
  };`;
  expect(readBeforeGuard(source, 'One.tsx')).toEqual([expect.stringContaining('of.name')]);
});

test('no component looks at what may be missing before its guard', () => {
  const found = componentsIn(__dirname).flatMap((path) =>
    readBeforeGuard(readFileSync(path, 'utf8'), path).map((text) => `${path}: ${text}`),
  );
  expect(componentsIn(__dirname).length).toBeGreaterThan(50);
  expect(found).toEqual([]);
});
