import { readyApp, readyBrowser, readyPackages, runTs } from './ready.mjs';

readyPackages();
readyBrowser();
readyApp();
process.exitCode = runTs('faults/main.ts');
