import fs from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { FIXTURES } from './examples.mock';

/** Every exported function of core says what it does, and most show it: what they show is run here. */

const filesIn = (folder: string): string[] =>
  fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) return filesIn(at);
    return /\.ts$/.test(at) && !/\.(test|mock)\.ts$|arbitraries/.test(at) ? [at] : [];
  });

interface Documented {
  file: string;
  name: string;
  text: string;
}

const isExported = (node: ts.Statement): boolean =>
  ts.canHaveModifiers(node) &&
  (ts.getModifiers(node)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword) ?? false);

/** The name of what a statement exports, where that is a function. */
const functionName = (node: ts.Statement): string | null => {
  if (ts.isFunctionDeclaration(node)) return node.name?.text ?? null;
  if (!ts.isVariableStatement(node)) return null;
  const [one] = node.declarationList.declarations;
  const isFunction = one?.initializer && ts.isArrowFunction(one.initializer);
  return isFunction && ts.isIdentifier(one.name) ? one.name.text : null;
};

const functionsIn = (file: string): Documented[] => {
  const source = ts.createSourceFile(file, fs.readFileSync(file, 'utf8'), ts.ScriptTarget.ESNext, true);
  return source.statements.filter(isExported).flatMap((node) => {
    const name = functionName(node);
    const text = ts.getJSDocCommentsAndTags(node).map((doc) => doc.getText())[0] ?? '';
    return name ? [{ file, name, text }] : [];
  });
};

/** What is shown, and what comes of it: `expression // value`, the value on a line of its own where it is long. */
const examplesOf = ({ text }: Documented): { shown: string; value: string }[] =>
  [...text.matchAll(/@example[\s*]+([\s\S]*?)(?=\n\s*\*?\s*@|@example|\*\/)/g)].map(([, body]) => {
    const plain = body!.replace(/\n\s*\*/g, '\n').trim();
    const at = plain.lastIndexOf('//');
    return { shown: plain.slice(0, at).trim(), value: plain.slice(at + 2).trim() };
  });

const all = filesIn(__dirname).flatMap(functionsIn);
const modules = new Map(filesIn(__dirname).map((file) => [file, jest.requireActual<object>(file)]));
const shared = Object.assign({}, ...[...modules.values()].reverse());

const run = (file: string, code: string): unknown => {
  const scope: Record<string, unknown> = { ...shared, ...modules.get(file), ...FIXTURES };
  const names = Object.keys(scope).filter((name) => /^[A-Za-z_]\w*$/.test(name) && name !== 'default');
  const script = ts.transpile(`x = ${code}`, {
    target: ts.ScriptTarget.ES2022,
    module: ts.ModuleKind.ESNext,
  });
  const body = script.replace(/^"use strict";\s*/, '').replace(/^x = /, 'return ');
  // eslint-disable-next-line @typescript-eslint/no-implied-eval -- the examples are code of this project, and run as such
  const run = new Function(...names, body) as (...values: unknown[]) => unknown;
  return run(...names.map((name) => scope[name]));
};

/** Figures are shown to nine places. */
const rounded = (value: unknown): unknown =>
  JSON.parse(
    JSON.stringify(value, (_, one: unknown) =>
      typeof one === 'number' && Number.isFinite(one)
        ? Math.round(one * 1e9) / 1e9
        : one === undefined || one === Infinity
          ? String(one)
          : ArrayBuffer.isView(one)
            ? [...(one as unknown as Iterable<number>)]
            : one,
    ) ?? '"undefined"',
  );

test('every exported function says what it does, and two thirds show it', () => {
  expect(all.filter(({ text }) => !text).map(({ name }) => name)).toEqual([]);
  const showing = all.filter((one) => examplesOf(one).length);
  expect(showing.length / all.length).toBeGreaterThan(2 / 3);
});

const cases = all.flatMap((one) =>
  examplesOf(one).map(({ shown, value }): [string, string, string, string] => [
    `${path.relative(__dirname, one.file)} ${one.name}`,
    one.file,
    shown,
    value,
  ]),
);

test.each(cases)('%s', (_, file, shown, value) => {
  expect(rounded(run(file, shown))).toEqual(rounded(run(file, value)));
});
