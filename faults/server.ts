/** The server under slow clients, and at its end. */
import { spawn } from 'node:child_process';
import { readdirSync, statSync } from 'node:fs';
import { get } from 'node:http';
import path from 'node:path';
import type { Tried } from './report';

const PORT = 4794;
const ROOT = path.join(__dirname, '..');

const started = async () => {
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    cwd: ROOT,
    env: { ...process.env, PORT: String(PORT) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((resolve) => server.stdout.once('data', resolve));
  return server;
};

/** The largest file that is served as it is. */
const largest = (): { url: string; size: number } => {
  const folder = path.join(ROOT, 'dist', '_expo', 'static', 'js', 'web');
  const [size, name] = readdirSync(folder)
    .filter((one) => one.endsWith('.js'))
    .map((one) => [statSync(path.join(folder, one)).size, one] as const)
    .reduce((most, one) => (one[0] > most[0] ? one : most));
  return { url: `/_expo/static/js/web/${name}`, size };
};

/** Reads slowly; ends the server in the midst of it. @returns how many bytes came */
const slowly = (url: string, midway: () => void): Promise<number> =>
  new Promise((resolve) => {
    let bytes = 0;
    get({ port: PORT, host: '127.0.0.1', path: url, headers: { Connection: 'close' } }, (response) => {
      response.on('data', (piece: Buffer) => {
        if (!bytes) midway();
        bytes += piece.length;
        response.pause();
        setTimeout(() => response.resume(), 20);
      });
      response.on('close', () => resolve(bytes));
    }).on('error', () => resolve(bytes));
  });

export const server = async (times: number): Promise<Tried> => {
  const faults: string[] = [];
  const { url, size } = largest();
  for (let at = 0; at < times; at++) {
    const process_ = await started();
    const ended = new Promise((resolve) => process_.once('exit', resolve));
    const bytes = await slowly(url, () => process_.kill('SIGTERM'));
    if (bytes !== size) faults.push(`a download ended after ${bytes} of ${size} bytes`);
    const late = setTimeout(() => {
      faults.push('the server did not end');
      process_.kill('SIGKILL');
    }, 15_000);
    await ended;
    clearTimeout(late);
  }
  return { what: 'the server told to end while a slow client downloads', tried: times, faults };
};
