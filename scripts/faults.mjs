import { readyApp, readyBrowser, readyPackages, runTs } from './ready.mjs';

readyPackages();
readyBrowser();
readyApp();
try {
  runTs('faults/main.ts');
} catch {
  // What failed has been said.
  process.exitCode = 1;
}
