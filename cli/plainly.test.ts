import { plainly } from './plainly';

test.each([
  [
    "error: option '--swing <percent>' argument 'abc' is invalid. It is to be a number.",
    '--swing does not take “abc”. It is to be a number.',
  ],
  [
    "error: option '--offset <note=ms>' argument '38' is invalid. Write NOTE=MS.\nmore",
    '--offset does not take “38”. Write NOTE=MS.',
  ],
  ["error: unknown option '--sing'\n(Did you mean --swing?)", "unknown option '--sing'"],
  ["error: missing required argument 'out'\n", "missing required argument 'out'"],
])('%s', (said, plain) => expect(plainly(said)).toBe(plain));
