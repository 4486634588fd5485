import { readyApp, readyBrowser, readyPackages, runTs } from './ready.mjs';

readyPackages();
readyBrowser();
readyApp();
runTs('bench/core.ts');
runTs('bench/page.ts');
