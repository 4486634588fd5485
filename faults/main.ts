/**
 * Faults are injected wherever something can fail. SHARE (0 to 1) says how much of it is done, SEED which files it is
 * tried with, ONLY (files, browser) which half,
 * OLDER where the files of an older build are: one of ten tabs has them.
 */
import { browse } from '../scripts/browse';
import { archives } from './archives';
import { failing, firstVisits, junk, leaving } from './browser';
import { documents, midiFiles, others } from './files';
import { killed } from './kills';
import { meant } from './meaning';
import { server } from './server';
import { tabs } from './tabs';
import { told, type Tried } from './report';

const PORT = 4798;
const SHARE = Number(process.env['SHARE'] ?? 1);
const SEED = Number(process.env['SEED'] ?? 1);
const some = (n: number): number => Math.max(1, Math.round(n * SHARE));

const main = async () => {
  const all: Tried[] = [];
  const note = (tried: Tried) => {
    told([tried]);
    all.push(tried);
  };
  const only = process.env['ONLY'];
  if (only !== 'browser') {
    note(midiFiles(some(100_000), SEED));
    note(documents(some(20_000), SEED + 1));
    note(others(some(20_000), SEED + 2));
    note(await meant(some(5_000), SEED + 3));
    note(await archives());
  }
  if (only === 'files') return;
  note(await server(some(20)));
  await browse(PORT, async (browser) => {
    const address = `http://127.0.0.1:${PORT}/`;
    const fresh = () => browser.newContext({ viewport: { width: 1280, height: 800 } });
    note(await leaving(await fresh(), address, some(500)));
    note(await tabs(browser, address, 2, Math.max(64, some(640))));
    note(await tabs(browser, address, 10, Math.max(64, some(640)), process.env['OLDER']));
    note(await failing(await fresh(), address));
    note(await junk(await fresh(), address, SHARE));
    note(await firstVisits(browser, address, some(200)));
    note(await killed(address, some(500)));
  });
  if (all.some(({ faults }) => faults.length)) process.exitCode = 1;
};

void main();
