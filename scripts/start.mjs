import { spawn } from 'node:child_process';
import { readyApp, readyPackages, ROOT } from './ready.mjs';

readyPackages();
await readyApp();

const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
  cwd: ROOT,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
