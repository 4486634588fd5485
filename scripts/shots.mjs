import { readyApp, readyBrowser, readyPackages, runTs } from './ready.mjs';

readyPackages();
readyBrowser();
await readyApp();
runTs('scripts/shots.ts');
