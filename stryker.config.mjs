import { readFileSync } from 'node:fs';

/** One room at a time, by the tests that lie nearest to it: `npm run mutate -- core/play`. */
const room = process.env.ROOM ?? 'core/play';
const { mutate, tests } = JSON.parse(readFileSync(new URL('./mutation/rooms.json', import.meta.url), 'utf8'))[
  room
];
const key = room.replace('/', '-');

/** @type {import('@stryker-mutator/api/core').PartialStrykerOptions} */
export default {
  testRunner: 'jest',
  plugins: ['@stryker-mutator/jest-runner'],
  jest: {
    projectType: 'custom',
    configFile: 'jest.mutate.js',
    enableFindRelatedTests: false,
  },
  coverageAnalysis: 'perTest',
  mutate,
  // A table of figures is held by the tests of what reads it; words are read by people.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignoreStatic: true,
  incremental: true,
  incrementalFile: `mutation/kept/${key}.json`,
  concurrency: Number(process.env.CONCURRENCY ?? 2),
  timeoutMS: 20000,
  timeoutFactor: 2,
  disableTypeChecks: false,
  tempDirName: 'test-results/mutants',
  cleanTempDir: 'always',
  allowEmpty: false,
  reporters: ['clear-text', 'json'],
  jsonReporter: { fileName: `test-results/mutation-${key}.json` },
  clearTextReporter: { logTests: false, reportTests: false, reportScoreTable: true, skipFull: true },
  ignorePatterns: ['dist', 'docs', 'public', 'e2e', 'test-results', '.expo'],
  testFiles: tests,
};
