/**
 * The same examples on every run, so that a change is judged by what it changed. `npm run explore` draws new ones, and
 * many times as many: EXPLORE is how many an ordinary property gets.
 */
const fc = require('fast-check');

const runs = Number(process.env.EXPLORE);
fc.configureGlobal(runs ? { numRuns: runs } : { seed: 19 });
