import { readyApp, readyBrowser, readyPackages, runTs } from './ready.mjs';

readyPackages();
readyBrowser();
await readyApp();
try {
  runTs('faults/main.ts');
} catch {
  // What failed has been said.
  process.exitCode = 1;
}
