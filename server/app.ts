import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { grooveRoutes, type GrooveFolder } from './grooveFolder';

const INLINE = /<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g;

/** The sources under which a policy lets exactly the inline scripts of the built pages run. */
export const inlineScripts = (pages: string[]): string[] => {
  const found = new Set<string>();
  for (const page of pages)
    for (const [, script] of page.matchAll(INLINE))
      if (script) found.add(`'sha256-${createHash('sha256').update(script).digest('base64')}'`);
  return [...found];
};

/** Workers that decode audio: what does that is WebAssembly, which they may compile. Nothing else may. */
const DECODES = /[\\/](sound|bounce)Worker-\w+\.js(\.br|\.gz)?$/;
const DECODER_POLICY =
  "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; object-src 'none'; base-uri 'none'";

const policy = (scripts: string[]) => ({
  useDefaults: false,
  directives: {
    defaultSrc: ["'self'"],
    scriptSrc: ["'self'", ...scripts],
    // React Native for web writes its style sheet while it runs.
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    fontSrc: ["'self'"],
    connectSrc: ["'self'"],
    // The bundler starts a worker from a blob that only imports the worker's own file.
    workerSrc: ["'self'", 'blob:'],
    objectSrc: ["'none'"],
    baseUri: ["'none'"],
    formAction: ["'none'"],
    frameAncestors: ["'none'"],
  },
});

const pagesOf = (folder: string): string[] =>
  existsSync(folder)
    ? readdirSync(folder)
        .filter((name) => name.endsWith('.html'))
        .map((name) => readFileSync(path.join(folder, name), 'utf8'))
    : [];

/** Files with a hash in their name never change; everything else is asked for anew. */
const caching = (file: string): string =>
  /[\\/]_expo[\\/]static[\\/]|[\\/]assets[\\/]/.test(file)
    ? 'public, max-age=31536000, immutable'
    : /[\\/]fonts[\\/]/.test(file)
      ? 'public, max-age=604800'
      : 'no-cache';

/** By these names the machine itself is reached, whatever is made of names elsewhere. */
const OWN_NAMES = ['localhost', '127.0.0.1', '[::1]'];

const nameOf = (host: string | undefined): string => (host ?? '').replace(/:\d+$/, '').toLowerCase();

/**
 * The server of the built app: its files, compressed beforehand, and `/health`. Any other path is 404.
 *
 * A page of elsewhere may give its own name to this machine and so read what is served here: requests under a name that
 * is not the machine's own are refused, unless it was opened to others on purpose.
 *
 * @param folder where the built app lies
 * @param grooves a folder of grooves, listed under `/api/grooves`
 * @param open whether it was opened to others, and answers to any name
 */
export const createApp = (folder: string, grooves?: GrooveFolder, open = false): Express => {
  const app = express();
  app.disable('x-powered-by');
  app.use((request, response, next) => {
    if (open || OWN_NAMES.includes(nameOf(request.headers.host))) return next();
    response.status(421).type('text/plain').send('This server does not go by that name.\n');
  });
  app.use(
    helmet({
      contentSecurityPolicy: policy(inlineScripts(pagesOf(folder))),
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
      strictTransportSecurity: false,
    }),
  );
  app.get('/health', (_request, response) => {
    response.json({ ok: true });
  });
  if (grooves) app.use('/api/grooves', grooveRoutes(grooves));
  app.use(
    expressStaticGzip(folder, {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: {
        dotfiles: 'ignore',
        extensions: ['html'],
        redirect: false,
        setHeaders: (response, file) => {
          response.setHeader('Cache-Control', caching(file));
          if (DECODES.test(file)) response.setHeader('Content-Security-Policy', DECODER_POLICY);
        },
      },
    }),
  );
  const unknown = path.join(folder, '+not-found.html');
  const page = existsSync(unknown) ? readFileSync(unknown) : null;
  app.use((request, response) => {
    response.status(404);
    // A person who mistyped an address gets the app's own page and its way back.
    const isAsked = request.method === 'GET' && request.headers.accept?.includes('text/html');
    if (page && isAsked && !path.extname(request.path)) return response.type('html').send(page);
    return response.type('text/plain').send('There is nothing here.\n');
  });
  // Never the framework's own page: that one tells where things lie on this machine.
  app.use((fault: { status?: unknown }, _request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) return next(fault);
    const status = typeof fault.status === 'number' && fault.status >= 400 ? fault.status : 500;
    const said =
      status === 416
        ? 'There is no such part of it.'
        : status < 500
          ? 'That cannot be asked for.'
          : 'That went wrong.';
    response.status(status).type('text/plain').send(`${said}\n`);
  });
  return app;
};
