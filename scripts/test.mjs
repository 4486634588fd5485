/** Everything that must hold, on a fresh clone too: types, lint, unit tests, the app built, end-to-end tests. */
import { execFile } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { readyApp, readyBrowser, readyPackages, ROOT, run } from './ready.mjs';

readyPackages();
readyBrowser();

const results = path.join(ROOT, 'test-results');
fs.mkdirSync(results, { recursive: true });
const unitFile = path.join(results, 'unit.json');
const endToEndFile = path.join(results, 'e2e.json');
for (const file of [unitFile, endToEndFile]) fs.rmSync(file, { force: true });

const step = (name, command, args) => {
  process.stdout.write(`\n${name}\n`);
  return { name, ok: run(command, args) === 0 };
};

/** Several that use one core each or none for long, beside one another; each is told as a whole when it is done. */
const beside = (...all) =>
  Promise.all(
    all.map(
      ([name, command, args]) =>
        new Promise((resolve) => {
          execFile(command, args, { cwd: ROOT, maxBuffer: Infinity }, (fault, out, errors) => {
            process.stdout.write(`\n${name}\n${out}${errors}`);
            resolve({ name, ok: !fault });
          });
        }),
    ),
  );

const steps = [
  ...(await beside(
    ['Lint', 'npx', ['eslint', '.']],
    ['Unused', 'npx', ['knip', '--no-progress']],
    ['Type check', 'npx', ['tsc', '--noEmit']],
    ['Format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
    ['Native bundle', 'npm', ['run', '--silent', 'native']],
    ['Build', process.execPath, [path.join(ROOT, 'scripts', 'build.mjs')]],
  )),
  // In processes of their own, so that one that breaks down takes no other file's results with it.
  step('Unit tests', 'npx', [
    'jest',
    '--maxWorkers=2',
    '--workerIdleMemoryLimit=1200MB',
    '--json',
    `--outputFile=${unitFile}`,
  ]),
];
// Where building it failed it is tried again, and said.
await readyApp();
steps.push(step('End-to-end tests', 'npx', ['playwright', 'test']));

const read = (file) => (fs.existsSync(file) ? JSON.parse(fs.readFileSync(file, 'utf8')) : null);
const unit = read(unitFile);
const endToEnd = read(endToEndFile);
const passed = (unit?.numPassedTests ?? 0) + (endToEnd?.stats.expected ?? 0) + (endToEnd?.stats.flaky ?? 0);
const broken = steps.filter(({ ok }) => !ok);
const failedTests = (unit?.numFailedTests ?? 0) + (endToEnd?.stats.unexpected ?? 0);
const failed = broken.length ? Math.max(failedTests, broken.length) : 0;

/** Said again at the end, where who looks at the last lines only sees what it was. */
const unitFaults = (unit?.testResults ?? []).flatMap(({ name, assertionResults, message }) => {
  const at = path.relative(ROOT, name);
  const failing = assertionResults.filter(({ status }) => status === 'failed');
  const said = failing.map(
    ({ fullName, failureMessages }) => `${at} › ${fullName}\n${failureMessages[0] ?? ''}`,
  );
  return said.length || !message ? said : [`${at}\n${message}`];
});
if (!unit) unitFaults.push('The unit tests ended before they had written what they found.');
for (const fault of unitFaults) process.stdout.write(`\n${fault}\n`);
for (const { name } of broken) process.stdout.write(`\n${name}: failed`);
process.stdout.write(`\nTests: ${passed} passed, ${failed} failed\n`);
process.exit(broken.length ? 1 : 0);
