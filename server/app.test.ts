import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { createApp, inlineScripts } from './app';

const folder = mkdtempSync(path.join(tmpdir(), 'ruddik-'));
const PAGE = '<html><script>go()</script><script src="/a.js"></script></html>';
const UNKNOWN = '<html><p>This page does not exist.</p></html>';
let server: Server;

beforeAll(async () => {
  const built = path.join(folder, 'dist');
  mkdirSync(path.join(built, '_expo', 'static'), { recursive: true });
  writeFileSync(path.join(folder, 'secret.txt'), 'secret');
  writeFileSync(path.join(built, 'index.html'), PAGE);
  writeFileSync(path.join(built, 'export.html'), PAGE);
  writeFileSync(path.join(built, '+not-found.html'), UNKNOWN);
  writeFileSync(path.join(built, '_expo', 'static', 'a-1.js'), 'let a = 1;');
  writeFileSync(path.join(built, '_expo', 'static', 'soundWorker-0a1b.js'), 'let b = 1;');
  writeFileSync(
    path.join(built, '_expo', 'static', 'soundWorker-0a1b.js.br'),
    brotliCompressSync('let b = 1;'),
  );
  writeFileSync(path.join(built, '_expo', 'static', 'a-1.js.br'), brotliCompressSync('let a = 1;'));
  server = createApp(built).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
});
afterAll(() => server.close());

/** A raw request, so that nothing tidies up the path on its way. */
const get = (at: string, headers: Record<string, string> = {}) =>
  new Promise<{ status: number; headers: Record<string, unknown>; text: string }>((resolve, reject) => {
    const { port } = server.address() as AddressInfo;
    request({ port, host: '127.0.0.1', path: at, headers }, (response) => {
      let text = '';
      response.on('data', (piece: Buffer) => (text += piece.toString('latin1')));
      response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, text }));
    })
      .on('error', reject)
      .end();
  });

test('serves pages under their names, and says that it is well', async () => {
  expect((await get('/')).text).toBe(PAGE);
  expect((await get('/export')).text).toBe(PAGE);
  expect(JSON.parse((await get('/health')).text)).toEqual({ ok: true });
});

test.each([
  '/../secret.txt',
  '/%2e%2e/secret.txt',
  '/..%2fsecret.txt',
  '/_expo/../../secret.txt',
  '/no',
  '/%00',
])('gives nothing for %s', async (at) => {
  const { status, text } = await get(at);
  expect([400, 403, 404]).toContain(status);
  expect(text).not.toContain('secret');
  expect(text).not.toContain('    at ');
});

test('a person at a wrong address gets the app’s own page; what asks for a file or for data gets a line', async () => {
  const wrong = await get('/no', { accept: 'text/html,*/*' });
  expect([wrong.status, wrong.text]).toEqual([404, UNKNOWN]);
  for (const [at, accept] of [
    ['/no', '*/*'],
    ['/no.js', 'text/html'],
    ['/_expo/static/gone.js', '*/*'],
  ] as const) {
    const { status, text } = await get(at, { accept });
    expect([status, text]).toEqual([404, 'There is nothing here.\n']);
  }
});

test('hashed files are compressed and kept for long; pages are asked for anew', async () => {
  const file = await get('/_expo/static/a-1.js', { 'accept-encoding': 'br' });
  expect(file.headers['content-encoding']).toBe('br');
  expect(file.headers['cache-control']).toContain('immutable');
  expect((await get('/')).headers['cache-control']).toBe('no-cache');
});

test('the policy lets no outside origin in, and of inline scripts only those of the pages', async () => {
  const policy = String((await get('/')).headers['content-security-policy']);
  const [hash] = inlineScripts([PAGE]);
  expect(policy).toContain(`script-src 'self' ${hash}`);
  expect(policy).not.toMatch(/https?:|\*|script-src[^;]*unsafe/);
  expect(inlineScripts([PAGE])).toHaveLength(1);
});

test('only workers that decode audio may compile, compressed or not; no page and no other script may', async () => {
  const policyOf = async (at: string, headers = {}) =>
    String((await get(at, headers)).headers['content-security-policy']);
  for (const headers of [{}, { 'accept-encoding': 'br' }])
    expect(await policyOf('/_expo/static/soundWorker-0a1b.js', headers)).toContain(
      "script-src 'self' 'wasm-unsafe-eval'",
    );
  expect(await policyOf('/_expo/static/a-1.js')).not.toContain('unsafe-eval');
  expect(await policyOf('/soundWorker-0a1b.js')).not.toContain('unsafe-eval');
});

test('a part of a file that is not there is refused in a sentence, without a word of where things lie', async () => {
  const { status, text } = await get('/_expo/static/a-1.js', { Range: 'bytes=1000000-2000000' });
  expect([status, text]).toEqual([416, 'There is no such part of it.\n']);
});

test.each(['evil.example', 'localhost.evil.example', '127.0.0.1.evil.example:4730', '4730'])(
  'a request under the name “%s” is refused',
  async (name) => {
    const { status, text } = await get('/', { Host: name });
    expect([400, 421]).toContain(status);
    expect(text).not.toContain('go()');
  },
);

test.each(['localhost', 'LOCALHOST:80', '127.0.0.1:4730', '[::1]:4730'])(
  'one under its own name “%s” is answered',
  async (name) => expect((await get('/', { Host: name })).status).toBe(200),
);

test('a server that was opened to others answers to any name', async () => {
  const open = createApp(path.join(folder, 'dist'), undefined, true).listen(0, '127.0.0.1');
  await new Promise((resolve) => open.once('listening', resolve));
  const closed = server;
  server = open;
  expect((await get('/', { Host: 'studio.lan' })).text).toBe(PAGE);
  server = closed;
  open.close();
});
