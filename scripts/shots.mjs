import { readyApp, readyBrowser, readyPackages, runTs } from './ready.mjs';

readyPackages();
readyBrowser();
readyApp();
runTs('scripts/shots.ts');
