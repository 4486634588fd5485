/* global caches -- what is told here runs in the browser */
/** The service worker of the built app: all of it is kept, so that it opens again without its server. */
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { generateSW } from 'workbox-build';

/** Names that tell their content need no other mark of it; what is asked for by them anew is the same for good. */
const HASHED = /-[0-9a-f]{32}\.(js|css)$|\.[0-9a-f]{32}\.(png|woff2)$/;

/** A name for the build: by it each has a store of its own, and pages of the build before still find what is theirs. */
const buildOf = (folder) => {
  const hash = createHash('sha256');
  for (const name of fs.readdirSync(folder, { recursive: true }).map(String).sort()) {
    const place = path.join(folder, name);
    if (!/^sw(-sums)?\.js$/.test(name) && fs.statSync(place).isFile())
      hash.update(name).update(fs.readFileSync(place));
  }
  return hash.digest('hex').slice(0, 16);
};

const sumOf = (file) => createHash('sha256').update(fs.readFileSync(file)).digest('base64');

/**
 * Writes `sw.js` into a folder that was built. What it takes in is held against the sum of each file, by the browser while it
 * installs and by `sw-parts.js` at each start.
 */
export const writeServiceWorker = async (folder) => {
  const build = buildOf(folder);
  const sums = {};
  const { count, size, warnings } = await generateSW({
    globDirectory: folder,
    globPatterns: ['**/*.{html,js,css,woff2,png,ico,webmanifest,json,wav}'],
    globIgnores: ['sw.js', 'sw-*.js', '**/*.br', '**/*.gz'],
    swDest: path.join(folder, 'sw.js'),
    cacheId: `ruddik-${build}`,
    manifestTransforms: [
      (entries) => ({
        manifest: entries.map((entry) => {
          const sum = sumOf(path.join(folder, entry.url));
          sums[`/${entry.url}`] = sum;
          return { ...entry, integrity: `sha256-${sum}` };
        }),
      }),
    ],
    dontCacheBustURLsMatching: HASHED,
    maximumFileSizeToCacheInBytes: 16 * 1024 * 1024,
    inlineWorkboxRuntime: true,
    sourcemap: false,
    // It waits until it is asked for, or until no page of the build before is open.
    skipWaiting: false,
    clientsClaim: false,
    importScripts: ['/sw-sums.js', '/sw-parts.js'],
    // Every address of the app is answered, whatever is asked for with it; one that leads nowhere by the page that says so.
    ignoreURLParametersMatching: [/./],
    navigateFallback: '/+not-found.html',
    navigateFallbackDenylist: [/^\/(api|share|health)\b/, /\.[a-z0-9]+$/],
    runtimeCaching: [
      {
        // A page of the build before asks for a part of itself.
        urlPattern: ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith('/_expo/static/'),
        handler: async ({ request }) => (await caches.match(request, { ignoreVary: true })) ?? fetch(request),
      },
    ],
  });
  fs.writeFileSync(
    path.join(folder, 'sw-sums.js'),
    `self.BUILD = ${JSON.stringify(build)};\nself.SUMS = ${JSON.stringify(sums)};\n`,
  );
  if (warnings.length) throw new Error(warnings.join('\n'));
  return { count, size };
};
