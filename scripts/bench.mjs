import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { readyApp, readyBrowser, readyPackages, ROOT, runTs } from './ready.mjs';

readyPackages();
readyBrowser();
await readyApp();

/** What computes is measured as it runs in the app, with its modules joined into one. */
const { buildSync } = await import('esbuild');
for (const name of ['core', 'make', 'sounds', 'hands']) {
  const joined = path.join(ROOT, 'test-results', `bench-${name}.cjs`);
  buildSync({
    entryPoints: [path.join(ROOT, 'bench', `${name}.ts`)],
    bundle: true,
    platform: 'node',
    outfile: joined,
  });
  execFileSync(process.execPath, [joined], { cwd: ROOT, stdio: 'inherit' });
}
runTs('bench/page.ts');
runTs('bench/screens.ts');
runTs('bench/grooves.ts');
runTs('bench/song.ts');
runTs('bench/strokes.ts');
runTs('bench/random.ts');
runTs('bench/longPlay.ts');
