/** Builds the app, for whoever has something else to do meanwhile. */
import { readyApp } from './ready.mjs';

await readyApp();
