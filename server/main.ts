import { statSync } from 'node:fs';
import path from 'node:path';
import { createApp } from './app';
import { watchFolder } from './grooveFolder';

const port = Number(process.env['PORT'] ?? 4730);
const asked = process.env['HOST'];
const host = asked ?? '127.0.0.1';

const fail = (sentence: string): never => {
  process.stderr.write(`${sentence}\n`);
  process.exit(1);
};

const isFolder = (at: string): boolean => statSync(at, { throwIfNoEntry: false })?.isDirectory() ?? false;

if (!Number.isInteger(port) || port < 0 || port > 65535)
  fail(`PORT is to be a number from 0 to 65535, not “${process.env['PORT']}”.`);

const given = process.env['GROOVES'];
if (given && !isFolder(given)) fail(`GROOVES is to be a folder of MIDI files; there is none at “${given}”.`);
const home = path.join(__dirname, '..');
const grooves = watchFolder(
  path.resolve(given ?? path.join(home, 'demo', 'grooves')),
  path.join(home, 'node_modules', '.cache', 'ruddik'),
);

const server = createApp(path.join(__dirname, '..', 'dist'), grooves, asked !== undefined).listen(
  port,
  host,
  (error?: Error) => {
    if (error) return;
    const address = server.address();
    const at = typeof address === 'object' && address ? address.port : port;
    process.stdout.write(`Ruddik is at http://${host === '0.0.0.0' ? 'localhost' : host}:${at}\n`);
    if (!['127.0.0.1', 'localhost', '::1'].includes(host))
      process.stdout.write(
        'Everyone who reaches this machine can open it there, and read the files of the groove folder.\n',
      );
  },
);

server.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EADDRINUSE')
    fail(`Port ${port} is in use. Stop what uses it, or choose another: PORT=${port + 1} npm start`);
  fail(`The server could not start at ${host}, port ${port}: ${error.message}`);
});

/** What is being downloaded may take so long, in ms, once the server is to end. */
const PATIENCE = 10_000;

const end = (): void => {
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => process.exit(0), PATIENCE);
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, end);
